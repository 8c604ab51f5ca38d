import { sameData } from '../../terms/same-data.ts';
import type { MachineProgram, StateProgram, TransitionProgram } from '../program.ts';
import { FINISHED, NOT_STARTED, readList, STARTED, writeList } from './cells.ts';
import { noteLeaf } from './configuration.ts';
import { entrySet } from './entry-set.ts';
import type { RunnableMachine } from './runnable.ts';
import { readWaiting, writeWaiting } from './stepping.ts';

/**
 * Carries where a machine stands over to an edited version of it. States are the same by id. An
 * active state that is gone gives way to its nearest ancestor that is still there, which is entered
 * in the next decision; with none left the machine starts again.
 */

/** One version of a machine, and the cells of one agent under it. */
export interface Version {
  program: MachineProgram;
  machine: RunnableMachine;
  cells: Float64Array;
}

export interface Transplant {
  /** Active states that are gone, and what is entered instead; ids. */
  moved: { from: string; to: string }[];
  /** Stretches of cells that go on as they were: where they began, where they end, where they begin now. */
  kept: { from: number; to: number; now: number }[];
}

function sameTransition(a: TransitionProgram, b: TransitionProgram): boolean {
  return a.order === b.order && a.on === b.on && a.when?.source === b.when?.source;
}

/** Index in `after` of each state of `before`; −1 where it is gone. */
function stateMap(before: MachineProgram, after: MachineProgram): number[] {
  const byId = new Map(after.states.map((state, index) => [state.id, index]));
  return before.states.map((state) => byId.get(state.id) ?? -1);
}

function nearestSurvivor(before: MachineProgram, map: readonly number[], state: number): number {
  let s = state;
  while (s >= 0 && map[s] < 0) s = before.states[s].parent;
  return s < 0 ? -1 : map[s];
}

/** By two parts of programs, which never change: whether they say the same. Many agents are carried over from one version to another. */
const compared = new WeakMap<object, WeakMap<object, boolean>>();

function samePart(a: object, b: object): boolean {
  let known = compared.get(a);
  if (known === undefined) compared.set(a, (known = new WeakMap()));
  let same = known.get(b);
  if (same === undefined) known.set(b, (same = sameData(a, b)));
  return same;
}

function sameActivity({ activity: a }: StateProgram, { activity: b }: StateProgram): boolean {
  return a === b || (a !== null && b !== null && samePart(a, b));
}

/** Machines without what their states do, which is most of them and compared by itself. */
const frames = new WeakMap<MachineProgram, object>();

function frameOf(machine: MachineProgram): object {
  let frame = frames.get(machine);
  if (frame === undefined) {
    const states = machine.states.map((state) => ({ ...state, activity: null }));
    frames.set(machine, (frame = { ...machine, states }));
  }
  return frame;
}

function sameMachine(a: MachineProgram, b: MachineProgram): boolean {
  return (
    a === b ||
    (samePart(frameOf(a), frameOf(b)) &&
      a.states.every((state, i) => sameActivity(state, b.states[i])))
  );
}

/** Chooses what is active under the new version; returns the states that are so already. */
function carryConfiguration(old: Version, now: Version, map: readonly number[]) {
  const { program, machine, cells } = now;
  const active = readList(old.cells, old.machine.cells.active);
  const transitions = active.filter(
    (s) => !active.some((inner) => old.program.states[inner].parent === s),
  );
  const targets = transitions.map((leaf) => {
    const survivor = nearestSurvivor(old.program, map, leaf);
    return survivor < 0 ? machine.initial : survivor;
  });
  const moved = transitions.flatMap((leaf, i) =>
    map[leaf] >= 0
      ? []
      : [{ from: old.program.states[leaf].id, to: program.states[targets[i]].id }],
  );
  const wasActive = new Set(active.map((s) => map[s]));
  const configuration = entrySet(machine, cells, targets);
  const still = configuration.filter((s) => wasActive.has(s));
  writeList(cells, machine.cells.active, still);
  noteLeaf(machine, cells);
  writeList(
    cells,
    machine.cells.toEnter,
    configuration.filter((s) => !wasActive.has(s)),
  );
  return { moved, still: new Set(still) };
}

function carryTransitions(old: Version, now: Version, was: StateProgram, is: StateProgram): void {
  was.transitions.forEach((index, i) => {
    const successor = is.transitions[i];
    if (successor === undefined) return;
    if (!sameTransition(old.program.transitions[index], now.program.transitions[successor])) return;
    const [before, after] = [old.machine.cells, now.machine.cells];
    const [wasHeld, held] = [old, now].map(
      ({ machine }, i) => machine.transitions[i === 0 ? index : successor].heldAt,
    );
    if (wasHeld >= 0 && held >= 0) now.cells[held] = old.cells[wasHeld];
    if (old.cells[before.lastTransition] === index) now.cells[after.lastTransition] = successor;
  });
}

/** Takes all cells over as they are, where the machine is the same. */
function keepAll(old: Version, now: Version): Transplant {
  const { from, to } = old.machine;
  now.cells.set(old.cells.subarray(from, to), now.machine.from);
  return { moved: [], kept: [{ from, to, now: now.machine.from }] };
}

export function transplantMachine(old: Version, now: Version): Transplant {
  if (sameMachine(old.program, now.program)) return keepAll(old, now);
  const kept: Transplant['kept'] = [];
  const [before, after] = [old.machine.cells, now.machine.cells];
  if (old.cells[before.phase] === NOT_STARTED) return { moved: [], kept };
  const map = stateMap(old.program, now.program);
  const { moved, still } = carryConfiguration(old, now, map);
  now.cells[after.phase] = STARTED;
  if (old.cells[before.phase] === FINISHED && moved.length === 0) now.cells[after.phase] = FINISHED;
  now.cells[after.startPending] = 1;
  old.program.states.forEach((was, s) => {
    const index = map[s];
    if (index < 0) return;
    const is = now.program.states[index];
    const [from, to] = [old.machine.states[s], now.machine.states[index]];
    now.cells[to.enteredAt] = old.cells[from.enteredAt];
    const [wasActivity, activity] = [from.activity, to.activity];
    if (wasActivity && activity && sameActivity(was, is)) {
      now.cells.set(old.cells.subarray(wasActivity.from, wasActivity.to), activity.from);
      kept.push({ from: wasActivity.from, to: wasActivity.to, now: activity.from });
      if (still.has(index)) now.cells[to.activityAt] = old.cells[from.activityAt];
    }
    if (from.historyAt >= 0 && to.historyAt >= 0 && old.cells[from.historyAt] >= 0) {
      const left = readList(old.cells, from.historyAt).map((inner) => map[inner]);
      if (left.every((inner) => inner >= 0)) writeList(now.cells, to.historyAt, left);
    }
    carryTransitions(old, now, was, is);
  });
  carryLock(old, now, kept);
  carryCutOff(old, now, map);
  return { moved, kept };
}

/** A decision that met its limit goes on under the edit with the ends that waited. */
function carryCutOff(old: Version, now: Version, map: readonly number[]): void {
  now.cells[now.machine.cells.cutOff] = old.cells[old.machine.cells.cutOff];
  const waiting = readWaiting(old.machine, old.cells)
    .map(({ state, name }) => ({ state: map[state], name }))
    .filter(({ state }) => state >= 0);
  writeWaiting(now.machine, now.cells, waiting);
}

/** An uninterrupted action that goes on still lets no decision in between. */
function carryLock(old: Version, now: Version, kept: Transplant['kept']): void {
  const lock = old.cells[old.machine.cells.lock];
  if (lock === 0) return;
  const { at } = old.machine.locks[lock - 1];
  const stretch = kept.find(({ from, to }) => at >= from && at < to);
  if (!stretch) return;
  const place = now.machine.locks.findIndex((leaf) => leaf.at === at - stretch.from + stretch.now);
  now.cells[now.machine.cells.lock] = place + 1;
  now.cells[now.machine.cells.skipping] = old.cells[old.machine.cells.skipping];
}
