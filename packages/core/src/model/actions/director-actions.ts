import { GATE_STATES, RESULTS } from '../../terms/game.ts';
import type { ActionSpec } from './action-spec.ts';

/** What only a director can do: bring and send away, announce, count, and end the run. */
export const DIRECTOR_ACTIONS = {
  bring: {
    title: 'Bring wave',
    channel: null,
    lasts: false,
    about: 'Starts a wave. One that is over starts from its beginning.',
    succeeds: 'at once',
    canFail: true,
    fails: 'the wave is coming already',
    example: { do: 'bring', wave: 'beetles' },
    parameters: { wave: { kind: 'wave', required: true, about: 'a wave of the ground' } },
  },
  sendAway: {
    title: 'Send away',
    channel: null,
    lasts: false,
    about:
      'Takes agents off the ground, and cancels those of a wave that are still to come. Played agents stay.',
    succeeds: 'at once',
    canFail: true,
    fails: 'none of them is present, and none is still to come',
    example: { do: 'sendAway', group: 'beetles' },
    parameters: {
      group: {
        kind: 'group',
        required: true,
        about: 'an archetype, faction, squad or wave',
      },
    },
  },
  announce: {
    title: 'Announce',
    channel: null,
    lasts: false,
    about: 'Sends an event to the minds of all, or of some; they can take it in this very tick.',
    succeeds: 'at once',
    canFail: false,
    fails: 'never',
    example: { do: 'announce', event: 'bell.rings', to: 'keepers' },
    parameters: {
      event: { kind: 'event', required: true, about: 'the event’s name' },
      to: {
        kind: 'group',
        required: false,
        about: 'an archetype, faction, squad or wave; left out: every agent',
      },
    },
  },
  addScore: {
    title: 'Add to score',
    channel: null,
    lasts: false,
    about: 'Adds points to a score, or subtracts them.',
    succeeds: 'at once',
    canFail: true,
    fails: 'the points are not known',
    example: { do: 'addScore', score: 'baskets', points: 2 },
    parameters: {
      score: { kind: 'score', required: true, about: 'a score of the ground' },
      points: {
        kind: 'number',
        required: false,
        minimum: -1e6,
        maximum: 1e6,
        default: 1,
        about: 'below 0 subtracts',
      },
    },
  },
  setMode: {
    title: 'Set mode',
    channel: null,
    lasts: false,
    about: 'Sets a mode over the schedule, which pauses meanwhile and then resumes.',
    succeeds: 'at once',
    canFail: false,
    fails: 'never',
    example: { do: 'setMode', mode: 'guarding', seconds: 8 },
    parameters: {
      mode: { kind: 'mode', required: true, about: 'the mode’s name' },
      seconds: {
        kind: 'number',
        required: false,
        unit: 's',
        minimum: 0,
        maximum: 86_400,
        default: 0,
        about: 'for how long; 0 is until it is set again',
      },
    },
  },
  setLight: {
    title: 'Set light',
    channel: null,
    lasts: false,
    about: 'Changes the light of the whole ground.',
    succeeds: 'at once; the light changes evenly meanwhile',
    canFail: false,
    fails: 'never',
    example: { do: 'setLight', to: 0.2, seconds: 4 },
    parameters: {
      to: { kind: 'number', required: true, minimum: 0, maximum: 1, about: '0 is dark' },
      seconds: {
        kind: 'number',
        required: false,
        unit: 's',
        minimum: 0,
        maximum: 3600,
        default: 0,
        about: 'how long that takes',
      },
    },
  },
  setGate: {
    title: 'Set gate',
    channel: null,
    lasts: false,
    about: 'Opens, closes or locks a gate, wherever it is.',
    succeeds: 'at once',
    canFail: true,
    fails: 'an agent blocks the gate',
    example: { do: 'setGate', gate: 'northGate', to: 'open' },
    parameters: {
      gate: { kind: 'gate', required: true, about: 'a gate of the ground by name' },
      to: { kind: 'pattern', required: true, options: GATE_STATES, about: 'how it is to be' },
    },
  },
  end: {
    title: 'End the run',
    channel: null,
    lasts: false,
    about: 'Ends the run: it stops, and shows its result above the ground.',
    succeeds: 'at once',
    canFail: false,
    fails: 'never; only the first result counts',
    example: { do: 'end', result: 'won', words: 'The harvest is in.' },
    parameters: {
      result: { kind: 'pattern', required: true, options: RESULTS, about: 'how it went' },
      words: { kind: 'text', required: true, about: 'what is said of it' },
    },
  },
} as const satisfies Record<string, ActionSpec>;

/** Actions without a channel that still need a body. */
const WITH_A_BODY: ReadonlySet<string> = new Set([
  'setGait',
  'makeNoise',
  'tellSquad',
  'learnWaypoint',
]);
const BODILY_CHANNELS: ReadonlySet<string> = new Set(['legs', 'eyes', 'arms']);

/** Whether an action is the director's alone. */
export function isDirectors(action: string): boolean {
  return Object.hasOwn(DIRECTOR_ACTIONS, action);
}

/** Whether an action is done with a body, which a director has not. */
export function needsBody(action: string, { channel }: ActionSpec): boolean {
  return WITH_A_BODY.has(action) || (channel !== null && BODILY_CHANNELS.has(channel));
}
