import { because, type Reason } from '../../terms/reasons.ts';
import { atan2, radians, wrapAngle } from '../../numeric/trigonometry.ts';
import type { Host } from '../host.ts';
import { FAILURE, RUNNING, SUCCESS } from '../status.ts';
import {
  fail,
  hasArgument,
  indexArgument,
  numberArgument,
  placeArgument,
  STARTED,
  textArgument,
  type ActionMaker,
  type RunnableAction,
} from './action.ts';

/** Moves, guards and aiming. What comes of a move is found after bodies have moved, in the phase of fighting. */

const NO_TARGET = () => -1;

/** Begins a move and goes on until it is over. */
function moving(move: number, at: number, begin: (host: Host) => Reason | null): RunnableAction {
  return {
    start(host) {
      const trouble = begin(host);
      return trouble === null ? RUNNING : fail(host, trouble);
    },
    step(host) {
      if (host.isStriking(move, host.memory[at + STARTED])) return RUNNING;
      return host.reason === null ? SUCCESS : FAILURE;
    },
    stop(host) {
      if (host.isStriking(move, host.memory[at + STARTED])) host.breakOff();
    },
  };
}

export const strike: ActionMaker = (program, at) => {
  const move = indexArgument(program, 'move');
  const target = hasArgument(program, 'at') ? numberArgument(program, 'at') : NO_TARGET;
  return moving(move, at, (host) => host.strike(move, target(host), 0));
};

/** Angles from where it faces, clockwise. */
const WAYS: Record<string, number> = {
  forward: 0,
  right: radians(90),
  back: radians(180),
  left: radians(-90),
};

export const dodge: ActionMaker = (program, at) => {
  const move = indexArgument(program, 'move');
  const way = WAYS[textArgument(program, 'way')];
  return moving(move, at, (host) => host.strike(move, -1, way));
};

export const guard: ActionMaker = (program, at) => {
  const which = indexArgument(program, 'guard');
  const seconds = numberArgument(program, 'seconds');
  return {
    start(host) {
      const trouble = host.raiseGuard(which);
      return trouble === null ? RUNNING : fail(host, trouble);
    },
    step(host) {
      if (!host.isGuarding(which)) return host.reason === null ? SUCCESS : FAILURE;
      const held = (host.tick - host.memory[at + STARTED]) / host.ticksPerSecond;
      return held >= seconds(host) ? SUCCESS : RUNNING;
    },
    stop(host) {
      if (host.isGuarding(which)) host.lowerGuard();
    },
  };
};

export const aim: ActionMaker = (program) => {
  const place = placeArgument(program, 'toward');
  const within = numberArgument(program, 'within');
  const turn = (host: Host) => {
    if (!place(host)) return fail(host, because('placeUnknown'));
    const to = atan2(host.place[1] - host.here.y, host.place[0] - host.here.x);
    host.turnTo(to);
    return Math.abs(wrapAngle(to - host.self.heading)) <= radians(within(host)) ? SUCCESS : RUNNING;
  };
  return { start: turn, step: turn, stop: (host) => host.freeEyes() };
};
