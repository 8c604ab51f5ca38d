import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { freePort, temporaryFolder } from '../scripts/postgres.mjs';
import { isAlive } from '../scripts/processes.mjs';

const ROOT = path.resolve(import.meta.dirname, '..');

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

interface Started {
  child: ChildProcess;
  /** All it has printed, both ways. */
  text(): string;
}

function start(env: Record<string, string> = {}): Started {
  const child = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: ROOT,
    env: { ...process.env, LANTERN_DATA: data, PORT: String(port), ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  running.add(child);
  child.on('exit', () => running.delete(child));
  let text = '';
  child.stdout!.on('data', (chunk: Buffer) => (text += chunk.toString()));
  child.stderr!.on('data', (chunk: Buffer) => (text += chunk.toString()));
  return { child, text: () => text };
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
const databaseProcess = () =>
  Number(readFileSync(path.join(data, 'postgres/postmaster.pid'), 'utf8').split('\n')[0]);

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
    expect(await list()).toEqual(['Night Watch']);
    await fetch(`http://127.0.0.1:${port}/api/projects/night-watch`, { method: 'DELETE' });
    const database = databaseProcess();
    first.child.kill('SIGTERM');
    expect(await ended(first.child)).toBe(0);
    expect(isAlive(database)).toBe(false);
    expect(existsSync(path.join(data, 'running.json'))).toBe(false);
    const second = start();
    await untilServing(second);
    expect(await list(), 'what was put away stays away').toEqual([]);
  });

  it('recovers after it was killed outright', async () => {
    const first = start();
    await untilServing(first);
    const leftBehind = databaseProcess();
    first.child.kill('SIGKILL');
    await ended(first.child);
    expect(isAlive(leftBehind)).toBe(true);
    const second = start();
    await untilServing(second);
    expect(isAlive(leftBehind)).toBe(false);
    expect(await health()).toEqual({ status: 'ok', database: 'ok' });
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
});
