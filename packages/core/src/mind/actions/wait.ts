import type { Host } from '../host.ts';
import {
  FAILURE,
  numberArgument,
  RUNNING,
  SUCCESS,
  type ActionMaker,
  type ActionMemory,
  type Status,
} from './action.ts';

export const wait: ActionMaker = (program) => {
  const seconds = numberArgument(program, 'seconds');
  const look = (host: Host, memory: ActionMemory): Status => {
    const ticks = seconds(host) * host.ticksPerSecond;
    if (ticks - ticks !== 0) return FAILURE;
    return host.tick - memory.startedAt >= ticks ? SUCCESS : RUNNING;
  };
  return { start: look, step: look };
};
