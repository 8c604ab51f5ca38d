import {
  GATE_STATES,
  ROUTE_ENDS,
  THING_KINDS,
  THING_NOISE,
  WALL_HEIGHTS,
  WALL_KINDS,
  WALL_MUFFLING,
  type ThingKind,
  type WallKind,
} from '../ground-documents.ts';
import { lightFields, type FieldSpecs, type NumberSpec } from './field-spec.ts';

/** The fields of grounds and of the parts on them. */

const side = (label: string): NumberSpec & { required: true } => ({
  kind: 'number',
  label,
  unit: 'm',
  minimum: 2,
  maximum: 1000,
  required: true,
  about: 'of the ground',
});

export const GROUND_FIELDS = {
  width: side('Width'),
  height: side('Height'),
  light: {
    kind: 'number',
    label: 'Light',
    unit: '',
    minimum: 0,
    maximum: 1,
    usual: 1,
    about: 'that there is everywhere',
  },
} as const satisfies FieldSpecs;

/** A coordinate of a place. */
export const PLACE: NumberSpec = {
  kind: 'number',
  label: 'Place',
  unit: 'm',
  minimum: -10_000,
  maximum: 10_000,
  required: true,
  about: 'x to the right, y down',
};

/** A side of a box. */
export const SIZE: NumberSpec = {
  kind: 'number',
  label: 'Size',
  unit: 'm',
  minimum: 0.05,
  maximum: 10_000,
  required: true,
  about: 'width and height',
};

export const HEADING = {
  kind: 'number',
  label: 'Heading',
  unit: '°',
  minimum: -360,
  maximum: 360,
  usual: 0,
  about: '0 = to the right, clockwise positive',
} as const satisfies NumberSpec;

const top = {
  kind: 'number',
  label: 'Height',
  unit: 'm',
  minimum: 0.05,
  maximum: 50,
  about: 'above the ground',
} as const;
const muffles = {
  kind: 'number',
  label: 'Muffles sound by',
  unit: 'm',
  minimum: 0,
  maximum: 1000,
  about: 'range that sound loses in passing through',
} as const;

const wallKind = ({ kind = 'wall' }) => kind as WallKind;

/** Gates muffle as hedges do, unless sound goes over them. */
export const GATE_MUFFLING = WALL_MUFFLING.hedge;

export const WALL_FIELDS = {
  kind: {
    kind: 'choice',
    label: 'Kind',
    options: WALL_KINDS,
    usual: 'wall',
    about: 'says how high it is and how it muffles, where that is left out',
  },
  height: { ...top, usual: (wall) => WALL_HEIGHTS[wallKind(wall)] },
  muffles: { ...muffles, usual: (wall) => WALL_MUFFLING[wallKind(wall)] },
} as const satisfies FieldSpecs;

export const GATE_FIELDS = {
  state: {
    kind: 'choice',
    label: 'At the start',
    options: GATE_STATES,
    usual: 'closed',
    about: 'locked: only a plate or an edit opens it',
  },
  height: { ...top, usual: WALL_HEIGHTS.wall },
  muffles: { ...muffles, none: 'as a hedge, or nothing where sound goes over it' },
} as const satisfies FieldSpecs;

export const LAMP_FIELDS = lightFields(100, 'right below');

export const THING_FIELDS = {
  kind: {
    kind: 'choice',
    label: 'Kind',
    options: THING_KINDS,
    usual: 'basket',
    about: 'says how far its landing is heard, where that is left out',
  },
  noise: {
    kind: 'number',
    label: 'Landing is heard',
    unit: 'm',
    minimum: 0,
    maximum: 100,
    usual: ({ kind = 'basket' }) => THING_NOISE[kind as ThingKind],
    about: 'how far',
  },
  damage: {
    kind: 'number',
    label: 'Damage',
    unit: 'points',
    minimum: 0,
    maximum: 1_000_000,
    usual: 0,
    about: 'taken from the health of what it hits in flight',
  },
  weight: {
    kind: 'number',
    label: 'Weight',
    unit: 'kg',
    minimum: 0,
    maximum: 1000,
    usual: 1,
    about: 'what plates and `weightIn` count',
  },
} as const satisfies FieldSpecs;

export const POST_FIELDS = { heading: HEADING } as const satisfies FieldSpecs;

export const ROUTE_FIELDS = {
  end: {
    kind: 'choice',
    label: 'At its end',
    options: ROUTE_ENDS,
    usual: 'loop',
    about: 'what an agent that follows it does there',
  },
  wait: {
    kind: 'number',
    label: 'Stands at each waypoint',
    unit: 's',
    minimum: 0,
    maximum: 600,
    usual: 0,
    about: 'how long',
  },
} as const satisfies FieldSpecs;

export const AGENT_FIELDS = {
  heading: HEADING,
  asleep: { kind: 'flag', label: 'Asleep', about: 'lies asleep until another agent wakes it' },
} as const satisfies FieldSpecs;
