import { compileFlag, compileNumber, compilePoint } from './closures.ts';
import type { Facts } from './facts.ts';
import { partsOf as allParts, type CheckedExpression, type Ir, type Span } from './ir.ts';

/** What the numbers behind agents, texts and what is on the ground are called. */
export interface NameTables {
  agents: readonly { title: string }[];
  texts: readonly string[];
  routes: readonly { title: string }[];
  things: readonly { title: string }[];
  gates: readonly { title: string }[];
  zones: readonly { title: string }[];
}

interface Part {
  at: Span;
  type: Ir['type'];
  read(facts: Facts, names: NameTables): string;
}

const NOTHING = 'nothing';

/** A number for people: at most two decimals, fewer where they are zeros. */
export function figure(value: number): string {
  if (value - value !== 0) return NOTHING;
  return String(Number(value.toFixed(2)));
}

function named(list: readonly { title: string }[], index: number): string {
  return list[index]?.title ?? NOTHING;
}

function partOf(ir: Ir): Part {
  if (ir.type === 'flag') {
    const flag = compileFlag(ir);
    return { at: ir.at, type: ir.type, read: (facts) => String(flag(facts)) };
  }
  if (ir.type === 'point') {
    const { x, y } = compilePoint(ir);
    return {
      at: ir.at,
      type: ir.type,
      read(facts) {
        const px = x(facts);
        return px - px === 0 ? `(${figure(px)}, ${figure(y(facts))})` : NOTHING;
      },
    };
  }
  if (ir.type.startsWith('list')) return { at: ir.at, type: ir.type, read: () => ir.type };
  const number = compileNumber(ir);
  const { type } = ir;
  return {
    at: ir.at,
    type,
    read(facts, names) {
      const value = number(facts);
      if (type === 'agent') return named(names.agents, value);
      if (type === 'route') return named(names.routes, value);
      if (type === 'thing') return named(names.things, value);
      if (type === 'gate') return named(names.gates, value);
      if (type === 'zone') return named(names.zones, value);
      if (type === 'text') return names.texts[value] ?? NOTHING;
      return figure(value);
    },
  };
}

/** Whether it stands in the source as one name that means all of it: a parameter. */
function isOneWord(ir: Ir): boolean {
  const inner = ir.op === 'compare' || ir.op === 'and' || ir.op === 'or' || ir.op === 'not';
  return inner && ir.a.at[0] === ir.at[0] && ir.a.at[1] === ir.at[1];
}

/** The parts worth showing: both sides of comparisons, and flags that stand alone; literals say themselves. */
function collect(ir: Ir, parts: Part[]): void {
  if (isOneWord(ir)) {
    parts.push(partOf(ir));
    return;
  }
  switch (ir.op) {
    case 'compare':
      if (ir.a.op !== 'literal') parts.push(partOf(ir.a));
      if (ir.b.op !== 'literal') parts.push(partOf(ir.b));
      return;
    case 'and':
    case 'or':
      collect(ir.a, parts);
      collect(ir.b, parts);
      return;
    case 'not':
      collect(ir.a, parts);
      return;
    case 'literal':
      return;
    default:
      parts.push(partOf(ir));
  }
}

const partsOf = new WeakMap<CheckedExpression, Part[]>();

function parts(expression: CheckedExpression): Part[] {
  let known = partsOf.get(expression);
  if (!known) {
    known = [];
    collect(expression.ir, known);
    partsOf.set(expression, known);
  }
  return known;
}

/** A part of an expression, by where it stands in the source, with its value now. */
export interface PartValue {
  at: Span;
  value: string;
}

/** Every part of the expression that is wanted and no literal with its value now, the whole first. */
export function readAllParts(
  ir: Ir,
  facts: Facts,
  names: NameTables,
  isWanted: (at: Span) => boolean,
): PartValue[] {
  return allParts(ir)
    .filter(({ op, at }) => op !== 'literal' && isWanted(at))
    .map(partOf)
    .map(({ at, read }) => ({ at, value: read(facts, names) }));
}

/** Each telling part of the expression with its value now. */
export function readParts(
  expression: CheckedExpression,
  facts: Facts,
  names: NameTables,
): { part: string; value: string }[] {
  return parts(expression).map((part) => ({
    part: expression.source.slice(...part.at),
    value: part.read(facts, names),
  }));
}

/** The telling parts of the expression that are numbers. */
export function numberParts(expression: CheckedExpression): Set<string> {
  return new Set(
    parts(expression)
      .filter(({ type }) => type === 'number')
      .map(({ at }) => expression.source.slice(...at)),
  );
}

/** The expression with its telling parts replaced by their values: `4.8 < 1.6`. */
export function readText(expression: CheckedExpression, facts: Facts, names: NameTables): string {
  let text = '';
  let from = 0;
  for (const part of parts(expression)) {
    text += expression.source.slice(from, part.at[0]) + part.read(facts, names);
    from = part.at[1];
  }
  return text + expression.source.slice(from);
}
