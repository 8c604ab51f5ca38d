import path from 'node:path';
import { fileURLToPath } from 'node:url';

/** The folder of the checkout. */
export const ROOT = path.dirname(path.dirname(fileURLToPath(import.meta.url)));

/** An error whose message is all the user needs; printed without a stack. */
export class Refusal extends Error {}

/** A signal has ended the work, as Ctrl+C does. */
export class Interrupted extends Error {}

/** What a shell gives for a program that Ctrl+C has ended. */
export const INTERRUPTED_CODE = 130;

/** Throws where a program that was waited for was ended by a signal. @param {import('node:child_process').SpawnSyncReturns<unknown>} result */
export function checkInterrupted({ signal, status }) {
  if (signal !== null || status === INTERRUPTED_CODE) throw new Interrupted('Ended.');
}

/**
 * Runs `main`; a refusal is printed as one line and ends with exit code 1.
 * @param {() => Promise<void>} main
 */
export async function runScript(main) {
  try {
    await main();
  } catch (error) {
    if (error instanceof Interrupted) {
      say(error.message);
      process.exitCode = INTERRUPTED_CODE;
      return;
    }
    process.stderr.write(
      `${error instanceof Refusal ? error.message : error instanceof Error ? error.stack : String(error)}\n`,
    );
    process.exitCode = 1;
  }
}

/** @param {string} line */
export function say(line) {
  process.stdout.write(`${line}\n`);
}

/** Refuses versions of Node the project can't run on. */
export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    throw new Refusal(
      `Crooked Lantern needs Node 20.19 or newer, as the tools that build its pages do; this is ${process.versions.node}.`,
    );
}

/**
 * Does some work whose notes go to standard error: what follows prints for programs to read.
 * @param {() => void} work
 */
export function quietly(work) {
  const write = process.stdout.write.bind(process.stdout);
  process.stdout.write = process.stderr.write.bind(process.stderr);
  try {
    work();
  } finally {
    process.stdout.write = write;
  }
}
