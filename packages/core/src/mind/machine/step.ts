import type { Host } from '../host.ts';
import { RUNNING, SUCCESS, type Status } from '../status.ts';
import type { Leaf } from '../tree/leaf.ts';
import {
  ENDED,
  FINISHED,
  IDLE,
  isActive,
  NOT_STARTED,
  readList,
  STARTED,
  writeList,
} from './cells.ts';
import { addAncestors, addDescendants, entrySet, inDocumentOrder } from './entry-set.ts';
import { isAncestor, type RunnableMachine, type RunnableTransition } from './runnable.ts';
import { inExitSet, lookAtHeldGuards, selectTransitions } from './select.ts';
import { beginDecision, type Stepping } from './stepping.ts';

/**
 * One decision of a state machine.
 *
 * Source: the algorithm for SCXML interpretation, W3C Recommendation 2015, appendix D; the functions
 * here and beside it carry its names. What is ours on top: `for` and `after` times, urgent transitions,
 * activities, and a limit on microsteps.
 */

const MICROSTEP_LIMIT = 32;

function runActions(host: Host, actions: readonly Leaf[]): void {
  for (const action of actions) action.start(host);
}

function stopActivity({ machine, host }: Stepping, state: number): void {
  const at = machine.cells.activity + state;
  const running = host.memory[at] > 0;
  host.memory[at] = IDLE;
  if (!running) return;
  const { root, name } = machine.states[state].activity!;
  root.stop(host);
  host.recorder?.ended(state, name, -1, 'stopped', '');
}

function keepHistories({ machine, host }: Stepping, active: number[], state: number): void {
  for (const history of machine.states[state].histories) {
    const deep = machine.states[history].kind === 'deepHistory';
    const kept = active.filter((inner) =>
      deep
        ? machine.states[inner].children.length === 0 && isAncestor(machine.states, state, inner)
        : machine.states[inner].parent === state,
    );
    writeList(host.memory, machine.cells.history[history], kept);
  }
}

function exitStates(stepping: Stepping, transitions: RunnableTransition[]): void {
  const { machine, host } = stepping;
  const active = readList(host.memory, machine.cells.active);
  const leaving = active
    .filter((s) => transitions.some((transition) => inExitSet(machine, transition, s)))
    .reverse();
  for (const s of leaving) keepHistories(stepping, active, s);
  for (const s of leaving) {
    stopActivity(stepping, s);
    runActions(host, machine.states[s].exit);
    active.splice(active.indexOf(s), 1);
    writeList(host.memory, machine.cells.active, active);
    host.recorder?.exited(s);
  }
}

function enterStates(stepping: Stepping, entering: Iterable<number>): void {
  const { machine, host } = stepping;
  const { memory } = host;
  const { cells } = machine;
  // Document order puts every parent before its children, so it is also entry order.
  for (const s of inDocumentOrder(entering)) {
    if (isActive(host, cells.active, s)) continue;
    const active = readList(memory, cells.active);
    writeList(memory, cells.active, inDocumentOrder([...active, s]));
    memory[cells.enteredAt + s] = host.tick;
    for (const { index } of machine.states[s].held) memory[cells.trueSince + index] = -1;
    if (machine.states[s].activity !== null) memory[cells.startPending] = 1;
    host.recorder?.entered(s);
    runActions(host, machine.states[s].entry);
    if (machine.states[s].kind === 'final') finish(stepping, s);
  }
}

function isInFinalState(stepping: Stepping, index: number): boolean {
  const { machine, host } = stepping;
  const { kind, children } = machine.states[index];
  if (kind === 'compound')
    return children.some(
      (child) =>
        machine.states[child].kind === 'final' && isActive(host, machine.cells.active, child),
    );
  if (kind === 'parallel') return children.every((child) => isInFinalState(stepping, child));
  return false;
}

function finish(stepping: Stepping, final: number): void {
  const { machine, host } = stepping;
  const { parent } = machine.states[final];
  if (parent < 0) {
    host.memory[machine.cells.phase] = FINISHED;
    return;
  }
  stepping.done.push({ state: parent, name: 'done.success' });
  const around = machine.states[parent].parent;
  if (
    around >= 0 &&
    machine.states[around].kind === 'parallel' &&
    isInFinalState(stepping, around)
  ) {
    stepping.done.push({ state: around, name: 'done.success' });
  }
}

function isFinished({ machine, host }: Stepping): boolean {
  return host.memory[machine.cells.phase] === FINISHED;
}

function microstep(stepping: Stepping, transitions: RunnableTransition[], event: string): void {
  const { machine, host } = stepping;
  const { memory } = host;
  for (const transition of transitions) host.recorder?.took(transition.index, event);
  exitStates(stepping, transitions);
  for (const transition of transitions) runActions(host, transition.actions);
  const entering = new Set<number>();
  const context = { machine, cells: memory };
  for (const { index, target, domain } of transitions) {
    if (target < 0) {
      memory[machine.cells.trueSince + index] = -1;
      continue;
    }
    addDescendants(context, target, entering);
    addAncestors(context, target, domain, entering);
    memory[machine.cells.lastTransition] = index;
  }
  enterStates(stepping, entering);
}

/** Whether one more microstep is allowed; where not, the states in `visited` are told to go round. */
function allowsStep(stepping: Stepping, visited: readonly number[]): boolean {
  if (stepping.microsteps < MICROSTEP_LIMIT) {
    stepping.microsteps++;
    return true;
  }
  stepping.host.recorder?.cycled([...new Set(visited)]);
  stepping.cycled = true;
  return false;
}

/** Takes one waiting event to its completion. Events that raise each other count as steps too, or they would multiply. */
function takeEvent(stepping: Stepping, event: string): void {
  const transitions = selectTransitions(stepping, event, null);
  if (transitions.length === 0) return;
  const sources = transitions.map(({ source }) => source);
  if (!allowsStep(stepping, sources)) return;
  microstep(stepping, transitions, event);
  complete(stepping);
}

/** Eventless transitions and inner `done` events, until nothing more fires. */
function complete(stepping: Stepping): void {
  const { machine, host } = stepping;
  let visited: number[] | null = null;
  while (!isFinished(stepping) && !stepping.cycled) {
    let event = '';
    let transitions = selectTransitions(stepping, null, null);
    if (transitions.length === 0) {
      const done = stepping.done.shift();
      if (done === undefined) return;
      if (!isActive(host, machine.cells.active, done.state)) continue;
      event = done.name;
      transitions = selectTransitions(stepping, event, done);
      if (transitions.length === 0) continue;
    }
    visited ??= [];
    for (const transition of transitions) visited.push(transition.source);
    if (!allowsStep(stepping, visited)) return;
    microstep(stepping, transitions, event);
  }
}

function startActivities(stepping: Stepping): void {
  const { machine, host } = stepping;
  const { memory } = host;
  const { cells } = machine;
  if (memory[cells.startPending] === 0) return;
  memory[cells.startPending] = 0;
  for (const s of readList(memory, cells.active)) {
    const { activity } = machine.states[s];
    if (activity === null || memory[cells.activity + s] !== IDLE) continue;
    memory[cells.activity + s] = host.tick;
    host.recorder?.began(s, activity.name, -1);
    endIfOver(stepping, s, activity.root.start(host));
  }
}

function endIfOver(stepping: Stepping, s: number, status: Status): void {
  if (status === RUNNING) return;
  const { machine, host } = stepping;
  const { activity } = machine.states[s];
  const success = status === SUCCESS;
  host.memory[machine.cells.activity + s] = ENDED;
  host.recorder?.ended(
    s,
    activity!.name,
    -1,
    success ? 'success' : 'failure',
    success ? '' : host.reason,
  );
  stepping.done.push({ state: s, name: success ? 'done.success' : 'done.failure' });
}

function stepActivities(stepping: Stepping): void {
  const { machine, host } = stepping;
  const { memory } = host;
  const { active, activity } = machine.cells;
  for (let i = 1; i <= memory[active]; i++) {
    const s = memory[active + i];
    const began = memory[activity + s];
    if (began > 0 && began !== host.tick) {
      endIfOver(stepping, s, machine.states[s].activity!.root.step(host));
    }
  }
}

/** An activity that is a whole mind begins anew in the decision after its end. */
function beginAgain({ machine, host }: Stepping): void {
  const { memory } = host;
  const { active, activity, startPending } = machine.cells;
  for (let i = 1; i <= memory[active]; i++) {
    const s = memory[active + i];
    if (memory[activity + s] !== ENDED || !machine.states[s].activity!.again) continue;
    memory[activity + s] = IDLE;
    memory[startPending] = 1;
  }
}

/** Completes what has begun, then starts the activities of the states that are still there. */
function settle(stepping: Stepping): void {
  do {
    complete(stepping);
    if (isFinished(stepping)) return;
    startActivities(stepping);
  } while (stepping.done.length > 0 && !stepping.cycled);
}

/** Enters what the machine begins with, or what an edit left to be entered; false where there is nothing such. */
function enterFirst(stepping: Stepping): boolean {
  const { machine, host } = stepping;
  const { memory } = host;
  const { phase, toEnter } = machine.cells;
  let entering: number[];
  if (memory[phase] === NOT_STARTED) {
    memory[phase] = STARTED;
    entering = entrySet(machine, memory, [machine.initial]);
  } else {
    if (memory[toEnter] === 0) return false;
    entering = readList(memory, toEnter);
  }
  memory[toEnter] = 0;
  enterStates(stepping, entering);
  return true;
}

/** Whether an uninterrupted action goes on, and with it the decision is skipped. */
function isSkipped(stepping: Stepping): boolean {
  const { machine, host } = stepping;
  const { memory } = host;
  const { lock, skipping } = machine.cells;
  if (memory[lock] === 0) return false;
  const action = machine.locks[memory[lock] - 1];
  if (action.stepLocked(host) !== RUNNING) {
    memory[skipping] = 0;
    // Its end is known before anything is decided, or a transition would seem to stop what is over.
    stepActivities(stepping);
    stepping.carriedOn = true;
    return false;
  }
  if (memory[skipping] === 0) host.recorder?.skipped(action.name);
  memory[skipping] = 1;
  return true;
}

/** Whether a state's activity is running. */
export function isCarryingOn(machine: RunnableMachine, memory: Float64Array): boolean {
  const { active, activity } = machine.cells;
  for (let i = 1; i <= memory[active]; i++)
    if (memory[activity + memory[active + i]] > 0) return true;
  return false;
}

/**
 * One decision: held guards are looked at, the waiting events taken in order, eventless transitions
 * completed, and the activities of the active states carried on. False where it was skipped for an
 * uninterrupted action, and the events wait on.
 */
export function stepMachine(
  machine: RunnableMachine,
  host: Host,
  events: readonly string[],
): boolean {
  if (host.memory[machine.cells.phase] === FINISHED) return true;
  const stepping = beginDecision(machine, host);
  if (isSkipped(stepping)) return false;
  if (!enterFirst(stepping)) lookAtHeldGuards(stepping);
  for (let i = 0; i < events.length && !isFinished(stepping) && !stepping.cycled; i++) {
    takeEvent(stepping, events[i]);
  }
  settle(stepping);
  if (!isFinished(stepping) && !stepping.cycled) carryOn(stepping);
  return true;
}

function carryOn(stepping: Stepping): void {
  if (!stepping.carriedOn) stepActivities(stepping);
  if (stepping.done.length > 0) settle(stepping);
  if (stepping.machine.again) beginAgain(stepping);
}

/** Carries on what runs without deciding anew; what ends is seen to, as by an event. */
export function carryOnMachine(machine: RunnableMachine, host: Host): void {
  carryOn(beginDecision(machine, host));
}
