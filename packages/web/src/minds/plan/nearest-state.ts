import type { PlacedState } from './plan-layout.ts';

export type Direction = 'ArrowLeft' | 'ArrowRight' | 'ArrowUp' | 'ArrowDown';

const VECTORS: Record<Direction, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

const middle = ({ x, y, width, height }: PlacedState) => [x + width / 2, y + height / 2] as const;

/** The state one comes to by an arrow key: the nearest in that direction, what lies aside counting double. */
export function nearestState(
  states: readonly PlacedState[],
  from: PlacedState,
  direction: Direction,
): PlacedState | undefined {
  // Down from a room leads into it: what is inside follows it in the list.
  if (from.kind === 'room' && direction === 'ArrowDown') return states[states.indexOf(from) + 1];
  const [dx, dy] = VECTORS[direction];
  const [fx, fy] = middle(from);
  let best: PlacedState | undefined;
  let least = Infinity;
  for (const state of states) {
    if (state === from || (state.kind === 'room' && from.kind !== 'room')) continue;
    const [x, y] = middle(state);
    const ahead = (x - fx) * dx + (y - fy) * dy;
    const aside = Math.abs((x - fx) * dy) + Math.abs((y - fy) * dx);
    if (ahead <= 0) continue;
    const distance = ahead + 2 * aside;
    if (distance < least) {
      least = distance;
      best = state;
    }
  }
  return best;
}
