import type { Host } from '../host.ts';
import { RUNNING, SUCCESS, type RunnableAction } from '../actions/action.ts';
import {
  isAncestor,
  isHistory,
  type RunnableMachine,
  type RunnableTransition,
} from './runnable.ts';
import type { MachineState } from './state.ts';

/**
 * One decision of a state machine.
 *
 * Source: the algorithm for SCXML interpretation, W3C Recommendation 2015, appendix D; the functions
 * below carry its names. What is ours on top: `for` and `after` times, urgent transitions, activities,
 * and a limit on microsteps.
 */

const MICROSTEP_LIMIT = 32;

/** An internal event: a state, or its activity, came to its end. */
interface Done {
  state: number;
  name: 'done.success' | 'done.failure';
}

interface Machine {
  machine: RunnableMachine;
  state: MachineState;
}

interface Stepping extends Machine {
  host: Host;
  done: Done[];
  microsteps: number;
  /** The microstep limit was met: nothing more happens in this decision. */
  cycled: boolean;
}

function isActive(state: MachineState, index: number): boolean {
  return state.active.includes(index);
}

/** Whether event `name` has the descriptor's words at its head, word by word. */
export function matchesEvent(descriptor: string[], name: string): boolean {
  const words = name.split('.');
  return descriptor.length <= words.length && descriptor.every((word, i) => word === words[i]);
}

function holds(stepping: Stepping, transition: RunnableTransition): boolean {
  const { state, host } = stepping;
  if (
    transition.afterTicks > 0 &&
    host.tick - state.enteredAt[transition.source] < transition.afterTicks
  )
    return false;
  if (transition.when === null) return true;
  if (transition.forTicks > 0) {
    const since = state.trueSince[transition.index];
    return since >= 0 && host.tick - since >= transition.forTicks;
  }
  return transition.when(host);
}

function fires(
  stepping: Stepping,
  transition: RunnableTransition,
  event: string | null,
  done: Done | null,
): boolean {
  if (event === null) return transition.on === null && holds(stepping, transition);
  if (transition.on === null || !matchesEvent(transition.on, event)) return false;
  if (transition.ownDone && done !== null && done.state !== transition.source) return false;
  return holds(stepping, transition);
}

function lookAtHeldGuards({ machine, state, host }: Stepping): void {
  for (let i = 0; i < state.active.length; i++) {
    const { held } = machine.states[state.active[i]];
    for (let j = 0; j < held.length; j++) {
      const { index, when } = held[j];
      if (!when!(host)) state.trueSince[index] = -1;
      else if (state.trueSince[index] < 0) state.trueSince[index] = host.tick;
    }
  }
}

/** All states that leaving `transition.domain`'s inside would leave. */
function inExitSet(
  machine: RunnableMachine,
  transition: RunnableTransition,
  state: number,
): boolean {
  return transition.target >= 0 && isAncestor(machine.states, transition.domain, state);
}

function selectTransitions(
  stepping: Stepping,
  event: string | null,
  done: Done | null,
): RunnableTransition[] {
  const { machine, state } = stepping;
  let first: RunnableTransition | null = null;
  let firstLeaf = -1;
  let chosen: { transition: RunnableTransition; leaf: number }[] | null = null;
  for (let i = 0; i < state.active.length; i++) {
    const leaf = state.active[i];
    const { candidates, eventless } = machine.states[leaf];
    const tried = event === null ? eventless : candidates;
    for (let j = 0; j < tried.length; j++) {
      const transition = tried[j];
      if (!fires(stepping, transition, event, done)) continue;
      if (first === null) {
        first = transition;
        firstLeaf = leaf;
      } else {
        chosen ??= [{ transition: first, leaf: firstLeaf }];
        if (!chosen.some((other) => other.transition === transition))
          chosen.push({ transition, leaf });
      }
      break;
    }
  }
  if (first === null) return NONE;
  return chosen === null ? [first] : removeConflicting(stepping, chosen);
}

const NONE: RunnableTransition[] = [];

/** Of two transitions that would leave the same state, the one from further inside wins, else the earlier. */
function removeConflicting(
  stepping: Stepping,
  chosen: { transition: RunnableTransition; leaf: number }[],
): RunnableTransition[] {
  const { machine, state } = stepping;
  const rank = (entry: { transition: RunnableTransition; leaf: number }) =>
    entry.transition.urgent ? entry.leaf : entry.transition.source;
  let kept: typeof chosen = [];
  for (const entry of chosen) {
    const rivals = kept.filter((other) =>
      state.active.some(
        (s) => inExitSet(machine, entry.transition, s) && inExitSet(machine, other.transition, s),
      ),
    );
    if (rivals.some((other) => !isAncestor(machine.states, rank(other), rank(entry)))) continue;
    kept = kept.filter((other) => !rivals.includes(other));
    kept.push(entry);
  }
  return kept.map((entry) => entry.transition);
}

function runActions(stepping: Stepping, actions: RunnableAction[]): void {
  for (const action of actions) {
    action.start(stepping.host, { startedAt: stepping.host.tick, a: 0, b: 0 });
  }
}

function stopActivity({ machine, state, host }: Stepping, index: number): void {
  const memory = state.activity[index];
  if (memory === null) return;
  const activity = machine.states[index].activity!;
  state.activity[index] = null;
  activity.stop?.(host, memory);
  host.recorder?.ended(index, activity.name, 'stopped');
}

function exitStates(stepping: Stepping, transitions: RunnableTransition[]): void {
  const { machine, state, host } = stepping;
  const leaving = state.active
    .filter((s) => transitions.some((transition) => inExitSet(machine, transition, s)))
    .reverse();
  if (leaving.length === 0) return;
  for (const s of leaving) {
    for (const history of machine.states[s].histories) {
      const deep = machine.states[history].kind === 'deepHistory';
      state.left[history] = state.active.filter((inner) =>
        deep
          ? machine.states[inner].children.length === 0 && isAncestor(machine.states, s, inner)
          : machine.states[inner].parent === s,
      );
    }
  }
  for (const s of leaving) {
    stopActivity(stepping, s);
    state.activityDone[s] = false;
    runActions(stepping, machine.states[s].exit);
    state.active.splice(state.active.indexOf(s), 1);
    host.recorder?.exited(s);
  }
}

function addDescendants(stepping: Machine, index: number, entering: Set<number>): void {
  const { machine, state } = stepping;
  const target = machine.states[index];
  if (isHistory(target.kind)) {
    const before = state.left[index];
    const goals = before ?? [
      target.initial >= 0 ? target.initial : machine.states[target.parent].initial,
    ];
    for (const goal of goals) addDescendants(stepping, goal, entering);
    for (const goal of goals) addAncestors(stepping, goal, target.parent, entering);
    return;
  }
  entering.add(index);
  if (target.kind === 'compound') {
    addDescendants(stepping, target.initial, entering);
    addAncestors(stepping, target.initial, index, entering);
  } else if (target.kind === 'parallel') {
    addRegions(stepping, index, entering);
  }
}

function addRegions(stepping: Machine, index: number, entering: Set<number>): void {
  for (const child of stepping.machine.states[index].children) {
    const begun = [...entering].some(
      (s) => s === child || isAncestor(stepping.machine.states, child, s),
    );
    if (!begun) addDescendants(stepping, child, entering);
  }
}

function addAncestors(
  stepping: Machine,
  index: number,
  below: number,
  entering: Set<number>,
): void {
  const { states } = stepping.machine;
  for (let s = states[index].parent; s !== below && s >= 0; s = states[s].parent) {
    entering.add(s);
    if (states[s].kind === 'parallel') addRegions(stepping, s, entering);
  }
}

/** All states that entering these targets from outside the machine enters, in document order. */
export function entrySet(
  machine: RunnableMachine,
  state: MachineState,
  targets: readonly number[],
): number[] {
  const entering = new Set<number>();
  for (const target of targets) addDescendants({ machine, state }, target, entering);
  for (const target of targets) addAncestors({ machine, state }, target, -1, entering);
  return [...entering].sort((a, b) => a - b);
}

function enterStates(stepping: Stepping, entering: Set<number>): void {
  const { machine, state, host } = stepping;
  // Document order puts every parent before its children, so it is also entry order.
  for (const s of [...entering].sort((a, b) => a - b)) {
    if (isActive(state, s)) continue;
    state.active.push(s);
    state.enteredAt[s] = host.tick;
    for (const transition of machine.states[s].held) state.trueSince[transition.index] = -1;
    if (machine.states[s].activity !== null) state.startPending = true;
    host.recorder?.entered(s);
    runActions(stepping, machine.states[s].entry);
    if (machine.states[s].kind === 'final') finish(stepping, s);
  }
  state.active.sort((a, b) => a - b);
}

function isInFinalState(stepping: Stepping, index: number): boolean {
  const { machine, state } = stepping;
  const { kind, children } = machine.states[index];
  if (kind === 'compound')
    return children.some(
      (child) => machine.states[child].kind === 'final' && isActive(state, child),
    );
  if (kind === 'parallel') return children.every((child) => isInFinalState(stepping, child));
  return false;
}

function finish(stepping: Stepping, final: number): void {
  const { machine, state } = stepping;
  const { parent } = machine.states[final];
  if (parent < 0) {
    state.finished = true;
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

function microstep(stepping: Stepping, transitions: RunnableTransition[], event: string): void {
  const { state, host } = stepping;
  for (const transition of transitions) host.recorder?.took(transition.index, event);
  exitStates(stepping, transitions);
  for (const transition of transitions) runActions(stepping, transition.actions);
  const entering = new Set<number>();
  for (const transition of transitions) {
    if (transition.target < 0) continue;
    addDescendants(stepping, transition.target, entering);
    addAncestors(stepping, transition.target, transition.domain, entering);
    state.lastTransition = transition.index;
  }
  enterStates(stepping, entering);
  for (const transition of transitions) {
    if (transition.target < 0) state.trueSince[transition.index] = -1;
  }
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
  const { state } = stepping;
  let visited: number[] | null = null;
  while (!state.finished && !stepping.cycled) {
    let event = '';
    let transitions = selectTransitions(stepping, null, null);
    if (transitions.length === 0) {
      const done = stepping.done.shift();
      if (done === undefined) return;
      if (!isActive(state, done.state)) continue;
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
  const { machine, state, host } = stepping;
  if (!state.startPending) return;
  state.startPending = false;
  for (const s of state.active) {
    const { activity } = machine.states[s];
    if (activity === null || state.activity[s] !== null || state.activityDone[s]) continue;
    const memory = { startedAt: host.tick, a: 0, b: 0 };
    state.activity[s] = memory;
    host.recorder?.began(s, activity.name);
    endIfOver(stepping, s, activity.start(host, memory));
  }
}

function endIfOver(stepping: Stepping, s: number, status: number): void {
  if (status === RUNNING) return;
  const { machine, state, host } = stepping;
  const activity = machine.states[s].activity!;
  const memory = state.activity[s]!;
  state.activity[s] = null;
  state.activityDone[s] = true;
  activity.stop?.(host, memory);
  host.recorder?.ended(s, activity.name, status === SUCCESS ? 'success' : 'failure');
  stepping.done.push({ state: s, name: status === SUCCESS ? 'done.success' : 'done.failure' });
}

function stepActivities(stepping: Stepping): void {
  const { machine, state, host } = stepping;
  for (let i = 0; i < state.active.length; i++) {
    const s = state.active[i];
    const memory = state.activity[s];
    if (memory === null || memory.startedAt === host.tick) continue;
    const { activity } = machine.states[s];
    if (activity!.step) endIfOver(stepping, s, activity!.step(host, memory));
  }
}

/** Completes what has begun, then starts the activities of the states that are still there. */
function settle(stepping: Stepping): void {
  do {
    complete(stepping);
    if (stepping.state.finished) return;
    startActivities(stepping);
  } while (stepping.done.length > 0 && !stepping.cycled);
}

/** Decisions don't overlap, so one object serves them all: the hot path makes no garbage. */
const shared = { done: [] as Done[], microsteps: 0, cycled: false } as unknown as Stepping;

function begin(machine: RunnableMachine, state: MachineState, host: Host): Stepping {
  shared.machine = machine;
  shared.state = state;
  shared.host = host;
  if (shared.done.length > 0) shared.done.length = 0;
  shared.microsteps = 0;
  shared.cycled = false;
  return shared;
}

/**
 * One decision: held guards are looked at, the waiting events taken in order, eventless transitions
 * completed, and the activities of the active states carried on. Changes `state` in place.
 */
export function stepMachine(
  machine: RunnableMachine,
  state: MachineState,
  host: Host,
  events: readonly string[],
): void {
  if (state.finished) return;
  const stepping = begin(machine, state, host);
  if (!state.started) {
    state.started = true;
    state.toEnter = entrySet(machine, state, [machine.initial]);
  }
  if (state.toEnter.length > 0) {
    const entering = new Set(state.toEnter);
    state.toEnter = [];
    enterStates(stepping, entering);
    settle(stepping);
    return;
  }
  lookAtHeldGuards(stepping);
  for (let i = 0; i < events.length && !state.finished && !stepping.cycled; i++) {
    takeEvent(stepping, events[i]);
  }
  settle(stepping);
  if (state.finished || stepping.cycled) return;
  stepActivities(stepping);
  if (stepping.done.length > 0) settle(stepping);
}
