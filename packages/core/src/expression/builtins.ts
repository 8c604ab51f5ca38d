import { atan2, degrees, wrapAngle } from '../numeric/trigonometry.ts';
import type { Sense } from '../terms/senses.ts';
import type { CalledPart } from '../model/names/named-parts.ts';
import type { GroundView } from '../terms/views.ts';
import type { Facts } from './facts.ts';
import { membershipOf } from '../numeric/membership.ts';
import { FIGHT_BUILTINS } from './fight-builtins.ts';
import { GAME_BUILTINS } from './game-builtins.ts';
import { LIST_BUILTINS } from './list-builtins.ts';
import { SENSE_BUILTINS } from './sense-builtins.ts';
import type { ValueType } from './ir.ts';

/**
 * Everything an expression can name besides memory keys, in one table: the checker, the completion
 * list and the reference read it, and the runtime takes the functions from it.
 *
 * A point argument comes as two numbers, x then y. A function that gives a point gives `x` and `y`
 * apart. `key` marks a parameter that takes the name of a memory key instead of a value.
 */

/** `key` is the name of a memory key, `bands` that of a band set, `expression` whatever is asked. */
export type ParameterType = ValueType | 'key' | 'bands' | 'expression';

export interface Builtin {
  name: string;
  /** Undefined for a plain value, which is written without brackets. */
  parameters?: { name: string; type: ParameterType; unit?: string; names?: CalledPart }[];
  /** At least this many arguments of the last parameter's type, any number more. */
  variadic?: boolean;
  result: ValueType;
  /** What the text that it gives is the name of. */
  gives?: CalledPart;
  /** `same`: the unit of the first argument, which the others must share. */
  unit?: 'm' | 's' | 'm/s' | 'deg' | 'same';
  about: string;
  /** What it gives where something is missing, null for nothing; left out where nothing ever is. */
  missing?: number | boolean | null;
  /** How the reference says that, where the value alone does not. */
  missingWords?: string;
  /** The sense it speaks of, where it speaks of what that brought; `attention`: of whichever has the attention. */
  sense?: Sense | 'attention';
  /** The views of grounds on which it can be asked; left out: all. */
  views?: readonly GroundView[];
  /** It is true of all agents, whatever any of them perceives: only the mind of a director may ask. */
  directorOnly?: true;
  /** The checker has its own way with it: its arguments are more than values. */
  ownWay?: true;
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
  return degrees(wrapAngle(atan2(y - facts.here.y, x - facts.here.x) - facts.self.heading));
}

/** What a built-in gives where something is missing, in words; empty where nothing ever is. */
export function missingText({ missing, missingWords, result }: Builtin): string {
  if (missing === undefined) return '';
  if (missingWords !== undefined) return missingWords;
  if (missing !== null) return String(missing);
  return ['text', 'agent', 'thing', 'route'].includes(result) ? `no ${result}` : 'nothing';
}

const agent = { name: 'agent', type: 'agent' } as const;
const point = { name: 'point', type: 'point' } as const;

export const BUILTINS: readonly Builtin[] = [
  {
    name: 'time',
    result: 'number',
    range: [0, Infinity],
    unit: 's',
    about: 'seconds since the run began',
    read: (f) => f.around.seconds(),
  },
  {
    name: 'tier',
    result: 'text',
    gives: 'tier',
    about: 'the name of the active tier',
    missing: null,
    read: (f) => f.around.tier,
  },
  {
    name: 'self.place',
    result: 'point',
    about: 'where this body is',
    x: (f) => f.here.x,
    y: (f) => f.here.y,
  },
  {
    name: 'self.post',
    result: 'point',
    about: 'the post of this body, else where it was placed',
    x: (f) => f.self.postX,
    y: (f) => f.self.postY,
  },
  {
    name: 'self.route',
    result: 'route',
    about: 'the route this agent was given',
    missing: null,
    read: (f) => f.self.route,
  },
  {
    name: 'self.speed',
    result: 'number',
    range: [0, Infinity],
    unit: 'm/s',
    about: 'how fast this body moves',
    read: (f) => length(f.self.vx, f.self.vy),
  },
  {
    name: 'self.heading',
    result: 'number',
    range: [-180, 180],
    unit: 'deg',
    about: 'where this body faces, clockwise from +x, −180 to 180',
    read: (f) => degrees(f.self.heading),
  },
  {
    name: 'self.light',
    result: 'number',
    range: [0, 1],
    about: 'light at this body, 0 to 1',
    read: (f) => f.here.light(),
  },
  {
    name: 'self.crouched',
    result: 'flag',
    about: 'whether the gait is a crouched one',
    test: (f) => f.self.crouched,
  },
  {
    name: 'self.role',
    result: 'text',
    gives: 'role',
    about: 'the role this agent has in its squad',
    missing: null,
    read: (f) => f.self.role,
  },
  {
    name: 'self.health',
    result: 'number',
    about: 'points of health left',
    missing: null,
    missingWords: 'nothing where it has no health',
    read: (f) => f.self.health,
  },
  {
    name: 'self.carries',
    result: 'thing',
    about: 'what this body carries',
    missing: null,
    read: (f) => f.self.carried,
  },
  {
    name: 'attention.of',
    sense: 'attention',
    result: 'agent',
    about: 'the agent that has the attention',
    missing: null,
    read: (f) => f.known.attentionOf,
  },
  {
    name: 'attention.place',
    sense: 'attention',
    result: 'point',
    about: 'where that percept places it',
    missing: null,
    x: (f) => f.known.attentionX,
    y: (f) => f.known.attentionY,
  },
  {
    name: 'attention.strength',
    sense: 'attention',
    result: 'number',
    range: [0, 1],
    about: 'how strong it is, 0 to 1: awareness for sight, loudness for a noise',
    missing: 0,
    read: (f) => f.known.attentionStrength,
  },
  {
    name: 'attention.kind',
    sense: 'attention',
    result: 'text',
    about: "the sense it came by: 'sight', 'harm', 'hearing', 'found' or 'told'",
    missing: null,
    read: (f) => f.known.attentionSense,
  },
  {
    name: 'attention.age',
    sense: 'attention',
    result: 'number',
    range: [0, Infinity],
    unit: 's',
    about: 'seconds since that percept was last renewed',
    missing: null,
    read: (f) => f.known.attentionAge,
  },
  {
    name: 'sees',
    sense: 'sight',
    parameters: [agent],
    result: 'flag',
    about: 'whether the agent is in sight now',
    missing: false,
    test: (f, a) => f.here.sees(a),
  },
  {
    name: 'awareness',
    sense: 'sight',
    parameters: [agent],
    result: 'number',
    range: [0, 1],
    about: 'how sure the senses are of the agent, 0 to 1',
    missing: 0,
    read: (f, a) => f.known.awareness(a),
  },
  {
    name: 'lastSeen',
    sense: 'sight',
    parameters: [agent],
    result: 'point',
    about: 'the last known place of the agent',
    missing: null,
    x: (f, a) => f.known.x(a),
    y: (f, a) => f.known.y(a),
  },
  {
    name: 'distance',
    sense: 'sight',
    parameters: [agent],
    result: 'number',
    range: [0, Infinity],
    unit: 'm',
    about: 'metres to the last known place of the agent',
    missing: null,
    read: (f, a) => length(f.known.x(a) - f.here.x, f.known.y(a) - f.here.y),
  },
  {
    name: 'distance',
    parameters: [point],
    result: 'number',
    range: [0, Infinity],
    unit: 'm',
    about: 'metres to the point',
    missing: null,
    read: (f, x, y) => length(x - f.here.x, y - f.here.y),
  },
  {
    name: 'bearing',
    sense: 'sight',
    parameters: [agent],
    result: 'number',
    range: [-180, 180],
    unit: 'deg',
    about: 'angle from the heading to the last known place of the agent, −180 to 180',
    missing: null,
    read: (f, a) => bearing(f, f.known.x(a), f.known.y(a)),
  },
  {
    name: 'bearing',
    parameters: [point],
    result: 'number',
    range: [-180, 180],
    unit: 'deg',
    about: 'angle from the heading to the point, −180 to 180',
    missing: null,
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
    parameters: [{ name: 'thing', type: 'thing' }],
    result: 'flag',
    about: 'whether there is such a thing',
    test: (_, thing) => thing >= 0,
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
    missing: null,
    read: (f, key) => f.known.keyAge(key),
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
  {
    name: 'at',
    ownWay: true,
    parameters: [point, { name: 'expression', type: 'expression' }],
    result: 'number',
    about:
      'the expression as if this body stood at the point: distances, angles, light and lines of sight are computed from there; what it knows stays the same. Returns the value of the expression',
    missing: null,
    missingWords: 'for a point that is nothing, the value where it stands',
  },
  {
    name: 'inBand',
    ownWay: true,
    parameters: [
      { name: 'set', type: 'bands' },
      { name: 'band', type: 'text', names: 'band' },
    ],
    result: 'number',
    range: [0, 1],
    about: 'how far the number of a band set belongs to one of its bands, 0 to 1',
    missing: 0,
  },
  {
    name: 'bandOf',
    ownWay: true,
    parameters: [{ name: 'set', type: 'bands' }],
    result: 'text',
    gives: 'band',
    about: 'the name of the band that the number of the set belongs to most; the first on a tie',
    missing: null,
  },
  {
    name: 'trapezoid',
    parameters: [
      { name: 'number', type: 'number' },
      { name: 'from', type: 'number' },
      { name: 'fullFrom', type: 'number' },
      { name: 'fullTo', type: 'number' },
      { name: 'to', type: 'number' },
    ],
    result: 'number',
    range: [0, 1],
    about:
      'membership of the number, 0 to 1: it rises from the first to the second bound, and falls from the third to the last',
    missing: 0,
    read: (_, a, from, fullFrom, fullTo, to) => membershipOf(a, from, fullFrom, fullTo, to),
  },
  ...SENSE_BUILTINS,
  ...FIGHT_BUILTINS,
  ...LIST_BUILTINS,
  ...GAME_BUILTINS,
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
