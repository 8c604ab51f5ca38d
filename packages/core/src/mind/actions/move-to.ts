import { because } from '../../terms/reasons.ts';
import { LEGS_ARRIVED, LEGS_FAILED } from '../../motion/legs.ts';
import type { Host } from '../host.ts';
import type { ActionProgram } from '../program.ts';
import { RUNNING, SUCCESS, type Status } from '../status.ts';
import {
  constantArgument,
  fail,
  noWay,
  numberArgument,
  placeArgument,
  type ActionMaker,
} from './action.ts';

/** No agent can be asked to stop nearer than this. */
const NEAREST = 0.05;

function typeIsPoint({ args }: ActionProgram): boolean {
  return typeof args.to === 'object' && args.to.ir.type === 'point';
}

export const moveTo: ActionMaker = (program) => {
  const place = placeArgument(program, 'to');
  const fixed = constantArgument(program, 'within');
  const within = numberArgument(program, 'within');
  // An agent that goes after another goes on until it is near; at a place it may stand beside others.
  const settles = typeIsPoint(program);
  const head = (host: Host): Status => {
    if (!place(host)) return fail(host, because('placeUnknown'));
    const near = fixed ?? within(host);
    if (near - near !== 0) return fail(host, because('distanceUnknown'));
    host.goTo(host.place[0], host.place[1], near < NEAREST ? NEAREST : near, settles);
    return RUNNING;
  };
  return {
    start: head,
    step(host) {
      if (host.legs === LEGS_ARRIVED) return SUCCESS;
      if (host.legs === LEGS_FAILED) return fail(host, noWay(host));
      return head(host);
    },
    stop: (host) => host.stopLegs(),
  };
};
