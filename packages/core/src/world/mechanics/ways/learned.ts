import { nearestPlace } from '../../../numeric/distance.ts';
import { MOST_LEARNED } from '../../../terms/limits.ts';
import type { Surroundings } from '../../state/surroundings.ts';

/** Waypoints that were learned in a run: each stands after the waypoint of the route that it is nearest to. */

/** A route's waypoints with those learned, all as x, y pairs. */
export function joinLearned(points: readonly number[], learned: readonly number[]): number[] {
  const all = [...points];
  for (let i = 0; i < learned.length; i += 2)
    all.splice(
      2 * nearestPlace(all, learned[i], learned[i + 1]) + 2,
      0,
      learned[i],
      learned[i + 1],
    );
  return all;
}

/** Adds a waypoint to a route, for this run. A route that has learned its most moves the learned one that is nearest. */
export function learn(world: Surroundings, route: number, x: number, y: number): void {
  if (!world.learned[route]) return;
  const learned = world.learned[route];
  if (learned.length < 2 * MOST_LEARNED) learned.push(x, y);
  else learned.splice(2 * nearestPlace(learned, x, y), 2, x, y);
  const { points } = world.statics.program.ground.routes[route];
  world.routes = world.routes.slice();
  world.routes[route] = Float64Array.from(joinLearned(points, learned));
}
