import { SENSES } from '../../terms/senses.ts';
import { compileFlag, type FlagFunction } from '../../expression/closures.ts';
import { reserve, type CellLayout } from '../cells.ts';
import type { ActionProgram, MachineProgram, StateKindProgram, StateProgram } from '../program.ts';
import type { Grove } from '../nodes/grove.ts';
import { Leaf } from '../nodes/leaf.ts';
import { makeActivity, type RunnableActivity } from '../nodes/make-activity.ts';
import { IDLE, reserveMachine, type MachineCells } from './cells.ts';

/** A state machine bound and indexed for running; shared by all agents of a mind, never changed. */
export interface RunnableMachine {
  states: RunnableState[];
  transitions: RunnableTransition[];
  initial: number;
  /** The cells it takes: the first, and one past the last. */
  from: number;
  to: number;
  cells: MachineCells;
  /** Some activity starts again after its end. */
  again: boolean;
  /** Actions no decision is made during. */
  locks: Leaf[];
  /** Some state says which sense wins the attention. */
  heeds: boolean;
  /** Names of the actions that last, by the first of their cells. */
  actions: ReadonlyMap<number, string>;
}

export interface RunnableState {
  index: number;
  kind: StateKindProgram;
  parent: number;
  children: number[];
  initial: number;
  depth: number;
  /** History children of this state. */
  histories: number[];
  entry: Leaf[];
  exit: Leaf[];
  activity: RunnableActivity | null;
  /** Cell: {@link IDLE}, the tick its activity began in, or when and how it ended; −1 where it has none. */
  activityAt: number;
  /** Cell: the tick it was entered in last; −1 for never. */
  enteredAt: number;
  /** Cell, for a history: how many states were active when its parent was last left (−1 before that), then these; −1 for others. */
  historyAt: number;
  /** For a state without children: what may fire while it is active, first to last. */
  candidates: RunnableTransition[];
  /** Those of them that wait for no event. */
  eventless: RunnableTransition[];
  /** Own transitions with a `for` time, whose guards are looked at each decision. */
  held: RunnableTransition[];
  /** The same of this state and of all around it, outermost first. */
  heldAlong: RunnableTransition[];
  /** Of these states, those that do something. */
  busyAlong: RunnableState[];
  /** Nothing that may fire without an event can, while nothing is noticed. */
  dozes: boolean;
  /** Senses by index, the one that wins the attention first; null where it says nothing. */
  attention: readonly number[] | null;
}

export interface RunnableTransition {
  index: number;
  source: number;
  target: number;
  /** Event descriptor, split at its dots; null for an eventless transition. */
  on: string[] | null;
  /** `on: "done"` and its kind mean the source's own end, not that of a state below it. */
  ownDone: boolean;
  when: FlagFunction | null;
  /** The guard where it alone decides: no event and no time besides. */
  plain: FlagFunction | null;
  forTicks: number;
  /** Cell, with a `for` time: the tick since which the guard has held without a break while its source was active, −1 where it does not; −1 for others. */
  heldAt: number;
  afterTicks: number;
  urgent: boolean;
  /** The innermost state that stays active; −1 for the machine as a whole. */
  domain: number;
  /** What it enters, outermost first, where no history and no regions have a say in that; else null. */
  enters: readonly number[] | null;
  actions: Leaf[];
}

export function isAncestor(states: { parent: number }[], ancestor: number, state: number): boolean {
  if (ancestor < 0) return true;
  for (let s = states[state].parent; s >= 0; s = states[s].parent) if (s === ancestor) return true;
  return false;
}

/** The innermost compound state (or −1) that properly holds both; W3C SCXML's `findLCCA`. */
function commonAncestor(program: MachineProgram, a: number, b: number): number {
  for (let s = program.states[a].parent; s >= 0; s = program.states[s].parent) {
    if (program.states[s].kind === 'compound' && isAncestor(program.states, s, b)) return s;
  }
  return -1;
}

function domainOf(
  program: MachineProgram,
  source: number,
  target: number,
  internal: boolean,
): number {
  if (target < 0) return source;
  if (
    internal &&
    program.states[source].kind === 'compound' &&
    isAncestor(program.states, source, target)
  )
    return source;
  return commonAncestor(program, source, target);
}

/** From the domain down to the target, and on to where that begins. */
function chainInto({ states }: MachineProgram, domain: number, target: number): number[] | null {
  const chain: number[] = [];
  for (let s = target; s >= 0 && s !== domain; s = states[s].parent) chain.unshift(s);
  for (let s = target; s >= 0 && states[s].kind === 'compound'; s = states[s].initial)
    chain.push(states[s].initial);
  const alone = ({ kind }: StateProgram) =>
    kind === 'compound' || kind === 'atomic' || kind === 'final';
  return chain.every((s) => s >= 0 && alone(states[s])) ? chain : null;
}

/** Own transitions before those of the states around it, but urgent ones of the outermost first. */
function candidatesOf(
  state: number,
  program: MachineProgram,
  transitions: RunnableTransition[],
): RunnableTransition[] {
  const inward: number[] = [];
  for (let s = state; s >= 0; s = program.states[s].parent) inward.unshift(s);
  const own = (s: number, urgent: boolean) =>
    program.states[s].transitions
      .map((index) => transitions[index])
      .filter((transition) => transition.urgent === urgent);
  return [
    ...inward.flatMap((s) => own(s, true)),
    ...[...inward].reverse().flatMap((s) => own(s, false)),
  ];
}

/** Binds a machine to its place in the cells. */
export function makeMachine(
  program: MachineProgram,
  layout: CellLayout,
  channels: number,
): RunnableMachine {
  const from = layout.initial.length;
  const cells = reserveMachine(layout, program);
  const locks: Leaf[] = [];
  const actionsAt = new Map<number, string>();
  const grove = (state: number): Grove => ({
    layout,
    channels,
    lockAt: cells.lock,
    restlessAt: cells.restless,
    locks,
    actions: actionsAt,
    choices: new Map(),
    state,
  });
  const instant = (state: number, actions: readonly ActionProgram[]) =>
    actions.map((action) => new Leaf(action, -1, grove(state)));
  const transitions = program.transitions.map((transition, index): RunnableTransition => {
    const on = transition.on === '' ? null : transition.on.split('.');
    const when = transition.when ? compileFlag(transition.when.ir) : null;
    const domain = domainOf(program, transition.source, transition.target, transition.internal);
    return {
      index,
      source: transition.source,
      target: transition.target,
      on,
      ownDone: on !== null && on[0] === 'done',
      when,
      plain: on === null && transition.forTicks === 0 && transition.afterTicks === 0 ? when : null,
      forTicks: transition.forTicks,
      heldAt: transition.forTicks > 0 && when !== null ? reserve(layout, 1, -1) : -1,
      afterTicks: transition.afterTicks,
      urgent: transition.urgent,
      domain,
      enters: chainInto(program, domain, transition.target),
      actions: instant(transition.source, transition.actions),
    };
  });
  const states = program.states.map((state, index): RunnableState => {
    const candidates =
      state.kind === 'atomic' || state.kind === 'final'
        ? candidatesOf(index, program, transitions)
        : [];
    let depth = 0;
    for (let s = state.parent; s >= 0; s = program.states[s].parent) depth++;
    return {
      index,
      kind: state.kind,
      parent: state.parent,
      children: state.children.filter((child) => !isHistory(program.states[child].kind)),
      initial: state.initial,
      depth,
      histories: state.children.filter((child) => isHistory(program.states[child].kind)),
      entry: instant(index, state.entry),
      exit: instant(index, state.exit),
      activity: state.activity && makeActivity(state.activity, grove(index)),
      activityAt: state.activity ? reserve(layout, 1, IDLE) : -1,
      enteredAt: reserve(layout, 1, -1),
      historyAt: isHistory(state.kind) ? reserve(layout, 1 + program.states.length, -1) : -1,
      candidates,
      eventless: candidates.filter((transition) => transition.on === null),
      held: state.transitions
        .map((leave) => transitions[leave])
        .filter(({ heldAt }) => heldAt >= 0),
      heldAlong: [],
      busyAlong: [],
      dozes: false,
      attention: state.attention && state.attention.map((sense) => SENSES.indexOf(sense)),
    };
  });
  for (const state of states) {
    for (let s = state.index; s >= 0; s = states[s].parent) {
      state.heldAlong.unshift(...states[s].held);
      if (states[s].activity !== null) state.busyAlong.unshift(states[s]);
    }
    const looked = [...state.heldAlong, ...state.eventless];
    state.dozes = looked.every(({ index }) => program.transitions[index].needsNotice);
  }
  const again = states.some(({ activity }) => activity?.again);
  const heeds = states.some(({ attention }) => attention !== null);
  return {
    states,
    transitions,
    initial: program.initial,
    from,
    to: layout.initial.length,
    cells,
    again,
    locks,
    heeds,
    actions: actionsAt,
  };
}

export function isHistory(kind: StateKindProgram): boolean {
  return kind === 'history' || kind === 'deepHistory';
}
