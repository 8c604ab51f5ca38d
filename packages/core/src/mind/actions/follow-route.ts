import { LEGS_ARRIVED, LEGS_FAILED, type Host } from '../host.ts';
import {
  FAILURE,
  numberArgument,
  RUNNING,
  SUCCESS,
  type ActionMaker,
  type ActionMemory,
  type Status,
} from './action.ts';

const WAYPOINT_REACHED = 0.15;

/** Index of the waypoint nearest to the body. */
function nearest(host: Host, points: Float64Array): number {
  let best = 0;
  let bestDistance = Infinity;
  for (let i = 0; i < points.length; i += 2) {
    const dx = points[i] - host.x;
    const dy = points[i + 1] - host.y;
    const distance = dx * dx + dy * dy;
    if (distance < bestDistance) {
      best = i / 2;
      bestDistance = distance;
    }
  }
  return best;
}

/** Position in the visiting order, for a route of `count` waypoints, of the waypoint after `position`. −1 at the end. */
function following(position: number, count: number, end: string): number {
  const next = position + 1;
  if (end === 'stop') return next < count ? next : -1;
  return next % (end === 'loop' ? count : 2 * count - 2);
}

/** Waypoint at a position of the visiting order; past `count` the way leads back. */
function waypointAt(position: number, count: number): number {
  return position < count ? position : 2 * count - 2 - position;
}

/** Keeps in `a` the position in the visiting order, in `b` the tick until which it stands, 0 while it walks. */
export const followRoute: ActionMaker = (program) => {
  const routeOf = numberArgument(program, 'route');
  const head = (host: Host, memory: ActionMemory, points: Float64Array): Status => {
    const waypoint = waypointAt(memory.a, points.length / 2);
    host.goTo(points[2 * waypoint], points[2 * waypoint + 1], WAYPOINT_REACHED);
    return RUNNING;
  };
  return {
    start(host, memory) {
      const route = routeOf(host);
      if (!(route >= 0)) return FAILURE;
      const points = host.routePoints(route);
      memory.a = nearest(host, points);
      memory.b = 0;
      return head(host, memory, points);
    },
    step(host, memory) {
      const route = routeOf(host);
      if (!(route >= 0)) return FAILURE;
      const points = host.routePoints(route);
      if (memory.b === 0) {
        if (host.legs === LEGS_FAILED) return FAILURE;
        if (host.legs !== LEGS_ARRIVED) return head(host, memory, points);
        memory.b = host.tick + host.routeWait(route);
      }
      if (host.tick < memory.b) return RUNNING;
      memory.a = following(memory.a, points.length / 2, host.routeEnd(route));
      memory.b = 0;
      return memory.a < 0 ? SUCCESS : head(host, memory, points);
    },
    stop: (host) => host.stopLegs(),
  };
};
