import {
  GATE_STATES,
  ROUTE_ENDS,
  THING_KINDS,
  THING_NOISE,
  WALL_HEIGHTS,
  WALL_KINDS,
  WALL_MUFFLING,
  type GroundDocument,
  type ProjectDocument,
  type ThingKind,
  type WallKind,
  namesOf,
} from '@crooked-lantern/core';
import type { AnyPart, PartKind } from './parts.ts';

/** The fields of each kind of part that can be edited, beside its place and size. */

export type PartField =
  | {
      kind: 'number';
      id: string;
      label: string;
      unit: string;
      minimum: number;
      maximum: number;
      /** What holds where the field is left out; undefined where it must be there. */
      fallback?: (part: AnyPart) => number;
    }
  | {
      kind: 'choice';
      id: string;
      label: string;
      options: (document: ProjectDocument, ground: GroundDocument) => readonly string[];
      /** What the field is where it is left out. */
      fallback?: string;
      /** It may be left out, under this name. */
      none?: string;
    }
  | { kind: 'flag'; id: string; label: string };

const number = (
  id: string,
  label: string,
  unit: string,
  minimum: number,
  maximum: number,
  fallback?: (part: AnyPart) => number,
): PartField => ({
  kind: 'number',
  id,
  label,
  unit,
  minimum,
  maximum,
  ...(fallback ? { fallback } : {}),
});

const heading = number('heading', 'Heading', '°', -360, 360, () => 0);
const wallKind = ({ kind }: AnyPart) => (kind ?? 'wall') as WallKind;

export const FIELDS: Record<PartKind, readonly PartField[]> = {
  walls: [
    { kind: 'choice', id: 'kind', label: 'Kind', options: () => WALL_KINDS, fallback: 'wall' },
    number('height', 'Height', 'm', 0.05, 50, (part) => WALL_HEIGHTS[wallKind(part)]),
    number('muffles', 'Muffles sound by', 'm', 0, 1000, (part) => WALL_MUFFLING[wallKind(part)]),
  ],
  lamps: [number('reach', 'Reach', 'm', 0.5, 100), number('strength', 'Strength', '', 0, 1)],
  gates: [
    {
      kind: 'choice',
      id: 'state',
      label: 'At the start',
      options: () => GATE_STATES,
      fallback: 'closed',
    },
    number('height', 'Height', 'm', 0.05, 50, () => WALL_HEIGHTS.wall),
  ],
  plates: [
    { kind: 'choice', id: 'opens', label: 'Opens', options: (_, { gates = {} }) => namesOf(gates) },
  ],
  things: [
    { kind: 'choice', id: 'kind', label: 'Kind', options: () => THING_KINDS, fallback: 'basket' },
    number(
      'noise',
      'Landing is heard',
      'm',
      0,
      100,
      ({ kind }) => THING_NOISE[(kind ?? 'basket') as ThingKind],
    ),
    number('harm', 'A hit takes', 'points', 0, 1_000_000, () => 0),
  ],
  posts: [heading],
  spawns: [heading],
  zones: [],
  routes: [
    { kind: 'choice', id: 'end', label: 'At its end', options: () => ROUTE_ENDS, fallback: 'loop' },
    number('wait', 'Stands at each waypoint', 's', 0, 600, () => 0),
  ],
  agents: [
    {
      kind: 'choice',
      id: 'archetype',
      label: 'Archetype',
      options: ({ archetypes }) => namesOf(archetypes),
    },
    heading,
    {
      kind: 'choice',
      id: 'route',
      label: 'Route',
      options: (_, { routes }) => namesOf(routes),
      none: 'no route',
    },
    {
      kind: 'choice',
      id: 'post',
      label: 'Post',
      options: (_, { posts = {} }) => namesOf(posts),
      none: 'where it stands',
    },
    {
      kind: 'choice',
      id: 'squad',
      label: 'Squad',
      options: ({ squads = {} }) => namesOf(squads),
      none: 'its archetype’s',
    },
    { kind: 'flag', id: 'asleep', label: 'Asleep' },
  ],
};

/** A part with a field set; undefined, and what holds anyway, is left out. */
export function withField(part: AnyPart, field: PartField, value: unknown): AnyPart {
  const next = { ...part, [field.id]: value };
  const usual =
    field.kind === 'flag'
      ? false
      : field.kind === 'number'
        ? field.fallback?.(part)
        : field.fallback;
  if (value === undefined || value === usual) delete next[field.id];
  return next;
}
