import type { TransitionDocument } from '@crooked-lantern/core';

/** The plan's signs for what a word would take too much room for; the legend says them. */
export const SIGNS = {
  urgent: '!',
  internal: '↺',
  acts: '◆',
  parallel: '∥',
  history: '↶',
  deepHistory: '↶↶',
} as const;

export const SIGN_WORDS: [string, string][] = [
  ['1, 2 …', 'the order in which transitions are tested'],
  [SIGNS.urgent, 'urgent: looked at before those of the states inside'],
  [
    SIGNS.internal,
    'internal: does something without leaving; beside a state: how many such there are',
  ],
  [SIGNS.acts, 'does something when it is taken'],
  [SIGNS.parallel, 'parallel: all states inside are active at once'],
  [SIGNS.history, 'history: enters what was last active here'],
  [SIGNS.deepHistory, 'deep history: the same, with all that was active inside'],
  ['◎', 'final: ends the room it is in'],
  ['%', 'share of the agent’s time spent there'],
  ['┄', 'dotted, with coverage shown: never entered, or never taken'],
];

/** What follows the number of a transition. */
export function signsOf({ urgent, internal, do: acts }: TransitionDocument): string {
  return `${urgent ? SIGNS.urgent : ''}${internal ? SIGNS.internal : ''}${acts ? SIGNS.acts : ''}`;
}
