import { because } from '../../terms/reasons.ts';
import { LEGS_ARRIVED, LEGS_FAILED } from '../../motion/legs.ts';
import type { Host } from '../host.ts';
import { RUNNING, SUCCESS, type Status } from '../status.ts';
import {
  A,
  B,
  fail,
  numberArgument,
  placeArgument,
  textArgument,
  type ActionMaker,
} from './action.ts';

/** What agents do shared out among a squad: searching, and surrounding a target. */

/** Phases of a search. */
const ASKING = 0;
const WALKING = 1;
const LOOKING = 2;
/** How near a place must be to be looked at, and how far the look goes to each side. */
const AT_PLACE = 0.4;
const SWEEP = 1.6;

/** Keeps in A the phase in B the tick until which it looks. */
export const search: ActionMaker = (program, at) => {
  const around = placeArgument(program, 'around');
  const radius = numberArgument(program, 'radius');
  const spacing = numberArgument(program, 'spacing');
  const widen = numberArgument(program, 'widen');
  const look = numberArgument(program, 'look');
  const grid = textArgument(program, 'pattern') === 'grid';
  const ask = (host: Host, begins = false): Status => {
    if (!around(host)) return fail(host, because('placeUnknown'));
    const [x, y] = host.place;
    host.search({
      x,
      y,
      radius: Math.max(0.5, radius(host)),
      spacing: Math.max(0.5, spacing(host)),
      grid,
      widenings: Math.floor(widen(host)),
      begins,
    });
    host.memory[at + A] = ASKING;
    return RUNNING;
  };
  const go = (host: Host): Status => {
    if (!host.searchPlace()) {
      return host.memory[at + B] > 0 ? SUCCESS : fail(host, because('searchExhausted'));
    }
    host.memory[at + A] = WALKING;
    // Beside a lying agent is as near as it gets.
    host.goTo(host.place[0], host.place[1], AT_PLACE, true);
    return RUNNING;
  };
  const walk = (host: Host): Status => {
    if (host.legs === LEGS_FAILED) {
      // It can't be looked at: done with it all the same.
      host.leavePlace(true);
      host.memory[at + B] = Math.max(1, host.memory[at + B]);
      return ask(host);
    }
    if (host.legs !== LEGS_ARRIVED) return RUNNING;
    host.memory[at + A] = LOOKING;
    const ticks = Math.max(2, Math.round(look(host) * host.ticksPerSecond));
    host.memory[at + B] = host.tick + ticks;
    host.turnTo(host.self.heading + SWEEP);
    return RUNNING;
  };
  const stay = (host: Host): Status => {
    if (host.tick < host.memory[at + B]) return RUNNING;
    host.freeEyes();
    host.leavePlace(true);
    return ask(host);
  };
  return {
    start(host) {
      host.memory[at + B] = 0;
      return ask(host, true);
    },
    step(host) {
      const phase = host.memory[at + A];
      if (phase === ASKING) return go(host);
      return phase === WALKING ? walk(host) : stay(host);
    },
    stop(host) {
      host.leavePlace(false);
      host.stopLegs();
      host.freeEyes();
    },
  };
};

/** How often a second the place around the target is chosen again, and how near to it is near enough. */
const CHOICES = 2;
const IN_PLACE = 0.25;

/** Keeps in A 1 once a place has been asked for, in B the tick of the next choice. */
export const surround: ActionMaker = (program, at) => {
  const targetOf = numberArgument(program, 'target');
  const distance = numberArgument(program, 'distance');
  const places = numberArgument(program, 'places');
  const keep = (host: Host): Status => {
    const target = targetOf(host);
    if (!host.locate(target)) return fail(host, because('targetUnknown'));
    const { memory } = host;
    const [x, y] = host.place;
    const away = distance(host);
    const has = host.slotAround(target, away);
    if (has) host.goTo(x + host.place[0], y + host.place[1], IN_PLACE, true);
    else if (memory[at + A] === 1) return fail(host, because('slotsTaken'));
    memory[at + A] = 0;
    if (!has || host.tick >= memory[at + B]) {
      memory[at + A] = has ? 0 : 1;
      memory[at + B] = host.tick + Math.round(host.ticksPerSecond / CHOICES);
      host.surround(target, Math.max(1, Math.round(places(host))), away, x, y);
    }
    return RUNNING;
  };
  return {
    start(host) {
      host.memory[at + A] = 0;
      host.memory[at + B] = 0;
      return keep(host);
    },
    step: keep,
    stop(host) {
      host.leaveSlot();
      host.stopLegs();
    },
  };
};
