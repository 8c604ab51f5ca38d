import type { Host } from '../host.ts';
import { RUNNING, SUCCESS, type Status } from '../status.ts';
import { endedCell, IDLE } from './cells.ts';
import type { RunnableMachine, RunnableState } from './runnable.ts';
import type { Stepping } from './stepping.ts';

/** What states do while they are active: begun once nothing more fires, carried on, ended or stopped. */

export function startActivities(stepping: Stepping): void {
  const { machine, host } = stepping;
  const { memory } = host;
  const { cells } = machine;
  if (memory[cells.startPending] === 0) return;
  memory[cells.startPending] = 0;
  for (let i = 1; i <= memory[cells.active]; i++) {
    const s = memory[cells.active + i];
    const { activity, activityAt } = machine.states[s];
    if (activity === null || memory[activityAt] !== IDLE) continue;
    memory[activityAt] = host.tick;
    host.recorder?.began(s, activity.name, -1);
    const status = activity.root.start(host);
    if (status !== RUNNING) endActivity(stepping, s, status);
  }
}

export function endActivity(stepping: Stepping, s: number, status: Status): void {
  const { machine, host } = stepping;
  const { activity, activityAt } = machine.states[s];
  host.memory[activityAt] = endedCell(host.tick, status === SUCCESS);
  const { recorder, reason } = host;
  // Left by a single action; what is in a tree has told its own reason.
  if (status === SUCCESS) recorder?.ended(s, activity!.name, -1, 'success', null);
  else recorder?.ended(s, activity!.name, -1, 'failure', reason);
  host.reason = null;
  stepping.done.push({ state: s, name: status === SUCCESS ? 'done.success' : 'done.failure' });
}

export function stepActivities(stepping: Stepping): void {
  const { machine, host } = stepping;
  const { memory } = host;
  const { active, leaf } = machine.cells;
  if (memory[leaf] >= 0) {
    const { busyAlong } = machine.states[memory[leaf]];
    for (let i = 0; i < busyAlong.length; i++) stepActivity(stepping, busyAlong[i]);
    return;
  }
  for (let i = 1; i <= memory[active]; i++) {
    const state = machine.states[memory[active + i]];
    if (state.activity !== null) stepActivity(stepping, state);
  }
}

/** One more step of what a state does, unless that has ended or began in this very decision; running where it did not end by it. */
export function carryOnState(state: RunnableState, host: Host): Status {
  const began = host.memory[state.activityAt];
  return began <= 0 || began === host.tick ? RUNNING : state.activity!.root.step(host);
}

export function stepActivity(stepping: Stepping, state: RunnableState): void {
  const status = carryOnState(state, stepping.host);
  if (status !== RUNNING) endActivity(stepping, state.index, status);
}

export function stopActivity({ machine, host }: Stepping, state: number): void {
  const at = machine.states[state].activityAt;
  if (at < 0) return;
  const running = host.memory[at] > 0;
  host.memory[at] = IDLE;
  if (!running) return;
  const { root, name } = machine.states[state].activity!;
  root.stop(host);
  host.recorder?.ended(state, name, -1, 'stopped', null);
}

/** An activity that is a whole mind starts again in the decision after its end. */
export function beginAgain({ machine, host }: Stepping): void {
  const { memory } = host;
  for (const { activity, activityAt } of machine.states) {
    if (!activity?.again || memory[activityAt] >= 0) continue;
    memory[activityAt] = IDLE;
    memory[machine.cells.startPending] = 1;
  }
}

/** Whether a state's activity is running. */
export function isCarryingOn(machine: RunnableMachine, memory: Float64Array): boolean {
  return machine.states.some(({ activityAt }) => activityAt >= 0 && memory[activityAt] > 0);
}
