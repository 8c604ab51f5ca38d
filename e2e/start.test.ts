import type { ChildProcess } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { freePort, temporaryFolder } from '../scripts/postgres.mjs';
import { fillWhileSaving, smallDisk } from '../scripts/full-disk.mjs';
import { killRounds } from '../scripts/kill-rounds.mjs';
import { isAlive, processesIn } from '../scripts/processes.mjs';
import { databaseProcess, launchApplication } from '../scripts/trial.mjs';

/** Titles of the demos, as they are listed: the one to begin with first. */
const FOLDER = path.resolve(import.meta.dirname, '../demo');
const DEMOS = readdirSync(FOLDER)
  .sort(
    (a, b) =>
      Number(b.startsWith('night-watch')) - Number(a.startsWith('night-watch')) || (a < b ? -1 : 1),
  )
  .map(
    (file) =>
      (JSON.parse(readFileSync(path.join(FOLDER, file), 'utf8')) as { title: string }).title,
  );

let data: string;
let port: number;
const running = new Set<ChildProcess>();

beforeEach(async () => {
  data = temporaryFolder();
  port = await freePort();
});

afterEach(async () => {
  for (const child of running) {
    child.kill('SIGTERM');
    await ended(child);
  }
  rmSync(data, { recursive: true, force: true });
});

type Started = ReturnType<typeof launchApplication>;

function start(env: Record<string, string> = {}): Started {
  const started = launchApplication({ LANTERN_DATA: data, PORT: String(port), ...env });
  running.add(started.child);
  started.child.on('exit', () => running.delete(started.child));
  return started;
}

function ended(child: ChildProcess): Promise<number | null> {
  if (child.exitCode !== null || child.signalCode !== null) return Promise.resolve(child.exitCode);
  return new Promise((resolve) => child.once('exit', (code) => resolve(code)));
}

async function untilServing({ text }: Started): Promise<void> {
  await expect
    .poll(() => text().trim().split('\n').pop(), { timeout: 60_000 })
    .toBe(`http://127.0.0.1:${port}`);
}

const health = async () =>
  (await fetch(`http://127.0.0.1:${port}/api/health`)).json() as Promise<unknown>;

describe('npm start', () => {
  it('serves from an empty folder, stops all it started, and serves the same again', async () => {
    const first = start();
    await untilServing(first);
    expect(await health()).toEqual({ status: 'ok', database: 'ok' });
    const list = async () =>
      (
        (await (await fetch(`http://127.0.0.1:${port}/api/projects`)).json()) as {
          projects: { title: string }[];
        }
      ).projects.map(({ title }) => title);
    expect(await list()).toEqual(DEMOS);
    await fetch(`http://127.0.0.1:${port}/api/projects/night-watch`, { method: 'DELETE' });
    const database = databaseProcess(data);
    first.child.kill('SIGTERM');
    expect(await ended(first.child)).toBe(0);
    expect(isAlive(database)).toBe(false);
    expect(existsSync(path.join(data, 'running.json'))).toBe(false);
    const second = start();
    await untilServing(second);
    expect(await list(), 'what was put away stays away').toEqual(
      DEMOS.filter((title) => title !== 'Night Watch'),
    );
  });

  it('recovers after it was killed outright', async () => {
    const first = start();
    await untilServing(first);
    const leftBehind = databaseProcess(data);
    first.child.kill('SIGKILL');
    await ended(first.child);
    // Nothing of it runs on unseen.
    await expect.poll(() => isAlive(leftBehind), { timeout: 15_000 }).toBe(false);
    const second = start();
    await untilServing(second);
    expect(await health()).toEqual({ status: 'ok', database: 'ok' });
  });

  it('ends in time also when its database is frozen, and at once when it is told twice', async () => {
    for (const twice of [false, true]) {
      const started = start();
      await untilServing(started);
      const frozen = processesIn(path.join(data, 'postgres'));
      for (const pid of frozen) process.kill(pid, 'SIGSTOP');
      // A question that is never answered is no reason to wait.
      fetch(`http://127.0.0.1:${port}/api/projects`).catch(() => {});
      started.child.kill('SIGINT');
      if (twice) {
        // Two signals of a kind that come before the first is taken are one.
        await expect.poll(started.text).toContain('Press Ctrl+C again');
        started.child.kill('SIGINT');
      }
      expect(await ended(started.child)).toBe(twice ? 130 : 0);
      // What is killed is gone only once it has had its turn on a processor.
      await expect.poll(() => frozen.filter(isAlive)).toEqual([]);
      expect(existsSync(path.join(data, 'running.json'))).toBe(false);
    }
  });

  it('that is interrupted while it sets up says that it ended', async () => {
    const started = start();
    await expect.poll(() => existsSync(path.join(data, 'password'))).toBe(true);
    started.child.kill('SIGINT');
    expect(await ended(started.child)).toBe(130);
    expect(started.text()).toContain('Ended.');
    expect(processesIn(path.join(data, 'postgres'))).toEqual([]);
    await untilServing(start());
  });

  it('two at one moment: one serves, the other is refused', async () => {
    const both = [start(), start({ PORT: String(await freePort()) })];
    await expect
      .poll(() => both.filter(({ text }) => text().includes('already runs on this data')).length, {
        timeout: 30_000,
      })
      .toBe(1);
    await expect
      .poll(() => both.filter(({ text }) => /^http:/m.test(text())).length, { timeout: 60_000 })
      .toBe(1);
  });

  it('says so when the port is taken, when it runs already, and when PORT is no port', async () => {
    const first = start();
    await untilServing(first);
    const again = start();
    expect(await ended(again.child)).toBe(1);
    expect(again.text()).toContain(`already runs on this data: http://127.0.0.1:${port}`);
    const other = temporaryFolder();
    const taken = start({ LANTERN_DATA: other });
    expect(await ended(taken.child)).toBe(1);
    expect(taken.text()).toMatch(
      new RegExp(`Port ${port} is taken by another program. Choose another: PORT=\\d+ npm start`),
    );
    rmSync(other, { recursive: true, force: true });
    const wrong = start({ PORT: 'orchard' });
    expect(await ended(wrong.child)).toBe(1);
    expect(wrong.text()).toContain('PORT must be a number');
    expect(await health(), 'the one that runs is not disturbed').toEqual({
      status: 'ok',
      database: 'ok',
    });
  });

  it('loses nothing that was acknowledged, and always starts again, killed at random', async () => {
    const { acknowledged, lost, refusals } = await killRounds({ rounds: 3, seed: 3, folder: data });
    expect(refusals).toEqual([]);
    expect([acknowledged > 0, lost]).toEqual([true, 0]);
  });
});

/** What a start says that is refused; it must end by itself, leave nothing running, and show no stack. */
async function refusal(env: Record<string, string> = {}): Promise<string> {
  const started = start(env);
  expect(await ended(started.child)).toBe(1);
  expect(processesIn(path.join(data, 'postgres'))).toEqual([]);
  expect(started.text()).not.toMatch(/^\s+at /m);
  return started.text();
}

describe('a start that can’t be', () => {
  it('is refused in one sentence: an empty LANTERN_DATA, a file, a folder without permission to write', async () => {
    expect(await refusal({ LANTERN_DATA: '' })).toContain('LANTERN_DATA is empty.');
    const file = path.join(data, 'file');
    writeFileSync(file, 'mine');
    expect(await refusal({ LANTERN_DATA: file })).toContain(`${file} is a file. Remove it, or`);
    expect(await refusal({ LANTERN_DATA: path.join(file, 'inside') })).toContain(
      'is not a folder, or lies in a file',
    );
    expect(await refusal({ LANTERN_DATA: '/sys/orchard' })).toContain('can’t be written to');
  });

  it('leaves a folder that holds other things as it is', async () => {
    writeFileSync(path.join(data, 'letters.txt'), 'mine');
    mkdirSync(path.join(data, 'postgres'));
    expect(await refusal()).toContain('holds other things, such as “letters.txt”');
    expect(readdirSync(data).sort()).toEqual(['letters.txt', 'postgres']);
  });

  it('leaves damaged data as they are, and says what is damaged', async () => {
    const first = start();
    await untilServing(first);
    first.child.kill('SIGTERM');
    await ended(first.child);
    const password = readFileSync(path.join(data, 'password'), 'utf8');
    truncateSync(path.join(data, 'postgres/global/pg_control'), 100);
    expect(await refusal()).toMatch(
      /The database server ended: could not read file "global\/pg_control/,
    );
    rmSync(path.join(data, 'postgres/PG_VERSION'));
    expect(await refusal()).toMatch(/is damaged: .*PG_VERSION is missing or empty/);
    expect(readFileSync(path.join(data, 'password'), 'utf8')).toBe(password);
  });

  it('says that the disk is full, then and later, and loses nothing', async ({ skip }) => {
    const disk = smallDisk();
    if (!disk) return skip('this account may not mount a disk');
    try {
      const { acknowledged, lost, refused, words } = await fillWhileSaving(disk);
      expect(words[0]).toMatch(/^The disk that holds .* is full\. Free some space, then start/);
      expect(words.join('')).not.toMatch(/^\s+at /m);
      expect([...refused]).toEqual([[507, 'The disk is full']]);
      expect([acknowledged >= 25, lost]).toEqual([true, 0]);
    } finally {
      disk.remove();
    }
  });
});
