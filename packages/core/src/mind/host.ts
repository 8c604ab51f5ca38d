import type { Facts } from '../expression/facts.ts';

export const LEGS_IDLE = 0;
export const LEGS_MOVING = 1;
export const LEGS_ARRIVED = 2;
export const LEGS_FAILED = 3;
export type LegsStatus =
  typeof LEGS_IDLE | typeof LEGS_MOVING | typeof LEGS_ARRIVED | typeof LEGS_FAILED;

export type Ending = 'success' | 'failure' | 'stopped';

/** What a mind does, told to whoever records it. States, transitions and keys by index; row −1 is the activity as a whole. */
export interface MindRecorder {
  entered(state: number): void;
  exited(state: number): void;
  took(transition: number, event: string): void;
  began(state: number, action: string, row: number): void;
  ended(state: number, action: string, row: number, ending: Ending, reason: string): void;
  /** An action that takes no time and leaves no other trace. */
  did(action: string): void;
  fired(state: number, row: number): void;
  overruled(state: number, row: number, action: string, by: number): void;
  remembered(key: number): void;
  said(text: string): void;
  cycled(states: number[]): void;
  skipped(action: string): void;
}

/**
 * The body and world of one agent, as its minds meet them: facts to read, commands to give. What a
 * mind does to others takes effect after all minds have decided.
 */
export interface Host extends Facts {
  readonly tick: number;
  readonly ticksPerSecond: number;
  readonly legs: LegsStatus;
  /** Whether the mind has noticed anything at all. */
  readonly aware: boolean;
  /** Why the action that just gave `FAILURE` failed; empty once it has been told. */
  reason: string;
  /** x and y of the place {@link locate} found. */
  readonly place: Float64Array;
  /** Puts the last known place of an agent into `place`; false where there is none. */
  locate(agent: number): boolean;
  /** The next number of this agent's own stream, 0 to 1. */
  random(): number;
  /** Waypoints of a route as x, y pairs. */
  routePoints(route: number): Float64Array;
  /** Ticks to stand at each waypoint. */
  routeWait(route: number): number;
  routeEnd(route: number): 'loop' | 'stop' | 'thereAndBack';
  /** Sends the legs to a place; asking again with a place close by keeps the path. */
  goTo(x: number, y: number, within: number): void;
  stopLegs(): void;
  setGait(gait: number): void;
  /** Turns the body toward `angle` (radians) until another goal or {@link freeEyes}. */
  turnTo(angle: number): void;
  freeEyes(): void;
  say(text: string): void;
  raise(event: string): void;
  remember(key: number, a: number, b: number): void;
  /** Adds to a list; the oldest entry gives way when it is full. */
  add(key: number, a: number, b: number): void;
  forget(key: number): void;
  readonly recorder: MindRecorder | null;
}
