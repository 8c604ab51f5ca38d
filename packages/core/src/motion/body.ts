import type { NoPath } from '../terms/reasons.ts';
import { distance } from '../numeric/distance.ts';
import { LEGS_ARRIVED, LEGS_IDLE, LEGS_MOVING, type LegsStatus } from './legs.ts';

/** What a body is capable of; radians and metres, shared by all bodies of an archetype. */
export interface BodyKind {
  radius: number;
  acceleration: number;
  turnRate: number;
}

/** One body and the commands it has. Plain numbers and arrays only. */
export interface Body {
  x: number;
  y: number;
  heading: number;
  vx: number;
  vy: number;
  /** m/s of the chosen gait. */
  pace: number;
  legs: LegsStatus;
  goalX: number;
  goalY: number;
  within: number;
  /** Where others stand at the goal already, standing beside them counts as there. */
  settles: boolean;
  /** Tick in which the legs were last set going. */
  goalTick: number;
  /** Tick since which they go to about this place. */
  goalSince: number;
  /** Tick in which they were last told to go anywhere. */
  askedAt: number;
  /** Whether they have come to their goal since. */
  arrived: boolean;
  /** Way to the goal as x, y pairs, and the pair walked to now. */
  path: number[];
  pathAt: number;
  /** Where the path ends; the goal may have moved on since. */
  pathX: number;
  pathY: number;
  /** Why the legs failed; empty where they did not. */
  trouble: NoPath | '';
  /** Where and in which tick it was last seen to get on. */
  markX: number;
  markY: number;
  markTick: number;
  /** Heading to turn to; NaN to look where it goes. */
  eyes: number;
  /** Direct steering by a player, −1 to 1 each way; NaN for none. */
  steerX: number;
  steerY: number;
  /** The forces of this tick in m/s, x and y each, in the order of {@link FORCES}. */
  forces: number[];
  /** Metres of the way still to go; 0 for one that goes nowhere, or where a player steers it. */
  wayLeft: number;
  /** The least of it so far on this way, and for how many seconds it has been no less. */
  leastLeft: number;
  held: number;
  /** Metres gone since the last step was heard. */
  stride: number;
}

/** In the order they are given their part of what the body can do. */
export const FORCES = ['separate', 'avoid', 'seek'] as const;

export function createBody(x: number, y: number, heading: number, pace: number): Body {
  return {
    x,
    y,
    heading,
    vx: 0,
    vy: 0,
    pace,
    legs: LEGS_IDLE,
    goalX: NaN,
    goalY: NaN,
    within: 0,
    settles: false,
    goalTick: -1,
    goalSince: -1,
    askedAt: -1,
    arrived: false,
    path: [],
    pathAt: 0,
    pathX: NaN,
    pathY: NaN,
    trouble: '',
    markX: x,
    markY: y,
    markTick: -1,
    eyes: NaN,
    steerX: NaN,
    steerY: NaN,
    forces: [0, 0, 0, 0, 0, 0],
    wayLeft: 0,
    leastLeft: Infinity,
    held: 0,
    stride: 0,
  };
}

export function copyBody(body: Body): Body {
  return { ...body, path: body.path.slice(), forces: body.forces.slice() };
}

/** A goal this close to the path's end needs no new path. */
const PATH_TOLERANCE = 0.25;

/** A goal that moves no farther than this, in metres, is the same place. */
const SAME_PLACE = 0.8;

/** Told again within so many ticks to go where it has come to rest, a body stays: in a crowd it would else never rest. */
const REPEATED = 30;
/** Metres by which a body that rests may have been pushed. */
const PUSHED = 0.1;

/** Whether it has come to a place and still stands where it came to rest. */
function hasArrived(body: Body, x: number, y: number, within: number, settles: boolean): boolean {
  if (!body.arrived || body.goalX !== x || body.goalY !== y) return false;
  if (body.within !== within || body.settles !== settles) return false;
  return settles
    ? distance(body.x, body.y, body.markX, body.markY) <= PUSHED
    : distance(body.x, body.y, x, y) <= within;
}

export function commandLegs(
  body: Body,
  x: number,
  y: number,
  within: number,
  tick: number,
  settles = false,
): void {
  const isRepeated = tick - body.askedAt <= REPEATED;
  body.askedAt = tick;
  if (isRepeated && hasArrived(body, x, y, within, settles)) {
    body.legs = LEGS_ARRIVED;
    return;
  }
  body.arrived = false;
  const isMoving = body.legs === LEGS_MOVING;
  if (!isMoving || body.goalX !== x || body.goalY !== y) body.leastLeft = Infinity;
  if (!isMoving || distance(body.goalX, body.goalY, x, y) > SAME_PLACE) body.goalSince = tick;
  body.goalX = x;
  body.goalY = y;
  body.within = within;
  body.settles = settles;
  if (body.legs !== LEGS_MOVING) {
    body.pathX = NaN;
    body.goalTick = tick;
    body.markX = body.x;
    body.markY = body.y;
    body.markTick = tick;
  }
  body.legs = LEGS_MOVING;
}

export function stopLegs(body: Body): void {
  body.legs = LEGS_IDLE;
  if (body.path.length > 0) body.path.length = 0;
  body.pathX = NaN;
}

/** The legs have come to their goal. */
export function arrive(body: Body): void {
  stopLegs(body);
  body.legs = LEGS_ARRIVED;
  body.arrived = true;
  body.markX = body.x;
  body.markY = body.y;
}

/** Whether the legs are to go somewhere that the path does not lead to. */
export function needsPath(body: Body): boolean {
  if (body.legs !== LEGS_MOVING || !Number.isNaN(body.steerX)) return false;
  const dx = body.goalX - body.pathX;
  const dy = body.goalY - body.pathY;
  return !(dx * dx + dy * dy <= PATH_TOLERANCE * PATH_TOLERANCE);
}

export function takePath(body: Body, points: number[]): void {
  body.path = points;
  body.pathAt = 0;
  body.pathX = body.goalX;
  body.pathY = body.goalY;
}

/** Seconds, and metres to get on in them, before a moving body counts as stuck. */
const STUCK_SECONDS = 1.5;
const STUCK_METRES = 0.2;

/** Whether a body whose legs are going has got nowhere; looks again from here on. */
export function isStuck(body: Body, tick: number, ticksPerSecond: number): boolean {
  if (body.legs !== LEGS_MOVING || body.pace === 0) return false;
  if (tick - body.markTick < STUCK_SECONDS * ticksPerSecond) return false;
  const dx = body.x - body.markX;
  const dy = body.y - body.markY;
  body.markX = body.x;
  body.markY = body.y;
  body.markTick = tick;
  return dx * dx + dy * dy < STUCK_METRES * STUCK_METRES;
}
