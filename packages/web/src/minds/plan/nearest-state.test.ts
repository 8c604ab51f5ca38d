import { describe, expect, it } from 'vitest';
import { nearestState } from './nearest-state.ts';
import type { PlacedState } from './plan-layout.ts';

const placed = (id: string, x: number, y: number, kind: PlacedState['kind'] = 'leaf') =>
  ({ id, x, y, width: 60, height: 40, kind }) as PlacedState;

// room: a  b
//       c        d
const room = { ...placed('room', 0, 0, 'room'), width: 200, height: 150 };
const [a, b, c, d] = [
  placed('a', 10, 30),
  placed('b', 110, 30),
  placed('c', 10, 100),
  placed('d', 200, 100),
];
const states = [room, a, b, c, d];

describe('an arrow key leads', () => {
  it.each([
    ['right', 'ArrowRight', a, 'b'],
    ['to what lies least aside', 'ArrowRight', c, 'd'],
    ['down', 'ArrowDown', a, 'c'],
    ['back up', 'ArrowUp', c, 'a'],
    ['nowhere where nothing is', 'ArrowLeft', a, undefined],
    ['down from a room into it', 'ArrowDown', room, 'a'],
  ] as const)('%s', (_, direction, from, to) => {
    expect(nearestState(states, from, direction)?.id).toBe(to);
  });
});
