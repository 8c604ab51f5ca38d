import { because } from '../../terms/reasons.ts';
import type { Host } from '../host.ts';
import { RUNNING, SUCCESS, type Status } from '../status.ts';
import { fail, numberArgument, STARTED, type ActionMaker } from './action.ts';

export const wait: ActionMaker = (program, at) => {
  const seconds = numberArgument(program, 'seconds');
  const look = (host: Host): Status => {
    const ticks = seconds(host) * host.ticksPerSecond;
    if (ticks - ticks !== 0) return fail(host, because('timeUnknown'));
    return host.tick - host.memory[at + STARTED] >= ticks ? SUCCESS : RUNNING;
  };
  return { start: look, step: look };
};
