import type { Walkable } from '../motion/walkable.ts';
import type { Neighbours } from '../space/neighbours.ts';
import type { Walls } from '../space/walls.ts';
import type { Agent, SharedWrite } from './agent.ts';
import type { Statics } from './statics.ts';

/** What all agents of a world have around them. */
export interface Surroundings {
  statics: Statics;
  agents: Agent[];
  /** Who is near a place, as bodies stood when the tick began. */
  neighbours: Neighbours;
  /** With this world's gates as they stand. */
  walls: Walls;
  /** By archetype. */
  walkable: Walkable[];
  /** Where sound gets through. */
  openings: Walkable;
  gates: GateStatus[];
  things: Thing[];
  /** Noises of the tick before, on their way to ears. */
  noises: Noise[];
  /** Words on their way from squad member to squad member. */
  messages: Message[];
  searches: Search[];
  /** Who has which place around whom. */
  slots: Slot[];
  /** By route: waypoints learned in this run, as x, y pairs. */
  learned: number[][];
  /** Adds a waypoint to a route. */
  learn(route: number, x: number, y: number): void;
  /** By route: all its waypoints, the learned ones among them. */
  routes: Float64Array[];
  /** By finder (squad, or agent without one): 1 for each item it has found already. */
  found: Uint8Array[];
  /** What minds want written to memory they share; empty between ticks. */
  outbox: SharedWrite[];
  /** What minds do to the world; done in agent order when all have decided. */
  effects: (() => void)[];
}

export const GATE_CLOSED = 0;
export const GATE_OPEN = 1;
export const GATE_LOCKED = 2;
export type GateStatus = typeof GATE_CLOSED | typeof GATE_OPEN | typeof GATE_LOCKED;

/** A thing as it is now. */
export interface Thing {
  x: number;
  y: number;
  /** Metres above the ground. */
  z: number;
  /** Who carries it; −1 for nobody. */
  carrier: number;
  /** Who threw or dropped it last; −1 for nobody. */
  mover: number;
  /** Ticks done and needed of its flight; 0 of 0 while it lies. */
  flown: number;
  flight: number;
  /** Where it was thrown from and to. */
  fromX: number;
  fromY: number;
  toX: number;
  toY: number;
}

export interface Noise {
  /** Index of the text that says what. */
  what: number;
  x: number;
  y: number;
  reach: number;
  /** Agent and thing; −1 for none. */
  maker: number;
  thing: number;
}

export interface Message {
  to: number;
  by: number;
  what: number;
  of: number;
  x: number;
  y: number;
  due: number;
}

/** Places to look at around where somebody was last known to be. */
export interface Search {
  /** The squad, or −1 − agent for one of its own. */
  group: number;
  x: number;
  y: number;
  radius: number;
  spacing: number;
  grid: boolean;
  /** How often it may still be widened. */
  widenings: number;
  /** x, y pairs. */
  places: number[];
  /** For each place: −1 free, −2 done, else the agent on its way there. */
  by: number[];
  usedAt: number;
}

export interface Slot {
  target: number;
  agent: number;
  /** Which, of how many. */
  slot: number;
  slots: number;
}
