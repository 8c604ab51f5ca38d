import type { Lane, Lanes } from '../engine/lanes.ts';

/** Moments that are gone to one after the other. */

function decisionsOf({ taken, picks }: Lane): number[] {
  return [...[...taken.values()].flat(), ...picks.map(({ from }) => from)];
}

/** Ticks in which an agent, or (with null) any agent, took a transition or picked an option, in order. */
export function decisionTicks({ byAgent }: Lanes, agent: string | null): number[] {
  const lanes =
    agent === null ? [...byAgent.values()] : [byAgent.get(agent)].filter((lane) => !!lane);
  return [...new Set(lanes.flatMap(decisionsOf))].sort((a, b) => a - b);
}

/** The moment before a tick, or the one after; undefined where there is none. */
export function nextMoment(
  ticks: readonly number[],
  tick: number,
  way: 'back' | 'onward',
): number | undefined {
  return way === 'back' ? ticks.findLast((each) => each < tick) : ticks.find((each) => each > tick);
}
