import type { OverridesDocument } from './cast-documents.ts';
import type { ScheduleDocument, ScoreDocument, WaveDocument } from './director-documents.ts';
import type { Name, PointDocument } from './documents.ts';

/** Where it happens. Metres; heights are above the ground. */

export interface GroundDocument {
  title: string;
  note?: string;
  width: number;
  height: number;
  /** Light there is everywhere, from 0 to 1; left out: 1. */
  light?: number;
  walls: WallDocument[];
  lamps?: Record<Name, LampDocument>;
  gates?: Record<Name, GateDocument>;
  plates?: Record<Name, PlateDocument>;
  things?: Record<Name, ThingDocument>;
  posts?: Record<Name, PostDocument>;
  spawns?: Record<Name, PostDocument>;
  zones?: Record<Name, ZoneDocument>;
  routes: Record<Name, RouteDocument>;
  agents: Record<Name, PlacedAgentDocument>;
  /** The mind of its director, which has no body. */
  director?: Name;
  scores?: Record<Name, ScoreDocument>;
  schedule?: ScheduleDocument;
  waves?: Record<Name, WaveDocument>;
}

export const WALL_KINDS = ['wall', 'hedge', 'trunk', 'low'] as const;
export type WallKind = (typeof WALL_KINDS)[number];

/** Metres, where a wall does not say. */
export const WALL_HEIGHTS: Record<WallKind, number> = { wall: 2.4, hedge: 1.9, trunk: 3, low: 0.9 };
/** Metres of way that sound loses in going through. */
export const WALL_MUFFLING: Record<WallKind, number> = { wall: 12, hedge: 3, trunk: 0, low: 0 };

export interface WallDocument {
  kind?: WallKind;
  /** The corner with the smallest x and y. */
  at: PointDocument;
  size: PointDocument;
  /** Left out: wall 2.4, hedge 1.9, trunk 3, low cover 0.9. */
  height?: number;
  /** Metres of way that sound loses in going through; left out: wall 12, hedge 3, else 0. */
  muffles?: number;
  note?: string;
}

export interface LampDocument {
  title?: string;
  at: PointDocument;
  reach: number;
  /** Light it gives right below, 0 to 1. */
  strength: number;
}

export const GATE_STATES = ['closed', 'open', 'locked'] as const;
export type GateState = (typeof GATE_STATES)[number];

/** Part of a wall that opens. Closed, it is a wall; locked, only a plate or an edit opens it. */
export interface GateDocument {
  title?: string;
  at: PointDocument;
  size: PointDocument;
  /** At the start; left out: closed. */
  state?: GateState;
  height?: number;
  muffles?: number;
}

/** While a body stands on it, a gate is open. */
export interface PlateDocument {
  title?: string;
  at: PointDocument;
  size: PointDocument;
  opens: Name;
}

export const THING_KINDS = ['basket', 'fruit', 'stone'] as const;
export type ThingKind = (typeof THING_KINDS)[number];
/** Metres that its landing is heard, where a thing does not say. */
export const THING_NOISE: Record<ThingKind, number> = { basket: 9, fruit: 4, stone: 7 };

/** Something that can be carried, dropped and thrown. */
export interface ThingDocument {
  title?: string;
  kind?: ThingKind;
  at: PointDocument;
  /** How far its landing is heard, in metres. */
  noise?: number;
  /** Points of health it takes from an agent it hits in flight; left out: 0. */
  damage?: number;
  /** Kilograms; left out: 1. */
  weight?: number;
}

/** A place to stand, such as a post or an entrance. */
export interface PostDocument {
  title?: string;
  at: PointDocument;
  heading?: number;
}

export interface ZoneDocument {
  title?: string;
  at: PointDocument;
  size: PointDocument;
}

export const ROUTE_ENDS = ['loop', 'stop', 'thereAndBack'] as const;
export type RouteEnd = (typeof ROUTE_ENDS)[number];

export interface RouteDocument {
  title?: string;
  points: PointDocument[];
  end?: RouteEnd;
  /** Seconds to stand at each waypoint. */
  wait?: number;
}

export interface PlacedAgentDocument {
  title?: string;
  archetype: Name;
  at: PointDocument;
  heading?: number;
  route?: Name;
  /** Where it belongs; left out: where it is placed. */
  post?: Name;
  squad?: Name;
  /** The zone it belongs to. */
  home?: Name;
  /** Sleeps until another agent wakes it. */
  asleep?: true;
  /** Where it differs from its archetype. */
  overrides?: OverridesDocument;
}
