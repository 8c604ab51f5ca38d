import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { spawn } from 'node:child_process';
import os from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { chosenFolder, claim, ensureFolder, refusalOf } from './data-folder.mjs';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'orchard-'));
});
afterEach(() => {
  rmSync(folder, { recursive: true, force: true });
  vi.unstubAllEnvs();
  vi.restoreAllMocks();
});

const running = () => path.join(folder, 'running.json');

describe('the claim on a data folder', () => {
  it.each([
    ['empty', ''],
    ['cut off', '{"pid": 12'],
    ['of another kind', '"orchard"'],
  ])('is written anew where it is %s, and that is said', (_, text) => {
    const said = vi.spyOn(process.stdout, 'write').mockReturnValue(true);
    writeFileSync(running(), text);
    claim(folder, 4173);
    expect(JSON.parse(readFileSync(running(), 'utf8'))).toEqual({ pid: process.pid, port: 4173 });
    expect(String(said.mock.calls[0][0])).toContain('running.json can’t be read');
  });

  it('of a process that is gone, or is another program by now, gives way', () => {
    for (const pid of [2 ** 22 - 1, process.ppid]) {
      writeFileSync(running(), JSON.stringify({ pid, port: 1 }));
      claim(folder, 4173);
      expect(JSON.parse(readFileSync(running(), 'utf8'))).toMatchObject({ pid: process.pid });
    }
  });

  it('leaves nothing half written, and is gone when it is let go of', () => {
    const release = claim(folder, 4173);
    expect(readdirSync(folder)).toEqual(['running.json']);
    release();
    expect(readdirSync(folder)).toEqual([]);
  });

  it('is let go of only by its owner', () => {
    const release = claim(folder, 4173);
    writeFileSync(running(), JSON.stringify({ pid: process.ppid, port: 1 }));
    release();
    expect(JSON.parse(readFileSync(running(), 'utf8'))).toMatchObject({ pid: process.ppid });
  });

  it.each([
    ['no claim', null],
    ['the claim of a process that is gone', 2 ** 22 - 1],
  ])(
    'of many starts at one moment, over %s, one has it and the others are refused',
    async (_, pid) => {
      const other = Array.from({ length: 4 }, () => {
        const script = `
        import { claim } from ${JSON.stringify(path.resolve('scripts/data-folder.mjs'))};
        await new Promise((go) => process.stdin.once('data', go));
        // Its command line has the name of a start in it: start.mjs.
        try { claim(${JSON.stringify(folder)}, 1); console.log('claimed'); }
        catch (error) { console.log(error.message); }
        await new Promise((go) => process.stdin.once('data', go));
        process.exit();`;
        const child = spawn(process.execPath, ['--input-type=module', '-e', script], {
          stdio: ['pipe', 'pipe', 'inherit'],
        });
        const lines: string[] = [];
        child.stdout.on('data', (text: Buffer) => lines.push(String(text).trim()));
        return { child, lines };
      });
      if (pid !== null) writeFileSync(running(), JSON.stringify({ pid, port: 1 }));
      for (const { child } of other) child.stdin.write('go');
      // Processes take their time to begin on a busy machine.
      await expect
        .poll(() => other.every(({ lines }) => lines.length > 0), { timeout: 30_000 })
        .toBe(true);
      const said = other.map(({ lines }) => lines[0]);
      expect(said.filter((line) => line === 'claimed')).toHaveLength(1);
      expect(said.filter((line) => line.includes('already runs on this data'))).toHaveLength(3);
      expect(readdirSync(folder)).toEqual(['running.json']);
      for (const { child } of other) child.stdin.write('go');
      await Promise.all(other.map(({ child }) => new Promise((end) => child.once('exit', end))));
    },
  );
});

describe('the data folder', () => {
  it('is what LANTERN_DATA names, which must not be empty', () => {
    vi.stubEnv('LANTERN_DATA', folder);
    expect(chosenFolder()).toBe(folder);
    vi.stubEnv('LANTERN_DATA', ' ');
    expect(() => chosenFolder()).toThrow('LANTERN_DATA is empty.');
  });

  it('is made where there is none, and taken where it is empty or ours', () => {
    const fresh = path.join(folder, 'a', 'b');
    ensureFolder(fresh);
    expect(readdirSync(fresh)).toEqual([]);
    for (const ours of ['postgres', 'postgres.new']) mkdirSync(path.join(fresh, ours));
    writeFileSync(path.join(fresh, 'running.json.77'), '');
    expect(() => ensureFolder(fresh)).not.toThrow();
  });

  it('is refused where it is a file, or holds other things', () => {
    writeFileSync(path.join(folder, 'letters.txt'), '');
    expect(() => ensureFolder(folder)).toThrow('holds other things, such as “letters.txt”');
    expect(() => ensureFolder(path.join(folder, 'letters.txt'))).toThrow('is a file. Remove it');
  });
});

it('errors of the file system are said in a sentence with what to do, others are not known', () => {
  const words = (code: string) => refusalOf(Object.assign(new Error(), { code }), '/srv')?.message;
  expect(words('EROFS')).toBe(
    '/srv can’t be written to. Give yourself the right to, or choose another folder with LANTERN_DATA.',
  );
  expect(words('ENOSPC')).toMatch(/^The disk that holds \/srv is full\. Free some space/);
  expect(words('ENOTDIR')).toMatch(/is not a folder/);
  expect(words('EWHATEVER')).toBeUndefined();
  const odd = Object.assign(new Error(), {
    code: 'ENAMETOOLONG',
    syscall: 'mkdir',
    path: '/srv/long',
  });
  expect(refusalOf(odd, '/srv')?.message).toBe(
    '/srv/long can’t be used (ENAMETOOLONG). Mend it, or choose another folder with LANTERN_DATA.',
  );
});
