import type { Host } from '../host.ts';
import { RUNNING } from '../status.ts';
import type { Leaf } from '../nodes/leaf.ts';
import { FINISHED, isActive, NOT_STARTED, readList, STARTED, writeList } from './cells.ts';
import {
  beginAgain,
  carryOnState,
  endActivity,
  startActivities,
  stepActivities,
  stepActivity,
  stopActivity,
} from './activities.ts';
import { addActive, noteLeaf, removeActive } from './configuration.ts';
import { addAncestors, addDescendants, entrySet, inDocumentOrder } from './entry-set.ts';
import {
  isAncestor,
  type RunnableMachine,
  type RunnableState,
  type RunnableTransition,
} from './runnable.ts';
import { inExitSet, selectTransitions, stirs } from './select.ts';
import { beginDecision, writeWaiting, type Stepping } from './stepping.ts';

/**
 * One decision of a state machine.
 *
 * Source: the algorithm for SCXML interpretation, W3C Recommendation 2015, appendix D; the functions
 * here and beside it carry its names. What is ours on top: `for` and `after` times, urgent transitions,
 * activities, and a limit on microsteps.
 */

const MICROSTEP_LIMIT = 32;
/** Transitions of one decision, where a step takes one in each of many regions. */
const TRANSITION_LIMIT = 256;

function runActions(host: Host, actions: readonly Leaf[]): void {
  if (actions.length === 0) return;
  for (const action of actions) action.start(host);
  host.reason = null;
}

function keepHistories({ machine, host }: Stepping, state: number): void {
  const { histories } = machine.states[state];
  if (histories.length === 0) return;
  const active = readList(host.memory, machine.cells.active);
  for (const history of histories) {
    const deep = machine.states[history].kind === 'deepHistory';
    const kept = active.filter((inner) =>
      deep
        ? machine.states[inner].children.length === 0 && isAncestor(machine.states, state, inner)
        : machine.states[inner].parent === state,
    );
    writeList(host.memory, machine.states[history].historyAt, kept);
  }
}

function isLeft(
  machine: RunnableMachine,
  transitions: readonly RunnableTransition[],
  state: number,
): boolean {
  for (let i = 0; i < transitions.length; i++)
    if (inExitSet(machine, transitions[i], state)) return true;
  return false;
}

function exitStates(stepping: Stepping, transitions: RunnableTransition[]): void {
  const { machine, host } = stepping;
  const { memory } = host;
  const { active } = machine.cells;
  for (let at = active + memory[active]; at > active; at--) {
    if (isLeft(machine, transitions, memory[at])) keepHistories(stepping, memory[at]);
  }
  // Document order puts every child behind its parent, so from the end is from the inside.
  for (let at = active + memory[active]; at > active; at--) {
    const s = memory[at];
    if (!isLeft(machine, transitions, s)) continue;
    stopActivity(stepping, s);
    runActions(host, machine.states[s].exit);
    removeActive(memory, active, at);
    host.recorder?.exited(s);
  }
}

/** Enters states that are given in document order, which puts every parent before its children. */
function enterStates(stepping: Stepping, entering: readonly number[]): void {
  const { machine, host } = stepping;
  const { memory } = host;
  const { cells } = machine;
  for (let i = 0; i < entering.length; i++) {
    const s = entering[i];
    if (isActive(host, cells.active, s)) continue;
    const { enteredAt, held, activity, entry, kind } = machine.states[s];
    addActive(memory, cells.active, s);
    memory[enteredAt] = host.tick;
    for (const { heldAt } of held) memory[heldAt] = -1;
    if (activity !== null) memory[cells.startPending] = 1;
    host.recorder?.entered(s);
    runActions(host, entry);
    if (kind === 'final') finish(stepping, s);
  }
  noteLeaf(machine, memory);
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

/** What the transitions enter together, in document order. */
function entered(
  { machine, host }: Stepping,
  transitions: readonly RunnableTransition[],
): readonly number[] {
  if (transitions.length === 1 && transitions[0].enters !== null) return transitions[0].enters;
  const context = { machine, cells: host.memory };
  const entering = new Set<number>();
  for (const { target, domain } of transitions) {
    if (target < 0) continue;
    addDescendants(context, target, entering);
    addAncestors(context, target, domain, entering);
  }
  return inDocumentOrder(entering);
}

function microstep(stepping: Stepping, transitions: RunnableTransition[], event: string): void {
  const { machine, host } = stepping;
  const { memory } = host;
  for (const transition of transitions) host.recorder?.took(transition.index, event);
  exitStates(stepping, transitions);
  for (const transition of transitions) {
    runActions(host, transition.actions);
    if (transition.target >= 0) memory[machine.cells.lastTransition] = transition.index;
    else if (transition.heldAt >= 0) memory[transition.heldAt] = -1;
  }
  enterStates(stepping, entered(stepping, transitions));
}

/** Whether one more microstep is allowed; where not, the states in `visited` are recorded as going round. */
function allowsStep(
  stepping: Stepping,
  transitions: readonly RunnableTransition[],
  visited: readonly number[],
): boolean {
  const { microsteps, taken } = stepping;
  const fits = microsteps < MICROSTEP_LIMIT && taken + transitions.length <= TRANSITION_LIMIT;
  // A first step is always taken, or nothing would ever go on.
  if (fits || microsteps === 0) {
    stepping.microsteps++;
    stepping.taken += transitions.length;
    return true;
  }
  stepping.host.recorder?.cycled([...new Set(visited)]);
  stepping.cycled = true;
  return false;
}

/**
 * Takes one waiting event to its completion; false where the limit leaves it waiting. Events that raise
 * each other count as steps too, or they would multiply.
 */
function takeEvent(stepping: Stepping, event: string): boolean {
  const transitions = selectTransitions(stepping, event, null);
  if (transitions.length === 0) return true;
  const sources = transitions.map(({ source }) => source);
  if (!allowsStep(stepping, transitions, sources)) return false;
  microstep(stepping, transitions, event);
  complete(stepping);
  return true;
}

/** Eventless transitions and inner `done` events, until nothing more fires. */
function complete(stepping: Stepping): void {
  const { machine, host } = stepping;
  let visited: number[] | null = null;
  while (!isFinished(stepping) && !stepping.cycled) {
    let event = '';
    let transitions = selectTransitions(stepping, null, null);
    const eventless = transitions.length > 0;
    if (!eventless) {
      if (stepping.done.length === 0) return;
      const done = stepping.done[0];
      event = done.name;
      if (isActive(host, machine.cells.active, done.state))
        transitions = selectTransitions(stepping, event, done);
      if (transitions.length === 0) {
        stepping.done.shift();
        continue;
      }
    }
    visited ??= [];
    for (const transition of transitions) visited.push(transition.source);
    if (!allowsStep(stepping, transitions, visited)) return;
    if (!eventless) stepping.done.shift();
    microstep(stepping, transitions, event);
  }
}

/** Carries on what the leaf and the states around it do. Nothing is made ready until one comes to its end. */
function carryOnQuietly(machine: RunnableMachine, host: Host, busy: RunnableState[]): void {
  for (let i = 0; i < busy.length; i++) {
    const status = carryOnState(busy[i], host);
    if (status === RUNNING) continue;
    const stepping = beginDecision(machine, host);
    endActivity(stepping, busy[i].index, status);
    for (let rest = i + 1; rest < busy.length; rest++) stepActivity(stepping, busy[rest]);
    stepping.carriedOn = true;
    carryOn(stepping);
    noteRest(stepping);
    return;
  }
}

/** Completes what has begun, then starts the activities of the states that are still there. */
function settle(stepping: Stepping): void {
  do {
    complete(stepping);
    if (isFinished(stepping) || stepping.cycled) return;
    startActivities(stepping);
  } while (stepping.done.length > 0);
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

/** Notes what the next decision has to do besides looking at guards and carrying on. */
function noteRest({ machine, host, cycled, done }: Stepping): void {
  const { memory } = host;
  const { phase, toEnter, startPending, lock, restless, cutOff, waiting } = machine.cells;
  memory[cutOff] = cycled ? 1 : 0;
  if (cycled) writeWaiting(machine, memory, done);
  else memory[waiting] = 0;
  const rests =
    !cycled &&
    memory[phase] === STARTED &&
    memory[toEnter] === 0 &&
    memory[startPending] === 0 &&
    memory[lock] === 0;
  memory[restless] = rests ? 0 : 1;
}

/**
 * One decision: held guards are looked at, the waiting events taken in order, eventless transitions
 * completed, and the activities of the active states carried on. Returns how many of the events it took: none
 * where it was skipped for an uninterrupted action, those before the limit of microsteps where that was met.
 * The others wait on.
 */
export function stepMachine(
  machine: RunnableMachine,
  host: Host,
  events: readonly string[],
): number {
  const { memory } = host;
  const { restless, leaf } = machine.cells;
  if (memory[restless] === 0 && events.length === 0) {
    const stirred = stirs(machine, host);
    if (!stirred && memory[leaf] >= 0) {
      // By far most decisions look at a few guards, find none that holds, and carry on.
      carryOnQuietly(machine, host, machine.states[memory[leaf]].busyAlong);
      return 0;
    }
    const stepping = beginDecision(machine, host);
    if (stirred) settle(stepping);
    carryOn(stepping);
    noteRest(stepping);
    return 0;
  }
  const stepping = beginDecision(machine, host);
  const taken = decideAnew(stepping, events);
  noteRest(stepping);
  return taken;
}

function decideAnew(stepping: Stepping, events: readonly string[]): number {
  const { machine, host } = stepping;
  if (isFinished(stepping)) return events.length;
  if (isSkipped(stepping)) return 0;
  if (!enterFirst(stepping)) stirs(machine, host);
  // What the limit cut off comes to its end before anything new is looked at.
  if (host.memory[machine.cells.cutOff] === 1) settle(stepping);
  let taken = 0;
  while (taken < events.length && !isFinished(stepping) && !stepping.cycled) {
    if (takeEvent(stepping, events[taken])) taken++;
  }
  if (isFinished(stepping)) taken = events.length;
  settle(stepping);
  carryOn(stepping);
  return taken;
}

function carryOn(stepping: Stepping): void {
  const { machine, cycled, carriedOn } = stepping;
  if (cycled || isFinished(stepping)) return;
  if (!carriedOn) stepActivities(stepping);
  if (stepping.done.length > 0) settle(stepping);
  if (machine.again) beginAgain(stepping);
}

/** Carries on what runs without deciding again; what ends is seen to, as by an event. */
export function carryOnMachine(machine: RunnableMachine, host: Host): void {
  const stepping = beginDecision(machine, host);
  carryOn(stepping);
  noteRest(stepping);
}
