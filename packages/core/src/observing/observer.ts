import { limitsOf } from '../model/documents/observation-limits.ts';
import type { ObservationLimits } from '../model/documents/observation-limits.ts';
import { entriesOfTick, replayTick, revisit, type Run } from '../ledger/run.ts';
import type { World } from '../world/world.ts';
import { crowding, jitter, oldGoal } from './bodies.ts';
import { flicker, repeatedFiring, repeats, starved, staysAfterEnd, waiting } from './decisions.ts';
import { nearMisses, optionFlicker } from './fights-and-picks.ts';
import type { Detector, Noticed } from './detector.ts';
import { notFinite, targetGone } from './memory.ts';

/** What is observed of a run, tick by tick. Nothing of this changes the run. */

/** The same thing of the same agent, however often it was noticed. */
export interface Observation extends Noticed {
  /** The ticks it was noticed in, in order; the latest thousand. */
  ticks: number[];
}

export interface Observer {
  limits: ObservationLimits;
  /** The last tick that was looked at. */
  to: number;
  /** By what makes it the same. */
  found: Map<string, Observation>;
  detectors: Detector[];
  /** Where a past is gone through that was not watched; null where the run itself is. */
  behind: World | null;
}

const DETECTORS: readonly (() => Detector)[] = [
  flicker,
  optionFlicker,
  nearMisses,
  repeats,
  repeatedFiring,
  starved,
  waiting,
  staysAfterEnd,
  crowding,
  jitter,
  oldGoal,
  targetGone,
  notFinite,
];

/** Seconds of the past that may matter to what is noticed next; no limit is longer. */
const MATTERS_SECONDS = 30;
const TICKS_KEPT = 1000;

export function createObserver(limits: ObservationLimits = limitsOf()): Observer {
  return {
    limits,
    to: 0,
    found: new Map(),
    detectors: DETECTORS.map((make) => make()),
    behind: null,
  };
}

function look(observer: Observer, run: Run, world: World): void {
  const { tick } = world;
  const isKnown = tick <= observer.to;
  const moment = {
    world,
    entries: entriesOfTick(run, tick),
    limits: observer.limits,
    report: (noticed: Noticed) => {
      if (!isKnown) keep(observer, noticed, tick);
    },
  };
  for (const detect of observer.detectors) detect(moment);
  observer.to = Math.max(observer.to, tick);
}

/** What makes it the same observation, in whichever run. */
export function observationId({ kind, agent, key }: Noticed): string {
  return `${kind} ${agent} ${key}`;
}

function keep({ found }: Observer, noticed: Noticed, tick: number): void {
  const key = observationId(noticed);
  const before = found.get(key);
  found.set(key, { ...noticed, ticks: [...(before?.ticks ?? []), tick].slice(-TICKS_KEPT) });
}

/** What was noticed up to a tick, for a run that goes on from there another way. */
export function observerFrom(observer: Observer, at: number): Observer {
  const found = new Map<string, Observation>();
  for (const [key, each] of observer.found) {
    const ticks = each.ticks.filter((tick) => tick <= at);
    if (ticks.length > 0) found.set(key, { ...each, ticks });
  }
  const { limits, to } = observer;
  // Without detectors that have seen it, what lies shortly before is looked at again.
  return { limits, to: Math.min(to, at), found, detectors: [], behind: null };
}

/**
 * Looks at what the run has recorded and was not looked at yet, as long as `hasTime`. The tick the run has just
 * done is looked at as it stands; what lies before is run again in a world of its own. Whether all was looked at.
 */
export function observe(observer: Observer, run: Run, hasTime: () => boolean): boolean {
  if (observer.detectors.length > 0 && !observer.behind) {
    if (run.world.tick === observer.to + 1) look(observer, run, run.world);
  }
  while (observer.to < run.head) {
    if (!hasTime()) return false;
    const { ticksPerSecond } = run.world.statics.program;
    if (!observer.behind) {
      // What was seen shortly before is looked at once more, since what is noticed next may rest on it.
      const from = Math.max(run.keptFrom, observer.to - MATTERS_SECONDS * ticksPerSecond);
      observer.behind = revisit(run, from);
      observer.detectors = DETECTORS.map((make) => make());
    }
    observer.behind = replayTick(run, observer.behind);
    look(observer, run, observer.behind);
  }
  observer.behind = null;
  return true;
}

/** What was noticed so far, the latest first. */
export function observationsOf({ found }: Observer): Observation[] {
  const latest = ({ ticks }: Observation) => ticks[ticks.length - 1];
  return [...found.values()].sort((a, b) => latest(b) - latest(a));
}
