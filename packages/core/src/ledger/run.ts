import type { Input, Program } from '../world/program/program.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';
import { restoreSnapshot, takeSnapshot } from '../world/handover/snapshot.ts';
import { packSnapshot, unpackSnapshot, type PackedSnapshot } from './packed-snapshot.ts';
import { createStatics, type Statics } from '../world/program/statics.ts';
import { swapProgram } from '../world/handover/swap.ts';
import {
  beginTick,
  PHASES,
  runPhase,
  tickAsRecorded,
  type PhaseName,
} from '../world/phases/tick.ts';
import { createWorld, setRecorder, type World } from '../world/world.ts';

/**
 * A run with its past: what is needed to bring back any tick exactly. Snapshots are sparse; the ticks
 * between are run again from the recorded inputs and edits.
 */
export interface Run {
  seed: number;
  world: World;
  /** The last tick reached; the world may stand at an earlier one. */
  head: number;
  /** The first tick that can be gone back to. */
  keptFrom: number;
  entries: LedgerEntry[];
  inputs: { tick: number; input: Input }[];
  /** Which program was in force after which tick, in order. */
  edits: { afterTick: number; edit: number; statics: Statics }[];
  /** What is in force wherever the run goes on, also from a tick that ran under an earlier edit. */
  latest: { program: Program; edit: number };
  snapshots: PackedSnapshot[];
}

/** All that was recorded of a run: any tick of it can be brought back from that. */
export type RunPast = Omit<Run, 'world'>;

export interface RunLimits {
  snapshots: number;
  entries: number;
  /** Each keeps its program and what was made of that, some 0.2 MB. */
  edits: number;
}

export const RUN_LIMITS: RunLimits = { snapshots: 2400, entries: 200_000, edits: 100 };

/** From so many agents on, the ticks between two snapshots take long to be run again. */
const MANY_AGENTS = 100;

/** Ticks from one snapshot to the next: a second's, or half of that where there are many agents. */
function snapshotEvery({ ticksPerSecond, agents }: Program): number {
  return agents.length < MANY_AGENTS ? ticksPerSecond : Math.ceil(ticksPerSecond / 2);
}

export function createRun(program: Program, edit: number, seed = program.seed): Run {
  const statics = createStatics(program);
  const run: Run = {
    seed,
    world: createWorld(program, seed, statics),
    head: 0,
    keptFrom: 0,
    entries: [],
    inputs: [],
    edits: [{ afterTick: 0, edit, statics }],
    latest: { program, edit },
    snapshots: [],
  };
  setRecorder(run.world, recorderOf(run));
  run.snapshots.push(packSnapshot(takeSnapshot(run.world)));
  return run;
}

function recorderOf(run: Run): (entry: LedgerEntry) => void {
  return (entry) => run.entries.push(entry);
}

export function editAt(run: RunPast, at: number): Run['edits'][number] {
  return run.edits.findLast(({ afterTick }) => afterTick <= at) ?? run.edits[0];
}

/** The number of the edit in force at the world's tick. */
export function runningEdit(run: Run): number {
  return editAt(run, run.world.tick).edit;
}

/** What had been recorded after the world's tick is dropped: from here the run takes another way. */
function forgetFuture(run: Run): void {
  const now = run.world.tick;
  if (run.head === now) return;
  run.head = now;
  run.entries = run.entries.filter((entry) => entry.tick <= now);
  run.inputs = run.inputs.filter((entry) => entry.tick <= now);
  run.edits = run.edits.filter((entry) => entry.afterTick <= now);
  run.snapshots = run.snapshots.filter((snapshot) => snapshot.tick <= now);
  setRecorder(run.world, recorderOf(run));
}

/**
 * Whether going on from the world's tick only makes again what is recorded after it: no edit lies ahead, nor
 * has one been made since. What players do now is not looked at.
 */
export function goesAsRecorded(run: Run): boolean {
  const { world, head, edits, latest } = run;
  const last = edits[edits.length - 1];
  return (
    world.tick < head &&
    last.afterTick <= world.tick &&
    last.statics.program === latest.program &&
    world.statics === last.statics
  );
}

/** Runs one tick on from where the world stands, under the latest edit; a recorded future is replaced. */
export function advance(run: Run, inputs: readonly Input[] = [], limits = RUN_LIMITS): void {
  forgetFuture(run);
  if (run.world.statics.program !== run.latest.program) putInForce(run);
  for (const input of inputs) run.inputs.push({ tick: run.world.tick + 1, input });
  tickAsRecorded(run.world, inputs);
  run.head = run.world.tick;
  if (run.head % snapshotEvery(run.world.statics.program) === 0) {
    run.snapshots.push(packSnapshot(takeSnapshot(run.world)));
    thin(run, limits);
  }
}

/**
 * Keeps the past within its limits: every other snapshot of the older half goes first, then the oldest
 * half of the entries, and what ran under the oldest edits. What an edit made of the world stays, since no replay could make it again.
 */
function thin(run: Run, limits: RunLimits): void {
  if (run.snapshots.length > limits.snapshots) {
    const half = run.snapshots.length >> 1;
    const edited = new Set(run.edits.map(({ afterTick }) => afterTick));
    run.snapshots = run.snapshots.filter(
      ({ tick: at }, i) => i === 0 || i >= half || i % 2 === 0 || edited.has(at),
    );
  }
  if (run.entries.length > limits.entries)
    forgetBefore(run, run.entries[run.entries.length >> 1].tick);
  const extra = run.edits.length - limits.edits;
  if (extra > 0) forgetBefore(run, run.edits[extra].afterTick);
}

/** Lets go of the past before the first snapshot from a tick on. */
function forgetBefore(run: Run, from: number): void {
  const first = run.snapshots.find((snapshot) => snapshot.tick >= from);
  if (!first) return;
  run.keptFrom = first.tick;
  run.snapshots = run.snapshots.filter((snapshot) => snapshot.tick >= first.tick);
  run.entries = run.entries.filter((entry) => entry.tick > first.tick);
  run.inputs = run.inputs.filter((entry) => entry.tick > first.tick);
  // Of the edits before, only the last is still needed: the first kept tick ran under it.
  const inForce = editAt(run, first.tick);
  run.edits = run.edits.filter((edit) => edit === inForce || edit.afterTick > first.tick);
}

/**
 * Puts an edited program in force from the next tick. A run that rests in its past keeps its future until it goes
 * on from there.
 */
export function applyEdit(run: Run, program: Program, edit: number): void {
  run.latest = { program, edit };
  if (run.world.tick === run.head) putInForce(run);
}

/**
 * Brings a run back to its last snapshot after a tick threw and left the world half changed. What that tick had
 * recorded is dropped; what was recorded before it stays, also after the snapshot.
 */
export function recover(run: Run): void {
  const { head } = run;
  run.entries = run.entries.filter((entry) => entry.tick <= head);
  run.inputs = run.inputs.filter((entry) => entry.tick <= head);
  run.snapshots = run.snapshots.filter((snapshot) => snapshot.tick <= head);
  const failed = Math.min(run.world.tick, head + 1);
  const snapshot = snapshotBefore(run, Math.max(run.keptFrom, failed - 1));
  run.world = worldAt(run, snapshot, null);
  if (snapshot.tick === head) setRecorder(run.world, recorderOf(run));
}

/** Gives what runs the number of an edit that makes the very same program: one of notes, or of breakpoints. */
export function renumberEdit(run: Run, edit: number): void {
  run.latest = { ...run.latest, edit };
  const last = run.edits[run.edits.length - 1];
  if (last.statics.program === run.latest.program)
    run.edits[run.edits.length - 1] = { ...last, edit };
}

/** Where the world can't be carried over, the error is passed on, and the edit before is the latest again. */
function putInForce(run: Run): void {
  try {
    carryOver(run);
  } catch (error) {
    const { edit, statics } = run.edits[run.edits.length - 1];
    run.latest = { program: statics.program, edit };
    throw error;
  }
}

function carryOver(run: Run): void {
  const { program, edit } = run.latest;
  // Where nothing has happened yet there is nothing to carry over, places to start from least of all.
  if (run.world.tick === 0) {
    Object.assign(run, createRun(program, edit, run.seed));
    // The new run's recorder would go on writing there once this one takes another list of entries.
    setRecorder(run.world, recorderOf(run));
    return;
  }
  run.world = swapProgram(run.world, program, edit, run.seed);
  const now = run.world.tick;
  run.edits = run.edits.filter((entry) => entry.afterTick < now);
  run.edits.push({ afterTick: now, edit, statics: run.world.statics });
  // A snapshot of this tick was taken under the program before.
  run.snapshots = run.snapshots.filter((snapshot) => snapshot.tick < now);
  run.snapshots.push(packSnapshot(takeSnapshot(run.world)));
}

/** Brings the world to `target`, held between the first kept tick and the head. The future stays recorded. */
export function seek(run: Run, target: number): void {
  const goal = Math.max(run.keptFrom, Math.min(run.head, Math.round(target)));
  const snapshot = snapshotBefore(run, goal);
  setRecorder(run.world, null);
  if (run.world.tick > goal || run.world.tick < snapshot.tick)
    run.world = worldAt(run, snapshot, run.world);
  run.world = replayTo(run, run.world, goal);
  if (goal === run.head) setRecorder(run.world, recorderOf(run));
}

function snapshotBefore(run: RunPast, goal: number): PackedSnapshot {
  const snapshot = run.snapshots.findLast((candidate) => candidate.tick <= goal);
  if (!snapshot) throw new Error(`Nothing is kept of tick ${goal} or before.`);
  return snapshot;
}

/** The world as the snapshot has it, under the edit it was taken under; in `reuse` where that has this edit. */
function worldAt(run: RunPast, snapshot: PackedSnapshot, reuse: World | null): World {
  const { statics } = editAt(run, snapshot.tick);
  const world =
    reuse?.statics === statics ? reuse : createWorld(statics.program, run.seed, statics);
  restoreSnapshot(world, unpackSnapshot(snapshot));
  return world;
}

/** What players did in each tick after one; to be asked tick by tick, in their order. */
export function recordedInputs(
  { inputs }: Pick<Run, 'inputs'>,
  after: number,
): (at: number) => Input[] {
  let next = inputs.findIndex((entry) => entry.tick > after);
  if (next < 0) next = inputs.length;
  return (at) => {
    const given: Input[] = [];
    while (next < inputs.length && inputs[next].tick === at) given.push(inputs[next++].input);
    return given;
  };
}

/**
 * Runs a world of the run on to `goal`, which was reached before, with what players did then and under
 * the edit each tick ran under. Returns the world it comes to, which is another after an edit.
 *
 * @param look called after each tick
 */
function replayTo(
  run: RunPast,
  from: World,
  goal: number,
  look: (world: World) => void = () => {},
): World {
  let world = from;
  const inputsAt = recordedInputs(run, world.tick);
  while (world.tick < goal) {
    const at = world.tick + 1;
    tickAsRecorded(world, inputsAt(at));
    const edit = run.edits.find(({ afterTick }) => afterTick === at);
    if (edit) {
      const snapshot = run.snapshots.find((candidate) => candidate.tick === at);
      if (!snapshot) throw new Error(`What edit ${edit.edit} made of tick ${at} is not kept.`);
      world = worldAt(run, snapshot, null);
    }
    look(world);
  }
  return world;
}

/**
 * A world of its own at a tick of the run, which stays where it is: for questions about the past.
 *
 * @param from where to begin to look, at the latest the tick asked for; `look` is called after each tick from there
 */
export function revisit(
  run: RunPast,
  at: number,
  from = at,
  look: (world: World) => void = () => {},
): World {
  const goal = Math.max(run.keptFrom, Math.min(run.head, at));
  const start = worldAt(
    run,
    snapshotBefore(run, Math.min(goal, Math.max(from, run.keptFrom))),
    null,
  );
  return replayTo(run, start, goal, look);
}

/** A world of its own in the middle of a tick of the run, as that phase finds it. The tick before must be kept. */
export function revisitBefore(run: RunPast, at: number, before: PhaseName): World {
  const world = revisit(run, at - 1);
  const inputs = recordedInputs(run, at - 1)(at);
  beginTick(world);
  for (const phase of PHASES) {
    if (phase.name === before) break;
    runPhase(world, phase, inputs);
  }
  return world;
}

/** Runs a world of the run's past on by one tick, as it went then. Returns the world it comes to. */
export function replayTick(run: RunPast, world: World): World {
  return replayTo(run, world, world.tick + 1);
}

/** What the ledger holds of one tick. */
export function entriesOfTick({ entries }: Pick<Run, 'entries'>, at: number): LedgerEntry[] {
  let [first, end] = [0, entries.length];
  while (first < end) {
    const middle = (first + end) >> 1;
    if (entries[middle].tick < at) first = middle + 1;
    else end = middle;
  }
  let last = first;
  while (last < entries.length && entries[last].tick === at) last++;
  return entries.slice(first, last);
}

/** The program that was in force in a tick. */
export function programAt(run: RunPast, at: number): Program {
  // The tick an edit follows was still decided under the one before.
  return editAt(run, at - 1).statics.program;
}

/** What players have done up to the world's tick, in the order they did it. */
export function inputsOf({ inputs, world }: Run): { tick: number; input: Input }[] {
  return inputs.filter(({ tick: at }) => at <= world.tick);
}

/** What is recorded of a run until now; what the run does from here on leaves it alone. */
export function pastOf(run: RunPast): RunPast {
  const { seed, head, keptFrom, latest, entries, inputs, edits, snapshots } = run;
  return {
    seed,
    head,
    keptFrom,
    latest,
    entries: entries.slice(),
    inputs: inputs.slice(),
    edits: edits.slice(),
    snapshots: snapshots.slice(),
  };
}

/** A run that has come to where a past ends, or rests at an earlier tick of it; the past is left as it is. */
export function runOf(past: RunPast, at = past.head): Run {
  const run = { ...pastOf(past), world: revisit(past, at) };
  if (run.world.tick === run.head) setRecorder(run.world, recorderOf(run));
  return run;
}
