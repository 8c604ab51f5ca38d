import { limitsOf } from '../model/documents/run-findings.ts';
import type { RunFindingLimits } from '../model/documents/run-findings.ts';
import { entriesOfTick, replayTick, revisit, type Run } from '../ledger/run.ts';
import type { World } from '../world/world.ts';
import { crowding, jitter, oldGoal } from './bodies.ts';
import { flicker, repeatedFiring, repeats, starved, waiting } from './decisions.ts';
import type { Detector, Noticed } from './detector.ts';
import { notFinite, targetGone } from './memory.ts';

/** What is noticed of a run, tick by tick. Nothing of this changes the run. */

/** The same thing of the same agent, however often it was noticed. */
export interface RunFinding extends Noticed {
  /** The ticks it was noticed in, in order; the latest thousand. */
  ticks: number[];
}

export interface Observation {
  limits: RunFindingLimits;
  /** The last tick that was looked at. */
  to: number;
  /** By what makes it the same. */
  found: Map<string, RunFinding>;
  detectors: Detector[];
  /** Where a past is gone through that was not watched; null where the run itself is. */
  behind: World | null;
}

const DETECTORS: readonly (() => Detector)[] = [
  flicker,
  repeats,
  repeatedFiring,
  starved,
  waiting,
  crowding,
  jitter,
  oldGoal,
  targetGone,
  notFinite,
];

/** Seconds of the past that may matter to what is noticed next; no limit is longer. */
const MATTERS_SECONDS = 30;
const TICKS_KEPT = 1000;

export function createObservation(limits: RunFindingLimits = limitsOf()): Observation {
  return {
    limits,
    to: 0,
    found: new Map(),
    detectors: DETECTORS.map((make) => make()),
    behind: null,
  };
}

function look(observation: Observation, run: Run, world: World): void {
  const { tick } = world;
  const isKnown = tick <= observation.to;
  const moment = {
    world,
    entries: entriesOfTick(run, tick),
    limits: observation.limits,
    report: (noticed: Noticed) => {
      if (!isKnown) keep(observation, noticed, tick);
    },
  };
  for (const detect of observation.detectors) detect(moment);
  observation.to = Math.max(observation.to, tick);
}

/** What makes it the same finding, in whichever run. */
export function findingId({ kind, agent, key }: Noticed): string {
  return `${kind} ${agent} ${key}`;
}

function keep({ found }: Observation, noticed: Noticed, tick: number): void {
  const key = findingId(noticed);
  const before = found.get(key);
  found.set(key, { ...noticed, ticks: [...(before?.ticks ?? []), tick].slice(-TICKS_KEPT) });
}

/** What was noticed up to a tick, for a run that goes on from there another way. */
export function observationFrom(observation: Observation, at: number): Observation {
  const found = new Map<string, RunFinding>();
  for (const [key, finding] of observation.found) {
    const ticks = finding.ticks.filter((tick) => tick <= at);
    if (ticks.length > 0) found.set(key, { ...finding, ticks });
  }
  const { limits, to } = observation;
  // Without detectors that have seen it, what lies shortly before is looked at again.
  return { limits, to: Math.min(to, at), found, detectors: [], behind: null };
}

/**
 * Looks at what the run has recorded and was not looked at yet, as long as `hasTime`. The tick the run has just
 * done is looked at as it stands; what lies before is run again in a world of its own. Whether all was looked at.
 */
export function observe(observation: Observation, run: Run, hasTime: () => boolean): boolean {
  if (observation.detectors.length > 0 && !observation.behind) {
    if (run.world.tick === observation.to + 1) look(observation, run, run.world);
  }
  while (observation.to < run.head) {
    if (!hasTime()) return false;
    const { ticksPerSecond } = run.world.statics.program;
    if (!observation.behind) {
      // What was seen shortly before is looked at once more, since what is noticed next may rest on it.
      const from = Math.max(run.keptFrom, observation.to - MATTERS_SECONDS * ticksPerSecond);
      observation.behind = revisit(run, from);
      observation.detectors = DETECTORS.map((make) => make());
    }
    observation.behind = replayTick(run, observation.behind);
    look(observation, run, observation.behind);
  }
  observation.behind = null;
  return true;
}

/** What was noticed so far, the latest first. */
export function runFindings({ found }: Observation): RunFinding[] {
  const latest = ({ ticks }: RunFinding) => ticks[ticks.length - 1];
  return [...found.values()].sort((a, b) => latest(b) - latest(a));
}
