import type { EngineClient } from '../engine/engine-client.ts';
import { inputsOfText } from '../engine/link-input.ts';
import { reportFailure } from '../state/failures.ts';

/** Farther than this, more than four hours at 60 ticks a second, no run is played. */
const MOST_LINKED_TICKS = 1_000_000;

/** What an address says of a moment; null for what it does not. */
interface LinkedMoment {
  tick: number | null;
  seed: number | null;
  /** What players did until then, as text. */
  keys: string | null;
  setup: string | null;
  /** The edit it was copied under. */
  edit: number | null;
}

function say(title: string): void {
  reportFailure({ title, report: window.location.href, retry: null });
}

/** A whole number; null for anything else. */
function numberOf(text: string | null): number | null {
  return text !== null && /^\d+$/.test(text) ? Number(text) : null;
}

export function linkedMoment(search: string): LinkedMoment {
  const asked = new URLSearchParams(search);
  return {
    tick: numberOf(asked.get('tick')),
    seed: numberOf(asked.get('seed')),
    keys: asked.get('keys'),
    setup: asked.get('setup'),
    edit: numberOf(asked.get('edit')),
  };
}

/**
 * Goes to the moment that an address names, with what players did until then; without one it plays. What the link
 * can't bring back is said.
 *
 * @param edit the edit that runs
 */
export async function openMoment(
  engine: Pick<EngineClient, 'begin' | 'play' | 'replay' | 'restart' | 'seek'>,
  { tick, seed, keys, setup, edit: madeUnder }: LinkedMoment,
  edit: number,
): Promise<void> {
  const tooFar = tick !== null && tick > MOST_LINKED_TICKS;
  const inputs = keys === null ? null : await inputsOfText(keys);
  if (tooFar || (keys !== null && inputs === null)) {
    const why = tooFar
      ? `it names tick ${tick}, and a run is gone on with for ${MOST_LINKED_TICKS} ticks at most`
      : 'what was played until its moment is cut off or damaged in it';
    say(`The link can’t be followed: ${why}. It starts from the beginning.`);
    engine.play();
    return;
  }
  const refused = setup === null ? null : await engine.begin(setup);
  if (refused !== null)
    say(
      `The link’s run begins with a set-up that can’t be used: ${refused} It begins as the project says instead.`,
    );
  else if (madeUnder !== null && madeUnder !== edit)
    say(
      `The link was copied under edit ${madeUnder}, and edit ${edit} runs now: the run may go another way.`,
    );
  if (inputs && seed !== null && tick !== null) {
    engine.replay({ seed, inputs }, tick);
    return;
  }
  if (seed !== null) engine.restart(seed);
  if (tick !== null) engine.seek(tick);
  else engine.play();
}
