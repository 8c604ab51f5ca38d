import { ACTIONS, type ActionName } from './actions/actions.ts';
import { NODES, type NodeDocument, type NodeKindName } from './documents.ts';
import type {
  ChoiceDocument,
  MemoryKeyDocument,
  RulesDocument,
  TreeDocument,
} from './documents.ts';

/**
 * What the examples of actions and nodes may speak of. A test puts each into a mind that has these and has it
 * checked like any other.
 */

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

/** An example of every action and of every kind of node. */
export const EXAMPLES = Object.fromEntries(
  Object.entries({ ...ACTIONS, ...NODES }).map(([name, { example }]) => [name, example]),
) as unknown as Readonly<Record<ActionName | NodeKindName, NodeDocument>>;
