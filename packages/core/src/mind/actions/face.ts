import { because } from '../../terms/reasons.ts';
import { atan2, wrapAngle } from '../../numeric/trigonometry.ts';
import type { Host } from '../host.ts';
import { RUNNING, SUCCESS, type Status } from '../status.ts';
import { fail, placeArgument, type ActionMaker } from './action.ts';

/** 2°, in radians. */
export const FACING_TOLERANCE = 0.035;

export const face: ActionMaker = (program) => {
  const place = placeArgument(program, 'toward');
  const turn = (host: Host): Status => {
    if (!place(host)) return fail(host, because('placeUnknown'));
    const goal = atan2(host.place[1] - host.here.y, host.place[0] - host.here.x);
    host.turnTo(goal);
    return Math.abs(wrapAngle(goal - host.self.heading)) <= FACING_TOLERANCE ? SUCCESS : RUNNING;
  };
  return { start: turn, step: turn, stop: (host) => host.freeEyes() };
};
