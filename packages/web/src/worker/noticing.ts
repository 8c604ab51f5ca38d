import {
  createObservation,
  findingId,
  limitsOf,
  observationFrom,
  observe,
  runFindings,
  sameData,
  type Branches,
  type Observation,
  type RunFindingLimits,
  type RunFindingsDocument,
} from '@crooked-lantern/core';
import type { NoticedFindings } from '../engine/protocol.ts';

/** What is noticed of the run that goes on, and of the branches that were kept. */
export interface Noticing {
  /** By branch. */
  observations: Map<number, Observation>;
  limits: RunFindingLimits;
}

export function createNoticing(): Noticing {
  return { observations: new Map(), limits: limitsOf() };
}

/** Other limits make other findings: all is looked at again where they have changed. */
export function takeLimits(noticing: Noticing, document: RunFindingsDocument | undefined): void {
  const limits = limitsOf(document);
  if (sameData(limits, noticing.limits)) return;
  noticing.limits = limits;
  noticing.observations.clear();
}

function observationOf(
  { observations, limits }: Noticing,
  { current, kept }: Branches,
): Observation {
  const known = observations.get(current.id);
  if (known) return known;
  const parent = current.parted && observations.get(current.parted.from);
  const made = parent ? observationFrom(parent, current.parted!.tick) : createObservation(limits);
  observations.set(current.id, made);
  const alive = new Set([current.id, ...kept.map(({ id }) => id)]);
  for (const id of observations.keys()) if (!alive.has(id)) observations.delete(id);
  return made;
}

/** Looks at the tick the run has just done, and as long as there is time at what was not looked at before. Whether all was. */
export function notice(noticing: Noticing, branches: Branches, hasTime: () => boolean): boolean {
  return observe(observationOf(noticing, branches), branches.run, hasTime);
}

/** How often anything was noticed in the run that goes on. */
export function timesNoticed(noticing: Noticing, branches: Branches): number {
  let times = 0;
  for (const { ticks } of observationOf(noticing, branches).found.values()) times += ticks.length;
  return times;
}

export function noticedFindings(noticing: Noticing, branches: Branches): NoticedFindings {
  const observation = observationOf(noticing, branches);
  const all = [...noticing.observations.values()];
  return {
    findings: runFindings(observation).map((finding) => {
      const id = findingId(finding);
      return { ...finding, runs: all.filter(({ found }) => found.has(id)).length };
    }),
    runs: all.length,
    to: observation.to,
  };
}
