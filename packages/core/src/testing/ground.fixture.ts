import { FROM_ABOVE } from '../ground/from-above/from-above.ts';
import type { Ground, Solid } from '../ground/ground.ts';

/** An empty ground seen from above; kind 0 is a body of this radius. */
export function groundOf(
  width: number,
  height: number,
  solids: readonly Solid[] = [],
  radius = 0.3,
): Ground {
  const kinds = [{ radius, acceleration: 10, turnRate: 10 }];
  const plan = { width, height, solids, gates: 0, kinds, kindOf: [], longestStep: 0 };
  return FROM_ABOVE.prepare(plan).enter();
}
