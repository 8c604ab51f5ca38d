import { nearestPlace } from '../numeric/distance.ts';

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
