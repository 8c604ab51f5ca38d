import {
  MOST_OF_A_WAVE,
  poolSize,
  SCHEDULE_ENDS,
  WAVE_ORDERS,
  WAVE_RETURNS,
  WAVE_STARTS,
} from '../director-documents.ts';
import type { FieldSpecs } from './field-spec.ts';

/** The fields of waves, schedules and scores. */

export const WAVE_FIELDS = {
  count: {
    kind: 'number',
    label: 'Count',
    unit: '',
    minimum: 1,
    maximum: 10_000,
    whole: true,
    required: true,
    about: 'come each time',
  },
  maxAlive: {
    kind: 'number',
    label: 'Most alive',
    unit: '',
    minimum: 1,
    maximum: MOST_OF_A_WAVE,
    whole: true,
    usual: ({ count }) => poolSize({ count: Number(count) }),
    about: 'at most; the others wait until one has died',
  },
  gap: {
    kind: 'number',
    label: 'Gap',
    unit: 's',
    minimum: 0,
    maximum: 3600,
    usual: 1,
    about: 'from one arrival to the next',
  },
  times: {
    kind: 'number',
    label: 'Times',
    unit: '',
    minimum: 0,
    maximum: 10_000,
    whole: true,
    usual: 1,
    about: 'they come; 0 is without end',
  },
  delay: {
    kind: 'number',
    label: 'Delay',
    unit: 's',
    minimum: 0,
    maximum: 86_400,
    none: 'none',
    about: 'until they come again; needed where they come more than once',
  },
  after: {
    kind: 'choice',
    label: 'Counted from',
    options: WAVE_RETURNS,
    usual: 'last',
    about: 'the death of the last one, or for each one its own',
  },
  order: {
    kind: 'choice',
    label: 'Spawn order',
    options: WAVE_ORDERS,
    usual: 'turn',
    about: 'which of the spawn places: in turn, at random, or the farthest from any player',
  },
  starts: {
    kind: 'choice',
    label: 'Starts with',
    options: WAVE_STARTS,
    usual: 'run',
    about: 'the run, the director, or a played agent that enters the zone',
  },
} as const satisfies FieldSpecs;

export const SCHEDULE_FIELDS = {
  afterwards: {
    kind: 'choice',
    label: 'Afterwards',
    options: SCHEDULE_ENDS,
    usual: 'again',
    about: 'after the last mode: the first again, nothing more, or the end of the run',
  },
} as const satisfies FieldSpecs;

export const MODE_FIELDS = {
  for: {
    kind: 'number',
    label: 'Lasts',
    unit: 's',
    minimum: 0.1,
    maximum: 86_400,
    required: true,
    about: 'how long',
  },
} as const satisfies FieldSpecs;

export const SCORE_FIELDS = {
  start: {
    kind: 'number',
    label: 'Starts at',
    unit: 'points',
    minimum: -1e9,
    maximum: 1e9,
    usual: 0,
    about: 'when a run begins',
  },
} as const satisfies FieldSpecs;
