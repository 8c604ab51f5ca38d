import { because } from '../../terms/reasons.ts';
import { radians, wrapAngle } from '../../numeric/trigonometry.ts';
import type { Host } from '../host.ts';
import { RUNNING, SUCCESS, type Status } from '../status.ts';
import { A, B, fail, numberArgument, type ActionMaker } from './action.ts';
import { FACING_TOLERANCE } from './face.ts';

/** The largest part of a turn aimed at in one go: past half a turn the short way round would be the wrong one. */
const STRETCH = 2;

/** Keeps in A the radians left to turn, in B the heading at the last look. */
export const turn: ActionMaker = (program, at) => {
  const by = numberArgument(program, 'by');
  const aim = (host: Host, left: number): Status => {
    host.memory[at + A] = left;
    host.memory[at + B] = host.self.heading;
    host.turnTo(host.self.heading + Math.max(-STRETCH, Math.min(STRETCH, left)));
    return RUNNING;
  };
  return {
    start(host) {
      const angle = radians(by(host));
      if (angle - angle !== 0) return fail(host, because('angleUnknown'));
      return aim(host, angle);
    },
    step(host) {
      const left = host.memory[at + A] - wrapAngle(host.self.heading - host.memory[at + B]);
      return Math.abs(left) <= FACING_TOLERANCE ? SUCCESS : aim(host, left);
    },
    stop: (host) => host.freeEyes(),
  };
};
