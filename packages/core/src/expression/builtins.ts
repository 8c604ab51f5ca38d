import { atan2, degrees, wrapAngle } from '../numeric/trigonometry.ts';
import type { Facts } from './facts.ts';
import type { KeyScope, ValueType } from './ir.ts';

/**
 * Everything an expression can name besides memory keys, in one table: the checker, the completion
 * list and the reference read it, and the runtime takes the functions from it.
 *
 * A point argument comes as two numbers, x then y. A function that gives a point gives `x` and `y`
 * apart. `key` marks a parameter that takes the name of a memory key instead of a value.
 */

export type ParameterType = ValueType | 'key';

export interface Builtin {
  name: string;
  /** Undefined for a plain value, which is written without brackets. */
  parameters?: { name: string; type: ParameterType; unit?: string }[];
  /** At least this many arguments of the last parameter's type, any number more. */
  variadic?: boolean;
  result: ValueType;
  /** `same`: the unit of the first argument, which the others must share. */
  unit?: 'm' | 's' | 'm/s' | 'deg' | 'same';
  about: string;
  /** What it gives where something is missing; left out where nothing ever is. */
  missing?: string;
  /** The smallest and largest number it gives. */
  range?: readonly [number, number];
  read?: (facts: Facts, ...args: number[]) => number;
  /** For a variadic one: taken pair by pair. */
  fold?: (a: number, b: number) => number;
  test?: (facts: Facts, ...args: number[]) => boolean;
  x?: (facts: Facts, ...args: number[]) => number;
  y?: (facts: Facts, ...args: number[]) => number;
}

function length(x: number, y: number): number {
  return Math.sqrt(x * x + y * y);
}

function bearing(facts: Facts, x: number, y: number): number {
  if (Number.isNaN(x) || Number.isNaN(y)) return NaN;
  return degrees(wrapAngle(atan2(y - facts.y, x - facts.x) - facts.heading));
}

export const KEY_SCOPES: readonly KeyScope[] = ['self', 'squad', 'world'];

function cellsOf(facts: Facts, scope: number): Float64Array {
  return scope === 0 ? facts.memory : scope === 1 ? facts.squadMemory : facts.worldMemory;
}

/** Place, among a list's entries, of the point nearest to (x, y); −1 for an empty list. */
function nearestEntry(cells: Float64Array, slot: number, x: number, y: number): number {
  let best = -1;
  let bestSquare = Infinity;
  for (let i = 0; i < cells[slot]; i++) {
    const dx = cells[slot + 1 + 2 * i] - x;
    const dy = cells[slot + 2 + 2 * i] - y;
    const square = dx * dx + dy * dy;
    if (square < bestSquare) {
      best = i;
      bestSquare = square;
    }
  }
  return best;
}

/** One coordinate (0 for x, 1 for y) of the entry of a list of points nearest to (x, y). */
function nearestPart(
  facts: Facts,
  part: 0 | 1,
  scope: number,
  slot: number,
  x: number,
  y: number,
): number {
  const cells = cellsOf(facts, scope);
  const entry = nearestEntry(cells, slot, x, y);
  return entry < 0 ? NaN : cells[slot + 1 + 2 * entry + part];
}

/** One coordinate of the last entry of a list of points: 1 for x, 0 for y, counted from its end. */
function lastPart(facts: Facts, part: 0 | 1, scope: number, slot: number): number {
  const cells = cellsOf(facts, scope);
  return cells[slot] > 0 ? cells[slot + 2 * cells[slot] - part] : NaN;
}

function hasEntry(facts: Facts, scope: number, slot: number, value: number): boolean {
  const cells = cellsOf(facts, scope);
  for (let i = 1; i <= cells[slot]; i++) if (cells[slot + i] === value) return true;
  return false;
}

function countOf(type: ValueType): Builtin {
  return {
    name: 'count',
    parameters: [{ name: 'list', type }],
    result: 'number',
    range: [0, Infinity],
    about: 'how many entries the list has',
    read: (f, scope, slot) => cellsOf(f, scope)[slot],
  };
}

/** The built-ins for lists whose entries take one number each. */
function listBuiltins(entry: 'number' | 'text' | 'agent'): Builtin[] {
  const list = { name: 'list', type: `list of ${entry}` } as const;
  const missing = entry === 'number' ? NaN : -1;
  return [
    countOf(list.type),
    {
      name: 'has',
      parameters: [list, { name: entry, type: entry }],
      result: 'flag',
      about: `whether the list has the ${entry} among its entries`,
      test: hasEntry,
    },
    {
      name: 'last',
      parameters: [list],
      result: entry,
      about: 'the entry added last',
      missing: 'nothing',
      read: (f, scope, slot) => {
        const cells = cellsOf(f, scope);
        return cells[slot] > 0 ? cells[slot + cells[slot]] : missing;
      },
    },
  ];
}

const agent = { name: 'agent', type: 'agent' } as const;
const point = { name: 'point', type: 'point' } as const;
const points = { name: 'list', type: 'list of point' } as const;

export const BUILTINS: readonly Builtin[] = [
  {
    name: 'time',
    result: 'number',
    range: [0, Infinity],
    unit: 's',
    about: 'seconds since the run began',
    read: (f) => f.seconds(),
  },
  {
    name: 'self.place',
    result: 'point',
    about: 'where this body is',
    x: (f) => f.x,
    y: (f) => f.y,
  },
  {
    name: 'self.post',
    result: 'point',
    about: 'where this body was placed',
    x: (f) => f.postX,
    y: (f) => f.postY,
  },
  {
    name: 'self.route',
    result: 'route',
    about: 'the route this agent was given',
    missing: 'no route',
    read: (f) => f.route,
  },
  {
    name: 'self.speed',
    result: 'number',
    range: [0, Infinity],
    unit: 'm/s',
    about: 'how fast this body moves',
    read: (f) => length(f.vx, f.vy),
  },
  {
    name: 'self.heading',
    result: 'number',
    range: [-180, 180],
    unit: 'deg',
    about: 'where this body faces, clockwise from +x, −180 to 180',
    read: (f) => degrees(f.heading),
  },
  {
    name: 'attention.of',
    result: 'agent',
    about: 'the agent the strongest percept is of',
    missing: 'no agent',
    read: (f) => f.attentionOf,
  },
  {
    name: 'attention.place',
    result: 'point',
    about: 'where the strongest percept places it',
    missing: 'nothing',
    x: (f) => f.attentionX,
    y: (f) => f.attentionY,
  },
  {
    name: 'attention.strength',
    result: 'number',
    range: [0, 1],
    about: 'awareness of the strongest percept, 0 to 1',
    missing: '0',
    read: (f) => f.attentionStrength,
  },
  {
    name: 'sees',
    parameters: [agent],
    result: 'flag',
    about: 'whether the agent is in sight now',
    missing: 'false',
    test: (f, a) => f.sees(a),
  },
  {
    name: 'awareness',
    parameters: [agent],
    result: 'number',
    range: [0, 1],
    about: 'how sure the senses are of the agent, 0 to 1',
    missing: '0',
    read: (f, a) => f.awareness(a),
  },
  {
    name: 'lastSeen',
    parameters: [agent],
    result: 'point',
    about: 'the last known place of the agent',
    missing: 'nothing',
    x: (f, a) => f.knownX(a),
    y: (f, a) => f.knownY(a),
  },
  {
    name: 'distance',
    parameters: [agent],
    result: 'number',
    range: [0, Infinity],
    unit: 'm',
    about: 'metres to the last known place of the agent',
    missing: 'nothing',
    read: (f, a) => length(f.knownX(a) - f.x, f.knownY(a) - f.y),
  },
  {
    name: 'distance',
    parameters: [point],
    result: 'number',
    range: [0, Infinity],
    unit: 'm',
    about: 'metres to the point',
    missing: 'nothing',
    read: (f, x, y) => length(x - f.x, y - f.y),
  },
  {
    name: 'bearing',
    parameters: [agent],
    result: 'number',
    range: [-180, 180],
    unit: 'deg',
    about: 'angle from the heading to the last known place of the agent, −180 to 180',
    missing: 'nothing',
    read: (f, a) => bearing(f, f.knownX(a), f.knownY(a)),
  },
  {
    name: 'bearing',
    parameters: [point],
    result: 'number',
    range: [-180, 180],
    unit: 'deg',
    about: 'angle from the heading to the point, −180 to 180',
    missing: 'nothing',
    read: bearing,
  },
  {
    name: 'known',
    parameters: [agent],
    result: 'flag',
    about: 'whether the agent is known at all: a key that holds one, or a percept',
    test: (_, a) => a >= 0,
  },
  {
    name: 'known',
    parameters: [point],
    result: 'flag',
    about: 'whether the point is known',
    test: (_, x, y) => x - x === 0 && y - y === 0,
  },
  {
    name: 'known',
    parameters: [{ name: 'number', type: 'number' }],
    result: 'flag',
    about: 'whether the number is known',
    test: (_, a) => a - a === 0,
  },
  {
    name: 'age',
    parameters: [{ name: 'key', type: 'key' }],
    result: 'number',
    range: [0, Infinity],
    unit: 's',
    about: 'seconds since the memory key was written',
    missing: 'nothing',
    read: (f, key) => f.keyAge(key),
  },
  {
    name: 'min',
    parameters: [{ name: 'number', type: 'number' }],
    variadic: true,
    result: 'number',
    unit: 'same',
    about: 'the smallest of the numbers',
    fold: Math.min,
  },
  {
    name: 'max',
    parameters: [{ name: 'number', type: 'number' }],
    variadic: true,
    result: 'number',
    unit: 'same',
    about: 'the largest of the numbers',
    fold: Math.max,
  },
  {
    name: 'abs',
    parameters: [{ name: 'number', type: 'number' }],
    result: 'number',
    range: [0, Infinity],
    unit: 'same',
    about: 'the number without its sign',
    read: (_, a) => Math.abs(a),
  },
  {
    name: 'floor',
    parameters: [{ name: 'number', type: 'number' }],
    result: 'number',
    unit: 'same',
    about: 'the next whole number below',
    read: (_, a) => Math.floor(a),
  },
  {
    name: 'clamp',
    parameters: [
      { name: 'number', type: 'number' },
      { name: 'low', type: 'number' },
      { name: 'high', type: 'number' },
    ],
    result: 'number',
    unit: 'same',
    about: 'the number, held between low and high',
    read: (_, a, low, high) => Math.max(low, Math.min(high, a)),
  },
  ...listBuiltins('number'),
  ...listBuiltins('text'),
  ...listBuiltins('agent'),
  countOf(points.type),
  {
    name: 'last',
    parameters: [points],
    result: 'point',
    about: 'the entry added last',
    missing: 'nothing',
    x: (f, scope, slot) => lastPart(f, 1, scope, slot),
    y: (f, scope, slot) => lastPart(f, 0, scope, slot),
  },
  {
    name: 'nearest',
    parameters: [points],
    result: 'point',
    about: 'the entry nearest to this body',
    missing: 'nothing',
    x: (f, scope, slot) => nearestPart(f, 0, scope, slot, f.x, f.y),
    y: (f, scope, slot) => nearestPart(f, 1, scope, slot, f.x, f.y),
  },
  {
    name: 'nearest',
    parameters: [points, point],
    result: 'point',
    about: 'the entry nearest to the point',
    missing: 'nothing',
    x: (f, scope, slot, x, y) => nearestPart(f, 0, scope, slot, x, y),
    y: (f, scope, slot, x, y) => nearestPart(f, 1, scope, slot, x, y),
  },
];

export function builtinsNamed(name: string): Builtin[] {
  return BUILTINS.filter((builtin) => builtin.name === name);
}

/** Stable text of one signature, which also names it in a checked expression: `distance(point)`. */
export function signature(builtin: Builtin): string {
  if (!builtin.parameters) return builtin.name;
  return `${builtin.name}(${builtin.parameters.map((parameter) => parameter.type).join(', ')}${builtin.variadic ? ', …' : ''})`;
}

export const BUILTIN_BY_SIGNATURE: ReadonlyMap<string, Builtin> = new Map(
  BUILTINS.map((builtin) => [signature(builtin), builtin]),
);
