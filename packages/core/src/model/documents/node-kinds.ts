/**
 * The nodes of trees, as data: the schema, the checker, the editors and the reference all read this one
 * table. What each does while it runs, and how it is compiled, stands in `mind/nodes`. Actions are nodes too.
 */

/** What must be there has a value that a new node begins with (`first`), unless it is chosen before, as names are. */
export type NodeFieldSpec = { about: string } & (
  | { kind: 'node' | 'nodes' | 'flag' | 'result' | 'name' | 'arguments' }
  | { kind: 'expression'; first: string }
  | { kind: 'number'; unit?: 's'; minimum: number; maximum: number; required: true; first: number }
  | { kind: 'whole'; minimum: number; maximum: number; required: false }
  | { kind: 'whole'; minimum: number; maximum: number; required: true; first: number }
);

export interface NodeSpec {
  title: string;
  about: string;
  succeeds: string;
  fails: string;
  /** For the reference: one in use, with what `examples.ts` has. */
  example: object;
  /** The first field names the kind. */
  fields: Record<string, NodeFieldSpec>;
}

const child = { kind: 'node', about: 'the node it wraps' } as const;
const children = { kind: 'nodes', about: 'its children, in order' } as const;
const restart = {
  kind: 'flag',
  about: '`true`: begins again at the first child each decision, instead of at the one that runs',
} as const;
const seconds = (first: number, about: string) =>
  ({ kind: 'number', unit: 's', minimum: 0, maximum: 3600, required: true, first, about }) as const;

export const NODES = {
  sequence: {
    title: 'Sequence',
    about:
      'Runs its children one after the other while they succeed. Resumes at the child that runs.',
    succeeds: 'when the last child has succeeded',
    fails: 'as soon as one child fails',
    example: {
      sequence: [
        { do: 'moveTo', to: 'self.post' },
        { do: 'wait', seconds: 2 },
      ],
    },
    fields: { sequence: children, restart },
  },
  selector: {
    title: 'Selector',
    about:
      'Tries its children in order until one does not fail. Resumes at the child that runs; a child whose guard `preempts` takes over from a later one.',
    succeeds: 'as soon as one child succeeds',
    fails: 'when the last child has failed',
    example: {
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
    fields: { selector: children, restart },
  },
  parallel: {
    title: 'Parallel',
    about: 'Runs all its children in each decision, and stops the rest when it is decided.',
    succeeds: 'when `successes` children have succeeded (left out: all)',
    fails: 'when `failures` children have failed (left out: 1), or too few are left to succeed',
    example: {
      parallel: [
        { do: 'moveTo', to: 'self.post' },
        { do: 'face', toward: 'attention.place' },
      ],
      successes: 1,
      failures: 2,
    },
    fields: {
      parallel: children,
      successes: {
        kind: 'whole',
        minimum: 1,
        maximum: 64,
        required: false,
        about: 'how many must succeed',
      },
      failures: {
        kind: 'whole',
        minimum: 1,
        maximum: 64,
        required: false,
        about: 'how many must fail',
      },
    },
  },
  random: {
    title: 'Weighted random',
    about:
      'Draws one child by its `weight` when it starts, from the agent’s own random stream, and keeps it until it ends.',
    succeeds: 'with the drawn child',
    fails: 'with the drawn child, or when no weight is above 0',
    example: {
      random: [
        { do: 'wait', seconds: 1, weight: 3 },
        { do: 'turn', by: 180, weight: '1 + doubt' },
      ],
    },
    fields: { random: children },
  },
  invert: {
    title: 'Invert',
    about: 'Turns its child’s success into failure, and the reverse.',
    succeeds: 'when its child fails',
    fails: 'when its child succeeds',
    example: { invert: { condition: 'sees(quarry)' } },
    fields: { invert: child },
  },
  succeed: {
    title: 'Succeed',
    about: 'Runs its child and always succeeds.',
    succeeds: 'when its child ends',
    fails: 'only by its guard',
    example: { succeed: { do: 'moveTo', to: 'lastSeen(quarry)' } },
    fields: { succeed: child },
  },
  fail: {
    title: 'Fail',
    about: 'Runs its child and always fails.',
    succeeds: 'never',
    fails: 'when its child ends',
    example: { fail: { do: 'say', text: 'No use.' } },
    fields: { fail: child },
  },
  repeat: {
    title: 'Repeat',
    about:
      'Runs its child over and over: `times` rounds, `until` it gives a result, or without end. A round that began in this decision and is over already is the last of the decision.',
    succeeds: 'after `times` rounds, or with the result it waits for; without either it never ends',
    fails: 'when `times` rounds are over without the result it waits for',
    example: { repeat: { do: 'turn', by: 90 }, times: 4 },
    fields: {
      repeat: child,
      times: {
        kind: 'whole',
        minimum: 1,
        maximum: 100_000,
        required: false,
        about: 'how many rounds',
      },
      until: { kind: 'result', about: '`success` or `failure`: the result that ends it' },
    },
  },
  limit: {
    title: 'Limit',
    about:
      'Lets its child start so many times in the agent’s life. A start that the child’s own guard refuses does not count.',
    succeeds: 'with its child',
    fails: 'with its child, or when its starts are used up',
    example: { limit: { do: 'say', text: 'I warn you only once.' }, times: 1 },
    fields: {
      limit: child,
      times: {
        kind: 'whole',
        minimum: 1,
        maximum: 100_000,
        required: true,
        first: 1,
        about: 'how many starts',
      },
    },
  },
  cooldown: {
    title: 'Cooldown',
    about: 'Lets its child start only this long after it last ended or was stopped.',
    succeeds: 'with its child',
    fails: 'with its child, while it cools down, or when the time is not known',
    example: { cooldown: { do: 'say', text: 'Hm?' }, seconds: 5 },
    fields: { cooldown: child, seconds: seconds(2, 'how long after the child’s end') },
  },
  timeout: {
    title: 'Timeout',
    about: 'Stops its child when it has run for so long.',
    succeeds: 'with its child',
    fails: 'with its child, or when the time is over',
    example: { timeout: { do: 'moveTo', to: 'quarry', within: 1 }, seconds: 8 },
    fields: { timeout: child, seconds: seconds(5, 'how long the child may run') },
  },
  delay: {
    title: 'Delay',
    about: 'Waits before it starts its child.',
    succeeds: 'with its child',
    fails: 'with its child',
    example: { delay: { do: 'say', text: 'Wait, was that …?' }, seconds: 0.4 },
    fields: { delay: child, seconds: seconds(1, 'how long it waits') },
  },
  chance: {
    title: 'Chance',
    about: 'Draws when it starts, from the agent’s own random stream: its child, or failure.',
    succeeds: 'with its child',
    fails: 'with its child, or when the draw goes against it',
    example: { chance: { do: 'turn', by: 180 }, probability: 0.3 },
    fields: {
      chance: child,
      probability: {
        kind: 'number',
        minimum: 0,
        maximum: 1,
        required: true,
        first: 0.5,
        about: 'the probability that the child starts, 0 to 1',
      },
    },
  },
  condition: {
    title: 'Condition',
    about: 'Tests whether an expression holds. Never runs on.',
    succeeds: 'when it holds',
    fails: 'when it does not',
    example: { condition: 'distance(self.post) < 1' },
    fields: {
      condition: {
        kind: 'expression',
        first: 'attention.strength > 0.5',
        about: 'what must hold',
      },
    },
  },
  tree: {
    title: 'Subtree',
    about: 'Another tree of this mind, with its parameters bound to expressions.',
    succeeds: 'with that tree',
    fails: 'with that tree',
    example: { tree: 'lookAbout', with: { sweep: 110 } },
    fields: {
      tree: { kind: 'name', about: 'the tree’s name' },
      with: { kind: 'arguments', about: 'an expression, or a number, for each of its parameters' },
    },
  },
  choice: {
    title: 'Choice',
    about:
      'A choice of this mind: it scores its options, runs the one with the highest score, and scores them again.',
    succeeds: 'with its option, where the choice is made `once`; else never',
    fails:
      'with its option, or where no option competes, where the choice is made `once`; else never',
    example: { choice: 'whatNow' },
    fields: { choice: { kind: 'name', about: 'the choice’s name' } },
  },
  rules: {
    title: 'Rules',
    about: 'Rules of this mind, all looked at each decision. They never come to an end.',
    succeeds: 'never',
    fails: 'only by its guard',
    example: { rules: 'manners' },
    fields: { rules: { kind: 'name', about: 'the rules’ name' } },
  },
} as const satisfies Record<string, NodeSpec>;

export type NodeKindName = keyof typeof NODES;
export const NODE_KINDS = Object.keys(NODES) as NodeKindName[];

export function nodeSpec(kind: NodeKindName): NodeSpec {
  return NODES[kind];
}
