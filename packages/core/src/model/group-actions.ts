import type { ActionSpec } from './action-spec.ts';

/** What agents do with each other, and with what lies and stands about. */
export const GROUP_ACTIONS = {
  search: {
    title: 'Search',
    channel: 'legs',
    lasts: true,
    about:
      'Looks at places around where somebody was last known to be. A squad shares one search: each place is looked at once, each member takes another, and when none is left the search is widened. It is forgotten three seconds after the last searcher has left.',
    succeeds: 'every place has been looked at, and no widening is left',
    fails: 'the place is not known, or nothing around it can be reached',
    parameters: {
      around: {
        kind: 'place',
        required: true,
        about: 'a point, or an agent whose last known place is meant',
      },
      radius: {
        kind: 'number',
        required: false,
        unit: 'm',
        minimum: 1,
        maximum: 200,
        default: 5,
        about: 'how far from there',
      },
      spacing: {
        kind: 'number',
        required: false,
        unit: 'm',
        minimum: 0.5,
        maximum: 50,
        default: 2.5,
        about: 'from one place to the next',
      },
      pattern: {
        kind: 'pattern',
        required: false,
        options: ['ring', 'grid'],
        default: 'ring',
        about: 'how the places lie',
      },
      look: {
        kind: 'number',
        required: false,
        unit: 's',
        minimum: 0,
        maximum: 60,
        default: 0.8,
        about: 'how long each is looked at',
      },
      widen: {
        kind: 'number',
        required: false,
        minimum: 0,
        maximum: 8,
        default: 1,
        about: 'how often the search is widened when it has found nothing',
      },
    },
  },
  surround: {
    title: 'Surround',
    channel: 'legs',
    lasts: true,
    about:
      'Takes a place of its own around an agent, shared out so that no two have the same, and keeps it as the agent moves.',
    succeeds: 'never: it goes on until it is stopped',
    fails: 'it is not known where the agent is, or every place around it is taken',
    parameters: {
      whom: {
        kind: 'agent',
        required: true,
        about: 'the agent in the middle, at its last known place',
      },
      distance: {
        kind: 'number',
        required: false,
        unit: 'm',
        minimum: 0.5,
        maximum: 50,
        default: 1.2,
        about: 'from the agent',
      },
      places: {
        kind: 'number',
        required: false,
        minimum: 1,
        maximum: 32,
        default: 6,
        about: 'how many places there are around it',
      },
    },
  },
  tellSquad: {
    title: 'Tell squad',
    channel: 'voice',
    lasts: false,
    about:
      'Sends word to all members of the squad in its reach. They get a percept of the sense `told`, after the squad’s delay.',
    succeeds: 'at once',
    fails: 'it has no squad, or the place is not known',
    parameters: {
      what: { kind: 'word', required: true, about: 'a word for it, which `told.kind` gives' },
      place: {
        kind: 'place',
        required: true,
        about: 'a point, or an agent whose last known place is meant',
      },
      of: { kind: 'agent', required: false, about: 'the agent it is about' },
    },
  },
  makeNoise: {
    title: 'Make noise',
    channel: 'voice',
    lasts: false,
    about: 'Makes a noise that ears in reach hear.',
    succeeds: 'at once',
    fails: 'never',
    parameters: {
      kind: { kind: 'word', required: true, about: 'a word for it, which `heard.kind` gives' },
      reach: {
        kind: 'number',
        required: true,
        unit: 'm',
        minimum: 0.1,
        maximum: 200,
        about: 'how far it is heard',
      },
    },
  },
  pickUp: {
    title: 'Pick up',
    channel: 'arms',
    lasts: true,
    about: 'Takes a thing that lies in reach.',
    succeeds: 'the thing is in its hands',
    fails:
      'the thing is not known, out of reach, in the air or in other hands, or the own hands are full',
    parameters: {
      thing: { kind: 'thing', required: true, about: 'the thing' },
    },
  },
  drop: {
    title: 'Drop',
    channel: 'arms',
    lasts: false,
    about: 'Sets down what it carries: heard a quarter as far as when it lands from a throw.',
    succeeds: 'at once',
    fails: 'the hands are empty',
    parameters: {},
  },
  throw: {
    title: 'Throw',
    channel: 'arms',
    lasts: false,
    about:
      'Throws what it carries, at most 9 m far. It flies over what is low and falls before what is high, and its landing is heard.',
    succeeds: 'at once',
    fails: 'the hands are empty, or the place is not known',
    parameters: {
      at: {
        kind: 'place',
        required: true,
        about: 'a point, or an agent whose last known place is meant',
      },
    },
  },
  use: {
    title: 'Use gate',
    channel: 'arms',
    lasts: true,
    about: 'Opens a gate that is closed, or closes one that is open.',
    succeeds: 'the gate has moved',
    fails: 'the gate is out of reach or locked, or somebody stands in it',
    parameters: {
      gate: { kind: 'gate', required: true, about: 'a gate of the ground by name' },
    },
  },
  wake: {
    title: 'Wake',
    channel: 'arms',
    lasts: true,
    about: 'Shakes a sleeper awake.',
    succeeds: 'the sleeper is awake',
    fails: 'nobody is known, they are out of reach, or awake already',
    parameters: {
      whom: { kind: 'agent', required: true, about: 'the sleeper' },
    },
  },
} as const satisfies Record<string, ActionSpec>;
