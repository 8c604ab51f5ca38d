/** Waypoints that were learned in a run: each stands after the waypoint of the route that it is nearest to. */

function nearestAt(points: readonly number[], x: number, y: number): number {
  let best = 0;
  let bestSquare = Infinity;
  for (let i = 0; i < points.length; i += 2) {
    const dx = points[i] - x;
    const dy = points[i + 1] - y;
    const square = dx * dx + dy * dy;
    if (square < bestSquare) {
      best = i;
      bestSquare = square;
    }
  }
  return best;
}

/** A route's waypoints with those learned, all as x, y pairs. */
export function joinLearned(points: readonly number[], learned: readonly number[]): number[] {
  const all = [...points];
  for (let i = 0; i < learned.length; i += 2)
    all.splice(nearestAt(all, learned[i], learned[i + 1]) + 2, 0, learned[i], learned[i + 1]);
  return all;
}
