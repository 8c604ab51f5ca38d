import type { Facts } from './facts.ts';
import type { ComparisonOperator, Ir } from './ir.ts';

/**
 * The shapes guards are mostly made of, each as one closure written out: what is asked of an agent in
 * memory or in attention, and how that compares with a fixed number. A closure that calls closures which
 * could be any of many costs several times the work inside, and guards are looked at every tick.
 *
 * What these give must be what the table of built-ins gives; a test holds the two side by side.
 */

type NumberFunction = (facts: Facts) => number;
type FlagFunction = (facts: Facts) => boolean;

/**
 * A comparison with a fixed number as `sign * value < limit`, one form for all four, so that nothing is
 * left to choose when it is looked at. Exact: the sign changes no digit, and “at most v” is “below the
 * next number after v”. A missing number (NaN) is below nothing.
 */
export interface Bound {
  sign: 1 | -1;
  limit: number;
}

const word = new Float64Array(1);
const bits = new BigInt64Array(word.buffer);

/** The next number after a finite one. */
function nextUp(value: number): number {
  if (value === 0) return Number.MIN_VALUE;
  word[0] = value;
  bits[0] += value > 0 ? 1n : -1n;
  return word[0];
}

/** Null for equality, which has no such form. */
export function boundOf(operator: ComparisonOperator, value: number): Bound | null {
  switch (operator) {
    case '<':
      return { sign: 1, limit: value };
    case '<=':
      return { sign: 1, limit: nextUp(value) };
    case '>':
      return { sign: -1, limit: -value };
    case '>=':
      return { sign: -1, limit: nextUp(-value) };
    default:
      return null;
  }
}

function distanceTo(f: Facts, agent: number): number {
  const dx = f.known.x(agent) - f.here.x;
  const dy = f.known.y(agent) - f.here.y;
  return Math.sqrt(dx * dx + dy * dy);
}

function distanceToPost(f: Facts): number {
  const dx = f.self.postX - f.here.x;
  const dy = f.self.postY - f.here.y;
  return Math.sqrt(dx * dx + dy * dy);
}

function speed(f: Facts): number {
  return Math.sqrt(f.self.vx * f.self.vx + f.self.vy * f.self.vy);
}

interface FusedNumber {
  read: NumberFunction;
  compare(sign: number, limit: number): FlagFunction;
}

/** By signature: of an agent in the own memory's cell. */
const OF_KEY: Record<string, (slot: number) => FusedNumber> = {
  'awareness(agent)': (slot) => ({
    read: (f) => f.known.awareness(f.memory[slot]),
    compare: (sign, limit) => (f) => sign * f.known.awareness(f.memory[slot]) < limit,
  }),
  'distance(agent)': (slot) => ({
    read: (f) => distanceTo(f, f.memory[slot]),
    compare: (sign, limit) => (f) => sign * distanceTo(f, f.memory[slot]) < limit,
  }),
};

const OF_ATTENTION: Record<string, FusedNumber> = {
  'awareness(agent)': {
    read: (f) => f.known.awareness(f.known.attentionOf),
    compare: (sign, limit) => (f) => sign * f.known.awareness(f.known.attentionOf) < limit,
  },
  'distance(agent)': {
    read: (f) => distanceTo(f, f.known.attentionOf),
    compare: (sign, limit) => (f) => sign * distanceTo(f, f.known.attentionOf) < limit,
  },
};

/** Of a memory key's age, and of what takes no argument. */
const AGE = (key: number): FusedNumber => ({
  read: (f) => f.known.keyAge(key),
  compare: (sign, limit) => (f) => sign * f.known.keyAge(key) < limit,
});

const PLAIN: Record<string, FusedNumber> = {
  time: {
    read: (f) => f.around.seconds(),
    compare: (sign, limit) => (f) => sign * f.around.seconds() < limit,
  },
  'self.speed': {
    read: speed,
    compare: (sign, limit) => (f) => sign * speed(f) < limit,
  },
  'attention.strength': {
    read: (f) => f.known.attentionStrength,
    compare: (sign, limit) => (f) => sign * f.known.attentionStrength < limit,
  },
};

const POST: FusedNumber = {
  read: distanceToPost,
  compare: (sign, limit) => (f) => sign * distanceToPost(f) < limit,
};

/** A flag, or its opposite; and with `rest`, both. */
const FLAG_OF_KEY: Record<
  string,
  (slot: number, wanted: boolean, rest: FlagFunction | null) => FlagFunction
> = {
  'sees(agent)': (slot, wanted, rest) =>
    rest
      ? (f) => f.here.sees(f.memory[slot]) === wanted && rest(f)
      : (f) => f.here.sees(f.memory[slot]) === wanted,
  'known(agent)': (slot, wanted, rest) =>
    rest ? (f) => f.memory[slot] >= 0 === wanted && rest(f) : (f) => f.memory[slot] >= 0 === wanted,
};

const FLAG_OF_ATTENTION: Record<string, (wanted: boolean) => FlagFunction> = {
  'sees(agent)': (wanted) => (f) => f.here.sees(f.known.attentionOf) === wanted,
  'known(agent)': (wanted) => (f) => f.known.attentionOf >= 0 === wanted,
};

function ownSlot(ir: Ir | undefined): number {
  return ir?.op === 'key' && ir.scope === 'self' ? ir.slot : -1;
}

function isAttention(ir: Ir | undefined): boolean {
  return ir?.op === 'call' && ir.name === 'attention.of';
}

function fused(ir: Ir): FusedNumber | undefined {
  if (ir.op === 'key' && ir.scope === 'self' && ir.type === 'number') {
    const { slot } = ir;
    return {
      read: (f) => f.memory[slot],
      compare: (sign, limit) => (f) => sign * f.memory[slot] < limit,
    };
  }
  if (ir.op !== 'call') return undefined;
  const [first] = ir.args;
  if (ir.name === 'age(key)' && first.op === 'literal') return AGE(first.value);
  if (first === undefined) return PLAIN[ir.name];
  if (ir.args.length > 1) return undefined;
  if (ir.name === 'distance(point)')
    return first.op === 'call' && first.name === 'self.post' ? POST : undefined;
  const slot = ownSlot(first);
  if (slot >= 0) return OF_KEY[ir.name]?.(slot);
  return isAttention(first) ? OF_ATTENTION[ir.name] : undefined;
}

/** One closure for the number, where its shape is among those written out. */
export function fusedNumber(ir: Ir): NumberFunction | undefined {
  return fused(ir)?.read;
}

/** One closure for a comparison of such a number with a literal. */
export function fusedComparison(ir: Extract<Ir, { op: 'compare' }>): FlagFunction | undefined {
  if (ir.a.type !== 'number' || ir.b.op !== 'literal') return undefined;
  const bound = boundOf(ir.operator, ir.b.value);
  return bound ? fused(ir.a)?.compare(bound.sign, bound.limit) : undefined;
}

/** What asks a flag of an agent in the own memory, and whether it asks for the opposite. */
function flagOfKey(ir: Ir): { name: string; slot: number; wanted: boolean } | null {
  const wanted = ir.op !== 'not';
  const asked = ir.op === 'not' ? ir.a : ir;
  if (asked.op !== 'call' || asked.args.length !== 1) return null;
  const slot = ownSlot(asked.args[0]);
  return slot >= 0 && asked.name in FLAG_OF_KEY ? { name: asked.name, slot, wanted } : null;
}

/** One closure for a flag, or (with `wanted` false) for its opposite. */
export function fusedFlag(ir: Ir, wanted: boolean): FlagFunction | undefined {
  if (ir.op === 'key' && ir.scope === 'self') {
    const { slot } = ir;
    return (f) => (f.memory[slot] === 1) === wanted;
  }
  const ofKey = flagOfKey(ir);
  if (ofKey && ir.op === 'call') return FLAG_OF_KEY[ofKey.name](ofKey.slot, wanted, null);
  if (ir.op !== 'call' || ir.args.length !== 1) return undefined;
  return isAttention(ir.args[0]) ? FLAG_OF_ATTENTION[ir.name]?.(wanted) : undefined;
}

/**
 * A chain of `&&` with one part of it, a flag of an agent in memory, looked at first and without a call.
 * The order is free: nothing an expression asks changes anything.
 */
export function fusedChain(
  parts: readonly Ir[],
  chained: (rest: readonly Ir[]) => FlagFunction,
): FlagFunction | undefined {
  for (const part of parts) {
    const ofKey = flagOfKey(part);
    if (!ofKey) continue;
    const rest = chained(parts.filter((other) => other !== part));
    return FLAG_OF_KEY[ofKey.name](ofKey.slot, ofKey.wanted, rest);
  }
  return undefined;
}
