/**
 * The open file: one project as one JSON document. Lengths in metres, times in seconds, angles in
 * degrees; x right, y down, heading 0 = +x, clockwise positive. Order carries meaning in arrays and
 * nowhere else. Any object may also hold `x-…` fields, which are kept and never read.
 */

import type { Channel } from './actions.ts';

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
  squads?: Record<Name, SquadDocument>;
  start: StartDocument;
}

/** Agents that share memory. */
export interface SquadDocument {
  title: string;
  note?: string;
}

/** How a run begins: the ground, who is played by the keyboard, and the seed. */
export interface StartDocument {
  ground: Name;
  play?: Name;
  seed?: number;
}

/** A mind is a state machine, or one activity that begins anew whenever it ends. */
export interface MindDocument {
  title: string;
  note?: string;
  memory?: Record<Name, MemoryKeyDocument>;
  /** When it decides; left out: every tick. */
  cadence?: CadenceDocument;
  /** The only channels its actions may use; left out: all. */
  channels?: Channel[];
  machine?: MachineDocument;
  activity?: ActivityDocument;
  trees?: Record<Name, TreeDocument>;
  rules?: Record<Name, RulesDocument>;
}

export type CadenceDocument = { every: number } | { on: 'event' };

export const MEMORY_TYPES = [
  'number',
  'flag',
  'text',
  'point',
  'agent',
  'list of number',
  'list of text',
  'list of point',
  'list of agent',
] as const;
export type MemoryType = (typeof MEMORY_TYPES)[number];
export const MEMORY_SCOPES = ['self', 'squad', 'world'] as const;
export type MemoryScope = (typeof MEMORY_SCOPES)[number];
export const UNITS = ['m', 's', 'm/s', 'deg'] as const;
export type UnitName = (typeof UNITS)[number];

export interface MemoryKeyDocument {
  type: MemoryType;
  unit?: UnitName;
  /** Whose key it is; left out: the agent's own. */
  scope?: MemoryScope;
  default?: number | boolean | string;
  forgetAfter?: number;
  /** Entries a list can hold; the oldest gives way. */
  most?: number;
  note?: string;
}

export const DEFAULT_LIST_LENGTH = 16;

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
  activity?: ActivityDocument;
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
/** `do` names the action, the other fields are its parameters; `uninterrupted` actions let no decision in between. */
export type ActionDocument = { do: string; uninterrupted?: true } & Record<
  string,
  ActionParameter | boolean
>;

/** What a state does while it is active: one action, a tree of this mind, or rules of it. */
export type ActivityDocument = ActionDocument | TreeCallDocument | RulesCallDocument;

export interface TreeCallDocument {
  tree: Name;
  /** Expressions for the tree's parameters. */
  with?: Record<Name, string | number>;
}

export interface RulesCallDocument {
  rules: Name;
}

export const PARAMETER_TYPES = ['number', 'flag', 'text', 'point', 'agent', 'route'] as const;
export type ParameterType = (typeof PARAMETER_TYPES)[number];

export interface TreeDocument {
  title?: string;
  note?: string;
  /** Types of what a call of this tree must bring, by name. */
  parameters?: Record<Name, ParameterType>;
  root: NodeDocument;
}

/** What any node of a tree may carry. */
export interface NodeFields {
  title?: string;
  note?: string;
  /** Guard: must hold before the node starts. */
  when?: Expression;
  /** The guard is looked at each decision while the node runs; when false, the node is stopped and fails. */
  holds?: true;
  /** While a later sibling of a selector runs, this node takes over when its guard turns true. */
  preempts?: true;
  /** Among the children of `random`; left out: 1. */
  weight?: number | Expression;
}

/** A number, or an expression for one. */
export type NumberOrExpression = number | Expression;

export type NodeDocument = NodeFields &
  (
    | ActionDocument
    | TreeCallDocument
    | RulesCallDocument
    | { condition: Expression }
    | { sequence: NodeDocument[]; restart?: true }
    | { selector: NodeDocument[]; restart?: true }
    | { parallel: NodeDocument[]; successes?: number; failures?: number }
    | { random: NodeDocument[] }
    | { invert: NodeDocument }
    | { succeed: NodeDocument }
    | { fail: NodeDocument }
    | { repeat: NodeDocument; times?: number; until?: 'success' | 'failure' }
    | { limit: NodeDocument; times: number }
    | { cooldown: NodeDocument; seconds: NumberOrExpression }
    | { timeout: NodeDocument; seconds: NumberOrExpression }
    | { delay: NodeDocument; seconds: NumberOrExpression }
    | { chance: NodeDocument; p: NumberOrExpression }
  );

export interface RulesDocument {
  title?: string;
  note?: string;
  rows: RuleDocument[];
}

export interface RuleDocument {
  title?: string;
  note?: string;
  when: Expression;
  /** Fires when the test turns true, and not again until it has been false; left out: each decision while it holds. */
  edge?: true;
  do?: ActionDocument[];
  /** Rows tested only when this one fires. */
  rows?: RuleDocument[];
  /** Done when this row does not hold. */
  else?: ActionDocument[];
}

export interface ArchetypeDocument {
  title: string;
  note?: string;
  faction: Name;
  mind?: Name;
  /** More minds beside it, such as one that only aims. */
  minds?: Name[];
  squad?: Name;
  /** Seconds until what the senses bring reaches the minds. */
  reaction?: number;
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
  squad?: Name;
}
