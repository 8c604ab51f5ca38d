import { BUILTIN_BY_SIGNATURE } from './builtins.ts';
import { conjuncts } from './conjuncts.ts';
import type { ComparisonOperator, Ir } from './ir.ts';

/**
 * What can be said of an expression before anything runs: the numbers it can give, and whether it can
 * hold at all. Errs on the side of saying nothing.
 */

/** The numbers an expression can give; `missing` where it may also give none. */
interface Range {
  low: number;
  high: number;
  missing: boolean;
}

const ANY: Range = { low: -Infinity, high: Infinity, missing: true };

export interface Known {
  /** By index: seconds until it is forgotten (0 for never), entries a list can hold, and bounds of a number. */
  keys: readonly { forgetAfter: number; capacity: number; least: number; greatest: number }[];
  /** Nothing at all has been noticed. */
  unaware?: boolean;
}

/** Built-ins that are 0, or false, while nothing is noticed. */
function isNothingUnaware(signature: string): boolean {
  const { sense, missing } = BUILTIN_BY_SIGNATURE.get(signature) ?? {};
  return (sense === 'sight' || sense === 'attention') && (missing === 0 || missing === false);
}

function rangeOf(ir: Ir, known: Known): Range {
  if (ir.type !== 'number') return ANY;
  switch (ir.op) {
    case 'literal':
      return ir.value - ir.value === 0 ? { low: ir.value, high: ir.value, missing: false } : ANY;
    case 'negate': {
      const { low, high, missing } = rangeOf(ir.a, known);
      return { low: -high, high: -low, missing };
    }
    case 'at':
      return rangeOf(ir.a, known);
    case 'key': {
      const key = known.keys[ir.key];
      return key ? { low: key.least, high: key.greatest, missing: true } : ANY;
    }
    case 'call':
      return rangeOfCall(ir, known);
    case 'arithmetic': {
      const [a, b] = [rangeOf(ir.a, known), rangeOf(ir.b, known)];
      const missing = a.missing || b.missing;
      if (ir.operator === '+') return { low: a.low + b.low, high: a.high + b.high, missing };
      if (ir.operator === '-') return { low: a.low - b.high, high: a.high - b.low, missing };
      return ANY;
    }
    default:
      return ANY;
  }
}

function rangeOfCall(ir: Extract<Ir, { op: 'call' }>, { keys, unaware }: Known): Range {
  if (unaware && isNothingUnaware(ir.name)) return { low: 0, high: 0, missing: false };
  const builtin = BUILTIN_BY_SIGNATURE.get(ir.name);
  if (!builtin?.range) return ANY;
  const [low, high] = builtin.range;
  const missing = builtin.missing !== undefined && builtin.missing !== 0;
  const [first] = ir.args;
  if (ir.name === 'age(key)' && first.op === 'literal') {
    const forgetAfter = keys[first.value]?.forgetAfter ?? 0;
    return { low, high: forgetAfter > 0 ? forgetAfter : high, missing };
  }
  if (builtin.name === 'count' && first.op === 'key') {
    return { low, high: keys[first.key]?.capacity ?? high, missing };
  }
  return { low, high, missing };
}

export type Truth = 'always' | 'never' | 'sometimes';

function compareRanges(operator: ComparisonOperator, a: Range, b: Range): Truth {
  const surely = (always: boolean): Truth =>
    always && !a.missing && !b.missing ? 'always' : 'sometimes';
  switch (operator) {
    case '<':
      return a.low >= b.high ? 'never' : surely(a.high < b.low);
    case '<=':
      return a.low > b.high ? 'never' : surely(a.high <= b.low);
    case '>':
      return compareRanges('<', b, a);
    case '>=':
      return compareRanges('<=', b, a);
    default:
      return 'sometimes';
  }
}

/** Whether a flag always, never or sometimes holds. */
export function truthOf(ir: Ir, known: Known): Truth {
  switch (ir.op) {
    case 'literal':
      if (isUnknown(ir)) return 'sometimes';
      return ir.value === 1 ? 'always' : 'never';
    case 'not': {
      const inner = truthOf(ir.a, known);
      return inner === 'always' ? 'never' : inner === 'never' ? 'always' : 'sometimes';
    }
    case 'and':
    case 'or': {
      const [a, b] = [truthOf(ir.a, known), truthOf(ir.b, known)];
      const decides = ir.op === 'and' ? 'never' : 'always';
      if (a === decides || b === decides) return decides;
      return a === b ? a : 'sometimes';
    }
    case 'at':
      return truthOf(ir.a, known);
    case 'call':
      return known.unaware && isNothingUnaware(ir.name) ? 'never' : 'sometimes';
    case 'compare':
      if (ir.a.type !== 'number') return 'sometimes';
      return compareRanges(ir.operator, rangeOf(ir.a, known), rangeOf(ir.b, known));
    default:
      return 'sometimes';
  }
}

/** The comparison, or other part, of a guard that can never hold, for saying which; null where there is none. */
export function neverPart(ir: Ir, known: Known): Ir | null {
  if (ir.op === 'and') return neverPart(ir.a, known) ?? neverPart(ir.b, known);
  return truthOf(ir, known) === 'never' ? ir : null;
}

/** Whether two expressions say the same, wherever they stand. */
export function sameExpression(a: Ir, b: Ir): boolean {
  const text = (ir: Ir) =>
    JSON.stringify(ir, (key, value: unknown) => (key === 'at' ? undefined : value));
  return text(a) === text(b);
}

/** A comparison with a fixed number on its right. */
function bound(ir: Ir): { of: Ir; operator: ComparisonOperator; value: number } | null {
  if (ir.op !== 'compare' || ir.b.op !== 'literal' || ir.a.type !== 'number') return null;
  return { of: ir.a, operator: ir.operator, value: ir.b.value };
}

/** A guard that is wrong, of which nothing is known. */
function isUnknown(ir: Ir): boolean {
  return ir.op === 'literal' && ir.value - ir.value !== 0;
}

function partImplies(strong: Ir, weak: Ir): boolean {
  if (isUnknown(strong) || isUnknown(weak)) return false;
  if (sameExpression(strong, weak)) return true;
  const [a, b] = [bound(strong), bound(weak)];
  if (!a || !b || !sameExpression(a.of, b.of)) return false;
  const upward = (operator: string) => operator === '>' || operator === '>=';
  const downward = (operator: string) => operator === '<' || operator === '<=';
  if (upward(a.operator) && upward(b.operator))
    return (
      a.value > b.value || (a.value === b.value && (a.operator === '>' || b.operator === '>='))
    );
  if (downward(a.operator) && downward(b.operator))
    return (
      a.value < b.value || (a.value === b.value && (a.operator === '<' || b.operator === '<='))
    );
  return false;
}

/** Whether `weak` holds whenever `strong` does. A guard that is not there always holds. */
export function implies(strong: Ir | null, weak: Ir | null): boolean {
  if (weak === null) return true;
  if (strong === null) return false;
  const given = conjuncts(strong);
  return conjuncts(weak).every((part) => given.some((known) => partImplies(known, part)));
}
