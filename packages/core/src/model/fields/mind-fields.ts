import { BREAKPOINT_KINDS, MEMORY_SCOPES, MEMORY_TYPES, STATE_KINDS, UNITS } from '../documents.ts';
import { DEFAULT_LIST_LENGTH, DEFAULT_TICKS_PER_SECOND } from '../documents.ts';
import type { FieldSpecs, NumberSpec } from './field-spec.ts';

/** The fields of minds, and those of the project as a whole. */

export const MEMORY_FIELDS = {
  type: {
    kind: 'choice',
    label: 'Type',
    options: MEMORY_TYPES,
    required: true,
    about: 'the type of its values',
  },
  unit: { kind: 'choice', label: 'Unit', options: UNITS, about: 'of a number' },
  forgetAfter: {
    kind: 'number',
    label: 'Forget after',
    unit: 's',
    minimum: 0.01,
    maximum: 86_400,
    none: 'never',
    about: 'how long after the last write',
  },
  scope: {
    kind: 'choice',
    label: 'Scope',
    options: MEMORY_SCOPES,
    usual: 'self',
    about: 'whose it is',
  },
  capacity: {
    kind: 'number',
    label: 'Capacity',
    unit: '',
    minimum: 1,
    maximum: 256,
    whole: true,
    usual: DEFAULT_LIST_LENGTH,
    about: 'of a list; the oldest gives way',
  },
  rate: {
    kind: 'number',
    label: 'Rate of change',
    unit: '/s',
    minimum: -1e6,
    maximum: 1e6,
    none: 'none',
    about: 'of a number, by itself; below 0 it falls',
  },
  min: {
    kind: 'number',
    label: 'Minimum',
    unit: '',
    minimum: -1e9,
    maximum: 1e9,
    none: 'no end',
    about: 'of a number: it never falls below',
  },
  max: {
    kind: 'number',
    label: 'Maximum',
    unit: '',
    minimum: -1e9,
    maximum: 1e9,
    none: 'no end',
    about: 'of a number: it never rises above',
  },
} as const satisfies FieldSpecs;

export const STATE_FIELDS = {
  kind: {
    kind: 'choice',
    label: 'Kind',
    options: STATE_KINDS,
    about: 'left out: simple, or compound where it has states inside',
  },
} as const satisfies FieldSpecs;

export const TRANSITION_FIELDS = {
  for: {
    kind: 'number',
    label: 'For',
    unit: 's',
    minimum: 0,
    maximum: 3600,
    none: 'at once',
    about: 'how long the guard must hold without a break',
  },
  after: {
    kind: 'number',
    label: 'After',
    unit: 's',
    minimum: 0,
    maximum: 3600,
    none: 'at any time',
    about: 'how long after the state was entered',
  },
} as const satisfies FieldSpecs;

export const CADENCE_EVERY: NumberSpec = {
  kind: 'number',
  label: 'Decides every',
  unit: 's',
  minimum: 0.01,
  maximum: 60,
  required: true,
  about: 'from decision to decision',
};

export const SEED: NumberSpec = {
  kind: 'number',
  label: 'Seed',
  unit: '',
  minimum: 0,
  maximum: Number.MAX_SAFE_INTEGER,
  whole: true,
  none: 'as the project says',
  about: 'where every random draw of a run comes from',
};

export const BREAKPOINT_FIELDS = {
  on: {
    kind: 'choice',
    label: 'When',
    options: Object.keys(BREAKPOINT_KINDS),
    required: true,
    about: 'what is to happen',
  },
  after: {
    kind: 'number',
    label: 'From which time on',
    unit: '',
    minimum: 1,
    maximum: 1_000_000,
    whole: true,
    usual: 1,
    about: 'how often it must have happened in the run for the run to stop',
  },
  off: { kind: 'flag', label: 'Off', about: 'it stops nothing' },
} as const satisfies FieldSpecs;

export const PROJECT_FIELDS = {
  ticksPerSecond: {
    kind: 'number',
    label: 'Ticks per second',
    unit: '',
    minimum: 10,
    maximum: 120,
    whole: true,
    usual: DEFAULT_TICKS_PER_SECOND,
    about: 'how many steps a second is divided into',
  },
} as const satisfies FieldSpecs;

/** What a number is in a tier. */
export const TIER_CHANGE_FIELDS = {
  value: {
    kind: 'number',
    label: 'Value',
    unit: '',
    minimum: -1_000_000,
    maximum: 1_000_000,
    none: 'a factor',
    about: 'what it is there',
  },
  factor: {
    kind: 'number',
    label: 'Factor',
    unit: '',
    minimum: 0,
    maximum: 1000,
    none: 'a value',
    about: 'what it is multiplied with there',
  },
} as const satisfies FieldSpecs;

/** How likely a child of `random` is drawn, against the weights of the others. */
export const CHILD_WEIGHT: NumberSpec = {
  kind: 'number',
  label: 'Weight',
  unit: '',
  minimum: 0,
  maximum: 1_000_000,
  usual: 1,
  about: 'how likely it is drawn, against the weights of the others',
};

/** A tick of a recording. */
export const INPUT_TICK: NumberSpec = {
  kind: 'number',
  label: 'Tick',
  unit: 'ticks',
  minimum: 1,
  maximum: 10_000_000,
  whole: true,
  required: true,
  about: 'in which it is done',
};

/** A direction of the legs along one axis. */
export const STEERING: NumberSpec = {
  kind: 'number',
  label: 'Direction',
  unit: '',
  minimum: -1,
  maximum: 1,
  usual: 0,
  about: 'of the legs',
};
