import { rmSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { setTimeout as pause } from 'node:timers/promises';
import { temporaryFolder } from './postgres.mjs';
import { processesIn } from './processes.mjs';
import { runScript, say } from './project.mjs';
import { databaseProcess, kill, startApplication, Writer } from './trial.mjs';

/**
 * Kills the application at random while a user saves, and starts it again at once, many times. Counts what was
 * acknowledged, what of it is lost, and which starts were refused.
 *
 *     node scripts/kill-rounds.mjs [rounds] [seed]
 */

/** What is killed outright in a round. */
const VICTIMS = ['the server', 'the database', 'both', 'everything'];

/** A small generator of numbers from 0 to 1, so that a run can be repeated. Source: mulberry32. @param {number} seed */
function generator(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t ^= t + Math.imul(t ^ (t >>> 7), 61 | t);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** @param {{ rounds: number, seed: number, folder: string, note?: (line: string) => void }} options */
export async function killRounds({ rounds, seed, folder, note = () => {} }) {
  const random = generator(seed);
  const writer = new Writer();
  const data = path.join(folder, 'postgres');
  /** @type {string[]} */
  const refusals = [];
  for (let round = 1; round <= rounds; round++) {
    const application = await startApplication(folder);
    if (!application.serves) {
      refusals.push(application.text());
      note(`round ${round}: refused: ${application.text()}`);
      continue;
    }
    const writing = writer.write(application.address);
    await pause(300 + 2000 * random());
    const victim = VICTIMS[Math.floor(random() * VICTIMS.length)];
    const database = databaseProcess(folder);
    const others = victim === 'everything' ? processesIn(data) : [];
    if (victim !== 'the database') await kill(/** @type {number} */ (application.child.pid));
    if (victim !== 'the server') await kill(database);
    for (const other of others) await kill(other);
    writer.stop();
    await writing;
    await application.stop();
    note(`round ${round}: killed ${victim}; ${writer.acknowledged.size} acknowledged`);
  }
  const application = await startApplication(folder);
  if (!application.serves) refusals.push(application.text());
  const lost = application.serves ? await writer.lost(application.address) : NaN;
  await application.stop();
  return { rounds, acknowledged: writer.acknowledged.size, lost, refusals };
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) {
  await runScript(async () => {
    const rounds = Number(process.argv[2] ?? 50);
    const seed = Number(process.argv[3] ?? 1);
    const folder = temporaryFolder();
    const { acknowledged, lost, refusals } = await killRounds({ rounds, seed, folder, note: say });
    rmSync(folder, { recursive: true, force: true });
    say(
      `${rounds} rounds, ${acknowledged} acknowledged, ${lost} lost, ${refusals.length} starts refused`,
    );
    if (lost !== 0 || refusals.length > 0) process.exitCode = 1;
  });
}
