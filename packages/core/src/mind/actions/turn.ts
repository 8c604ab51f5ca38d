import { radians, wrapAngle } from '../../numeric/trigonometry.ts';
import { FACING_TOLERANCE } from './face.ts';
import { FAILURE, numberArgument, RUNNING, SUCCESS, type ActionMaker } from './action.ts';

/** The largest part of a turn aimed at in one go: past half a turn the short way round would be the wrong one. */
const STRETCH = 2;

/** Keeps in `a` the radians left to turn, in `b` the heading at the last look. */
export const turn: ActionMaker = (program) => {
  const by = numberArgument(program, 'by');
  return {
    start(host, memory) {
      memory.a = radians(by(host));
      memory.b = host.heading;
      if (memory.a - memory.a !== 0) return FAILURE;
      host.turnTo(host.heading + Math.max(-STRETCH, Math.min(STRETCH, memory.a)));
      return RUNNING;
    },
    step(host, memory) {
      memory.a -= wrapAngle(host.heading - memory.b);
      memory.b = host.heading;
      if (Math.abs(memory.a) <= FACING_TOLERANCE) return SUCCESS;
      host.turnTo(host.heading + Math.max(-STRETCH, Math.min(STRETCH, memory.a)));
      return RUNNING;
    },
    stop: (host) => host.freeEyes(),
  };
};
