import { atan2, wrapAngle } from '../../numeric/trigonometry.ts';
import type { Host } from '../host.ts';
import { RUNNING, SUCCESS, type Status } from '../status.ts';
import { fail, placeArgument, type ActionMaker } from './action.ts';

/** 2°, in radians. */
export const FACING_TOLERANCE = 0.035;

export const face: ActionMaker = (program) => {
  const place = placeArgument(program, 'toward');
  const turn = (host: Host): Status => {
    const dx = place.x(host) - host.x;
    const dy = place.y(host) - host.y;
    if (dx - dx !== 0 || dy - dy !== 0) return fail(host, 'the place is not known');
    const goal = atan2(dy, dx);
    host.turnTo(goal);
    return Math.abs(wrapAngle(goal - host.heading)) <= FACING_TOLERANCE ? SUCCESS : RUNNING;
  };
  return { start: turn, step: turn, stop: (host) => host.freeEyes() };
};
