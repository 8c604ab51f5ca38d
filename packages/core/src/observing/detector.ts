import type { ObservationLimits } from '../model/documents/observation-limits.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';
import type { Agent } from '../world/agents/agent.ts';
import type { World } from '../world/world.ts';
import type { ObservationKind } from './kinds.ts';

/** Something noticed in a tick. */
export interface Noticed {
  kind: ObservationKind;
  /** By name. */
  agent: string;
  /** What makes it the same thing as before: states, a key, a row. */
  key: string;
  message: string;
  /** Where in a mind it is about. */
  place?: NoticedPlace;
}

interface NoticedPlace {
  mind: string;
  state: string;
  /** The transition that is meant, as people count it, from 1. */
  order?: number;
}

/** What a detector is shown after each tick. */
export interface Moment {
  world: World;
  /** What the tick recorded. */
  entries: readonly LedgerEntry[];
  limits: ObservationLimits;
  report(noticed: Noticed): void;
}

/** Looks at one tick after another, in order, without a gap. It keeps what it needs to know of those before. */
export type Detector = (moment: Moment) => void;

/** The mind an entry is of, the agent’s first where it does not say, by its number; undefined where an edit has taken it away. */
export function mindOfEntry(
  { agents }: World,
  { agent: name, mind }: LedgerEntry,
): { agent: Agent; index: number } | undefined {
  const agent = agents.find((each) => each.name === name);
  if (!agent) return undefined;
  const index =
    mind === undefined ? 0 : agent.minds.findIndex(({ program }) => program.name === mind);
  return index in agent.minds ? { agent, index } : undefined;
}

export function ticksOf({ world }: Moment, seconds: number): number {
  return Math.round(seconds * world.statics.program.ticksPerSecond);
}

/** What lasts is looked at in ticks so many seconds apart. */
const LOOK_SECONDS = 0.1;

/** Whether this is a tick in which what lasts is looked at. */
export function isLook(moment: Moment): boolean {
  return moment.world.tick % Math.max(1, ticksOf(moment, LOOK_SECONDS)) === 0;
}

/**
 * Counts what happens again and again: `hit` gives the ticks of the last times where there were `times` of
 * them within `within` ticks, and begins to count from nothing then; else null.
 */
export function counter(): (
  key: string,
  at: number,
  limits: { times: number; within: number },
) => number[] | null {
  const seen = new Map<string, number[]>();
  return (key, at, { times, within }) => {
    const ticks = (seen.get(key) ?? []).filter((before) => at - before <= within);
    ticks.push(at);
    if (ticks.length < times) {
      seen.set(key, ticks);
      return null;
    }
    seen.delete(key);
    return ticks;
  };
}

/**
 * Follows what lasts: given in each look whether something holds, it says true in the one look in which that has
 * held for so many ticks.
 */
export function lasting(): (key: string, at: number, holds: boolean, ticks: number) => boolean {
  const begun = new Map<string, number>();
  return (key, at, holds, ticks) => {
    if (!holds) {
      begun.delete(key);
      return false;
    }
    const since = begun.get(key);
    if (since === undefined) {
      begun.set(key, at);
      return false;
    }
    if (since < 0 || at - since < ticks) return false;
    // Told once, until it has ended.
    begun.set(key, -1);
    return true;
  };
}
