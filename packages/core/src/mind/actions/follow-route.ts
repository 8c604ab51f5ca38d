import { because } from '../../terms/reasons.ts';
import { nearestPlace } from '../../numeric/distance.ts';
import { LEGS_ARRIVED, LEGS_FAILED } from '../../motion/legs.ts';
import type { Host } from '../host.ts';
import { RUNNING, SUCCESS, type Status } from '../status.ts';
import type { ActionProgram } from '../program.ts';
import { A, B, fail, noWay, numberArgument, type ActionMaker } from './action.ts';

const WAYPOINT_REACHED = 0.15;

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

/** The route by its index; the agent's own is by far the most asked for. */
function routeArgument(program: ActionProgram): (host: Host) => number {
  const { route } = program.args;
  const own = typeof route === 'object' && route.ir.op === 'call' && route.ir.name === 'self.route';
  const other = numberArgument(program, 'route');
  return (host) => (own ? host.self.route : other(host));
}

/** Keeps in A the position in the visiting order, in B the tick until which it stands, 0 while it walks. */
export const followRoute: ActionMaker = (program, at) => {
  const routeOf = routeArgument(program);
  const head = (host: Host, points: Float64Array): Status => {
    const waypoint = waypointAt(host.memory[at + A], points.length / 2);
    host.goTo(points[2 * waypoint], points[2 * waypoint + 1], WAYPOINT_REACHED);
    return RUNNING;
  };
  return {
    start(host) {
      const route = routeOf(host);
      if (!(route >= 0)) return fail(host, because('noRoute'));
      const points = host.routePoints(route);
      host.memory[at + A] = nearestPlace(points, host.here.x, host.here.y);
      host.memory[at + B] = 0;
      return head(host, points);
    },
    step(host) {
      const route = routeOf(host);
      if (!(route >= 0)) return fail(host, because('noRoute'));
      const { memory } = host;
      const points = host.routePoints(route);
      if (memory[at + B] === 0) {
        if (host.legs === LEGS_FAILED) return fail(host, noWay(host));
        if (host.legs !== LEGS_ARRIVED) return head(host, points);
        memory[at + B] = host.tick + host.routeWait(route);
      }
      if (host.tick < memory[at + B]) return RUNNING;
      memory[at + A] = following(memory[at + A], points.length / 2, host.routeEnd(route));
      memory[at + B] = 0;
      return memory[at + A] < 0 ? SUCCESS : head(host, points);
    },
    stop: (host) => host.stopLegs(),
  };
};
