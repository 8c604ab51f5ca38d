import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { freePort } from './postgres.mjs';
import { isAlive, waitUntil } from './processes.mjs';
import { ROOT } from './project.mjs';

/** Hands on the whole application, for trials that kill it or take its disk away. */

const DEMO = JSON.parse(readFileSync(path.join(ROOT, 'demo/night-watch.lantern.json'), 'utf8'));

/**
 * Starts the application, and keeps what it prints.
 * @param {Record<string, string>} env
 */
export function launchApplication(env) {
  const child = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: ROOT,
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let text = '';
  child.stdout.on('data', (chunk) => (text += chunk));
  child.stderr.on('data', (chunk) => (text += chunk));
  return {
    child,
    /** All it has printed, both ways. */
    text: () => text,
    hasEnded: () => child.exitCode !== null || child.signalCode !== null,
  };
}

/**
 * Starts the application on a data folder, and waits until it serves or has ended.
 * @param {string} folder
 */
export async function startApplication(folder) {
  const port = await freePort();
  const address = `http://127.0.0.1:${port}`;
  const launched = launchApplication({ LANTERN_DATA: folder, PORT: String(port) });
  const { child, text, hasEnded } = launched;
  await waitUntil(() => hasEnded() || text().includes(address), 90);
  return {
    ...launched,
    address,
    serves: !hasEnded() && text().includes(address),
    async stop() {
      child.kill('SIGTERM');
      await waitUntil(hasEnded, 60);
    },
  };
}

/** The database server's process of a data folder. @param {string} folder */
export function databaseProcess(folder) {
  return Number(readFileSync(path.join(folder, 'postgres/postmaster.pid'), 'utf8').split('\n')[0]);
}

/** Ends a process outright, and waits until it is gone. @param {number} pid */
export async function kill(pid) {
  if (isAlive(pid)) process.kill(pid, 'SIGKILL');
  await waitUntil(() => !isAlive(pid), 10);
}

/**
 * Writes one edit after another until it is stopped or the server is gone, and keeps what was acknowledged.
 * @param {string} address
 */
export class Writer {
  /** Title by the number of the edit, of all that were acknowledged. @type {Map<number, string>} */
  acknowledged = new Map();
  /** What was answered instead, by status. @type {Map<number, string>} */
  refused = new Map();
  #count = 0;
  #stopped = false;
  #id = '';

  stop() {
    this.#stopped = true;
  }

  /** @param {string} address */
  async write(address) {
    this.#stopped = false;
    let edit = 0;
    while (!this.#stopped) {
      const title = `Night ${this.#count++}`;
      const isNew = this.#id === '';
      try {
        if (edit === 0 && !isNew) edit = (await this.#latest(address)).edit;
        const response = await fetch(`${address}/api/projects${isNew ? '' : `/${this.#id}`}`, {
          method: isNew ? 'POST' : 'PUT',
          headers: { 'content-type': 'application/json', 'if-match': `"${edit}"` },
          body: JSON.stringify({ ...DEMO, title }),
        });
        const body = await response.json();
        if (!response.ok) {
          this.refused.set(response.status, body.title);
          edit = 0;
          continue;
        }
        this.#id = body.id;
        edit = body.edit;
        this.acknowledged.set(edit, title);
      } catch {
        // The server is gone.
        return;
      }
    }
  }

  /** @param {string} address */
  async #latest(address) {
    return (await fetch(`${address}/api/projects/${this.#id}`)).json();
  }

  /** Acknowledged edits that are not there any more, or are others. @param {string} address */
  async lost(address) {
    let lost = 0;
    for (const [edit, title] of this.acknowledged) {
      const response = await fetch(`${address}/api/projects/${this.#id}/edits/${edit}`);
      const body = await response.json();
      if (!response.ok || body.document.title !== title) lost++;
    }
    return lost;
  }
}
