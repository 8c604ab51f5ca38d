import { expect, it } from 'vitest';
import { fittest, type PlanLayout } from './plan-layout.ts';

const plan = (width: number, height: number): PlanLayout => ({
  width,
  height,
  states: [],
  lines: [],
});
const ROOM = { width: 600, height: 240 };

it.each([
  [
    'the largest with labels, where it can be read whole',
    [plan(600, 200), plan(300, 200), plan(250, 150), plan(150, 100)],
    1,
  ],
  [
    'the one with numbers alone, where no other can be read whole',
    [plan(700, 200), plan(300, 400), plan(500, 200), plan(200, 300)],
    2,
  ],
  [
    'the one with labels of which most is in sight, where none can be read whole',
    [plan(1300, 200), plan(500, 700), plan(1000, 200), plan(250, 600)],
    0,
  ],
])('a room gets %s', (_, plans, index) => {
  expect(fittest(plans, ROOM)).toBe(plans[index]);
});
