/**
 * The open file: one project as one JSON document. Lengths in metres, times in seconds, angles in
 * degrees; x right, y down, heading 0 = +x, clockwise positive. Order carries meaning in arrays and
 * nowhere else. Any object may also hold `x-…` fields, which are kept and never read.
 */

import type { Channel } from '../terms/channels.ts';
import type { Sense } from '../terms/senses.ts';
import type { ArchetypeDocument, FactionDocument, SquadDocument } from './cast-documents.ts';
import type { BreakpointDocument } from './breakpoint-documents.ts';
import type { BandSetDocument, ChoiceDocument } from './choice-documents.ts';
import type { GroundDocument } from './ground-documents.ts';
import type { RunFindingsDocument } from './run-finding-documents.ts';
import type { TierDocument } from './tier-documents.ts';

export * from '../terms/channels.ts';
export * from '../terms/senses.ts';
export * from '../terms/stances.ts';
export * from './breakpoint-documents.ts';
export * from './cast-documents.ts';
export * from './director-documents.ts';
export * from './choice-documents.ts';
export * from './fight-documents.ts';
export * from './tier-documents.ts';
export * from './ground-documents.ts';

export const PROJECT_FORMAT = 'crooked-lantern/project';
export const PROJECT_VERSION = 2;
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
  factions?: Record<Name, FactionDocument>;
  players?: Record<Name, PlayerDocument>;
  setups?: Record<Name, SetupDocument>;
  /** Names for parts of numbers, for all minds. */
  bands?: Record<Name, BandSetDocument>;
  /** Levels of difficulty, the easiest first. */
  tiers?: TierDocument[];
  /** Where a run stops by itself. */
  breakpoints?: Record<Name, BreakpointDocument>;
  /** From when on what happens in a run is a finding; what is left out is as usual. */
  runFindings?: RunFindingsDocument;
  start: StartDocument;
}

/** How a run begins: the ground, who is played by the keyboard, and the seed. */
export interface StartDocument {
  ground: Name;
  play?: Name;
  seed?: number;
  /** A scripted player that gives the input. */
  player?: Name;
  /** The tier it begins with; left out: the first. */
  tier?: Name;
}

/** Input that was recorded once and is given again, tick by tick: a scripted player. */
export interface PlayerDocument {
  title: string;
  note?: string;
  /** The run it was recorded in; the same edit with these gives the same run again. */
  seed?: number;
  inputs: InputDocument[];
}

/** What an agent is made to do from a tick on, until the next for the same agent. */
export interface InputDocument {
  tick: number;
  agent: Name;
  /** Direction of the legs, −1 to 1 each way; left out: 0. */
  x?: number;
  y?: number;
  /** Left out: the archetype’s own. */
  gait?: Name;
  /** Done once, in this tick. */
  act?: PlayerAct;
  /** Where a throw, or a thrown move, is aimed at. */
  at?: PointDocument;
  /** The move or guard of a strike, guard or dodge. */
  move?: Name;
  /** Puts the body down elsewhere, and does nothing else. */
  place?: PointDocument;
  /** Hands the agent over to the player, or back to its minds. */
  control?: 'player' | 'minds';
}

export const PLAYER_ACTS = [
  'pickUp',
  'drop',
  'throw',
  'use',
  'strike',
  'guard',
  'lower',
  'dodge',
  'call',
] as const;
export type PlayerAct = (typeof PLAYER_ACTS)[number];

/** Another way to begin: who starts where, who is played. What is left out is as on the ground. */
export interface SetupDocument {
  title: string;
  note?: string;
  play?: Name;
  seed?: number;
  /** A scripted player that gives the input. */
  player?: Name;
  agents?: Record<Name, { at?: PointDocument; heading?: number }>;
}

/** A mind is a state machine, or one activity that starts again whenever it ends. */
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
  choices?: Record<Name, ChoiceDocument>;
}

export type CadenceDocument = { every: number } | { on: 'event' };

export const MEMORY_TYPES = [
  'number',
  'flag',
  'text',
  'point',
  'agent',
  'thing',
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
  capacity?: number;
  /** By how much a number changes by itself, a second: hunger, fear, fuel. */
  rate?: number;
  /** What a number never falls below, and never rises above. */
  min?: number;
  max?: number;
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
  transitions?: TransitionDocument[];
  /** While here: which sense wins the attention, the first before the others; senses left out are ignored. */
  attention?: Sense[];
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

/** What a state does while it is active: one action, or a tree, rules or a choice of this mind. */
export type ActivityDocument =
  ActionDocument | TreeCallDocument | RulesCallDocument | ChoiceCallDocument;

export interface TreeCallDocument {
  tree: Name;
  /** Expressions for the tree's parameters. */
  with?: Record<Name, string | number>;
}

export interface RulesCallDocument {
  rules: Name;
}

export interface ChoiceCallDocument {
  choice: Name;
}

export const PARAMETER_TYPES = [
  'number',
  'flag',
  'text',
  'point',
  'agent',
  'thing',
  'route',
] as const;
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
  /** A rule of conduct: each time its guard begins to hold, the archetype’s `obedience` is the probability that it is obeyed. */
  conduct?: true;
  /** Switched off, with all below it: as if it were not there. */
  off?: true;
}

/** A number, or an expression for one. */
export type NumberOrExpression = number | Expression;

/** What makes a node the node it is, by the field that names it. */
export interface NodeForms {
  do: ActionDocument;
  tree: TreeCallDocument;
  rules: RulesCallDocument;
  choice: ChoiceCallDocument;
  condition: { condition: Expression };
  sequence: { sequence: NodeDocument[]; restart?: true };
  selector: { selector: NodeDocument[]; restart?: true };
  parallel: { parallel: NodeDocument[]; successes?: number; failures?: number };
  random: { random: NodeDocument[] };
  invert: { invert: NodeDocument };
  succeed: { succeed: NodeDocument };
  fail: { fail: NodeDocument };
  repeat: { repeat: NodeDocument; times?: number; until?: 'success' | 'failure' };
  limit: { limit: NodeDocument; times: number };
  cooldown: { cooldown: NodeDocument; seconds: NumberOrExpression };
  timeout: { timeout: NodeDocument; seconds: NumberOrExpression };
  delay: { delay: NodeDocument; seconds: NumberOrExpression };
  chance: { chance: NodeDocument; probability: NumberOrExpression };
}

export type NodeDocument = NodeFields & NodeForms[keyof NodeForms];

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
  /** A rule of conduct: each time it begins to hold, the archetype’s `obedience` is the probability that it is obeyed. */
  conduct?: true;
  do?: ActionDocument[];
  /** Rows tested only when this one fires. */
  rows?: RuleDocument[];
  /** Done when this row does not hold. */
  else?: ActionDocument[];
  /** Switched off, with all below it: as if it were not there. */
  off?: true;
}
