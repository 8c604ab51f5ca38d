import type { Channel } from './channels.ts';

/** Why there is no path. */
export type NoPath = 'goalInWall' | 'closedIn' | 'otherIsland' | 'gateClosed' | 'tooFar';

/**
 * Why something could not be done, or ended before its time: by code the values that belong to it. What decides by a
 * reason asks for its code; `reasonText` puts it into words for people.
 */
interface Values {
  /* What is not known. */
  placeUnknown: [];
  middleUnknown: [];
  timeUnknown: [];
  angleUnknown: [];
  distanceUnknown: [];
  pointsUnknown: [];
  targetUnknown: [];
  thingUnknown: [];
  gateUnknown: [];
  sleeperUnknown: [];
  throwPlaceMissing: [];
  /* Ways. */
  noPath: [why: NoPath | ''];
  goalInWall: [];
  closedIn: [];
  otherIsland: [];
  gateClosed: [];
  tooFar: [];
  noWayOut: [];
  noRoute: [];
  nowhereToGo: [];
  blockedByBodies: [titles: string];
  blockedByWall: [];
  blocked: [];
  wall: [];
  occupied: [title: string];
  /* Hands. */
  handsFull: [];
  handsEmpty: [];
  alreadyCarried: [];
  inTheAir: [];
  outOfReach: [];
  sleeperDead: [];
  sleeperAwake: [];
  sleeperOutOfReach: [];
  nothingInReach: [];
  noGateInReach: [];
  gateLocked: [];
  gateOccupied: [];
  notDone: [];
  /* Fighting. */
  noMove: [];
  noDodge: [];
  noSuchMove: [];
  noSuchGuard: [];
  lying: [];
  staggered: [];
  busyWithMove: [title: string];
  moveNotReady: [title: string];
  turnedElsewhere: [];
  hitBy: [title: string];
  parriedBy: [title: string];
  /* Groups. */
  noSquad: [];
  searchExhausted: [];
  slotsTaken: [];
  /* Minds. */
  channelTaken: [channel: Channel];
  nothingWorthDoing: [];
  /* Waves. */
  absent: [];
  nobodyToSend: [];
  waveComing: [];
  waveFull: [alive: number];
  waveBodiesLie: [];
  waveNoRoom: [places: string];
  /** Of a recording that was made when reasons were text alone. */
  text: [text: string];
}

export type ReasonCode = keyof Values;

export type ReasonValues<Code extends ReasonCode> = Values[Code];

export type Reason = {
  [Code in ReasonCode]: Values[Code] extends []
    ? { readonly code: Code }
    : { readonly code: Code; readonly values: Readonly<Values[Code]> };
}[ReasonCode];

/** The reason of that code. */
export function because<Code extends ReasonCode>(code: Code, ...values: Values[Code]): Reason {
  return (values.length === 0 ? { code } : { code, values }) as Reason;
}
