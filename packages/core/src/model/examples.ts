import type { ActionName } from './actions/actions.ts';
import type {
  ActionDocument,
  ChoiceDocument,
  MemoryKeyDocument,
  NodeDocument,
  RulesDocument,
  TreeDocument,
} from './documents.ts';
import type { NodeKindName } from './documents.ts';

/**
 * An example of every action and every kind of node, for the reference. A test puts each into a mind with
 * the memory below and has it checked like any other.
 */

/** What the examples may speak of. */
export const EXAMPLE_MEMORY: Record<string, MemoryKeyDocument> = {
  quarry: { type: 'agent', forgetAfter: 20 },
  doubt: { type: 'number', default: 0 },
  combed: { type: 'list of point', scope: 'squad', capacity: 8 },
};

export const EXAMPLE_TREES: Record<string, TreeDocument> = {
  lookAbout: {
    parameters: { sweep: 'number' },
    root: {
      sequence: [
        { do: 'turn', by: '-sweep' },
        { do: 'turn', by: '2 * sweep' },
      ],
    },
  },
};

export const EXAMPLE_CHOICES: Record<string, ChoiceDocument> = {
  whatNow: {
    title: 'What now?',
    every: 0.3,
    commitment: 0.1,
    options: [
      {
        id: 'close',
        title: 'Close in',
        when: 'known(quarry)',
        considerations: [
          { input: 'distance(quarry)', from: 0, to: 8 },
          { input: 'awareness(quarry)', curve: { shape: 'power', exponent: 2 } },
        ],
        does: { do: 'moveTo', to: 'quarry', within: 1.5 },
      },
      {
        id: 'watch',
        title: 'Watch it',
        considerations: [{ input: 'distance(quarry)', from: 4, to: 1 }],
        does: { do: 'face', toward: 'attention.place' },
      },
      {
        id: 'rounds',
        title: 'Go round',
        weight: 0.2,
        does: { do: 'followRoute', route: 'self.route' },
      },
    ],
  },
};

export const EXAMPLE_RULES: Record<string, RulesDocument> = {
  manners: {
    rows: [
      {
        when: 'sees(quarry)',
        edge: true,
        do: [{ do: 'say', text: 'There!' }],
        else: [{ do: 'say', text: 'Where did it go?' }],
      },
    ],
  },
};

export const ACTION_EXAMPLES: Record<ActionName, ActionDocument> = {
  strike: { do: 'strike', move: 'sweep', at: 'quarry' },
  guard: { do: 'guard', guard: 'high', seconds: 0.8 },
  dodge: { do: 'dodge', move: 'hop', way: 'back' },
  aim: { do: 'aim', toward: 'quarry', within: 4 },
  bring: { do: 'bring', wave: 'beetles' },
  sendAway: { do: 'sendAway', group: 'beetles' },
  announce: { do: 'announce', event: 'bell.rings', to: 'keepers' },
  addScore: { do: 'addScore', score: 'baskets', points: 2 },
  setMode: { do: 'setMode', mode: 'guarding', seconds: 8 },
  setLight: { do: 'setLight', to: 0.2, seconds: 4 },
  setGate: { do: 'setGate', gate: 'northGate', to: 'open' },
  end: { do: 'end', result: 'won', words: 'The harvest is in.' },
  moveTo: { do: 'moveTo', to: 'quarry', within: 0.9 },
  followRoute: { do: 'followRoute', route: 'self.route' },
  face: { do: 'face', toward: 'attention.place' },
  turn: { do: 'turn', by: -110 },
  wait: { do: 'wait', seconds: 2, uninterrupted: true },
  stop: { do: 'stop' },
  setGait: { do: 'setGait', gait: 'run' },
  say: { do: 'say', text: 'Who walks there?' },
  remember: { do: 'remember', key: 'quarry', value: 'attention.of' },
  add: { do: 'add', key: 'combed', value: 'self.place' },
  forget: { do: 'forget', key: 'quarry' },
  raise: { do: 'raise', event: 'alarm.near' },
  wander: { do: 'wander', around: 'self.post', radius: 4, pause: 2 },
  flee: { do: 'flee', from: 'quarry', until: 12 },
  circle: { do: 'circle', around: 'quarry', distance: 3, turn: 'counterclockwise' },
  keepDistance: { do: 'keepDistance', from: 'quarry', min: 3, max: 6 },
  returnToPost: { do: 'returnToPost' },
  learnWaypoint: { do: 'learnWaypoint', route: 'self.route', at: 'heard.place' },
  search: {
    do: 'search',
    around: 'lastSeen(quarry)',
    radius: 6,
    spacing: 2.5,
    pattern: 'ring',
    look: 0.8,
    widen: 2,
  },
  surround: { do: 'surround', target: 'quarry', distance: 1.1, places: 5 },
  tellSquad: { do: 'tellSquad', what: 'seen', place: 'quarry', of: 'quarry' },
  makeNoise: { do: 'makeNoise', kind: 'whistle', reach: 15 },
  pickUp: { do: 'pickUp', thing: 'found.thing' },
  drop: { do: 'drop' },
  throw: { do: 'throw', at: 'quarry' },
  use: { do: 'use', gate: 'northGate' },
  wake: { do: 'wake', target: 'found.of' },
};

export const NODE_EXAMPLES: Record<NodeKindName, NodeDocument> = {
  sequence: {
    sequence: [
      { do: 'moveTo', to: 'self.post' },
      { do: 'wait', seconds: 2 },
    ],
  },
  selector: {
    selector: [
      {
        when: 'sees(quarry)',
        holds: true,
        preempts: true,
        sequence: [{ do: 'moveTo', to: 'quarry', within: 1 }],
      },
      { do: 'followRoute', route: 'self.route' },
    ],
  },
  parallel: {
    parallel: [
      { do: 'moveTo', to: 'self.post' },
      { do: 'face', toward: 'attention.place' },
    ],
    successes: 1,
    failures: 2,
  },
  random: {
    random: [
      { do: 'wait', seconds: 1, weight: 3 },
      { do: 'turn', by: 180, weight: '1 + doubt' },
    ],
  },
  invert: { invert: { condition: 'sees(quarry)' } },
  succeed: { succeed: { do: 'moveTo', to: 'lastSeen(quarry)' } },
  fail: { fail: { do: 'say', text: 'No use.' } },
  repeat: { repeat: { do: 'turn', by: 90 }, times: 4 },
  limit: { limit: { do: 'say', text: 'I warn you only once.' }, times: 1 },
  cooldown: { cooldown: { do: 'say', text: 'Hm?' }, seconds: 5 },
  timeout: { timeout: { do: 'moveTo', to: 'quarry', within: 1 }, seconds: 8 },
  delay: { delay: { do: 'say', text: 'Wait, was that …?' }, seconds: 0.4 },
  chance: { chance: { do: 'turn', by: 180 }, probability: 0.3 },
  condition: { condition: 'distance(self.post) < 1' },
  tree: { tree: 'lookAbout', with: { sweep: 110 } },
  rules: { rules: 'manners' },
  choice: { choice: 'whatNow' },
};
