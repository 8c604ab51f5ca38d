import { because, type Reason } from '../../terms/reasons.ts';
import { WORD_INDICES } from '../../terms/senses.ts';
import type { ArchetypeProgram, GuardProgram, MoveProgram } from '../program/program.ts';
import type { Renaming } from './renaming.ts';

/** Where an agent stands in a fight: the move it makes, the guard it holds, what came of the last. */
export interface Fight {
  /** Place among the archetype’s moves; −1 for none. */
  move: number;
  /** The tick it was begun in. */
  startedAt: number;
  /** Its target; −1 for none. */
  target: number;
  /** Radians: where it goes, fixed when the wind-up is over; for a dodge from its beginning. */
  heading: number;
  /** Radians by which this use is aimed beside its target. */
  aimOff: number;
  /** The agents this use has met already. */
  struck: number[];
  /** True once a move that hits only one agent has hit one in this use. */
  spent: boolean;
  /** Things this use has knocked away already. */
  knocked: number[];
  /** How far it was from its target at best, in metres; Infinity while it has met none. */
  missedBy: number;
  /** Place among the guards; −1 for none. */
  guard: number;
  raisedAt: number;
  /** Why the last guard was beaten down; null where it was not. */
  loweredBy: Reason | null;
  /** By move: the tick from which it can be made again. */
  readyAt: number[];
  /** Until this tick it can do nothing. */
  staggeredUntil: number;
  /** Until this tick nothing hits it. */
  untouchableUntil: number;
  /** The ticks in which it is still pushed, and by how much in each: metres. */
  pushTicks: number;
  pushX: number;
  pushY: number;
  /** The tick in which a move was broken off last, and why; −1 for never. */
  brokenAt: number;
  brokenBy: Reason | null;
  /** Index of the word for what came of the last move; −1 for none. */
  lastResult: number;
  /** The tick in which it last began or ended a move or a guard, and what it was at before. */
  changedAt: number;
  moveBefore: number;
  startedBefore: number;
  guardBefore: number;
  /** Ticks in which it was hit, and landed a hit, last; −1 for never. */
  hitAt: number;
  landedAt: number;
}

export function createFight({ moves }: Pick<ArchetypeProgram, 'moves'>): Fight {
  return {
    move: -1,
    startedAt: -1,
    target: -1,
    heading: 0,
    aimOff: 0,
    struck: [],
    spent: false,
    knocked: [],
    missedBy: Infinity,
    guard: -1,
    raisedAt: -1,
    loweredBy: null,
    readyAt: moves.map(() => 0),
    staggeredUntil: -1,
    untouchableUntil: -1,
    pushTicks: 0,
    pushX: 0,
    pushY: 0,
    brokenAt: -1,
    brokenBy: null,
    lastResult: -1,
    changedAt: -1,
    moveBefore: -1,
    startedBefore: -1,
    guardBefore: -1,
    hitAt: -1,
    landedAt: -1,
  };
}

export function copyFight(fight: Fight): Fight {
  return {
    ...fight,
    struck: fight.struck.slice(),
    knocked: fight.knocked.slice(),
    readyAt: fight.readyAt.slice(),
  };
}

interface Fighter {
  archetype: ArchetypeProgram;
}

/** Moves and guards go on by name; a move that is gone or has other times is over. */
export function carryFight(
  fight: Fight,
  { from, to, names }: { from: Fighter; to: Fighter; names: Renaming },
): Fight {
  const [was, is] = [from.archetype, to.archetype];
  const placeOf = <T extends { name: string }>(list: readonly T[], name: string | undefined) =>
    list.findIndex((each) => each.name === name);
  const before: MoveProgram | undefined = was.moves[fight.move];
  const move = placeOf(is.moves, before?.name);
  const lasts = (each: MoveProgram) => `${each.windUp} ${each.active} ${each.recovery}`;
  const goesOn = before !== undefined && move >= 0 && lasts(before) === lasts(is.moves[move]);
  const guard: GuardProgram | undefined = was.guards[fight.guard];
  return {
    ...fight,
    move: goesOn ? move : -1,
    moveBefore: placeOf(is.moves, was.moves[fight.moveBefore]?.name),
    guardBefore: placeOf(is.guards, was.guards[fight.guardBefore]?.name),
    target: names.agent(fight.target),
    struck: fight.struck.map((agent) => names.agent(agent)).filter((agent) => agent >= 0),
    // Things may have other places; one that is knocked twice by one use does no damage.
    knocked: [],
    guard: placeOf(is.guards, guard?.name),
    readyAt: is.moves.map(({ name }) => fight.readyAt[placeOf(was.moves, name)] ?? 0),
    lastResult: names.text(fight.lastResult),
  };
}

/** Place of a move, by the word for its name; −1 where the body has none. */
export function moveNamed({ archetype }: Fighter, word: number): number {
  return archetype.moves.findIndex((move) => move.word === word);
}

export function guardNamed({ archetype }: Fighter, word: number): number {
  return archetype.guards.findIndex((guard) => guard.word === word);
}

/** Why a move can’t be begun now; empty where it can. */
export function whyNotBegin(
  agent: Fighter & { fight: Fight; tick: number; asleep: boolean },
  move: number,
): Reason | null {
  const { fight, tick, archetype } = agent;
  if (!archetype.moves[move]) return because('noSuchMove');
  if (agent.asleep) return because('lying');
  if (fight.staggeredUntil > tick) return because('staggered');
  if (fight.move >= 0) return because('busyWithMove', archetype.moves[fight.move].title);
  if (fight.readyAt[move] > tick) return because('moveNotReady', archetype.moves[move].title);
  return null;
}

/** Keeps what the agent has been at, before it changes in a tick for the first time. */
export function noteBefore({ fight, tick }: { fight: Fight; tick: number }): void {
  if (fight.changedAt === tick) return;
  fight.changedAt = tick;
  fight.moveBefore = fight.move;
  fight.startedBefore = fight.startedAt;
  fight.guardBefore = fight.guard;
}

/** The move that is made; undefined for none. */
export function moveOf({ archetype, fight }: Fighter & { fight: Fight }): MoveProgram | undefined {
  return fight.move < 0 ? undefined : archetype.moves[fight.move];
}

/** The guard that is held; undefined for none. */
export function guardOf({
  archetype,
  fight,
}: Fighter & { fight: Fight }): GuardProgram | undefined {
  return fight.guard < 0 ? undefined : archetype.guards[fight.guard];
}

/** Ticks from a move’s beginning to its end. */
export function lengthOf({ windUp, active, recovery }: MoveProgram): number {
  return windUp + active + recovery;
}

/** Index of the word for the part of a move so many ticks after its beginning; −1 once it is over. */
export function phaseAt({ windUp, active, recovery }: MoveProgram, elapsed: number): number {
  if (elapsed < windUp) return WORD_INDICES.windUp;
  if (elapsed < windUp + active) return WORD_INDICES.active;
  return elapsed < windUp + active + recovery ? WORD_INDICES.recovery : -1;
}

/** Whether it can neither go nor turn: it is staggered, or makes a move that takes the legs. */
export function isHeld(agent: Fighter & { fight: Fight; tick: number }): boolean {
  const { fight, tick } = agent;
  return fight.staggeredUntil > tick || (moveOf(agent)?.rooted ?? false);
}

/** Whether a guard covers in a tick. */
export function isCovering(
  { raise, maxDuration }: GuardProgram,
  raisedAt: number,
  tick: number,
): boolean {
  const held = tick - raisedAt;
  return held >= raise && held < raise + maxDuration;
}
