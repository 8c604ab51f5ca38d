import type { EngineClient } from '../engine/engine-client.ts';
import { inputsOfText } from '../engine/link-input.ts';
import { reportFailure } from '../state/failures.ts';

/** Farther than this, more than four hours at 60 ticks a second, no run is played. */
const MOST_LINKED_TICKS = 1_000_000;

/** Goes to the moment that an address names, with what players did until then; without one it plays. */
export async function openMoment(
  engine: Pick<EngineClient, 'play' | 'replay' | 'restart' | 'seek'>,
  { tick, seed, keys }: { tick: number | null; seed: number | null; keys: string | null },
): Promise<void> {
  const tooFar = tick !== null && tick > MOST_LINKED_TICKS;
  const inputs = keys === null ? null : await inputsOfText(keys);
  if (tooFar || (keys !== null && inputs === null)) {
    const why = tooFar
      ? `it names tick ${tick}, and a run is gone on with for ${MOST_LINKED_TICKS} ticks at most`
      : 'what was played until its moment is cut off or damaged in it';
    reportFailure({
      title: `The link can’t be followed: ${why}. It starts from the beginning.`,
      report: window.location.href,
      retry: null,
    });
    engine.play();
    return;
  }
  if (inputs && seed !== null && tick !== null) {
    engine.replay({ seed, inputs }, tick);
    return;
  }
  if (seed !== null) engine.restart(seed);
  if (tick !== null) engine.seek(tick);
  else engine.play();
}
