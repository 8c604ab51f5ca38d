import { COMBINATIONS, PICKS } from '../choice-documents.ts';
import type { FieldSpecs, NumberSpec } from './field-spec.ts';

/** The fields of choices, their options, considerations and curves. */

const FAR = 100_000;

export const CHOICE_FIELDS = {
  combine: {
    kind: 'choice',
    label: 'Combine',
    options: COMBINATIONS,
    usual: 'mean',
    about:
      'how considerations become one number: `mean` (geometric, by importance), `product`, `sum` (weighted arithmetic mean), or `graded` rows',
  },
  pick: {
    kind: 'choice',
    label: 'Pick',
    options: PICKS,
    usual: 'best',
    about: 'the best option, or one drawn by score among those near the best',
  },
  margin: {
    kind: 'number',
    label: 'Margin',
    unit: '',
    minimum: 0,
    maximum: 1000,
    usual: 0.1,
    about: 'how far below the best an option may score and still be drawn, with `weighted`',
  },
  every: {
    kind: 'number',
    label: 'Weighs every',
    unit: 's',
    minimum: 0,
    maximum: 3600,
    usual: 0,
    about: 'from one weighing to the next; 0: each decision',
  },
  commitment: {
    kind: 'number',
    label: 'Commitment',
    unit: '',
    minimum: 0,
    maximum: 1000,
    usual: 0,
    about: 'added to the score of what runs, so that only something clearly better takes over',
  },
  minDuration: {
    kind: 'number',
    label: 'Minimum duration',
    unit: 's',
    minimum: 0,
    maximum: 3600,
    usual: 0,
    about: 'how long what was picked can’t be left for another',
  },
  minScore: {
    kind: 'number',
    label: 'Minimum score',
    unit: '',
    minimum: -1000,
    maximum: 1000,
    usual: 0,
    about: 'an option competes with a score above this',
  },
  once: {
    kind: 'flag',
    label: 'Once',
    about: 'ends with its option’s result, instead of picking again',
  },
} as const satisfies FieldSpecs;

export const OPTION_FIELDS = {
  rank: {
    kind: 'number',
    label: 'Rank',
    unit: '',
    minimum: -100,
    maximum: 100,
    whole: true,
    usual: 0,
    about: 'of the options that can run, only those of the highest rank compete',
  },
  cooldown: {
    kind: 'number',
    label: 'Cooldown',
    unit: 's',
    minimum: 0,
    maximum: 3600,
    usual: 0,
    about: 'how long it can’t be picked after it ended',
  },
  conduct: {
    kind: 'flag',
    label: 'Rule of conduct',
    about:
      'each time its guard begins to hold, the archetype’s obedience decides whether it is obeyed',
  },
} as const satisfies FieldSpecs;

export const OPTION_WEIGHT: NumberSpec = {
  kind: 'number',
  label: 'Weight',
  unit: '',
  minimum: 0,
  maximum: 1000,
  usual: 1,
  about: 'what its score is multiplied with',
};

export const OPTION_COST: NumberSpec = {
  kind: 'number',
  label: 'Cost',
  unit: '',
  minimum: -1000,
  maximum: 1000,
  usual: 0,
  about: 'taken off its score: damage to friends, danger',
};

/** What of an input becomes 0, and what becomes 1. */
export const RANGE_FIELDS = {
  from: {
    kind: 'number',
    label: 'From',
    unit: '',
    minimum: -FAR,
    maximum: FAR,
    usual: 0,
    about: 'what becomes 0; above the other end the range is turned round',
  },
  to: {
    kind: 'number',
    label: 'To',
    unit: '',
    minimum: -FAR,
    maximum: FAR,
    usual: 1,
    about: 'what becomes 1',
  },
} as const satisfies FieldSpecs;

export const CONSIDERATION_FIELDS = {
  importance: {
    kind: 'number',
    label: 'Importance',
    unit: '',
    minimum: 0,
    maximum: 100,
    usual: 1,
    about: 'how much it counts against the others',
  },
  veto: { kind: 'flag', label: 'Veto', about: 'at 0 it makes the whole score 0' },
} as const satisfies FieldSpecs;

export const GRADE_FIELDS = {
  strength: {
    kind: 'number',
    label: 'Strength',
    unit: '',
    minimum: 0,
    maximum: 1,
    required: true,
    about: 'how much it favours the option where its bands hold, 0 to 1',
  },
} as const satisfies FieldSpecs;

export const PLACES_FIELDS = {
  places: {
    kind: 'number',
    label: 'Places',
    unit: '',
    minimum: 1,
    maximum: 64,
    whole: true,
    required: true,
    about: 'how many are looked at',
  },
  within: {
    kind: 'number',
    label: 'Within',
    unit: 'm',
    minimum: 0.1,
    maximum: 200,
    required: true,
    about: 'how far around',
  },
} as const satisfies FieldSpecs;

const share = (label: string, about: string) =>
  ({ kind: 'number', label, unit: '', minimum: 0, maximum: 1, required: true, about }) as const;

/** By shape: the numbers of a curve. What becomes 0 and 1 on its way in is said by the range. */
export const CURVE_FIELDS = {
  linear: {
    slope: {
      kind: 'number',
      label: 'Slope',
      unit: '',
      minimum: -100,
      maximum: 100,
      usual: 1,
      about: 'how much it rises from 0 to 1',
    },
    offset: {
      kind: 'number',
      label: 'Offset',
      unit: '',
      minimum: -100,
      maximum: 100,
      usual: 0,
      about: 'where it begins',
    },
  },
  power: {
    exponent: {
      kind: 'number',
      label: 'Exponent',
      unit: '',
      minimum: 0.01,
      maximum: 100,
      required: true,
      about: 'above 1 it rises late, below 1 early',
    },
  },
  logistic: {
    middle: share('Middle', 'where it is one half'),
    steepness: {
      kind: 'number',
      label: 'Steepness',
      unit: '',
      minimum: -1000,
      maximum: 1000,
      required: true,
      about: 'four times its slope in the middle; below 0 it falls',
    },
  },
  bell: {
    middle: share('Middle', 'where it is 1'),
    width: {
      kind: 'number',
      label: 'Width',
      unit: '',
      minimum: 0.001,
      maximum: 10,
      required: true,
      about: 'one standard deviation',
    },
  },
  plateau: {
    from: share('From', 'where it is 1 first'),
    to: share('To', 'where it is 1 last'),
    soft: {
      kind: 'number',
      label: 'Soft',
      unit: '',
      minimum: 0,
      maximum: 1,
      usual: 0,
      about: 'how far outside it falls to 0',
    },
  },
  step: { at: share('At', 'where it jumps from 0 to 1') },
  points: {},
} as const satisfies Record<string, FieldSpecs>;

/** A band’s ends: any number there is. */
export const BAND_FIELDS = Object.fromEntries(
  (
    [
      ['from', 'From', 'where it begins to rise; left out: open'],
      ['fullFrom', 'Full from', 'where it holds wholly; left out: as `from`'],
      ['fullTo', 'Full to', 'where it holds wholly last; left out: as `to`'],
      ['to', 'To', 'where it ends; left out: open'],
    ] as const
  ).map(([field, label, about]) => [
    field,
    { kind: 'number', label, unit: '', minimum: -FAR, maximum: FAR, none: 'open', about } as const,
  ]),
) as Record<'from' | 'fullFrom' | 'fullTo' | 'to', NumberSpec>;
