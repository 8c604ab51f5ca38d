import type { ProjectDocument } from '@crooked-lantern/core';
import { mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, afterEach, describe, expect, it, vi } from 'vitest';
import { check } from './check.ts';
import { createWorld, decodeProgram, readRecording, tick, worldHash } from '@crooked-lantern/core';
import { compile } from './compile.ts';
import { explain } from './explain.ts';
import { endWith } from './output.ts';
import { run, RUN_FORMATS, type RunFormat, type RunOptions } from './run.ts';

const DEMO = path.resolve(import.meta.dirname, '../../../bench/plain-orchard.lantern.json');
const folder = mkdtempSync(path.join(os.tmpdir(), 'orchard-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
afterEach(() => {
  vi.restoreAllMocks();
});

/** What a command prints, and the code it ends with. */
async function printed(
  command: () => Promise<number>,
): Promise<{ code: number; out: string[]; error: string }> {
  let out = '';
  let error = '';
  vi.spyOn(process.stdout, 'write').mockImplementation((text, taken?: unknown) => {
    out += String(text);
    (taken as () => void)();
    return true;
  });
  vi.spyOn(process.stderr, 'write').mockImplementation((text) => {
    error += String(text);
    return true;
  });
  const code = await command();
  vi.restoreAllMocks();
  return { code, out: out.trim().split('\n'), error };
}

function file(change: (text: string) => string): string {
  const name = path.join(folder, 'project.lantern.json');
  writeFileSync(name, change(readFileSync(DEMO, 'utf8')));
  return name;
}

const expected: string[] = [];

/** Breaks the demo in twenty ways, each with the code and the place its finding must have. */
function plantFaults(project: ProjectDocument): string[] {
  const { warden } = project.minds;
  const [calm, roused] = warden.machine!.states;
  const [rounds, peer] = calm.states!;
  const [chase] = roused.states!;
  const at = 'minds.warden.machine.states';
  warden.memory!.grudge = { type: 'number' };
  warden.memory!.lair = { type: 'point' };
  warden.memory!.doubt = { type: 'number', default: 0 };
  rounds.transitions!.push(
    { to: 'peer', when: 'awareness(attention.of) > 1.5' },
    { to: 'peer', when: 'attention.strength > 0.6', for: 0.4 },
    { to: 'peer', on: 'bell' },
  );
  peer.entry!.push({ do: 'raise', event: 'gong' }, { do: 'setGait', gait: 'gallop' });
  peer.transitions![1].when = 'attention.strenth < 0.2';
  peer.transitions!.push({ to: 'rounds', when: 'distance(lair) < 3' });
  chase.activity = { do: 'moveTo', to: 'quarry', within: 0.3 };
  chase.transitions!.push({ to: 'rounds', when: 'distance(quarry) > 4' });
  calm.states!.push({
    id: 'nap',
    transitions: [{ to: 'rounds', after: 1 }],
    activity: { do: 'wait', seconds: 2 },
  });
  calm.activity = { do: 'turn', by: 90 };
  warden.trees!.combThePlace.root = {
    selector: [
      { sequence: [] },
      { repeat: { do: 'forget', key: 'doubt' } },
      { timeout: { do: 'wait', seconds: 5 }, seconds: 2 },
      { do: 'moveTo', to: 'place' },
      { tree: 'lookAbout', with: { sweep: 90 } },
    ],
  };
  warden.trees!.spare = { parameters: { size: 'number' }, root: { do: 'stop' } };
  project.minds.idle = { title: 'Idle', activity: { do: 'wait', seconds: 1 } };
  delete project.grounds.orchard.agents.warden2.route;
  return [
    'unused minds.warden.memory.grudge',
    'neverWritten minds.warden.memory.lair',
    'unused minds.warden.memory.doubt',
    `neverFires ${at}[0].states[0].transitions[2]`,
    `neverFires ${at}[0].states[0].transitions[3]`,
    `neverFires ${at}[0].states[0].transitions[4]`,
    `unused ${at}[0].states[1].entry[2]`,
    `unknownName ${at}[0].states[1].entry[3].gait`,
    `expression ${at}[0].states[1].transitions[1].when`,
    `coupled ${at}[1].states[0].activity`,
    `coupled ${at}[1].states[0].transitions[2].when`,
    `unreachable ${at}[0].states[2]`,
    `conflict ${at}[0].states[1].activity`,
    'noChildren minds.warden.trees.combThePlace.root.selector[0]',
    'endless minds.warden.trees.combThePlace.root.selector[1]',
    'coupled minds.warden.trees.combThePlace.root.selector[2].seconds',
    'unused minds.warden.trees.spare',
    'unused minds.warden.trees.spare.parameters.size',
    'unused minds.idle',
    'cannotWork grounds.orchard.agents.warden2',
  ];
}

describe('check', () => {
  it('finds nothing in the demo and ends with 0', async () => {
    expect(await printed(() => check([DEMO], false))).toMatchObject({
      code: 0,
      out: ['0 errors, 0 warnings'],
      error: '',
    });
  });

  it('names the place of every fault and ends with 1', async () => {
    const broken = file((text) =>
      text
        .replace('awareness(attention.of) >= 1', 'awarness(attention.of) >= 1')
        .replace('"to": "comb"', '"to": "combe"'),
    );
    const { code, out } = await printed(() => check([broken], true));
    expect(code).toBe(1);
    const findings = out.map((line) => JSON.parse(line) as { path: string; message: string });
    expect(findings.map((finding) => finding.path)).toEqual([
      'minds.warden.machine.states[0].states[0].transitions[0].when',
      'minds.warden.machine.states[1].states[0].transitions[1].to',
    ]);
    expect(findings[0].message).toContain('Did you mean “awareness”?');
  });

  it('names twenty planted faults, each with its place', async () => {
    const broken = file((text) => {
      const project = JSON.parse(text) as ProjectDocument;
      const planted = plantFaults(project);
      expect(planted).toHaveLength(20);
      expected.push(...planted);
      return JSON.stringify(project);
    });
    const { code, out } = await printed(() => check([broken], true));
    expect(code).toBe(1);
    const found = out.map((line) => JSON.parse(line) as { code: string; path: string });
    const places = found.map((finding) => `${finding.code} ${finding.path}`);
    expect(expected.filter((fault) => !places.includes(fault))).toEqual([]);
    // Nothing else is said: a fault is told once, and leads to no others.
    expect(places.filter((place) => !expected.includes(place))).toEqual([]);
  });

  it.each([
    ['a file that is not there', path.join(folder, 'nothing.json'), /can’t be read/],
    [
      'a file of another form',
      file(() => '{"format": "other"}'),
      /format: must be "crooked-lantern\/project"/,
    ],
  ])('%s is an error', async (_, name, words) => {
    const { code, out, error } = await printed(() =>
      check(
        [
          name === path.join(folder, 'project.lantern.json')
            ? file(() => '{"format": "other"}')
            : name,
        ],
        false,
      ),
    );
    expect([code, out]).toEqual([1, ['1 errors, 0 warnings']]);
    expect(error).toMatch(words);
  });

  it('takes several files, and says of each finding whose it is', async () => {
    const broken = file((text) => text.replace('"to": "comb"', '"to": "combe"'));
    const { code, out, error } = await printed(() => check([DEMO, broken], false));
    expect([code, out]).toEqual([1, ['1 errors, 0 warnings']]);
    expect(error).toMatch(/project\.lantern\.json: error: minds\.warden/);
    const asJson = await printed(() => check([DEMO, broken], true));
    expect(JSON.parse(asJson.out[0])).toMatchObject({ type: 'finding', file: broken });
  });

  it('refuses a file that is too large before it reads it', async () => {
    const { code, error } = await printed(() => {
      // Nine megabytes of nothing, which take no room on the disk.
      truncateSync(
        file(() => ''),
        9 * 1_048_576,
      );
      return check([path.join(folder, 'project.lantern.json')], false);
    });
    expect(code).toBe(1);
    expect(error).toMatch(/can’t be read: it has 9\.0 MB, and a project has 8 MB at most/);
  });
});

describe('run', () => {
  it('prints the ledger as JSON Lines and the hash last', async () => {
    const { code, out, error } = await printed(() =>
      run(DEMO, { seed: 7, seconds: 5, as: 'json' }),
    );
    expect([code, error]).toEqual([0, '']);
    const lines = out.map((line) => JSON.parse(line) as Record<string, unknown>);
    expect(lines[0]).toMatchObject({ type: 'run', seed: 7, from: 0, to: 300 });
    expect(lines[1]).toEqual({
      type: 'entry',
      tick: 1,
      agent: 'warden1',
      kind: 'enter',
      state: 'calm',
    });
    expect(lines.at(-1)).toEqual({
      type: 'hash',
      tick: 300,
      hash: expect.stringMatching(/^[0-9a-f]{16}$/) as string,
    });
    const again = await printed(() => run(DEMO, { seed: 7, seconds: 5, as: 'json' }));
    expect(again.out).toEqual(out);
    // The viewer opens it.
    expect(readRecording(out.join('\n'))).toMatchObject({
      head: { to: 300 },
      entries: { length: lines.length - 2 },
    });
  });

  it('prints text, a table and a timeline of the same run', async () => {
    const written = {} as Record<RunFormat, string[]>;
    for (const as of RUN_FORMATS)
      written[as] = (await printed(() => run(DEMO, { seed: 7, seconds: 2, as }))).out;
    const { text, json, csv, trace } = written;
    expect(text.at(-1)).toMatch(/^tick 120, state hash [0-9a-f]{16}$/);
    expect(csv).toHaveLength(json.length - 1);
    expect(csv[0]).toMatch(/^tick,seconds,agent/);
    const { traceEvents } = JSON.parse(trace[0]) as { traceEvents: { name: string }[] };
    expect(traceEvents.map(({ name }) => name)).toContain('rounds');
  });

  it('writes while it runs', async () => {
    const written: number[] = [];
    await printed(async () => {
      const { write } = process.stdout;
      vi.mocked(write).mockImplementation((text, taken?: unknown) => {
        const ticks = [...String(text).matchAll(/"tick":(\d+)/g)].map(([, at]) => Number(at));
        written.push(Math.max(0, ...ticks));
        (taken as () => void)();
        return true;
      });
      return run(DEMO, { seed: 7, seconds: 30, as: 'json' });
    });
    expect(written.length).toBeGreaterThan(1);
    expect(written[0]).toBeLessThanOrEqual(60);
  });

  it('begins as a tier, a set-up and a scripted player say, by name or title', async () => {
    const duel = path.resolve(import.meta.dirname, '../../../demo/keepers-duel.lantern.json');
    const hashOf = async (more: Partial<RunOptions>) =>
      (await printed(() => run(duel, { seconds: 5, as: 'text', ...more }))).out.at(-1);
    const plain = await hashOf({});
    const document = JSON.parse(readFileSync(duel, 'utf8')) as ProjectDocument;
    const asSetup = await hashOf({ setup: 'standing' });
    expect(asSetup).not.toBe(plain);
    const { title } = document.setups!.standing;
    expect(await hashOf({ setup: title.toUpperCase() })).toBe(asSetup);
    expect(await hashOf({ tier: 'fierce' })).not.toBe(plain);
    expect(await hashOf({ tier: 'steady' })).toBe(plain);
    const { code, error } = await printed(() =>
      run(duel, { seconds: 1, as: 'text', tier: 'impossible' }),
    );
    expect(code).toBe(1);
    expect(error).toMatch(/^The file has no tier “impossible”\. There are: “/);
  });

  it.each([
    ['EPIPE', 0, ''],
    ['ENOSPC', 1, 'The output can’t be written: the disk is full.\n'],
  ])('whose output fails with %s ends with %d', async (failure, ending, words) => {
    const before = process.exitCode;
    const { error } = await printed(async () => {
      vi.mocked(process.stdout.write).mockImplementation((_, taken?: unknown) => {
        (taken as (error: Error) => void)(Object.assign(new Error(failure), { code: failure }));
        return false;
      });
      await endWith(run(DEMO, { seconds: 30, as: 'json' }));
      return 0;
    });
    expect([process.exitCode, error]).toEqual([ending, words]);
    process.exitCode = before;
  });

  it('runs nothing that has errors', async () => {
    const { code, out, error } = await printed(() =>
      run(
        file((text) => text.replace('"to": "chase"', '"to": "chaes"')),
        { seconds: 1, as: 'json' },
      ),
    );
    expect([code, out]).toEqual([1, ['']]);
    expect(error).toContain('Did you mean “chase”?');
  });
});

describe('why', () => {
  it('explains a state from the run itself', async () => {
    const { code, out } = await printed(() =>
      explain(DEMO, { agent: 'warden2', tick: 300, seed: 7 }),
    );
    expect(code).toBe(0);
    expect(out).toEqual([
      '+ Warden 2 is in Rounds  since 0.02 s',
      '  + the run began there  since 0.02 s',
    ]);
  });

  it('explains what is not so, as JSON too', async () => {
    const { code, out } = await printed(() =>
      explain(DEMO, { agent: 'warden2', tick: 300, seed: 7, not: 'chase', json: true }),
    );
    expect(code).toBe(0);
    expect(JSON.parse(out[0])).toMatchObject({ statement: 'Warden 2 is in Chase', holds: false });
  });

  it('takes agents, states and rows by their titles, as it says them itself', async () => {
    const { code, out } = await printed(() =>
      explain(DEMO, { agent: 'Warden 2', tick: 300, seed: 7, not: 'Chase' }),
    );
    expect(code).toBe(0);
    expect(out[0]).toMatch(/^- Warden 2 is in Chase/);
  });

  it('says how an agent is noticed, and what moves a body', async () => {
    const asked = { agent: 'warden2', tick: 300, seed: 7 };
    const notices = await printed(() => explain(DEMO, { ...asked, notices: 'gleaner' }));
    expect(notices.out[0]).toMatch(/^- Warden 2 notices Gleaner/);
    const moves = await printed(() => explain(DEMO, { ...asked, moves: true }));
    expect(moves.out[0]).toMatch(/^\+ Warden 2 (moves at|stands still)/);
  });

  it('says what can’t be asked', async () => {
    const { code, error } = await printed(() => explain(DEMO, { agent: 'goose', tick: 300 }));
    expect([code, error]).toEqual([
      1,
      'There is no agent “goose”. There are: gleaner, warden1, warden2.\n',
    ]);
  });
});

describe('compile', () => {
  it('prints a program that runs as the file does', async () => {
    const { code, out } = await printed(() => compile(DEMO));
    expect(code).toBe(0);
    const world = createWorld(decodeProgram(out.join('\n')), 7);
    for (let i = 0; i < 120; i++) tick(world);
    const { out: ran } = await printed(() => run(DEMO, { seed: 7, seconds: 2, as: 'json' }));
    expect(JSON.parse(ran.at(-1)!)).toMatchObject({ tick: 120, hash: worldHash(world) });
  });

  it('of a file with errors prints these and no program', async () => {
    const { code, out, error } = await printed(() =>
      compile(file((text) => text.replace('"warden"', '"nobody"'))),
    );
    expect([code, out]).toEqual([1, ['']]);
    expect(error).toMatch(/so it was not compiled/);
  });
});
