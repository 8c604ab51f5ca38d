import type { Builtin } from './builtins.ts';
import type { Facts } from './facts.ts';
import type { KeyScope, ValueType } from './ir.ts';

/** Built-ins for lists in memory. A list comes as two numbers: whose memory it is in, and its slot. */

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
      missing: null,
      read: (f, scope, slot) => {
        const cells = cellsOf(f, scope);
        return cells[slot] > 0 ? cells[slot + cells[slot]] : missing;
      },
    },
  ];
}

const point = { name: 'point', type: 'point' } as const;
const points = { name: 'list', type: 'list of point' } as const;

export const LIST_BUILTINS: readonly Builtin[] = [
  ...listBuiltins('number'),
  ...listBuiltins('text'),
  ...listBuiltins('agent'),
  countOf(points.type),
  {
    name: 'last',
    parameters: [points],
    result: 'point',
    about: 'the entry added last',
    missing: null,
    x: (f, scope, slot) => lastPart(f, 1, scope, slot),
    y: (f, scope, slot) => lastPart(f, 0, scope, slot),
  },
  {
    name: 'nearest',
    parameters: [points],
    result: 'point',
    about: 'the entry nearest to this body',
    missing: null,
    x: (f, scope, slot) => nearestPart(f, 0, scope, slot, f.here.x, f.here.y),
    y: (f, scope, slot) => nearestPart(f, 1, scope, slot, f.here.x, f.here.y),
  },
  {
    name: 'nearest',
    parameters: [points, point],
    result: 'point',
    about: 'the entry nearest to the point',
    missing: null,
    x: (f, scope, slot, x, y) => nearestPart(f, 0, scope, slot, x, y),
    y: (f, scope, slot, x, y) => nearestPart(f, 1, scope, slot, x, y),
  },
];
