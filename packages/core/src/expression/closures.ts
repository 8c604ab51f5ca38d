import { BUILTIN_BY_SIGNATURE, type Builtin } from './builtins.ts';
import type { Facts } from './facts.ts';
import { KEY_SCOPES } from './list-builtins.ts';
import { boundOf, fusedChain, fusedComparison, fusedFlag, fusedNumber } from './fused.ts';
import type { Ir, KeyScope } from './ir.ts';

/**
 * Turns a checked expression into closures. Nothing is allocated when they run.
 *
 * Missing values: a missing number is NaN inside. Arithmetic with it gives a missing number; so does
 * any arithmetic without a finite result, such as a division by zero. Every comparison with a missing
 * value is false, `!=` too.
 */

export type NumberFunction = (facts: Facts) => number;
export type FlagFunction = (facts: Facts) => boolean;
export interface PointFunction {
  x: NumberFunction;
  y: NumberFunction;
}

function builtinOf(name: string): Builtin {
  const builtin = BUILTIN_BY_SIGNATURE.get(name);
  if (!builtin) throw new Error(`The program calls “${name}”, which this version does not have.`);
  return builtin;
}

function finite(value: number): number {
  return value - value === 0 ? value : NaN;
}

/** The arguments as number closures; a point gives two, and so does a list: whose memory it is in, and its slot. */
function argumentClosures(args: Ir[]): NumberFunction[] {
  return args.flatMap((arg) => {
    if (arg.op === 'key' && arg.type.startsWith('list')) {
      const [scope, { slot }] = [KEY_SCOPES.indexOf(arg.scope), arg];
      return [() => scope, () => slot];
    }
    if (arg.type !== 'point') return [compileNumber(arg)];
    const { x, y } = compilePoint(arg);
    return [x, y];
  });
}

/** Reads one cell of memory. */
function compileSlot(scope: KeyScope, slot: number): NumberFunction {
  if (scope === 'squad') return (f) => f.squadMemory[slot];
  if (scope === 'world') return (f) => f.worldMemory[slot];
  return (f) => f.memory[slot];
}

type Raw<T> = (facts: Facts, ...args: number[]) => T;

function bindArguments<T>(call: Raw<T>, args: NumberFunction[]): (facts: Facts) => T {
  const [a, b, c] = args;
  switch (args.length) {
    case 0:
      return call as (facts: Facts) => T;
    case 1:
      return (facts) => call(facts, a(facts));
    case 2:
      return (facts) => call(facts, a(facts), b(facts));
    case 3:
      return (facts) => call(facts, a(facts), b(facts), c(facts));
    case 5: {
      const [, , , d, e] = args;
      return (facts) => call(facts, a(facts), b(facts), c(facts), d(facts), e(facts));
    }
    default:
      return (facts) => call(facts, ...args.map((arg) => arg(facts)));
  }
}

/** Asks as if the body stood elsewhere; with a place that is nothing, as where it stands. */
function elsewhere<T>(
  { place }: Extract<Ir, { op: 'at' }>,
  asked: (facts: Facts) => T,
): (facts: Facts) => T {
  const { x, y } = compilePoint(place);
  return (facts) => {
    const [px, py] = [x(facts), y(facts)];
    return asked(px - px === 0 && py - py === 0 ? facts.at(px, py) : facts);
  };
}

function compileArithmetic(ir: Extract<Ir, { op: 'arithmetic' }>): NumberFunction {
  const a = compileNumber(ir.a);
  if (ir.b.op === 'literal') {
    const { value } = ir.b;
    if (ir.operator === '+') return (f) => finite(a(f) + value);
    if (ir.operator === '-') return (f) => finite(a(f) - value);
    if (ir.operator === '*') return (f) => finite(a(f) * value);
    if (ir.operator === '/') return (f) => finite(a(f) / value);
    return (f) => finite(a(f) % value);
  }
  const b = compileNumber(ir.b);
  switch (ir.operator) {
    case '+':
      return (f) => finite(a(f) + b(f));
    case '-':
      return (f) => finite(a(f) - b(f));
    case '*':
      return (f) => finite(a(f) * b(f));
    case '/':
      return (f) => finite(a(f) / b(f));
    default:
      return (f) => finite(a(f) % b(f));
  }
}

/** Numbers, agents (index or −1), routes and texts (index). */
export function compileNumber(ir: Ir): NumberFunction {
  const whole = fusedNumber(ir);
  if (whole) return whole;
  switch (ir.op) {
    case 'literal': {
      const { value } = ir;
      return () => value;
    }
    case 'key':
      return compileSlot(ir.scope, ir.slot);
    case 'call': {
      const { read, fold } = builtinOf(ir.name);
      if (fold) {
        return argumentClosures(ir.args).reduce((a, b) => (facts) => fold(a(facts), b(facts)));
      }
      if (!read) break;
      return bindArguments(read, argumentClosures(ir.args));
    }
    case 'negate': {
      const a = compileNumber(ir.a);
      return (f) => -a(f);
    }
    case 'arithmetic':
      return compileArithmetic(ir);
    case 'at':
      return elsewhere(ir, compileNumber(ir.a));
    case 'if': {
      const test = compileFlag(ir.test);
      const a = compileNumber(ir.a);
      const b = compileNumber(ir.b);
      return (f) => (test(f) ? a(f) : b(f));
    }
    default:
      break;
  }
  if (ir.type === 'flag') {
    const flag = compileFlag(ir);
    return (f) => (flag(f) ? 1 : 0);
  }
  throw new Error(`A ${ir.op} of type ${ir.type} has no number.`);
}

function compileComparison(ir: Extract<Ir, { op: 'compare' }>): FlagFunction {
  const whole = fusedComparison(ir);
  if (whole) return whole;
  const a = compileNumber(ir.a);
  if (ir.b.op === 'literal' && ir.b.type === 'number') {
    const bound = boundOf(ir.operator, ir.b.value);
    if (bound) {
      const { sign, limit } = bound;
      return (f) => sign * a(f) < limit;
    }
  }
  const b = compileNumber(ir.b);
  // Agents, routes and texts are −1 where missing; numbers are NaN, which no comparison holds for.
  const reference = ir.a.type !== 'number' && ir.a.type !== 'flag';
  switch (ir.operator) {
    case '<':
      return (f) => a(f) < b(f);
    case '<=':
      return (f) => a(f) <= b(f);
    case '>':
      return (f) => a(f) > b(f);
    case '>=':
      return (f) => a(f) >= b(f);
    case '==':
      if (reference) {
        return (f) => {
          const left = a(f);
          return left >= 0 && left === b(f);
        };
      }
      return (f) => a(f) === b(f);
    default:
      return (f) => {
        const left = a(f);
        const right = b(f);
        if (reference && (left < 0 || right < 0)) return false;
        return left !== right && !Number.isNaN(left - right);
      };
  }
}

/** All parts of a chain of `&&` or `||`, from left to right. */
function chain(ir: Ir, op: 'and' | 'or'): Ir[] {
  return ir.op === op ? [...chain(ir.a, op), ...chain(ir.b, op)] : [ir];
}

function compileAnd(irs: readonly Ir[]): FlagFunction {
  if (irs.length === 1) return compileFlag(irs[0]);
  const whole = fusedChain(irs, compileAnd);
  if (whole) return whole;
  const parts = irs.map(compileFlag);
  const [a, b, c] = parts;
  if (parts.length === 2) return (f) => a(f) && b(f);
  if (parts.length === 3) return (f) => a(f) && b(f) && c(f);
  return (f) => parts.every((part) => part(f));
}

function compileOr(irs: readonly Ir[]): FlagFunction {
  const parts = irs.map(compileFlag);
  const [a, b, c] = parts;
  if (parts.length === 2) return (f) => a(f) || b(f);
  if (parts.length === 3) return (f) => a(f) || b(f) || c(f);
  return (f) => parts.some((part) => part(f));
}

export function compileFlag(ir: Ir): FlagFunction {
  const whole = fusedFlag(ir, true);
  if (whole) return whole;
  switch (ir.op) {
    case 'compare':
      return compileComparison(ir);
    case 'and':
      return compileAnd(chain(ir, 'and'));
    case 'or':
      return compileOr(chain(ir, 'or'));
    case 'not': {
      const opposite = fusedFlag(ir.a, false);
      if (opposite) return opposite;
      const a = compileFlag(ir.a);
      return (f) => !a(f);
    }
    case 'call': {
      const { test } = builtinOf(ir.name);
      if (test) return bindArguments(test, argumentClosures(ir.args));
      break;
    }
    case 'key': {
      const cell = compileSlot(ir.scope, ir.slot);
      return (f) => cell(f) === 1;
    }
    case 'literal': {
      const value = ir.value === 1;
      return () => value;
    }
    case 'at':
      return elsewhere(ir, compileFlag(ir.a));
    case 'if': {
      const test = compileFlag(ir.test);
      const a = compileFlag(ir.a);
      const b = compileFlag(ir.b);
      return (f) => (test(f) ? a(f) : b(f));
    }
    default:
      break;
  }
  throw new Error(`A ${ir.op} of type ${ir.type} is not true or false.`);
}

export function compilePoint(ir: Ir): PointFunction {
  switch (ir.op) {
    case 'key':
      return { x: compileSlot(ir.scope, ir.slot), y: compileSlot(ir.scope, ir.slot + 1) };
    case 'call': {
      const { x, y } = builtinOf(ir.name);
      if (!x || !y) break;
      const args = argumentClosures(ir.args);
      return { x: bindArguments(x, args), y: bindArguments(y, args) };
    }
    case 'at': {
      const a = compilePoint(ir.a);
      return { x: elsewhere(ir, a.x), y: elsewhere(ir, a.y) };
    }
    case 'if': {
      const test = compileFlag(ir.test);
      const a = compilePoint(ir.a);
      const b = compilePoint(ir.b);
      return { x: (f) => (test(f) ? a.x(f) : b.x(f)), y: (f) => (test(f) ? a.y(f) : b.y(f)) };
    }
    default:
      break;
  }
  throw new Error(`A ${ir.op} of type ${ir.type} is not a point.`);
}
