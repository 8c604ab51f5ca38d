import { DIRECTOR_ACTIONS } from './director-actions.ts';
import { FIGHT_ACTIONS } from './fight-actions.ts';
import { GROUP_ACTIONS } from './group-actions.ts';
import { MOVING_ACTIONS } from './moving-actions.ts';
import type { ActionSpec } from './action-spec.ts';

export * from './action-spec.ts';

/**
 * What a mind can do, as data: the schema, the checker, the editors and the reference all read this
 * one table. What each action does while it runs stands in `mind/actions`.
 */
export const ACTIONS = {
  ...MOVING_ACTIONS,
  ...GROUP_ACTIONS,
  ...FIGHT_ACTIONS,
  ...DIRECTOR_ACTIONS,
  face: {
    title: 'Face',
    channel: 'eyes',
    lasts: true,
    about: 'Turns toward a place as fast as the body can.',
    succeeds: 'heading within 2° of the place',
    canFail: true,
    fails: 'the place is not known',
    example: { do: 'face', toward: 'attention.place' },
    parameters: {
      toward: {
        kind: 'place',
        required: true,
        about: 'a point, or an agent whose last known place is meant',
      },
    },
  },
  turn: {
    title: 'Turn',
    channel: 'eyes',
    lasts: true,
    about: 'Turns by an angle from where it faces when it starts.',
    succeeds: 'heading within 2° of the goal',
    canFail: false,
    fails: 'never, unless the angle is not known',
    example: { do: 'turn', by: -110 },
    parameters: {
      by: {
        kind: 'number',
        required: true,
        unit: 'deg',
        minimum: -360,
        maximum: 360,
        about: 'clockwise positive',
      },
    },
  },
  wait: {
    title: 'Wait',
    channel: null,
    lasts: true,
    about: 'Does nothing for a while.',
    succeeds: 'after `seconds`',
    canFail: false,
    fails: 'never, unless the time is not known',
    example: { do: 'wait', seconds: 2, uninterrupted: true },
    parameters: {
      seconds: {
        kind: 'number',
        required: true,
        unit: 's',
        minimum: 0,
        maximum: 3600,
        about: 'how long',
      },
    },
  },
  stop: {
    title: 'Stop',
    channel: 'legs',
    lasts: false,
    about: 'Drops the current goal of the legs and stands still.',
    succeeds: 'at once',
    canFail: false,
    fails: 'never',
    example: { do: 'stop' },
    parameters: {},
  },
  setGait: {
    title: 'Set gait',
    channel: null,
    lasts: false,
    about: 'Chooses the speed of the moves that follow.',
    succeeds: 'at once',
    canFail: false,
    fails: 'never',
    example: { do: 'setGait', gait: 'run' },
    parameters: {
      gait: { kind: 'gait', required: true, about: 'a gait of the archetype' },
    },
  },
  say: {
    title: 'Say',
    channel: 'voice',
    lasts: false,
    about: 'Shows a line of speech beside the body.',
    succeeds: 'at once',
    canFail: false,
    fails: 'never',
    example: { do: 'say', text: 'Who walks there?' },
    parameters: { text: { kind: 'text', required: true, about: 'the words' } },
  },
  remember: {
    title: 'Remember',
    channel: null,
    lasts: false,
    about: 'Writes a memory key. A value that is not known leaves the key as it is.',
    succeeds: 'at once',
    canFail: false,
    fails: 'never',
    example: { do: 'remember', key: 'quarry', value: 'attention.of' },
    parameters: {
      key: { kind: 'key', required: true, about: 'a key of this mind' },
      value: { kind: 'value', required: true, about: 'an expression of the key’s type' },
    },
  },
  add: {
    title: 'Add to list',
    channel: null,
    lasts: false,
    about:
      'Adds an entry to a list in memory; when the list is full, its oldest entry gives way. A value that is not known adds nothing.',
    succeeds: 'at once',
    canFail: false,
    fails: 'never',
    example: { do: 'add', key: 'combed', value: 'self.place' },
    parameters: {
      key: { kind: 'list', required: true, about: 'a list of this mind’s memory' },
      value: { kind: 'value', required: true, about: 'an expression of the entries’ type' },
    },
  },
  forget: {
    title: 'Forget',
    channel: null,
    lasts: false,
    about: 'Sets a memory key back to its default.',
    succeeds: 'at once',
    canFail: false,
    fails: 'never',
    example: { do: 'forget', key: 'quarry' },
    parameters: { key: { kind: 'key', required: true, about: 'a key of this mind' } },
  },
  raise: {
    title: 'Raise event',
    channel: null,
    lasts: false,
    about: 'Sends an event to this agent’s own minds; it arrives in the next tick.',
    succeeds: 'at once',
    canFail: false,
    fails: 'never',
    example: { do: 'raise', event: 'alarm.near' },
    parameters: { event: { kind: 'event', required: true, about: 'the event’s name' } },
  },
} as const satisfies Record<string, ActionSpec>;

export type ActionName = keyof typeof ACTIONS;
export const ACTION_NAMES = Object.keys(ACTIONS) as ActionName[];

export function actionSpec(name: string): ActionSpec | undefined {
  return Object.hasOwn(ACTIONS, name) ? (ACTIONS as Record<string, ActionSpec>)[name] : undefined;
}
