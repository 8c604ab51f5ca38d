import {
  pictureBodies,
  pictureFights,
  pictureForces,
  pictureGame,
  pictureKnown,
  picturePaths,
  pictureRays,
  pictureShared,
  pictureSide,
  pictureThings,
  playedAgent,
  readChoice,
  readFollowed,
  readMind,
  runningEdit,
  worldHash,
  type Branches,
  type LedgerEntry,
  type Program,
  type Run,
  type Stop,
} from '@crooked-lantern/core';
import type {
  BranchPicture,
  Frame,
  RowsPicture,
  WantedParts,
  WatchedChoice,
} from '../engine/protocol.ts';
import type { RowHistory } from './row-history.ts';

/** Makes the frames of a run, one after another: what is new is told apart from what was sent. */

const SPEECH_SECONDS = 2.5;
/** Seconds a noise stays on the picture. */
const NOISE_SECONDS = 0.8;

/** Seconds a hit stays on the picture. */
const HIT_SECONDS = 0.8;

/** What the frame before told. */
export interface Sent {
  entries: readonly LedgerEntry[] | null;
  count: number;
  program: Program | null;
  rowPaths: string[];
  /** The branches that were told of, in a form that can be compared. */
  branches: string;
}

/** How the run is looked at. */
export interface View {
  playing: boolean;
  speed: number;
  agent: string | null;
  mind: string | null;
  state: string | null;
  wanted: WantedParts;
  rows: RowHistory;
  choice: WatchedChoice | null;
  /** Whether the run stands still and is to stay where it is. */
  resting: boolean;
  /** Whether going on from here gives again what players did then. */
  givesAgain: boolean;
  /** What the last tick that was run was to be stopped for. */
  stops: Stop[];
  /** A tick that is run on to; null for none. */
  towards: number | null;
  /** The set-up that runs begin with; null for the project's own beginning. */
  setup: string | null;
  /** The ways runs have taken; null before the first. */
  branches: Branches | null;
  /** How often anything was noticed in this run. */
  noticed: number;
  followed: readonly string[];
}

export function createSent(): Sent {
  return { entries: null, count: 0, program: null, rowPaths: [], branches: '' };
}

function newEntries(sent: Sent, { entries }: Run): Pick<Frame, 'entries' | 'entriesAnew'> {
  // The run drops entries by taking a new list, which tells us that ours no longer fits.
  const entriesAnew = sent.entries !== entries || entries.length < sent.count;
  const fresh = entriesAnew ? entries.slice() : entries.slice(sent.count);
  sent.entries = entries;
  sent.count = entries.length;
  return { entries: fresh, entriesAnew };
}

/** The program of the frame, where it is another than the one of the frame before. */
function newProgram(sent: Sent, { world }: Run): Program | null {
  const { program } = world.statics;
  if (sent.program === program) return null;
  sent.program = program;
  return program;
}

function rowsPicture(sent: Sent, { paths, cells, results }: RowHistory): RowsPicture {
  // Ticks under an edit with more rows or fewer say nothing of these.
  const same = results.filter(({ length }) => length === cells.length);
  const past = new Uint8Array(same.length * cells.length);
  same.forEach((codes, i) => past.set(codes, i * cells.length));
  const isNew = sent.rowPaths !== paths;
  sent.rowPaths = paths;
  return { paths: isNew ? paths : null, cells, past };
}

/** The branches, the one that goes on first; null where they are as told before. */
function newBranches(sent: Sent, branches: Branches | null): BranchPicture[] | null {
  if (!branches) return null;
  const { run, current, kept } = branches;
  const pictures = [
    { ...current, seed: run.seed, head: null },
    ...kept.map(({ past: { seed, head }, ...branch }) => ({ ...branch, seed, head })).reverse(),
  ];
  const text = JSON.stringify(pictures);
  if (text === sent.branches) return null;
  sent.branches = text;
  return pictures;
}

export function frameOf(run: Run, view: View, sent: Sent): Frame {
  const { wanted } = view;
  const { world } = run;
  const spoken = SPEECH_SECONDS * world.statics.program.ticksPerSecond;
  return {
    tick: world.tick,
    head: run.head,
    keptFrom: run.keptFrom,
    edit: runningEdit(run),
    program: newProgram(sent, run),
    playing: view.playing,
    towards: view.towards,
    setup: view.setup,
    stops: view.stops.filter(({ tick }) => tick === world.tick),
    speed: view.speed,
    seed: run.seed,
    bodies: pictureBodies(world),
    rays: wanted.rays ? pictureRays(world, view.agent) : null,
    paths: wanted.paths ? picturePaths(world) : null,
    forces: wanted.forces ? pictureForces(world) : null,
    known: wanted.known && view.agent !== null ? pictureKnown(world, view.agent) : null,
    side: wanted.side ? pictureSide(world) : null,
    places: wanted.places ? pictureShared(world) : null,
    things: pictureThings(world),
    fights: pictureFights(world),
    hits: recentHits(run),
    gates: [...world.gates],
    game: pictureGame(world),
    played: playedAgent(world),
    noises: recentNoises(run),
    speech: world.agents.flatMap(({ speech, spokenAt, index }) =>
      spokenAt >= 0 && world.tick - spokenAt < spoken ? [{ agent: index, text: speech }] : [],
    ),
    givesAgain: view.givesAgain,
    branches: newBranches(sent, view.branches),
    noticed: view.noticed,
    ...newEntries(sent, run),
    rows: rowsPicture(sent, view.rows),
    readout:
      view.agent === null ? null : readMind(world, view.agent, view.state, view.mind ?? undefined),
    followed: view.followed.flatMap((name) => readFollowed(world, name) ?? []),
    choice: view.choice && readChoice(world, view.choice),
    hash: view.resting ? worldHash(world) : null,
  };
}

/** Where moves met an agent, or none, in the last moments. */
function recentHits({ entries, world }: Run): Frame['hits'] {
  const span = HIT_SECONDS * world.statics.program.ticksPerSecond;
  const hits: Frame['hits'] = [];
  for (let i = entries.length - 1; i >= 0 && entries[i].tick > world.tick - span; i--) {
    const entry = entries[i];
    if (entry.kind !== 'hit' || entry.tick > world.tick) continue;
    const { x, y, result, harm } = entry;
    hits.push({ x, y, result, harm, age: (world.tick - entry.tick) / span });
  }
  return hits;
}

function recentNoises({ entries, world }: Run): Frame['noises'] {
  const { ticksPerSecond } = world.statics.program;
  const since = world.tick - NOISE_SECONDS * ticksPerSecond;
  const noises: Frame['noises'] = [];
  for (let i = entries.length - 1; i >= 0 && entries[i].tick > since; i--) {
    const entry = entries[i];
    if (entry.kind !== 'noise' || entry.tick > world.tick) continue;
    const { x, y, reach } = entry;
    noises.push({ x, y, reach, age: (world.tick - entry.tick) / ticksPerSecond });
  }
  return noises;
}
