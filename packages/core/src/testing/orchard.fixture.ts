import { checkProject } from '../findings/check-project.ts';
import type {
  ActionDocument,
  ArchetypeDocument,
  GroundDocument,
  MachineDocument,
  MemoryKeyDocument,
  ProjectDocument,
} from '../model/documents.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';
import type { Input, Program } from '../world/program/program.ts';
import { restoreSnapshot, takeSnapshot, worldHash } from '../world/handover/snapshot.ts';
import { readMind } from '../world/readout/readout.ts';
import { leafState } from '../world/readout/picture.ts';
import { tick } from '../world/phases/tick.ts';
import { createWorld, setRecorder, type World } from '../world/world.ts';

/** Small projects for tests, all in a corner of the orchard. */

export const KEEN_SIGHT: NonNullable<ArchetypeDocument['sight']> = {
  cones: [{ range: 10, halfAngle: 45, gain: 2 }],
  fade: 0.5,
  grace: 0.5,
  curious: 0.3,
  certain: 1,
  forgetAfter: 5,
};

export interface Corner {
  /** Left out where the mind is something else. */
  machine?: MachineDocument;
  memory?: Record<string, MemoryKeyDocument>;
  ground?: Partial<GroundDocument>;
  sight?: ArchetypeDocument['sight'];
}

/** Does one thing, and then stands where it succeeded (`there`) or failed (`lost`). */
export function errand(activity: ActionDocument): MachineDocument {
  return {
    initial: 'go',
    states: [
      {
        id: 'go',
        activity,
        transitions: [
          { to: 'there', on: 'done.success' },
          { to: 'lost', on: 'done.failure' },
        ],
      },
      { id: 'there' },
      { id: 'lost' },
    ],
  };
}

/** One keeper at (2, 5) facing +x and one gleaner at (8, 5), who is played, on an empty 20 × 10 m ground. */
export function cornerProject({ machine, memory, ground, sight }: Corner): ProjectDocument {
  const body = { radius: 0.3, acceleration: 20, turnRate: 360 };
  return {
    format: 'crooked-lantern/project',
    version: 2,
    title: 'A corner of the orchard',
    minds: {
      keeper: { title: 'Keeper', ...(memory ? { memory } : {}), ...(machine ? { machine } : {}) },
    },
    archetypes: {
      gleaner: {
        title: 'Gleaner',
        faction: 'gleaners',
        body,
        gaits: { walk: 2, run: 4 },
        gait: 'walk',
      },
      keeper: {
        title: 'Keeper',
        faction: 'keepers',
        mind: 'keeper',
        body,
        gaits: { walk: 1.5, run: 3 },
        gait: 'walk',
        ...(sight ? { sight } : {}),
      },
    },
    grounds: {
      corner: {
        title: 'Corner',
        width: 20,
        height: 10,
        walls: [],
        routes: {},
        agents: {
          gleaner: { archetype: 'gleaner', at: [8, 5] },
          keeper: { archetype: 'keeper', at: [2, 5] },
        },
        ...ground,
      },
    },
    start: { ground: 'corner', play: 'gleaner', seed: 1 },
  };
}

/** The program of a document that must be without errors. */
export function programOf(document: ProjectDocument): Program {
  const { program, findings } = checkProject(document);
  if (!program)
    throw new Error(findings.map(({ path, message }) => `${path}: ${message}`).join('\n'));
  return program;
}

export interface Watched {
  world: World;
  entries: LedgerEntry[];
  run(ticks: number, inputs?: readonly Input[]): void;
  /** Innermost active state of the keeper. */
  state(): string;
  /** What the keeper's memory holds, in words. */
  memory(): Record<string, string>;
}

/** A world that records, with hands on it. */
export function watch(document: ProjectDocument, seed?: number): Watched {
  const world = createWorld(programOf(document), seed);
  const entries: LedgerEntry[] = [];
  setRecorder(world, (entry) => entries.push(entry));
  return {
    world,
    entries,
    run(ticks, inputs = []) {
      for (let i = 0; i < ticks; i++) tick(world, i === 0 ? inputs : []);
    },
    memory() {
      const { memory } = readMind(world, 'keeper', null)!;
      return Object.fromEntries(memory.map(({ key, value }) => [key, value]));
    },
    state() {
      const keeper = world.agents.find(({ name }) => name === 'keeper')!;
      return keeper.minds[0].program.machine.states[leafState(keeper)].id;
    },
  };
}

/** Rows as people count them, from 1. */
function inRow(row: number | undefined): string {
  return row === undefined ? '' : ` row ${row + 1}`;
}

/** What a mind did, in order, in a few words each: `exit a`, `a#1 → b`, `enter b`, `say hello`. */
export function story(entries: readonly LedgerEntry[]): string[] {
  return entries.flatMap((entry) => {
    switch (entry.kind) {
      case 'enter':
      case 'exit':
        return [`${entry.kind} ${entry.state}`];
      case 'transition':
        return [`${entry.from}#${entry.order} → ${entry.to ?? '·'}`];
      case 'begin':
        return [`begin ${entry.action} in ${entry.state}${inRow(entry.row)}`];
      case 'end':
        return [`${entry.ending} ${entry.action} in ${entry.state}${inRow(entry.row)}`];
      case 'say':
        return [`say ${entry.text}`];
      case 'cycle':
        return [`cycle ${entry.states.join(' ')}`];
      default:
        return [];
    }
  });
}

/** A gleaner that strolls to the left, and one that runs off to the right. */
export const MOVES: readonly Input[] = [
  { agent: 'gleaner', x: -1, y: 0.2, gait: null },
  { agent: 'gleaner', x: 1, y: -0.4, gait: 'run' },
];

/** State hashes of a run and of one that was restored from its snapshot at tick `at`, a second later. */
export function interruptedAndNot(document: ProjectDocument, at: number): [string, string] {
  const { world } = watch(document, 5);
  for (let i = 0; i < at; i++) tick(world, i === 5 ? [MOVES[0]] : []);
  const other = createWorld(world.statics.program, 5);
  restoreSnapshot(other, structuredClone(takeSnapshot(world)));
  for (let i = 0; i < 60; i++) {
    tick(world, i === 10 ? [MOVES[1]] : []);
    tick(other, i === 10 ? [MOVES[1]] : []);
  }
  return [worldHash(other), worldHash(world)];
}

/** The gleaner does something with its hands. */
export const act = (what: Input['act'], at?: [number, number]): Input => ({
  agent: 'gleaner',
  x: 0,
  y: 0,
  gait: null,
  act: what,
  ...(at ? { at } : {}),
});
