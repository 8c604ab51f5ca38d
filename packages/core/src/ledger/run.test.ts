import fc from 'fast-check';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { cornerProject, KEEN_SIGHT, programOf } from '../testing/orchard.fixture.ts';
import { PHASES, tick, TickError } from '../world/phases/tick.ts';
import { worldHash } from '../world/handover/snapshot.ts';
import type { Input } from '../world/program/program.ts';
import { entryLine } from './lines.ts';
import {
  advance,
  applyEdit,
  createRun,
  inputsOf,
  pastOf,
  recover,
  renumberEdit,
  RUN_LIMITS,
  runningEdit,
  runOf,
  seek,
  type Run,
} from './run.ts';

const document = (seconds = 0.5) =>
  cornerProject({
    sight: KEEN_SIGHT,
    machine: {
      initial: 'calm',
      states: [
        { id: 'calm', transitions: [{ to: 'roused', when: 'attention.strength > 0.5' }] },
        {
          id: 'roused',
          activity: { do: 'moveTo', to: 'attention.of', within: 1 },
          transitions: [{ to: 'calm', when: 'attention.strength < 0.5', for: seconds }],
        },
      ],
    },
  });

const steer = (x: number, y: number): Input => ({ agent: 'gleaner', x, y, gait: null });

/** A run with inputs at 30 and 200 and an edit after 150, and its hash at every tick. */
function recorded(ticks = 400): { run: Run; hashes: string[] } {
  const run = createRun(programOf(document()), 1, 7);
  const hashes = [worldHash(run.world)];
  for (let i = 1; i <= ticks; i++) {
    if (i === 151) applyEdit(run, programOf(document(2)), 2);
    advance(run, i === 30 ? [steer(0, 1)] : i === 200 ? [steer(-1, -0.3)] : []);
    hashes.push(worldHash(run.world));
  }
  return { run, hashes };
}

describe('going back', () => {
  it('shows any tick exactly as it was, in any order of asking', () => {
    const { run, hashes } = recorded();
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 400 }), (at) => {
        seek(run, at);
        expect(run.world.tick).toBe(at);
        // The tick of an edit shows the world as it goes on under it.
        if (at !== 150) expect(worldHash(run.world)).toBe(hashes[at]);
        expect(runningEdit(run)).toBe(at < 150 ? 1 : 2);
      }),
      { numRuns: 40 },
    );
  });

  it('loses nothing of the recorded future by looking', () => {
    const { run, hashes } = recorded();
    const entries = run.entries.map(entryLine);
    seek(run, 10);
    seek(run, 250);
    seek(run, 400);
    expect(run.entries.map(entryLine)).toEqual(entries);
    expect(worldHash(run.world)).toBe(hashes[400]);
  });

  it('goes another way from there when it runs on, and forgets what was after', () => {
    const { run, hashes } = recorded();
    seek(run, 100);
    for (let i = 0; i < 100; i++) advance(run);
    expect(run.head).toBe(200);
    expect(run.entries.every(({ tick }) => tick <= 200)).toBe(true);
    expect(worldHash(run.world)).not.toBe(hashes[200]);
  });

  it('goes on under the latest edit, also from before it', () => {
    const { run } = recorded();
    seek(run, 100);
    expect(runningEdit(run)).toBe(1);
    advance(run);
    expect(runningEdit(run)).toBe(2);
    const fresh = createRun(programOf(document()), 1, 7);
    for (let i = 1; i <= 100; i++) advance(fresh, i === 30 ? [steer(0, 1)] : []);
    applyEdit(fresh, programOf(document(2)), 2);
    advance(fresh);
    expect(worldHash(run.world)).toBe(worldHash(fresh.world));
    expect(run.entries.map(entryLine)).toEqual(fresh.entries.map(entryLine));
  });

  it('begins as the latest edit says when it goes on from the first tick', () => {
    const { run } = recorded();
    const moved = document();
    moved.grounds.corner.agents.keeper.at = [1, 1];
    applyEdit(run, programOf(moved), 3);
    seek(run, 0);
    const fresh = createRun(programOf(moved), 3, 7);
    for (let i = 1; i <= 100; i++) {
      advance(run);
      advance(fresh);
    }
    expect(worldHash(run.world)).toBe(worldHash(fresh.world));
    expect(run.entries.map(entryLine)).toEqual(fresh.entries.map(entryLine));
  });

  it('keeps its future through an edit in the past, until it goes on from there', () => {
    const { run, hashes } = recorded();
    seek(run, 100);
    applyEdit(run, programOf(document(4)), 3);
    expect([runningEdit(run), run.head]).toEqual([1, 400]);
    seek(run, 400);
    expect(worldHash(run.world)).toBe(hashes[400]);
    advance(run);
    expect(runningEdit(run)).toBe(3);
    seek(run, 100);
    expect(runningEdit(run)).toBe(1);
    advance(run);
    expect([runningEdit(run), run.head]).toEqual([3, 101]);
  });

  it('records nothing twice', () => {
    const { run } = recorded();
    seek(run, 100);
    for (let i = 0; i < 50; i++) advance(run);
    const lines = run.entries.map(entryLine);
    expect(new Set(lines).size).toBe(lines.length);
  });

  it('holds a wish for a tick that is not there to what there is', () => {
    const { run } = recorded(50);
    seek(run, -10);
    expect(run.world.tick).toBe(0);
    seek(run, 9999);
    expect(run.world.tick).toBe(50);
  });
});

describe('what players did', () => {
  it('is handed on up to where the run stands, in its order', () => {
    const { run } = recorded();
    const [first, second] = [
      { tick: 30, input: steer(0, 1) },
      { tick: 200, input: steer(-1, -0.3) },
    ];
    expect(inputsOf(run)).toEqual([first, second]);
    for (const [at, inputs] of [
      [29, []],
      [30, [first]],
      [199, [first]],
      [200, [first, second]],
    ] as const) {
      seek(run, at);
      expect(inputsOf(run)).toEqual(inputs);
    }
  });
});

describe('an edit of what runs alike', () => {
  it('gives its number to what runs since the last edit, and to nothing before', () => {
    const { run } = recorded();
    renumberEdit(run, 5);
    expect(run.edits.map(({ edit }) => edit)).toEqual([1, 5]);
    expect([runningEdit(run), run.latest.edit]).toEqual([5, 5]);
    seek(run, 100);
    expect(runningEdit(run)).toBe(1);
  });

  it('leaves the numbers of what has run where another waits to be put in force', () => {
    const { run } = recorded();
    seek(run, 200);
    applyEdit(run, programOf(document(4)), 3);
    renumberEdit(run, 6);
    expect(run.edits.map(({ edit }) => edit)).toEqual([1, 2]);
    expect(run.latest.edit).toBe(6);
  });
});

describe('a past', () => {
  it('is left as it is by what the run does from there on, and by what is begun from it', () => {
    const { run, hashes } = recorded();
    const past = pastOf(run);
    const counts = () =>
      [past.entries, past.inputs, past.edits, past.snapshots].map(({ length }) => length);
    const before = counts();
    applyEdit(run, programOf(document(3)), 3);
    for (let i = 0; i < 100; i++) advance(run, [steer(1, 0)]);
    expect(counts()).toEqual(before);
    const again = runOf(past, 250);
    expect([again.world.tick, worldHash(again.world)]).toEqual([250, hashes[250]]);
    advance(again);
    expect([again.head, counts()]).toEqual([251, before]);
    const ended = runOf(past);
    expect(worldHash(ended.world)).toBe(hashes[400]);
    advance(ended, [steer(0, 1)]);
    expect(ended.entries.length).toBeGreaterThan(past.entries.length);
  });
});

describe('limits of the past', () => {
  it('thins old snapshots and still shows every tick exactly', () => {
    const program = programOf(document());
    const run = createRun(program, 1, 7);
    const hashes: string[] = [];
    for (let i = 1; i <= 900; i++) {
      advance(run, i === 30 ? [steer(0, 1)] : [], { ...RUN_LIMITS, snapshots: 6 });
      hashes[i] = worldHash(run.world);
    }
    expect(run.snapshots.length).toBeLessThanOrEqual(6);
    for (const at of [1, 59, 333, 600, 899]) {
      seek(run, at);
      expect(worldHash(run.world)).toBe(hashes[at]);
    }
  });

  it('keeps what each edit made of the world, however old', () => {
    const run = createRun(programOf(document()), 1, 7);
    const hashes: string[] = [];
    for (let i = 1; i <= 900; i++) {
      if (i % 90 === 0) applyEdit(run, programOf(document(i / 90)), 1 + i / 90);
      advance(run, i === 30 ? [steer(0, 1)] : [], { ...RUN_LIMITS, snapshots: 6 });
      hashes[i] = worldHash(run.world);
    }
    for (const at of [95, 185, 400, 725, 890]) {
      seek(run, at);
      expect(worldHash(run.world), `tick ${at}`).toBe(hashes[at]);
      expect(runningEdit(run)).toBe(1 + Math.floor(at / 90));
    }
  });

  it('says it where what an edit made is missing, instead of going on under the one before', () => {
    const run = createRun(programOf(document()), 1, 7);
    for (let i = 1; i <= 200; i++) {
      if (i === 90) applyEdit(run, programOf(document(2)), 2);
      advance(run);
    }
    run.snapshots = run.snapshots.filter(({ tick: at }) => at < 80);
    expect(() => seek(run, 150)).toThrow(/edit 2 made of tick 89 is not kept/);
  });

  it.each([
    ['as it began', 0],
    ['under an edit made before its first tick', 1],
  ])('says where the kept past begins once entries are let go, %s', (_, edits) => {
    const run = createRun(programOf(document()), 1, 7);
    if (edits > 0) applyEdit(run, programOf(document(2)), 2);
    for (let i = 1; i <= 900; i++)
      advance(run, i % 40 === 1 ? [steer(i % 80 === 1 ? 1 : -1, 0)] : [], {
        ...RUN_LIMITS,
        entries: 30,
      });
    expect(run.keptFrom).toBeGreaterThan(0);
    expect(run.entries.every(({ tick }) => tick > run.keptFrom)).toBe(true);
    expect(run.entries.at(-1)!.tick).toBeGreaterThan(860);
    seek(run, 0);
    expect(run.world.tick).toBe(run.keptFrom);
  });

  it('lets go of what ran under the oldest edits, and still shows the rest exactly', () => {
    const limits = { ...RUN_LIMITS, edits: 5 };
    const run = createRun(programOf(document()), 1, 7);
    const hashes: string[] = [];
    for (let i = 1; i <= 400; i++) {
      if (i % 20 === 0) applyEdit(run, programOf(document(1 + i / 20)), 1 + i / 20);
      advance(run, [], limits);
      hashes[i] = worldHash(run.world);
    }
    expect(run.edits.length).toBeLessThanOrEqual(limits.edits + 3);
    expect(run.keptFrom).toBeGreaterThan(250);
    for (const at of [run.keptFrom + 1, 355, 398]) {
      seek(run, at);
      expect([run.world.tick, worldHash(run.world)]).toEqual([at, hashes[at]]);
    }
  });
});

it('an entry is one line of JSON, its numbers cut to six decimals', () => {
  expect(entryLine({ tick: 3, agent: 'keeper', kind: 'awareness', value: 1 / 3 })).toBe(
    '{"type":"entry","tick":3,"agent":"keeper","kind":"awareness","value":0.333333}',
  );
});

describe('a tick that throws', () => {
  afterEach(() => {
    vi.restoreAllMocks();
  });

  /** Has a phase throw once, when it comes to that tick. */
  function plant(name: string, at: number): void {
    const phase = PHASES.find((each) => each.name === name)!;
    const { run } = phase;
    let thrown = false;
    vi.spyOn(phase, 'run').mockImplementation((world, inputs) => {
      run(world, inputs);
      if (world.tick !== at || thrown) return;
      thrown = true;
      throw new Error(`planted in ${name}`);
    });
  }

  function failing(run: Run, inputs: Input[] = []): TickError {
    try {
      advance(run, inputs);
    } catch (error) {
      if (error instanceof TickError) return error;
      throw error;
    }
    throw new Error('Nothing was thrown.');
  }

  it.each(PHASES.map(({ name }) => name))(
    'in %s says where it was, and the run goes on from its last snapshot as if nothing had been',
    (name) => {
      const { hashes } = recorded();
      const { run } = recorded(210);
      plant(name, 211);
      const { tick: at, phase, message, world } = failing(run, [steer(1, 1)]);
      expect({ at, phase, message }).toEqual({
        at: 211,
        phase: name,
        message: `planted in ${name}`,
      });
      expect(world).toBe(run.world);
      recover(run);
      expect(run.world.tick).toBe(180);
      expect(run.head).toBe(210);
      seek(run, 210);
      expect(worldHash(run.world)).toBe(hashes[210]);
      while (run.head < 300) advance(run);
      expect(worldHash(run.world)).toBe(hashes[300]);
    },
  );

  it('names the agent whose part it was', () => {
    const { run } = recorded(10);
    run.world.decideFor = (agent) => {
      throw new Error(`no thought for ${agent.name}`);
    };
    const thinker = run.world.agents.find(({ minds }) => minds.length > 0)!;
    expect(failing(run)).toMatchObject({
      phase: 'minds',
      agent: thinker.placed.title,
      message: `no thought for ${thinker.name}`,
    });
  });

  it('names no agent where a phase is at no agent', () => {
    const { run } = recorded(10);
    vi.spyOn(PHASES[2], 'run').mockImplementation(() => {
      throw new Error('planted');
    });
    expect(failing(run).agent).toBeNull();
  });

  it('while the past is brought back leaves the recorded future', () => {
    const { run, hashes } = recorded();
    seek(run, 100);
    plant('senses', 125);
    expect(() => seek(run, 130)).toThrow('planted in senses');
    recover(run);
    expect(run.world.tick).toBe(120);
    expect(run.head).toBe(400);
    seek(run, 400);
    expect(worldHash(run.world)).toBe(hashes[400]);
  });

  it('of an edit that can not be carried over leaves the edit before in force', () => {
    const { hashes } = recorded(150);
    const { run } = recorded(140);
    const broken = programOf(document(2));
    Object.defineProperty(broken, 'agents', {
      get() {
        throw new Error('planted');
      },
    });
    expect(() => applyEdit(run, broken, 2)).toThrow('planted');
    expect(run.latest.edit).toBe(1);
    advance(run);
    expect(worldHash(run.world)).toBe(hashes[141]);
    expect(runningEdit(run)).toBe(1);
  });

  it('outside of a run is told as well', () => {
    const { world } = recorded(1).run;
    plant('motion', 2);
    expect(() => tick(world)).toThrow(TickError);
  });
});
