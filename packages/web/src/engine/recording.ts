import { inputOf, type PlayerDocument } from '@crooked-lantern/core';
import type { Recording } from './protocol.ts';

/** A scripted player as the engine replays it, and the tick until which it runs: two seconds past the last input. */
export function recordingOf(
  { seed, inputs }: PlayerDocument,
  start: { seed?: number; ticksPerSecond?: number },
): { recording: Recording; until: number } {
  return {
    recording: {
      seed: seed ?? start.seed ?? 1,
      inputs: inputs.map((input) => ({ tick: input.tick, input: inputOf(input) })),
    },
    until: (inputs.at(-1)?.tick ?? 0) + 2 * (start.ticksPerSecond ?? 60),
  };
}
