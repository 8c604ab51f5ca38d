import { CHANNELS } from '../../terms/channels.ts';
import { SENSES } from '../../terms/senses.ts';
import {
  boolean,
  choice,
  described,
  either,
  EVENT,
  EXPRESSION,
  isObject,
  list,
  NAME,
  named,
  needed,
  NOTE,
  number,
  part,
  plainNumber,
  record,
  text,
  TITLE,
  word,
  type Schema,
  type TypeOf,
} from '../schema/schema.ts';
import { actions } from './action.ts';
import { activitySchema, rulesSchema, treeSchema } from './behaviour.ts';
import { choiceOfMindSchema } from './choice.ts';

/** A mind is a state machine, or one activity that starts again whenever it ends. */

export const MEMORY_TYPES = [
  'number',
  'flag',
  'text',
  'point',
  'agent',
  'thing',
  'list of number',
  'list of text',
  'list of point',
  'list of agent',
] as const;
export type MemoryType = (typeof MEMORY_TYPES)[number];
export const MEMORY_SCOPES = ['self', 'squad', 'world'] as const;
export type MemoryScope = (typeof MEMORY_SCOPES)[number];
export const UNITS = ['m', 's', 'm/s', 'deg'] as const;
export type UnitName = (typeof UNITS)[number];
export const DEFAULT_LIST_LENGTH = 16;

const DEFAULTS = {
  number: plainNumber(),
  boolean: boolean(),
  string: text(),
};

export const MEMORY_FIELDS = {
  type: needed(choice('Type', MEMORY_TYPES, 'the type of its values')),
  unit: choice('Unit', UNITS, 'of a number'),
  default: either(
    Object.values(DEFAULTS),
    (value) =>
      DEFAULTS[typeof value as keyof typeof DEFAULTS] ?? {
        refused: 'must be a number, true, false or text',
      },
  ),
  forgetAfter: number('Forget after', 's', [0.01, 86_400], 'how long after the last write', {
    none: 'never',
  }),
  scope: choice('Scope', MEMORY_SCOPES, 'whose it is', { usual: 'self' }),
  capacity: number('Capacity', '', [1, 256], 'of a list; the oldest gives way', {
    whole: true,
    usual: DEFAULT_LIST_LENGTH,
  }),
  rate: number('Rate of change', '/s', [-1e6, 1e6], 'of a number, by itself; below 0 it falls', {
    none: 'none',
  }),
  min: number('Minimum', '', [-1e9, 1e9], 'of a number: it never falls below', { none: 'no end' }),
  max: number('Maximum', '', [-1e9, 1e9], 'of a number: it never rises above', { none: 'no end' }),
  note: NOTE,
};
const memoryKey = part({ title: TITLE, ...MEMORY_FIELDS });
export type MemoryKeyDocument = TypeOf<typeof memoryKey>;

export const TRANSITION_FIELDS = {
  for: number('For', 's', [0, 3600], 'how long the guard must hold without a break', {
    none: 'at once',
  }),
  after: number('After', 's', [0, 3600], 'how long after the state was entered', {
    none: 'at any time',
  }),
};
const transition = part({
  to: NAME,
  on: EVENT,
  when: EXPRESSION,
  ...TRANSITION_FIELDS,
  urgent: boolean(),
  internal: boolean(),
  do: actions,
  note: NOTE,
});
export type TransitionDocument = TypeOf<typeof transition>;

export const STATE_KINDS = ['parallel', 'final', 'history', 'deepHistory'] as const;
export type StateKind = (typeof STATE_KINDS)[number];
export const STATE_FIELDS = {
  kind: choice('Kind', STATE_KINDS, 'left out: simple, or compound where it has states inside'),
};
const states = list(
  named<StateDocument>('state', (): Schema => state),
  200,
  1,
);
const state = part({
  id: needed(NAME),
  title: TITLE,
  note: NOTE,
  ...STATE_FIELDS,
  initial: NAME,
  states,
  entry: actions,
  activity: activitySchema,
  exit: actions,
  transitions: list(transition, 64),
  attention: described(
    list(word(SENSES), SENSES.length),
    'while here: which sense wins the attention, the first before the others; senses left out are ignored',
  ),
});
export interface StateDocument extends TypeOf<typeof state> {}

const machine = part({ initial: needed(NAME), states: needed(states) });
export interface MachineDocument extends TypeOf<typeof machine> {}

export const CADENCE_EVERY = needed(
  number('Decides every', 's', [0.01, 60], 'from decision to decision'),
);
const everySeconds = part({ every: CADENCE_EVERY }, { tag: 'every' });
const onEvent = part({ on: needed(word(['event'])) }, { tag: 'on' });
const cadence = either([everySeconds, onEvent], (value) =>
  isObject(value) && 'on' in value ? onEvent : everySeconds,
);
export type CadenceDocument = TypeOf<typeof cadence>;

export const mindSchema = part(
  {
    title: needed(TITLE),
    note: NOTE,
    memory: record(memoryKey),
    cadence: described(cadence, 'when it decides; left out: every tick'),
    channels: described(
      list(word(CHANNELS), CHANNELS.length),
      'the only channels its actions may use; left out: all',
    ),
    machine,
    activity: activitySchema,
    trees: record(treeSchema),
    rules: record(rulesSchema),
    choices: record(choiceOfMindSchema),
  },
  {
    oneOf: ['machine', 'activity'],
    fault: ({ machine: hasMachine, activity: hasActivity }) => {
      if ((hasMachine === undefined) !== (hasActivity === undefined)) return undefined;
      return hasMachine === undefined
        ? 'needs a machine, or an activity that is the whole mind'
        : 'has a machine and an activity; it takes one of them. Put the activity into a state';
    },
  },
);
export interface MindDocument extends TypeOf<typeof mindSchema> {}
