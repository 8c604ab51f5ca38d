import type { Lane } from '../../engine/lanes.ts';

/** The agent to follow where none was chosen: the one that has noticed most. */

/** What an agent's awareness must reach, and by how much it must exceed that of the followed agent. */
const LEAST = 0.3;
const MORE = 0.2;

/** How much an agent had noticed at a tick, 0 to 1. */
export function awarenessAt(lane: Pick<Lane, 'awareness'> | undefined, tick: number): number {
  return lane?.awareness.findLast((point) => point.tick <= tick)?.value ?? 0;
}

/** The one to watch from now on; `watched` stays unless another has noticed clearly more. */
export function mostStirred(
  names: readonly string[],
  watched: string,
  awarenessOf: (name: string) => number,
): string {
  let best = watched;
  let most = Math.max(LEAST, awarenessOf(watched) + MORE);
  for (const name of names) {
    const awareness = awarenessOf(name);
    if (name === watched || awareness < most) continue;
    best = name;
    most = awareness;
  }
  return best;
}
