import { firstFrom } from './first-from.ts';
import type { Band, Lane, Stretch } from './lanes.ts';

/** How long what a lane shows went on. */

/** Whether a stretch goes on at a tick. */
export function goesOnAt({ from, to }: Stretch, tick: number): boolean {
  return from <= tick && (to < 0 || tick < to);
}

/** Of bands that follow each other, the one that goes on at a tick. */
function bandAt(bands: readonly Band[], tick: number): Band | undefined {
  const last = bands[firstFrom(bands, ({ from }) => from <= tick) - 1];
  return last && goesOnAt(last, tick) ? last : undefined;
}

/**
 * What an agent does at a tick, outermost first: its innermost state, the option it picked there, and in a mind without
 * either the row that runs. A mind of one state, such as a tree by itself, is always in it: that says nothing.
 */
export function doingAt(lane: Lane, hasStates: boolean, tick: number): Band[] {
  const state = hasStates ? bandAt(lane.bands, tick) : undefined;
  const picked = bandAt(lane.picks, tick);
  const row = state || picked ? undefined : lane.acts.findLast((act) => goesOnAt(act, tick));
  return [state, picked, row].filter((band) => band !== undefined);
}

/** The tick until which an agent that began asleep slept: it was woken, or died; infinite while it sleeps. */
export function asleepUntil(lane: Lane | undefined): number {
  const woken = lane?.bands[0]?.from ?? Infinity;
  // What comes after it was woken need not be looked through.
  const last = lane?.dots.find(({ tick, entry }) => tick >= woken || entry.kind === 'death');
  return Math.min(woken, last?.tick ?? Infinity);
}

/** Share of the lane's time up to `until` spent in each innermost state. */
export function timeShares(lane: Lane, until: number): Map<string, number> {
  const spent = new Map<string, number>();
  let total = 0;
  for (const { state, from, to } of lane.bands) {
    const end = to < 0 ? until : Math.min(to, until);
    if (end <= from) continue;
    spent.set(state, (spent.get(state) ?? 0) + end - from);
    total += end - from;
  }
  if (total > 0) for (const [state, ticks] of spent) spent.set(state, ticks / total);
  return spent;
}
