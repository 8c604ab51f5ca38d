import type { ActionSpec } from './action-spec.ts';

/** What bodies do in a fight, by the moves and guards of their archetype. */
export const FIGHT_ACTIONS = {
  strike: {
    title: 'Strike',
    channel: 'arms',
    lasts: true,
    about:
      'Makes a move of its archetype: wind-up, active, recovery. `self.lastResult` gives its result.',
    succeeds: 'when the move is over, with any result',
    canFail: true,
    fails: 'it is broken off, or can’t start: not ready, staggered, or making another move',
    example: { do: 'strike', move: 'sweep', at: 'quarry' },
    parameters: {
      move: { kind: 'move', required: true, about: 'a move of the archetype' },
      at: {
        kind: 'agent',
        required: false,
        about: 'its target: it turns toward the last known place during the wind-up',
      },
    },
  },
  guard: {
    title: 'Guard',
    channel: 'arms',
    lasts: true,
    about: 'Holds a guard of its archetype up.',
    succeeds: 'after `seconds`, or when it can’t be held any longer',
    canFail: true,
    fails: 'it is beaten down, or can’t be raised: staggered, or making a move',
    example: { do: 'guard', guard: 'high', seconds: 0.8 },
    parameters: {
      guard: { kind: 'guard', required: true, about: 'a guard of the archetype' },
      seconds: {
        kind: 'number',
        required: false,
        unit: 's',
        minimum: 0,
        maximum: 60,
        default: 60,
        about: 'how long',
      },
    },
  },
  dodge: {
    title: 'Dodge',
    channel: 'arms',
    lasts: true,
    about: 'Makes a dodge of its archetype in a direction seen from where it faces.',
    succeeds: 'when it is over',
    canFail: true,
    fails: 'it is broken off, or can’t start',
    example: { do: 'dodge', move: 'hop', way: 'back' },
    parameters: {
      move: { kind: 'move', required: true, about: 'a move of kind dodge' },
      way: {
        kind: 'pattern',
        required: false,
        options: ['back', 'left', 'right', 'forward'],
        default: 'back',
        about: 'back, left, right or forward',
      },
    },
  },
  aim: {
    title: 'Aim',
    channel: 'eyes',
    lasts: true,
    about: 'Turns toward a place as fast as the body can, and keeps to it.',
    succeeds: 'heading within `within` of the place',
    canFail: true,
    fails: 'the place is not known',
    example: { do: 'aim', toward: 'quarry', within: 4 },
    parameters: {
      toward: {
        kind: 'place',
        required: true,
        about: 'a point, or an agent whose last known place is meant',
      },
      within: {
        kind: 'number',
        required: false,
        unit: 'deg',
        minimum: 0.1,
        maximum: 180,
        default: 5,
        about: 'how exactly',
      },
    },
  },
} as const satisfies Record<string, ActionSpec>;
