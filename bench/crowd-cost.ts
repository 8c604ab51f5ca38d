import { createWorld, tick } from '@crooked-lantern/core';
import { median, timed } from './measure.ts';
import { largeOrchard, NIGHT_WATCH } from './orchards.ts';

/**
 * Prints the milliseconds that a tick takes with so many wardens. It runs as a process of its own: worlds of
 * different sizes in one process share what the engine has learned of the code, which hides how the cost grows.
 */

/** Ticks until everything that is shared has come about: paths, fields, memory. */
const SETTLING = 120;
/** Ticks that are timed together. */
const TICKS = 8;

const wardens = Number(process.argv[2]);
const world = createWorld(largeOrchard(wardens, () => {}, NIGHT_WATCH));
for (let i = 0; i < SETTLING; i++) tick(world);
const rounds = Math.max(5, Math.min(40, Math.round(8000 / wardens)));
const times = Array.from(
  { length: rounds },
  () =>
    timed(() => {
      for (let i = 0; i < TICKS; i++) tick(world);
    }) / TICKS,
);
process.stdout.write(`${median(times)}\n`);
