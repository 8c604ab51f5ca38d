import { because } from '../../terms/reasons.ts';
import { distance } from '../../numeric/distance.ts';
import { cos, sin, wrapAngle } from '../../numeric/trigonometry.ts';
import { LEGS_ARRIVED, LEGS_FAILED } from '../../motion/legs.ts';
import type { Host } from '../host.ts';
import { RUNNING, SUCCESS, type Status } from '../status.ts';
import {
  A,
  B,
  fail,
  noWay,
  numberArgument,
  placeArgument,
  textArgument,
  type ActionMaker,
} from './action.ts';
import { FACING_TOLERANCE } from './face.ts';

/** Ways to move that go on for as long as they are wanted: wandering, fleeing, circling, keeping a distance. */

const FULL_TURN = 2 * Math.PI;
/** A place this near is reached. */
const REACHED = 0.3;

/** Keeps in A how often in a row no way was found, in B the tick until which it stands; 0 while it walks. */
export const wander: ActionMaker = (program, at) => {
  const around = placeArgument(program, 'around');
  const radius = numberArgument(program, 'radius');
  const pause = numberArgument(program, 'pause');
  const choose = (host: Host): Status => {
    if (!around(host)) return fail(host, because('middleUnknown'));
    const angle = host.random() * FULL_TURN;
    // The square root spreads the places evenly over the circle.
    const away = Math.sqrt(host.random()) * radius(host);
    const [x, y] = host.place;
    host.memory[at + B] = 0;
    host.goTo(x + cos(angle) * away, y + sin(angle) * away, REACHED, true);
    return RUNNING;
  };
  return {
    start(host) {
      host.memory[at + A] = 0;
      return choose(host);
    },
    step(host) {
      const { memory, tick } = host;
      if (memory[at + B] > 0) return tick < memory[at + B] ? RUNNING : choose(host);
      if (host.legs === LEGS_FAILED) {
        memory[at + A]++;
        return memory[at + A] >= TRIES ? fail(host, noWay(host)) : choose(host);
      }
      if (host.legs !== LEGS_ARRIVED) return RUNNING;
      memory[at + A] = 0;
      memory[at + B] = tick + Math.max(1, Math.round(pause(host) * host.ticksPerSecond));
      return RUNNING;
    },
    stop: (host) => host.stopLegs(),
  };
};

/** Places tried in vain before wandering fails. */
const TRIES = 8;
/** Directions looked at in fleeing, how far it looks, and how many times a second. */
const WAYS = 12;
const LOOK_AHEAD = 5;
const LOOKS = 3;

/** Keeps in B the tick of the next look around. */
export const flee: ActionMaker = (program, at) => {
  const from = placeArgument(program, 'from');
  const until = numberArgument(program, 'until');
  const run = (host: Host): Status => {
    if (!from(host)) return fail(host, because('placeUnknown'));
    const [fromX, fromY] = host.place;
    const away = (x: number, y: number) => distance(x, y, fromX, fromY);
    if (away(host.here.x, host.here.y) >= until(host)) return SUCCESS;
    if (host.tick < host.memory[at + B] && host.legs !== LEGS_ARRIVED) return RUNNING;
    host.memory[at + B] = host.tick + Math.round(host.ticksPerSecond / LOOKS);
    let [bestX, bestY, best] = [host.here.x, host.here.y, -Infinity];
    for (let i = 0; i < WAYS; i++) {
      const dx = cos((FULL_TURN * i) / WAYS) * LOOK_AHEAD;
      const dy = sin((FULL_TURN * i) / WAYS) * LOOK_AHEAD;
      const free = host.freeWay(host.here.x + dx, host.here.y + dy);
      const [x, y] = [host.here.x + dx * free, host.here.y + dy * free];
      // What is far off counts, and so does room on the way: a corner is no refuge.
      const score = away(x, y) + free;
      if (score > best) [bestX, bestY, best] = [x, y, score];
    }
    if (away(bestX, bestY) <= away(host.here.x, host.here.y) && host.legs === LEGS_FAILED)
      return fail(host, because('nowhereToGo'));
    host.goTo(bestX, bestY, REACHED);
    return RUNNING;
  };
  return {
    start(host) {
      host.memory[at + B] = 0;
      return run(host);
    },
    step: run,
    stop: (host) => host.stopLegs(),
  };
};

/** How far ahead on the circle it aims. */
const CIRCLE_STEP = 0.6;

export const circle: ActionMaker = (program) => {
  const around = placeArgument(program, 'around');
  const distance = numberArgument(program, 'distance');
  const turn = textArgument(program, 'turn') === 'clockwise' ? CIRCLE_STEP : -CIRCLE_STEP;
  const go = (host: Host): Status => {
    if (!around(host)) return fail(host, because('placeUnknown'));
    const [x, y] = host.place;
    let dx = host.here.x - x;
    let dy = host.here.y - y;
    const away = Math.sqrt(dx * dx + dy * dy);
    if (away === 0) [dx, dy] = [1, 0];
    else [dx, dy] = [dx / away, dy / away];
    const [c, s] = [cos(turn), sin(turn)];
    const r = distance(host);
    host.goTo(x + (dx * c - dy * s) * r, y + (dx * s + dy * c) * r, REACHED);
    return RUNNING;
  };
  return { start: go, step: go, stop: (host) => host.stopLegs() };
};

export const keepDistance: ActionMaker = (program) => {
  const from = placeArgument(program, 'from');
  const least = numberArgument(program, 'min');
  const most = numberArgument(program, 'max');
  const keep = (host: Host): Status => {
    if (!from(host)) return fail(host, because('placeUnknown'));
    const [x, y] = host.place;
    const dx = host.here.x - x;
    const dy = host.here.y - y;
    const away = Math.sqrt(dx * dx + dy * dy);
    const [near, far] = [least(host), most(host)];
    const middle = (near + far) / 2;
    if (away > far) host.goTo(x, y, Math.max(REACHED, middle));
    else if (away < near) {
      const [ux, uy] = away === 0 ? [1, 0] : [dx / away, dy / away];
      host.goTo(x + ux * middle, y + uy * middle, REACHED);
    } else if (host.legs !== LEGS_ARRIVED) host.stopLegs();
    return RUNNING;
  };
  return { start: keep, step: keep, stop: (host) => host.stopLegs() };
};

/** Keeps in A 1 while it turns at its post. */
export const returnToPost: ActionMaker = (_, at) => ({
  start(host) {
    host.memory[at + A] = 0;
    host.goTo(host.self.postX, host.self.postY, REACHED);
    return RUNNING;
  },
  step(host) {
    if (host.memory[at + A] === 0) {
      if (host.legs === LEGS_FAILED) return fail(host, noWay(host));
      if (host.legs !== LEGS_ARRIVED) return RUNNING;
      host.memory[at + A] = 1;
      host.turnTo(host.postHeading);
    }
    const left = Math.abs(wrapAngle(host.postHeading - host.self.heading));
    return left <= FACING_TOLERANCE ? SUCCESS : RUNNING;
  },
  stop(host) {
    host.stopLegs();
    if (host.memory[at + A] === 1) host.freeEyes();
  },
});
