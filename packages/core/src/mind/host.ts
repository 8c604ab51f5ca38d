import type { Facts } from '../expression/facts.ts';
import type { LegsStatus } from '../motion/legs.ts';
import type { NoPath, Reason } from '../terms/reasons.ts';
import type { GateState, ResultName } from '../model/documents.ts';
import type { ChoiceProgram } from './program.ts';

export type Ending = 'success' | 'failure' | 'stopped';

/** Why an option does not compete. */
export type Bar = 'guard' | 'conduct' | 'cooldown' | 'noCandidate' | 'veto' | 'minScore' | 'rank';

/** Takes in what each option for each candidate came to, and what its considerations are worth. */
export type Onlooker = (
  option: number,
  a: number,
  b: number,
  score: number,
  bar: Bar | null,
  parts: Float64Array,
) => void;

/** What a weighing came to. */
export interface Weighing {
  /** Place of the option that won; −1 where nothing competes. */
  option: number;
  a: number;
  b: number;
  score: number;
  /** How many scored the same as the best. */
  ties: number;
  /** The next best, of another option or for another candidate; −1 where there is none. */
  next: number;
  margin: number;
}

/** What a mind does, reported to its recorder. States, transitions and keys by index; row −1 is the activity as a whole. */
export interface MindRecorder {
  entered(state: number): void;
  exited(state: number): void;
  took(transition: number, event: string): void;
  began(state: number, action: string, row: number): void;
  ended(state: number, action: string, row: number, ending: Ending, reason: Reason | null): void;
  /** An action that takes no time and leaves no other trace. */
  did(action: string): void;
  fired(state: number, row: number): void;
  overruled(state: number, row: number, action: string, by: number): void;
  remembered(key: number): void;
  /** What was to be remembered was nothing, so that the key keeps what it had. */
  kept(key: number): void;
  /** Who takes in what each option is worth while a choice is weighed. */
  looksOn(choice: ChoiceProgram): Onlooker;
  /** What a choice has turned to. */
  picked(state: number, row: number, choice: ChoiceProgram, weighing: Weighing): void;
  said(text: string): void;
  cycled(states: number[]): void;
  /** Events for which there was no room among those that wait. */
  dropped(events: number): void;
  skipped(action: string): void;
}

/** What a search looks for: where, how far, how closely, and how often it may be widened. */
export interface SearchPlan {
  x: number;
  y: number;
  radius: number;
  spacing: number;
  grid: boolean;
  widenings: number;
  /** The first place, not the next of a search this agent takes part in. */
  begins: boolean;
}

/**
 * The body and world of one agent, as its minds meet them: facts to read, commands to give. What a
 * mind does to others takes effect after all minds have decided.
 */
export interface Host extends Facts {
  readonly tick: number;
  readonly ticksPerSecond: number;
  readonly legs: LegsStatus;
  /** Why the action that just returned `FAILURE` failed; null once it has been recorded. */
  reason: Reason | null;
  /** x and y of the place {@link locate} found. */
  readonly place: Float64Array;
  /** Puts the last known place of an agent into `place`; false where there is none. */
  locate(agent: number): boolean;
  /** The next number of this agent's own stream, 0 to 1. */
  random(): number;
  /** How likely a rule of conduct is heeded, 0 to 1. */
  readonly obedience: number;
  /** Waypoints of a route as x, y pairs. */
  routePoints(route: number): Float64Array;
  /** Ticks to stand at each waypoint. */
  routeWait(route: number): number;
  routeEnd(route: number): 'loop' | 'stop' | 'thereAndBack';
  /**
   * Sends the legs to a place; asking again with a place close by keeps the path. With `settles`,
   * standing beside bodies that stand there already counts as arrived.
   */
  goTo(x: number, y: number, within: number, settles?: boolean): void;
  /** Why the legs found no path; empty where they did. */
  readonly trouble: NoPath | '';
  readonly postHeading: number;
  /** Share of the straight way to a place that the body can go, 0 to 1. */
  freeWay(x: number, y: number): number;
  /** Adds a waypoint to a route, for this run. */
  learn(route: number, x: number, y: number): void;
  /** `what` is the index of a text. */
  makeNoise(what: number, reach: number): void;
  /** Returns why it can't be told; null where it is on its way. */
  tell(what: number, x: number, y: number, of: number): Reason | null;
  /**
   * What hands do. Each returns why it can't be done as things stand, or null; it is done when
   * all have decided, and {@link refused} then says if another was first.
   */
  pickUp(thing: number): Reason | null;
  drop(): Reason | null;
  throwAt(x: number, y: number): Reason | null;
  use(gate: number): Reason | null;
  wake(agent: number): Reason | null;
  /** Begins a move, by the word for its name; returns why it can’t be, or null. `way` (radians from the heading) is where a dodge goes. */
  strike(move: number, target: number, way: number): Reason | null;
  /** Whether the move begun in that tick goes on; where it was broken off, why stands in `reason`. */
  isStriking(move: number, since: number): boolean;
  breakOff(): void;
  raiseGuard(guard: number): Reason | null;
  isGuarding(guard: number): boolean;
  lowerGuard(): void;
  readonly refused: Reason | null;
  isAsleep(agent: number): boolean;
  /** How this agent stands to another, by the places of the stances. */
  stanceTo(agent: number): number;
  /** Whether there is nothing left of an agent to deal with: it is dead. */
  isGone(agent: number): boolean;
  /** Whether a thing can be picked up: no agent carries it, and it is not in flight. */
  isLoose(thing: number): boolean;
  /** Whether there is room for this body. */
  canStandAt(x: number, y: number): boolean;
  /** Joins the squad's search and books a place there, when all have decided. */
  search(plan: SearchPlan): void;
  /** Puts the booked place into `place`; false where there is none. */
  searchPlace(): boolean;
  /** Releases the booked place: looked at, or still to be looked at. */
  leavePlace(done: boolean): void;
  /** Books a place around an agent at (x, y), when all have decided. */
  surround(agent: number, places: number, distance: number, x: number, y: number): void;
  /** Puts the offset of the booked place around the agent into `place`; false where there is none. */
  slotAround(agent: number, distance: number): boolean;
  leaveSlot(): void;
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
  /**
   * What a director does, by the words for names. Each that can fail returns why, or null; all of
   * it shows before any agent senses.
   */
  bring(wave: number): Reason | null;
  sendAway(group: number): Reason | null;
  /** −1: to every agent. */
  announce(event: string, group: number): void;
  addScore(score: number, points: number): Reason | null;
  /** 0 ticks: until it is set again. */
  setMode(mode: number, ticks: number): void;
  setLight(to: number, ticks: number): void;
  setGate(gate: number, to: GateState): Reason | null;
  end(how: ResultName, words: string): void;
  readonly recorder: MindRecorder | null;
}
