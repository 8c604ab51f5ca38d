import type { Around } from '../../expression/facts.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Statics } from '../program/statics.ts';
import type { AgentState } from './agent-state.ts';
import type { Claims } from './claims.ts';
import type { Places } from './places.ts';
import type { Recorder } from './recorder.ts';
import type { WorldRun } from './world-run.ts';

/** What all agents of a world have around them. */
export interface Surroundings extends WorldRun {
  statics: Statics;
  agents: AgentState[];
  /** With this world's gates as they stand. */
  ground: Ground;
  /** Where the agents stood when the tick began. */
  places: Places;
  /** What members of squads have taken. */
  claims: Claims;
  /** Whether minds decide now. What they begin shows to others only when all have decided. */
  isDeciding: boolean;
  /** By route: all its waypoints, the learned ones among them. */
  routes: Float64Array[];
  /** What minds want written to memory they share; empty between ticks. */
  outbox: SharedWrite[];
  /** What minds do to the world; done in agent order when all have decided. */
  effects: (() => void)[];
  recorder: Recorder | null;
  around: Around;
}

/** What a mind wants written to memory it shares; done after all minds have decided. */
export interface SharedWrite {
  agent: AgentState;
  /** Index among the keys of the agent's stack. */
  key: number;
  how: 'remember' | 'add' | 'forget';
  a: number;
  b: number;
}

/** A thing as it is now. */
export interface Thing {
  x: number;
  y: number;
  /** Metres above the ground. */
  z: number;
  /** The agent that carries it; −1 for none. */
  carrier: number;
  /** The agent that threw or dropped it last; −1 for none. */
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

/** Something that a move has sent flying. */
export interface Shot {
  by: number;
  /** Place among the moves of the agent that made it. */
  move: number;
  x: number;
  y: number;
  z: number;
  vx: number;
  vy: number;
  vz: number;
  /** Metres it has flown. */
  flown: number;
  /** Its target; −1 for none. */
  target: number;
  /** The agents that have dodged it. */
  passed: number[];
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

/** Places to search around the last known position of an agent. */
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
