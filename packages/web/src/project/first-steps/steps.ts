import type { Lanes } from '../../engine/lanes.ts';
import { readKept } from '../../state/kept-settings.ts';

/** The first things to try in a demo, and which of them were done; kept in the browser. */

export const STEPS = {
  seen: { title: 'Be seen', how: 'Press G to play with the keys, then walk into a lit place.' },
  asked: { title: 'Ask why', how: 'Shift+W asks why the followed agent does what it does.' },
  changed: { title: 'Change a number', how: 'In Minds, click a number and type another.' },
  back: { title: 'Go back', how: 'Drag the playhead below to the left.' },
  onward: { title: 'Run on from there', how: 'P runs on, another way.' },
} as const;

export type StepId = keyof typeof STEPS;

export interface KeptSteps {
  done: StepId[];
  /** Put away for good. */
  isAway: boolean;
}

const STORED_AS = 'crooked-lantern.first-steps';

function isSteps(value: unknown): value is KeptSteps {
  if (typeof value !== 'object' || value === null) return false;
  const { done, isAway } = value as Partial<KeptSteps>;
  return (
    typeof isAway === 'boolean' &&
    Array.isArray(done) &&
    done.every((step) => Object.hasOwn(STEPS, step))
  );
}

export function readSteps(): KeptSteps {
  return readKept(STORED_AS, isSteps) ?? { done: [], isAway: false };
}

export function keepSteps(steps: KeptSteps): void {
  localStorage.setItem(STORED_AS, JSON.stringify(steps));
}

/** Projects that come with the application, by the ids they have there. */
const DEMOS: ReadonlySet<string> = new Set([
  'bell-hours',
  'harvest-night',
  'hive-day',
  'keepers-duel',
  'night-watch',
  'windfall',
]);

export const isDemo = (project: string): boolean => DEMOS.has(project);

/** What a page knows of what was done. */
export interface Signs {
  lanes: Pick<Lanes, 'byAgent'>;
  /** Name of the agent that is played; empty for none. */
  player: string;
  frame: { tick: number; head: number; playing: boolean } | null;
  /** It was behind the head of the run before. */
  wasBack: boolean;
  /** A question is open, about a moment. */
  isAsking: boolean;
  /** What was changed last on this visit; empty for nothing. */
  lastChange: string;
}

/** Another agent has seen the played one. */
function wasSeen({ lanes, player }: Signs): boolean {
  if (player === '') return false;
  for (const [agent, { dots }] of lanes.byAgent) {
    if (agent === player) continue;
    const saw = dots.some(
      ({ entry }) => entry.kind === 'percept' && entry.sense === 'sight' && entry.of === player,
    );
    if (saw) return true;
  }
  return false;
}

/** “seconds of for of transition 2: 0.2 → 0.5”: a number in place of another. */
const NUMBER_CHANGED = /-?\d[\d.]* → .*\d/;

const DONE: Record<StepId, (signs: Signs) => boolean> = {
  seen: wasSeen,
  asked: ({ isAsking }) => isAsking,
  changed: ({ lastChange }) => NUMBER_CHANGED.test(lastChange),
  back: ({ frame }) => frame !== null && !frame.playing && frame.tick < frame.head,
  onward: ({ frame, wasBack }) => wasBack && frame !== null && frame.playing,
};

/** Those of some steps that were done by now. */
export function stepsDone(open: readonly StepId[], signs: Signs): StepId[] {
  return open.filter((step) => DONE[step](signs));
}
