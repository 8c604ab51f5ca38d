import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, afterEach, describe, expect, it, vi } from 'vitest';
import { check } from './check.ts';
import { explain } from './explain.ts';
import { run } from './run.ts';

const DEMO = path.resolve(import.meta.dirname, '../../../demo/night-watch.lantern.json');
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
      'minds.warden.machine.states[0].states[0].leaves[0].when',
      'minds.warden.machine.states[1].states[0].leaves[1].to',
    ]);
    expect(findings[0].message).toContain('Did you mean “awareness”?');
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

  it('says what can’t be asked', () => {
    const { code, error } = printed(() => explain(DEMO, { agent: 'goose', tick: 300 }));
    expect([code, error]).toEqual([
      1,
      'There is no agent “goose”. There are: gleaner, warden1, warden2.\n',
    ]);
  });
});
