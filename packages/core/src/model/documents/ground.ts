import { USUAL_VIEW, VIEW_NAMES } from '../../terms/views.ts';
import { GATE_STATES } from '../../terms/game.ts';
import {
  choice,
  described,
  flag,
  list,
  nameOf,
  needed,
  NOTE,
  number,
  part,
  record,
  TITLE,
  type NumberSpec,
  type PartValues,
  type TypeOf,
} from '../schema/schema.ts';
import { overridesSchema } from './cast.ts';
import { scheduleSchema, scoreSchema, waveSchema } from './director.ts';
import { HEADING, lightFields, placeSchema, sizeSchema } from './shared.ts';

/** Where it happens. Heights are above the ground. */

export const WALL_KINDS = ['wall', 'hedge', 'trunk', 'low'] as const;
export type WallKind = (typeof WALL_KINDS)[number];

/** Metres, where a wall does not say. */
export const WALL_HEIGHTS: Record<WallKind, number> = { wall: 2.4, hedge: 1.9, trunk: 3, low: 0.9 };
/** Metres of range that sound loses in passing through. */
export const WALL_MUFFLING: Record<WallKind, number> = { wall: 12, hedge: 3, trunk: 0, low: 0 };
/** Gates muffle as hedges do, unless sound goes over them. */
export const GATE_MUFFLING = WALL_MUFFLING.hedge;

export const THING_KINDS = ['basket', 'fruit', 'stone'] as const;
export type ThingKind = (typeof THING_KINDS)[number];
/** Metres that its landing is heard, where a thing does not say. */
export const THING_NOISE: Record<ThingKind, number> = { basket: 9, fruit: 4, stone: 7 };

const top = (usual: NumberSpec['usual']) =>
  number('Height', 'm', [0.05, 50], 'above the ground', { usual });
const muffles = (more: Pick<NumberSpec, 'usual' | 'none'>) =>
  number('Muffles sound by', 'm', [0, 1000], 'range that sound loses in passing through', more);
const wallKind = ({ kind = 'wall' }: PartValues) => kind as WallKind;

export const WALL_FIELDS = {
  kind: choice(
    'Kind',
    WALL_KINDS,
    'says how high it is and how it muffles, where that is left out',
    { usual: 'wall' },
  ),
  height: top((wall) => WALL_HEIGHTS[wallKind(wall)]),
  muffles: muffles({ usual: (wall) => WALL_MUFFLING[wallKind(wall)] }),
};
const wall = part({
  kind: WALL_FIELDS.kind,
  at: needed(described(placeSchema, 'the corner with the smallest x and y')),
  size: needed(sizeSchema),
  height: WALL_FIELDS.height,
  muffles: WALL_FIELDS.muffles,
  note: NOTE,
});
export type WallDocument = TypeOf<typeof wall>;

export const LAMP_FIELDS = lightFields(100, 'right below');
const lamp = part({ title: TITLE, at: needed(placeSchema), ...LAMP_FIELDS });
export type LampDocument = TypeOf<typeof lamp>;

export const GATE_FIELDS = {
  state: choice('At the start', GATE_STATES, 'locked: only a plate or an edit opens it', {
    usual: 'closed',
  }),
  height: top(WALL_HEIGHTS.wall),
  muffles: muffles({ none: 'as a hedge, or nothing where sound goes over it' }),
};
/** Part of a wall that opens. Closed, it is a wall; locked, only a plate or an edit opens it. */
const gate = part({
  title: TITLE,
  at: needed(placeSchema),
  size: needed(sizeSchema),
  ...GATE_FIELDS,
});
export type GateDocument = TypeOf<typeof gate>;

/** While a body stands on it, a gate is open. */
const plate = part({
  title: TITLE,
  at: needed(placeSchema),
  size: needed(sizeSchema),
  opens: needed(nameOf('gates')),
});
export type PlateDocument = TypeOf<typeof plate>;

export const THING_FIELDS = {
  kind: choice('Kind', THING_KINDS, 'says how far its landing is heard, where that is left out', {
    usual: 'basket',
  }),
  noise: number('Landing is heard', 'm', [0, 100], 'how far', {
    usual: ({ kind = 'basket' }: PartValues) => THING_NOISE[kind as ThingKind],
  }),
  damage: number(
    'Damage',
    'points',
    [0, 1_000_000],
    'taken from the health of what it hits in flight',
    { usual: 0 },
  ),
  weight: number('Weight', 'kg', [0, 1000], 'what plates and `weightIn` count', { usual: 1 }),
};
/** Something that can be carried, dropped and thrown. */
const thing = part({
  title: TITLE,
  kind: THING_FIELDS.kind,
  at: needed(placeSchema),
  noise: THING_FIELDS.noise,
  damage: THING_FIELDS.damage,
  weight: THING_FIELDS.weight,
});
export type ThingDocument = TypeOf<typeof thing>;

export const POST_FIELDS = { heading: HEADING };
/** A place to stand, such as a post or an entrance. */
const post = part({ title: TITLE, at: needed(placeSchema), ...POST_FIELDS });
export type PostDocument = TypeOf<typeof post>;

const zone = part({ title: TITLE, at: needed(placeSchema), size: needed(sizeSchema) });
export type ZoneDocument = TypeOf<typeof zone>;

export const ROUTE_FIELDS = {
  end: choice(
    'At its end',
    ['loop', 'stop', 'thereAndBack'],
    'what an agent that follows it does there',
    { usual: 'loop' },
  ),
  wait: number('Stands at each waypoint', 's', [0, 600], 'how long', { usual: 0 }),
};
const route = part({ title: TITLE, points: needed(list(placeSchema, 500, 2)), ...ROUTE_FIELDS });
export type RouteDocument = TypeOf<typeof route>;
export type RouteEnd = NonNullable<RouteDocument['end']>;

export const AGENT_FIELDS = {
  heading: HEADING,
  asleep: flag('Asleep', 'lies asleep until another agent wakes it'),
};
const placedAgent = part({
  title: TITLE,
  archetype: needed(nameOf('archetypes')),
  at: needed(placeSchema),
  heading: AGENT_FIELDS.heading,
  route: nameOf('routes'),
  post: described(nameOf('posts'), 'where it belongs; left out: where it is placed'),
  squad: nameOf('squads'),
  home: described(nameOf('zones'), 'the zone it belongs to'),
  asleep: AGENT_FIELDS.asleep,
  overrides: overridesSchema,
});
export interface PlacedAgentDocument extends TypeOf<typeof placedAgent> {}

const side = (label: string) => needed(number(label, 'm', [2, 1000], 'of the ground'));
export const GROUND_FIELDS = {
  view: choice('View', VIEW_NAMES, 'how the ground is seen, and what kind of world that makes', {
    usual: USUAL_VIEW,
  }),
  width: side('Width'),
  height: side('Height'),
  light: number('Light', '', [0, 1], 'that there is everywhere', { usual: 1 }),
};
export const groundSchema = part({
  title: needed(TITLE),
  note: NOTE,
  ...GROUND_FIELDS,
  walls: needed(list(wall, 5000)),
  lamps: record(lamp, 'lamps'),
  gates: record(gate, 'gates'),
  plates: record(plate, 'plates'),
  things: record(thing, 'things'),
  posts: record(post, 'posts'),
  spawns: record(post, 'spawns'),
  zones: record(zone, 'zones'),
  routes: needed(record(route, 'routes')),
  director: described(nameOf('minds'), 'the mind of its director, which has no body'),
  scores: record(scoreSchema, 'scores'),
  schedule: scheduleSchema,
  waves: record(waveSchema, 'waves'),
  agents: needed(record(placedAgent, 'agents')),
});
export interface GroundDocument extends TypeOf<typeof groundSchema> {}
