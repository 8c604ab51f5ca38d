/**
 * The open file: one project as one JSON document. Lengths in metres, times in seconds, angles in
 * degrees; x right, y down, heading 0 = +x, clockwise positive. Order carries meaning in arrays and
 * nowhere else. Any object may also hold `x-…` fields, which are kept and never read.
 */

export const PROJECT_FORMAT = 'crooked-lantern/project';
export const PROJECT_VERSION = 1;
export const DEFAULT_TICKS_PER_SECOND = 60;

/** A short id that people can say: a letter, then letters and digits. */
export type Name = string;
/** Expression source, see the expression reference. */
export type Expression = string;
/** [x, y] in metres. */
export type PointDocument = [number, number];

export interface ProjectDocument {
  format: typeof PROJECT_FORMAT;
  version: typeof PROJECT_VERSION;
  title: string;
  note?: string;
  ticksPerSecond?: number;
  minds: Record<Name, MindDocument>;
  archetypes: Record<Name, ArchetypeDocument>;
  grounds: Record<Name, GroundDocument>;
  start: StartDocument;
}

/** How a run begins: the ground, who is played by the keyboard, and the seed. */
export interface StartDocument {
  ground: Name;
  play?: Name;
  seed?: number;
}

export interface MindDocument {
  title: string;
  note?: string;
  memory?: Record<Name, MemoryKeyDocument>;
  machine: MachineDocument;
}

export const MEMORY_TYPES = ['number', 'flag', 'text', 'point', 'agent'] as const;
export type MemoryType = (typeof MEMORY_TYPES)[number];
export const UNITS = ['m', 's', 'm/s', 'deg'] as const;
export type UnitName = (typeof UNITS)[number];

export interface MemoryKeyDocument {
  type: MemoryType;
  unit?: UnitName;
  default?: number | boolean | string;
  forgetAfter?: number;
  note?: string;
}

export interface MachineDocument {
  initial: Name;
  states: StateDocument[];
}

export const STATE_KINDS = ['parallel', 'final', 'history', 'deepHistory'] as const;
export type StateKind = (typeof STATE_KINDS)[number];

export interface StateDocument {
  id: Name;
  title?: string;
  note?: string;
  kind?: StateKind;
  initial?: Name;
  states?: StateDocument[];
  entry?: ActionDocument[];
  activity?: ActionDocument;
  exit?: ActionDocument[];
  leaves?: TransitionDocument[];
}

export interface TransitionDocument {
  to?: Name;
  on?: string;
  when?: Expression;
  for?: number;
  after?: number;
  urgent?: boolean;
  internal?: boolean;
  do?: ActionDocument[];
  note?: string;
}

export type ActionParameter = string | number;
/** `do` names the action, the other fields are its parameters. */
export type ActionDocument = { do: string } & Record<string, ActionParameter>;

export interface ArchetypeDocument {
  title: string;
  note?: string;
  faction: Name;
  mind?: Name;
  body: BodyDocument;
  gaits: Record<Name, number>;
  gait: Name;
  sight?: SightDocument;
}

export interface BodyDocument {
  radius: number;
  acceleration: number;
  turnRate: number;
}

export interface SightDocument {
  cones: ConeDocument[];
  /** Awareness lost per second once `grace` seconds have passed without sight. */
  fade: number;
  grace: number;
  curious: number;
  certain: number;
  /** Seconds after the last sight until the last known place is forgotten. */
  forgetAfter: number;
}

export interface ConeDocument {
  range: number;
  halfAngle: number;
  gain: number;
}

export interface GroundDocument {
  title: string;
  note?: string;
  width: number;
  height: number;
  walls: WallDocument[];
  routes: Record<Name, RouteDocument>;
  agents: Record<Name, PlacedAgentDocument>;
}

export const WALL_KINDS = ['wall', 'hedge', 'trunk'] as const;
export type WallKind = (typeof WALL_KINDS)[number];

export interface WallDocument {
  kind?: WallKind;
  /** The corner with the smallest x and y. */
  at: PointDocument;
  size: PointDocument;
  note?: string;
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
}
