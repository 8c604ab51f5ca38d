import { SENSE_KINDS } from '../terms/senses.ts';
import { BUILTIN_BY_SIGNATURE, type Builtin } from './builtins.ts';
import { compileFlag, compileNumber, compilePoint } from './closures.ts';
import { conjuncts } from './conjuncts.ts';
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

/** Works something out once for each expression. */
function once<T>(
  workOut: (expression: CheckedExpression) => T,
): (expression: CheckedExpression) => T {
  const known = new WeakMap<CheckedExpression, T>();
  return (expression) => {
    let result = known.get(expression);
    if (result === undefined) {
      result = workOut(expression);
      known.set(expression, result);
    }
    return result;
  };
}

const parts = once(({ ir }) => {
  const collected: Part[] = [];
  collect(ir, collected);
  return collected;
});

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

/** The expression with its telling parts replaced by their values, and where a place of the source is in that text. */
function withValues(
  expression: CheckedExpression,
  facts: Facts,
  names: NameTables,
): { text: string; placeOf(at: number): number } {
  const { source } = expression;
  let text = '';
  let from = 0;
  /** By part: where it ends in the source, and by how much the text is longer by then. */
  const longer: [end: number, by: number][] = [];
  for (const part of parts(expression)) {
    text += source.slice(from, part.at[0]) + part.read(facts, names);
    from = part.at[1];
    longer.push([from, text.length - from]);
  }
  return {
    text: text + source.slice(from),
    placeOf: (at) => at + (longer.findLast(([end]) => end <= at)?.[1] ?? 0),
  };
}

/** The expression with its telling parts replaced by their values: `4.8 < 1.6`. */
export function readText(expression: CheckedExpression, facts: Facts, names: NameTables): string {
  return withValues(expression, facts, names).text;
}

/** That a sense, or any of them, has brought nothing, in words. */
function nothingOf(sense: NonNullable<Builtin['sense']>): string {
  return sense === 'attention' ? 'notices nobody' : SENSE_KINDS[sense].nothing;
}

/** A value that a sense brings. */
interface Brought {
  /** Its text where the sense has brought nothing. */
  missing: string;
  /** The same in words. */
  words: string;
  read: Part['read'];
}

function broughtIn(ir: Ir): Brought[] {
  return allParts(ir).flatMap((part) => {
    if (part.op !== 'call' || part.args.length > 0) return [];
    const { sense, missing } = BUILTIN_BY_SIGNATURE.get(part.name) ?? {};
    if (sense === undefined || missing === undefined) return [];
    const text = missing === null ? NOTHING : String(missing);
    return [{ missing: text, words: nothingOf(sense), read: partOf(part).read }];
  });
}

/** The conditions of a flag, all of which must hold. */
const conditions = once(({ ir }) =>
  conjuncts(ir).map((part) => ({
    at: part.at,
    holds: compileFlag(part),
    brought: broughtIn(part),
  })),
);

export interface FlagReadout {
  holds: boolean;
  /** The expression with values in place of names. */
  text: string;
  /** Where in the text the conditions stand that fail, of several that must all hold. */
  failing: Span[];
  /** What the conditions that fail lack, in words: “notices nobody”. */
  lacks: string[];
}

/** Whether an expression holds, and where it does not, what of it fails. */
export function readFlag(
  expression: CheckedExpression,
  facts: Facts,
  names: NameTables,
): FlagReadout {
  const { text, placeOf } = withValues(expression, facts, names);
  const all = conditions(expression);
  const failing = all.filter(({ holds }) => !holds(facts));
  const lacks = failing.flatMap(({ brought }) =>
    brought.filter(({ missing, read }) => read(facts, names) === missing),
  );
  return {
    holds: failing.length === 0,
    text,
    failing: all.length === 1 ? [] : failing.map(({ at }) => [placeOf(at[0]), placeOf(at[1])]),
    lacks: [...new Set(lacks.map(({ words }) => words))],
  };
}
