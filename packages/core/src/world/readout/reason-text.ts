import type { NoPath, Reason, ReasonCode, ReasonValues } from '../../terms/reasons.ts';

/** Reasons in English: what the ledger, answers and the command line say. */

const NO_PATH = {
  goalInWall: 'goal inside a wall',
  closedIn: 'closed in',
  otherIsland: 'other island',
  gateClosed: 'a gate is closed',
  tooFar: 'too far',
} satisfies Record<NoPath, string>;

const WORDS: { readonly [Code in ReasonCode]: (...values: ReasonValues<Code>) => string } = {
  placeUnknown: () => 'the place is not known',
  middleUnknown: () => 'the middle is not known',
  timeUnknown: () => 'the time is not known',
  angleUnknown: () => 'the angle is not known',
  distanceUnknown: () => 'the distance is not known',
  pointsUnknown: () => 'the points are not known',
  targetUnknown: () => 'it is not known where',
  thingUnknown: () => 'it is not known what',
  gateUnknown: () => 'it is not known which gate',
  sleeperUnknown: () => 'it is not known who',
  throwPlaceMissing: () => 'it is not said where to',
  noPath: (why) => (why === '' ? 'there is no way to it' : `no way: ${NO_PATH[why]}`),
  goalInWall: () => NO_PATH.goalInWall,
  closedIn: () => NO_PATH.closedIn,
  otherIsland: () => NO_PATH.otherIsland,
  gateClosed: () => NO_PATH.gateClosed,
  tooFar: () => NO_PATH.tooFar,
  noWayOut: () => 'closed in: no way leads out of here',
  noRoute: () => 'there is no route',
  nowhereToGo: () => 'there is nowhere to go',
  blockedByBodies: (titles) => `held up by ${titles}`,
  blockedByWall: () => 'held up by a wall',
  blocked: () => 'held up',
  wall: () => 'there is a wall',
  occupied: (title) => `${title} stands there`,
  handsFull: () => 'the hands are full',
  handsEmpty: () => 'the hands are empty',
  alreadyCarried: () => 'another agent carries it',
  inTheAir: () => 'it is in the air',
  outOfReach: () => 'it is out of reach',
  sleeperDead: () => 'they are dead',
  sleeperAwake: () => 'they are awake',
  sleeperOutOfReach: () => 'they are out of reach',
  nothingInReach: () => 'nothing to pick up is in reach',
  noGateInReach: () => 'no gate is in reach',
  gateLocked: () => 'the gate is locked',
  gateOccupied: () => 'an agent blocks the gate',
  notDone: () => 'it did not come about',
  noMove: () => 'it has no move',
  noDodge: () => 'it has no dodge',
  noSuchMove: () => 'it has no such move',
  noSuchGuard: () => 'it has no such guard',
  lying: () => 'it lies on the ground',
  staggered: () => 'it is staggered',
  busyWithMove: (title) => `it is at ${title}`,
  moveNotReady: (title) => `${title} is not ready`,
  turnedElsewhere: () => 'it turned to something else',
  hitBy: (title) => `hit by ${title}`,
  parriedBy: (title) => `parried by ${title}`,
  noSquad: () => 'it has no squad',
  searchExhausted: () => 'nothing around it can be reached, or others search all of it',
  slotsTaken: () => 'every place around is taken',
  channelTaken: (channel) => `something else took its ${channel}`,
  nothingWorthDoing: () => 'nothing is worth doing',
  absent: () => 'it is not on the ground',
  nobodyToSend: () => 'none of them is present, and none is still to come',
  waveComing: () => 'the wave is coming already',
  waveFull: (alive) => `${alive} are alive, and no more may be at once`,
  waveBodiesLie: () => 'dead agents of it still lie there',
  waveNoRoom: (places) => `there is no room at ${places}`,
  text: (text) => text,
};

export function reasonText(reason: Reason): string {
  const words = WORDS[reason.code] as (...values: readonly unknown[]) => string;
  return words(...('values' in reason ? reason.values : []));
}

/** A reason as files have it: its code and values, and the same in words. */
export interface WrittenReason {
  code: string;
  values?: readonly unknown[];
  text: string;
}

export function writtenReason(reason: Reason): WrittenReason {
  return { ...reason, text: reasonText(reason) };
}

/** A reason that was read from a file; one of a code that is not known here, or of text alone, by its text. */
export function readReason(written: string | WrittenReason): Reason {
  if (typeof written === 'string') return { code: 'text', values: [written] };
  const { text, ...reason } = written;
  return Object.hasOwn(WORDS, reason.code) ? (reason as Reason) : { code: 'text', values: [text] };
}
