import type { CheckedExpression } from '../../expression/ir.ts';
import type { SharedKeysProgram, StackProgram } from '../../mind/program.ts';
import type { GroundView } from '../../terms/views.ts';
import type { PlayerAct } from '../../terms/player-acts.ts';
import type { DirectorProgram } from './director-program.ts';
import type { GateState, MoveKind, RouteEnd, ThingKind, WallKind } from '../../model/documents.ts';

/** A whole project as the compiler gives it and the world runs it: plain data, angles in radians, times in ticks. */
export interface Program {
  title: string;
  ticksPerSecond: number;
  seed: number;
  /** Index of the text that is the name of the active tier; −1 for none. */
  tier: number;
  texts: string[];
  gaits: string[];
  /** The minds of each kind of agent; after those in use, one for each mind that no archetype has. */
  stacks: StackProgram[];
  squadKeys: SharedKeysProgram;
  worldKeys: SharedKeysProgram;
  /** By name, ascending. */
  squads: SquadProgram[];
  /** Names, ascending. */
  factions: string[];
  /** How each faction stands to each other, row by row, by the places of the stances. */
  stances: number[];
  archetypes: ArchetypeProgram[];
  ground: GroundProgram;
  /** By name, ascending: an agent's index is its id. */
  agents: AgentProgram[];
  /** The game around them. */
  director: DirectorProgram;
  /** The agents that a name stands for, by the index of its text: archetypes, factions, squads and waves. Ascending by word. */
  groups: { word: number; members: number[] }[];
  /** The agent a player drives from the start; −1 for none. */
  play: number;
  /** What a scripted player does, by tick. */
  inputs: InputProgram[];
}

/** What a player does with one agent, from the next tick until it says otherwise. */
export interface Input {
  agent: string;
  /** −1 to 1 each way. */
  x: number;
  y: number;
  /** A gait by name; null for the archetype's own. */
  gait: string | null;
  /** Done once. */
  act?: PlayerAct;
  /** Where a throw, or a thrown move, is aimed at. */
  at?: [number, number];
  /** The move or guard of a strike, guard or dodge; left out: the first there is. */
  move?: string;
  /** Puts the body down elsewhere, and does nothing else. */
  place?: [number, number];
  /** Hands the agent over; left out: a player has it from now on. */
  control?: 'player' | 'minds';
}

export interface InputProgram {
  tick: number;
  input: Input;
}

export interface SquadProgram {
  name: string;
  title: string;
  /** Metres; −1 for anywhere. */
  reach: number;
  delayTicks: number;
  roles: RoleProgram[];
}

export interface RoleProgram {
  /** Index of its name among the texts. */
  role: number;
  title: string;
  /** 0 for any number. */
  slots: number;
  score: CheckedExpression;
  commitment: number;
}

/** An archetype, or what one placed agent makes of it. */
export interface ArchetypeProgram {
  name: string;
  /** Where the document says it. */
  path: string;
  title: string;
  faction: string;
  /** Index of the faction. */
  side: number;
  /** −1 for no mind. */
  stack: number;
  /** Ticks until what the senses bring reaches the minds. */
  reactionTicks: number;
  /** Radians, one standard deviation. */
  aimError: number;
  /** 0 to 1. */
  obedience: number;
  radius: number;
  acceleration: number;
  turnRate: number;
  /** Of the body, standing and crouched. */
  height: number;
  crouchHeight: number;
  /** Speed for each of the program's gaits; NaN where this archetype lacks it. */
  speeds: number[];
  /** How far the steps of each gait are heard. */
  stepNoises: number[];
  crouched: boolean[];
  /** How much each gait gives away of the body, 0 to 1. */
  visibility: number[];
  gait: number;
  sight: SightProgram | null;
  hearing: { threshold: number } | null;
  lantern: { reach: number; strength: number } | null;
  /** Metres; 0 for never. */
  sleepDistance: number;
  /** Share of its speed while it carries something. */
  carryingSpeed: number;
  /** Metres within which friends hear it call. */
  callReach: number;
  /** Points; NaN for an agent that can’t be hurt. */
  health: number;
  /** Ticks from death until it respawns; 0 for never. */
  respawnTicks: number;
  /** By name, ascending. */
  moves: MoveProgram[];
  guards: GuardProgram[];
}

/** Ticks, metres, radians. */
export interface MoveProgram {
  name: string;
  title: string;
  /** Index of its name among the texts, by which minds know it. */
  word: number;
  kind: MoveKind;
  windUp: number;
  active: number;
  recovery: number;
  cooldown: number;
  reach: number;
  halfArc: number;
  from: number;
  to: number;
  damage: number;
  knockback: number;
  stagger: number;
  advance: number;
  /** Radians a tick. */
  turn: number;
  shots: number;
  gap: number;
  spread: number;
  speed: number;
  radius: number;
  drop: number;
  lead: boolean;
  invulnerable: number;
  sturdy: boolean;
  noise: number;
  rooted: boolean;
  hitsOne: boolean;
}

export interface GuardProgram {
  name: string;
  title: string;
  word: number;
  from: number;
  to: number;
  halfArc: number;
  raise: number;
  maxDuration: number;
  damageShare: number;
  parry: number;
  stagger: number;
}

export interface SightProgram {
  cones: { range: number; halfAngle: number; gain: number }[];
  fade: number;
  graceTicks: number;
  curious: number;
  certain: number;
  forgetTicks: number;
  /** How many of feet, chest and head must be in plain view. */
  points: number;
}

export interface BoxProgram {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Whether a place is in a box or on its edge. */
export function isInBox(box: BoxProgram, x: number, y: number): boolean {
  return x >= box.x && y >= box.y && x <= box.x + box.width && y <= box.y + box.height;
}

/** Metres from a place to a box; 0 inside it. */
export function distanceToBox(box: BoxProgram, x: number, y: number): number {
  const dx = Math.max(box.x - x, 0, x - box.x - box.width);
  const dy = Math.max(box.y - y, 0, y - box.y - box.height);
  return Math.sqrt(dx * dx + dy * dy);
}

export interface WallProgram extends BoxProgram {
  kind: WallKind;
  /** Metres above the ground. */
  top: number;
  muffles: number;
}

export interface GroundProgram {
  name: string;
  title: string;
  view: GroundView;
  width: number;
  height: number;
  /** Everywhere, 0 to 1. */
  light: number;
  walls: WallProgram[];
  lamps: { name: string; title: string; x: number; y: number; reach: number; strength: number }[];
  gates: GateProgram[];
  plates: (BoxProgram & { name: string; title: string; gate: number })[];
  things: ThingProgram[];
  /** Where dead agents respawn. */
  spawns: AgentProgram['post'][];
  zones: (BoxProgram & { name: string; title: string })[];
  routes: { name: string; title: string; points: number[]; end: RouteEnd; waitTicks: number }[];
}

export interface GateProgram extends BoxProgram {
  name: string;
  title: string;
  top: number;
  muffles: number;
  state: GateState;
}

/** How one faction stands to another, both by their index: the place of the stance. */
export function stanceToward(
  { stances, factions }: Pick<Program, 'stances' | 'factions'>,
  of: number,
  toward: number,
): number {
  return stances[of * factions.length + toward];
}

export const GATE_CLOSED = 0;
export const GATE_OPEN = 1;
export const GATE_LOCKED = 2;
export type GateStatus = typeof GATE_CLOSED | typeof GATE_OPEN | typeof GATE_LOCKED;

/** How a gate stands, by the word for it. */
export const GATE_STATUS: Record<GateState, GateStatus> = {
  closed: GATE_CLOSED,
  open: GATE_OPEN,
  locked: GATE_LOCKED,
};

export interface ThingProgram {
  name: string;
  title: string;
  kind: ThingKind;
  x: number;
  y: number;
  /** Metres its landing is heard. */
  noise: number;
  /** Points of health it takes from an agent it hits. */
  damage: number;
  /** Kilograms. */
  weight: number;
}

export interface AgentProgram {
  name: string;
  title: string;
  archetype: number;
  x: number;
  y: number;
  heading: number;
  /** Where it belongs. */
  post: { x: number; y: number; heading: number };
  route: number;
  /** −1 for none: then what it would share it has alone. */
  squad: number;
  /** The zone it belongs to; −1 for none. */
  home: number;
  asleep: boolean;
  /** Not on the ground at the start: it comes with a wave, or is the director. */
  away: boolean;
}

/** Metres. */
export const THING_RADIUS = 0.2;

/** All that can be in the way: the walls, then the gates in their order. */
export function wallBoxes({ walls, gates }: GroundProgram): (WallProgram | GateProgram)[] {
  return [...walls, ...gates];
}
