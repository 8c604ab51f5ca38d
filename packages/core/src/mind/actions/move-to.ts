import { LEGS_ARRIVED, LEGS_FAILED, type Host } from '../host.ts';
import {
  FAILURE,
  numberArgument,
  placeArgument,
  RUNNING,
  SUCCESS,
  type ActionMaker,
  type Status,
} from './action.ts';

export const moveTo: ActionMaker = (program) => {
  const place = placeArgument(program, 'to');
  const within = numberArgument(program, 'within');
  const head = (host: Host): Status => {
    const x = place.x(host);
    const y = place.y(host);
    const near = within(host);
    if (x - x !== 0 || y - y !== 0 || near - near !== 0) return FAILURE;
    host.goTo(x, y, near < 0.05 ? 0.05 : near);
    return RUNNING;
  };
  return {
    start: head,
    step(host) {
      if (host.legs === LEGS_ARRIVED) return SUCCESS;
      if (host.legs === LEGS_FAILED) return FAILURE;
      return head(host);
    },
    stop: (host) => host.stopLegs(),
  };
};
