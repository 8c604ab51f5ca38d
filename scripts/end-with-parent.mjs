import { commandOf, endStepByStep, isAlive } from './processes.mjs';

/**
 * Ends a process when the one that started this script is gone, however it ended: its end closes the pipe that is our
 * standard input. A process that is started detached would run on unseen.
 *
 *     node scripts/end-with-parent.mjs <process> <text its command line holds>
 */

const [number, mark] = process.argv.slice(2);
const pid = Number(number);

// By the time it is to be ended, another process may have its number.
const isThere = () => isAlive(pid) && commandOf(pid).includes(mark);

process.stdin.resume();
await new Promise((resolve) => process.stdin.once('close', resolve));
await endStepByStep(
  (signal) => process.kill(pid, signal),
  () => !isThere(),
);
