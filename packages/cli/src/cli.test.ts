import type { ProjectDocument } from '@crooked-lantern/core';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, afterEach, describe, expect, it, vi } from 'vitest';
import { check } from './check.ts';
import { createWorld, decodeProgram, tick, worldHash } from '@crooked-lantern/core';
import { compile } from './compile.ts';
import { explain } from './explain.ts';
import { run } from './run.ts';

const DEMO = path.resolve(import.meta.dirname, '../../../bench/plain-orchard.lantern.json');
const folder = mkdtempSync(path.join(os.tmpdir(), 'orchard-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
afterEach(() => {
  vi.restoreAllMocks();
});

/** What a command prints, and the code it ends with. */
function printed(command: () => number): { code: number; out: string[]; error: string } {
  let out = '';
  let error = '';
  vi.spyOn(process.stdout, 'write').mockImplementation((text) => {
    out += String(text);
    return true;
  });
  vi.spyOn(process.stderr, 'write').mockImplementation((text) => {
    error += String(text);
    return true;
  });
  const code = command();
  vi.restoreAllMocks();
  return { code, out: out.trim().split('\n'), error };
}

function file(change: (text: string) => string): string {
  const name = path.join(folder, 'project.lantern.json');
  writeFileSync(name, change(readFileSync(DEMO, 'utf8')));
  return name;
}

const expected: string[] = [];

/** Breaks the demo in twenty different ways; gives the code and place each must be told with. */
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
  it('finds nothing in the demo and ends with 0', () => {
    expect(printed(() => check(DEMO, false))).toMatchObject({
      code: 0,
      out: ['0 errors, 0 warnings'],
    });
  });

  it('names the place of every fault and ends with 1', () => {
    const broken = file((text) =>
      text
        .replace('awareness(attention.of) >= 1', 'awarness(attention.of) >= 1')
        .replace('"to": "comb"', '"to": "combe"'),
    );
    const { code, out } = printed(() => check(broken, true));
    expect(code).toBe(1);
    const findings = out.map((line) => JSON.parse(line) as { path: string; message: string });
    expect(findings.map((finding) => finding.path)).toEqual([
      'minds.warden.machine.states[0].states[0].transitions[0].when',
      'minds.warden.machine.states[1].states[0].transitions[1].to',
    ]);
    expect(findings[0].message).toContain('Did you mean “awareness”?');
  });

  it('names twenty planted faults, each with its place', () => {
    const broken = file((text) => {
      const project = JSON.parse(text) as ProjectDocument;
      const planted = plantFaults(project);
      expect(planted).toHaveLength(20);
      expected.push(...planted);
      return JSON.stringify(project);
    });
    const { code, out } = printed(() => check(broken, true));
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
  ])('%s is an error', (_, name, words) => {
    const { code, out } = printed(() =>
      check(
        name === path.join(folder, 'project.lantern.json')
          ? file(() => '{"format": "other"}')
          : name,
        false,
      ),
    );
    expect(code).toBe(1);
    expect(out[0]).toMatch(words);
  });
});

describe('run', () => {
  it('prints the ledger as JSON Lines and the hash last', () => {
    const { code, out, error } = printed(() => run(DEMO, { seed: 7, seconds: 5, json: true }));
    expect([code, error]).toEqual([0, '']);
    const lines = out.map((line) => JSON.parse(line) as Record<string, unknown>);
    expect(lines[0]).toEqual({
      type: 'entry',
      tick: 1,
      agent: 'warden1',
      kind: 'enter',
      state: 'calm',
    });
    expect(lines.at(-1)).toEqual({
      type: 'end',
      tick: 300,
      hash: expect.stringMatching(/^[0-9a-f]{16}$/) as string,
    });
    expect(printed(() => run(DEMO, { seed: 7, seconds: 5, json: true })).out).toEqual(out);
  });

  it('runs nothing that has errors', () => {
    const { code, out, error } = printed(() =>
      run(
        file((text) => text.replace('"to": "chase"', '"to": "chaes"')),
        { seconds: 1, json: true },
      ),
    );
    expect([code, out]).toEqual([1, ['']]);
    expect(error).toContain('Did you mean “chase”?');
  });
});

describe('why', () => {
  it('explains a state from the run itself', () => {
    const { code, out } = printed(() => explain(DEMO, { agent: 'warden2', tick: 300, seed: 7 }));
    expect(code).toBe(0);
    expect(out).toEqual([
      '+ Warden 2 is in Rounds  since 0.02 s',
      '  + the run began there  since 0.02 s',
    ]);
  });

  it('explains what is not so, as JSON too', () => {
    const { code, out } = printed(() =>
      explain(DEMO, { agent: 'warden2', tick: 300, seed: 7, not: 'chase', json: true }),
    );
    expect(code).toBe(0);
    expect(JSON.parse(out[0])).toMatchObject({ statement: 'Warden 2 is in Chase', holds: false });
  });

  it('says how an agent is noticed, and what moves a body', () => {
    const asked = { agent: 'warden2', tick: 300, seed: 7 };
    const notices = printed(() => explain(DEMO, { ...asked, notices: 'gleaner' }));
    expect(notices.out[0]).toMatch(/^- Warden 2 notices Gleaner/);
    const moves = printed(() => explain(DEMO, { ...asked, moves: true }));
    expect(moves.out[0]).toMatch(/^\+ Warden 2 (moves at|stands still)/);
  });

  it('says what can’t be asked', () => {
    const { code, error } = printed(() => explain(DEMO, { agent: 'goose', tick: 300 }));
    expect([code, error]).toEqual([
      1,
      'There is no agent “goose”. There are: gleaner, warden1, warden2.\n',
    ]);
  });
});

describe('compile', () => {
  it('prints a program that runs as the file does', () => {
    const { code, out } = printed(() => compile(DEMO));
    expect(code).toBe(0);
    const world = createWorld(decodeProgram(out.join('\n')), 7);
    for (let i = 0; i < 120; i++) tick(world);
    const { out: ran } = printed(() => run(DEMO, { seed: 7, seconds: 2, json: true }));
    expect(JSON.parse(ran.at(-1)!)).toMatchObject({ tick: 120, hash: worldHash(world) });
  });

  it('of a file with errors prints these and no program', () => {
    const { code, out, error } = printed(() =>
      compile(file((text) => text.replace('"warden"', '"nobody"'))),
    );
    expect([code, out]).toEqual([1, ['']]);
    expect(error).toMatch(/so it was not compiled/);
  });
});
