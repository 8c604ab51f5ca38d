import {
  createObserver,
  observationId,
  limitsOf,
  observerFrom,
  observe,
  observationsOf,
  sameData,
  type Branches,
  type Observer,
  type ObservationLimits,
  type ObservationLimitsDocument,
} from '@crooked-lantern/core';
import type { NoticedObservations } from '../engine/protocol.ts';

/** What is noticed of the run that goes on, and of the branches that were kept. */
export interface Noticing {
  /** By branch. */
  observers: Map<number, Observer>;
  limits: ObservationLimits;
}

export function createNoticing(): Noticing {
  return { observers: new Map(), limits: limitsOf() };
}

/** Other limits make other observations: all is looked at again where they have changed. */
export function takeLimits(
  noticing: Noticing,
  document: ObservationLimitsDocument | undefined,
): void {
  const limits = limitsOf(document);
  if (sameData(limits, noticing.limits)) return;
  noticing.limits = limits;
  noticing.observers.clear();
}

function observerOf({ observers, limits }: Noticing, { current, kept }: Branches): Observer {
  const known = observers.get(current.id);
  if (known) return known;
  const parent = current.parted && observers.get(current.parted.from);
  const made = parent ? observerFrom(parent, current.parted!.tick) : createObserver(limits);
  observers.set(current.id, made);
  const alive = new Set([current.id, ...kept.map(({ id }) => id)]);
  for (const id of observers.keys()) if (!alive.has(id)) observers.delete(id);
  return made;
}

/** Looks at the tick the run has just done, and as long as there is time at what was not looked at before. Whether all was. */
export function notice(noticing: Noticing, branches: Branches, hasTime: () => boolean): boolean {
  return observe(observerOf(noticing, branches), branches.run, hasTime);
}

/** How often anything was noticed in the run that goes on. */
export function timesNoticed(noticing: Noticing, branches: Branches): number {
  let times = 0;
  for (const { ticks } of observerOf(noticing, branches).found.values()) times += ticks.length;
  return times;
}

export function noticedObservations(noticing: Noticing, branches: Branches): NoticedObservations {
  const observer = observerOf(noticing, branches);
  const all = [...noticing.observers.values()];
  return {
    observations: observationsOf(observer).map((observation) => {
      const id = observationId(observation);
      return { ...observation, runs: all.filter(({ found }) => found.has(id)).length };
    }),
    runs: all.length,
    to: observer.to,
  };
}
