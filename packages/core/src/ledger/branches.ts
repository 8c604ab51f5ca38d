import { pastOf, runOf, type Run, type RunPast } from './run.ts';

/** The ways a project's runs have taken: the one that goes on, and those that were kept where it took another. */

/** What made a run take another way than before. */
export type PartedBy = 'input' | 'edit' | 'restart' | 'seed' | 'setup' | 'replay' | 'tried';

export interface Branch {
  /** From 1, in the order they were begun; never given twice. */
  id: number;
  /** Given by its maker; null before. One with a name is kept until it is let go. */
  name: string | null;
  /** Where it parted from which other; null for the first. */
  parted: { from: number; tick: number; by: PartedBy } | null;
}

export interface Branches {
  run: Run;
  /** The one that `run` goes on with. */
  current: Branch;
  kept: (Branch & { past: RunPast })[];
  nextId: number;
}

/** So many without a name are kept, in so many bytes of snapshots; then the oldest go. */
export const UNNAMED_KEPT = 6;
const UNNAMED_BYTES = 100e6;

function bytesOf({ snapshots }: RunPast): number {
  return snapshots.reduce((sum, { bytes }) => sum + bytes.length, 0);
}

export function createBranches(run: Run): Branches {
  return { run, current: { id: 1, name: null, parted: null }, kept: [], nextId: 2 };
}

/** Keeps the branch that goes on. The latest without a name stays, however large. */
function keepCurrent(branches: Branches, mostBytes = UNNAMED_BYTES): void {
  const { run, current, kept } = branches;
  kept.push({ ...current, past: pastOf(run) });
  let [count, bytes] = [0, 0];
  branches.kept = kept
    .toReversed()
    .filter(({ name, past }) => {
      if (name !== null) return true;
      count++;
      bytes += bytesOf(past);
      return count === 1 || (count <= UNNAMED_KEPT && bytes <= mostBytes);
    })
    .toReversed();
}

/**
 * Keeps all that is recorded as it is; what the run does next belongs to a new branch. To be called before the
 * run goes on from its past another way.
 */
export function partHere(branches: Branches, by: PartedBy, mostBytes = UNNAMED_BYTES): void {
  keepCurrent(branches, mostBytes);
  const { run, current, nextId } = branches;
  branches.current = {
    id: nextId,
    name: null,
    parted: { from: current.id, tick: run.world.tick, by },
  };
  branches.nextId++;
}

/** Goes on with another run, as a branch of its own; one that had not begun to run is not kept. */
export function beginBranch(branches: Branches, run: Run, by: PartedBy): void {
  if (branches.run.head > 0) {
    keepCurrent(branches);
    const { current, nextId } = branches;
    branches.current = { id: nextId, name: null, parted: { from: current.id, tick: 0, by } };
    branches.nextId++;
  }
  branches.run = run;
}

/** Keeps a run beside the one that goes on, from which it differs from a tick on. Returns its number. */
export function keepBeside(
  branches: Branches,
  run: Run,
  parted: { tick: number; by: PartedBy },
  name: string | null,
): number {
  const id = branches.nextId++;
  branches.kept.push({
    id,
    name,
    parted: { from: branches.current.id, ...parted },
    past: pastOf(run),
  });
  return id;
}

/** The run goes on with a branch that was kept, from the same tick where it has come so far; whether there is one. */
export function goToBranch(branches: Branches, id: number): boolean {
  const wanted = branches.kept.find((branch) => branch.id === id);
  if (!wanted) return false;
  const { past, ...branch } = wanted;
  const { world, latest } = branches.run;
  branches.kept = branches.kept.filter((other) => other !== wanted);
  keepCurrent(branches);
  branches.current = branch;
  branches.run = runOf(past, world.tick);
  // It goes on under the edit that is in force now, as from any other moment of the past.
  branches.run.latest = latest;
  return true;
}

/** Names a branch, or (with null) takes its name away. */
export function nameBranch(branches: Branches, id: number, name: string | null): void {
  const named = <B extends Branch>(branch: B): B =>
    branch.id === id ? { ...branch, name } : branch;
  branches.current = named(branches.current);
  branches.kept = branches.kept.map(named);
}

/** Forgets a branch that was kept. */
export function letGo(branches: Branches, id: number): void {
  branches.kept = branches.kept.filter((branch) => branch.id !== id);
}

/** What is recorded of a branch; null where there is none of that number. */
export function pastOfBranch({ run, current, kept }: Branches, id: number): RunPast | null {
  if (current.id === id) return run;
  return kept.find((branch) => branch.id === id)?.past ?? null;
}
