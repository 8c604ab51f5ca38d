import type { Lane } from './lanes.ts';

/** How long what a lane shows went on. */

/** The tick until which somebody who began asleep slept: it was woken, or died; infinite while it sleeps. */
export function asleepUntil(lane: Lane | undefined): number {
  const died = lane?.dots.find(({ entry }) => entry.kind === 'death')?.tick ?? Infinity;
  return Math.min(lane?.bands[0]?.from ?? Infinity, died);
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
