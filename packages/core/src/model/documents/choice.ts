import { STANCES } from '../../terms/stances.ts';
import {
  choice,
  described,
  either,
  EXPRESSION,
  flag,
  isObject,
  list,
  NAME,
  nameOf,
  needed,
  NOTE,
  number,
  numberOrExpression,
  pair,
  part,
  record,
  tagged,
  TITLE,
  TRUE,
  word,
  type EitherSchema,
  type Fields,
  type PartSchema,
  type TypeOf,
  type TypeOfFields,
} from '../schema/schema.ts';
import { nodeSchema } from './node.ts';

/** How minds weigh what to do: choices, what speaks for each option, and the bands numbers are named by. */

const FAR = 100_000;

/** How an option's considerations become one number. */
export const COMBINATIONS = ['mean', 'product', 'sum', 'graded'] as const;
export type Combination = (typeof COMBINATIONS)[number];

/** The ends of an input’s range. */
export const RANGE_FIELDS = {
  from: number(
    'From',
    '',
    [-FAR, FAR],
    'the value that counts as 0; greater than the other end, it inverts the range',
    { usual: 0 },
  ),
  to: number('To', '', [-FAR, FAR], 'the value that counts as 1', { usual: 1 }),
};

const share = (label: string, about: string) => needed(number(label, '', [0, 1], about));

/**
 * A shape of curves: what people call it, the formula of its y (which is then held between 0 and 1), its fields, and
 * the values that a new one begins with.
 */
const shape = <F extends Fields>(
  title: string,
  formula: string,
  fields: F,
  first: TypeOfFields<F>,
) => ({
  title,
  formula,
  fields,
  first,
});

/** The range says which values enter a curve as 0 and 1. */
export const CURVES = {
  linear: shape(
    'straight',
    'offset + slope * x',
    {
      slope: number('Slope', '', [-100, 100], 'how much it rises from 0 to 1', { usual: 1 }),
      offset: number('Offset', '', [-100, 100], 'where it begins', { usual: 0 }),
    },
    {},
  ),
  power: shape(
    'power',
    'x ^ exponent',
    {
      exponent: needed(number('Exponent', '', [0.01, 100], 'above 1 it rises late, below 1 early')),
    },
    { exponent: 2 },
  ),
  logistic: shape(
    'logistic',
    '1 / (1 + exp(-steepness * (x - middle)))',
    {
      middle: share('Middle', 'where it is one half'),
      steepness: needed(
        number(
          'Steepness',
          '',
          [-1000, 1000],
          'four times its slope in the middle; below 0 it falls',
        ),
      ),
    },
    { middle: 0.5, steepness: 10 },
  ),
  bell: shape(
    'bell',
    'exp(-0.5 * ((x - middle) / width) ^ 2)',
    {
      middle: share('Middle', 'where it is 1'),
      width: needed(number('Width', '', [0.001, 10], 'one standard deviation')),
    },
    { middle: 0.5, width: 0.15 },
  ),
  plateau: shape(
    'plateau',
    't ^ 2 * (3 - 2 * t), where t = 1 - max(0, from - x, x - to) / soft, at least 0',
    {
      from: share('From', 'where it is 1 first'),
      to: share('To', 'where it is 1 last'),
      soft: number('Soft', '', [0, 1], 'how far outside it falls to 0', { usual: 0 }),
    },
    { from: 0.3, to: 0.6, soft: 0.2 },
  ),
  step: shape(
    'step',
    'x < at ? 0 : 1',
    { at: share('At', 'where it jumps from 0 to 1') },
    { at: 0.5 },
  ),
  points: shape(
    'through points',
    'y0 + (y1 - y0) * (x - x0) / (x1 - x0) between two points, level outside of them',
    { points: needed(list(pair({ minimum: 0, maximum: 1 }, 'x and y, both 0 to 1'), 32, 2)) },
    {
      points: [
        [0, 0],
        [0.5, 0.8],
        [1, 1],
      ],
    },
  ),
};
export type CurveShape = keyof typeof CURVES;
export const CURVE_SHAPES = Object.keys(CURVES) as CurveShape[];

/** From x in 0…1 to y in 0…1. */
export type CurveDocument = {
  [S in CurveShape]: { shape: S } & TypeOfFields<(typeof CURVES)[S]['fields']>;
}[CurveShape];

const curves = new Map<unknown, PartSchema>(
  CURVE_SHAPES.map((name) => [
    name,
    described(
      part({ shape: needed(word([name])), ...CURVES[name].fields }, { tag: 'shape' }),
      `\`y = ${CURVES[name].formula}\``,
    ),
  ]),
);
/** Stands in for a curve of no known shape: it says which there are. */
const anyCurve = part({ shape: needed(word(CURVE_SHAPES)) });
const curve = either(
  [...curves.values()],
  (value) => curves.get(isObject(value) ? value.shape : undefined) ?? anyCurve,
) as EitherSchema<CurveDocument>;

/** A curve of a shape to begin from. */
export const freshCurve = (name: CurveShape) =>
  ({ shape: name, ...CURVES[name].first }) as CurveDocument;

export const CONSIDERATION_FIELDS = {
  importance: number('Importance', '', [0, 100], 'how much it counts against the others', {
    usual: 1,
  }),
  veto: flag('Veto', 'at 0 it makes the whole score 0'),
};
const consideration = part({
  title: TITLE,
  note: NOTE,
  input: needed(described(EXPRESSION, 'an expression, or the name of one of the choice’s inputs')),
  ...RANGE_FIELDS,
  curve: described(curve, 'left out: straight'),
  ...CONSIDERATION_FIELDS,
});
export type ConsiderationDocument = TypeOf<typeof consideration>;

export const GRADE_FIELDS = {
  strength: needed(
    number('Strength', '', [0, 1], 'how much it favours the option where its bands hold, 0 to 1'),
  ),
};
const grade = part({
  when: needed(described(record(nameOf('bands'), 'bandSets'), 'by band set: the band')),
  ...GRADE_FIELDS,
  note: NOTE,
});
export type GradeDocument = TypeOf<typeof grade>;

export const PLACES_FIELDS = {
  places: needed(number('Places', '', [1, 64], 'how many are looked at', { whole: true })),
  within: needed(number('Within', 'm', [0.1, 200], 'how far around')),
};
const eachOf = <F extends Fields>(tag: string, fields: F) =>
  part({ as: needed(NAME), ...fields }, { tag });
/** What an option is weighed for, each under the name `as`. */
const each = tagged(
  [
    eachOf('agents', { agents: needed(word(STANCES)) }),
    eachOf('things', { things: needed(NAME) }),
    eachOf('list', { list: needed(NAME) }),
    eachOf('places', { ...PLACES_FIELDS, around: EXPRESSION }),
  ],
  'needs one of agents, things, list, places, and “as”',
);
export type EachDocument = TypeOf<typeof each>;

export const OPTION_WEIGHT = number('Weight', '', [0, 1000], 'what its score is multiplied with', {
  usual: 1,
});
export const OPTION_COST = number(
  'Cost',
  '',
  [-1000, 1000],
  'taken off its score: damage to friends, danger',
  { usual: 0 },
);
export const OPTION_FIELDS = {
  rank: number(
    'Rank',
    '',
    [-100, 100],
    'of the options that can run, only those of the highest rank compete',
    { whole: true, usual: 0 },
  ),
  cooldown: number('Cooldown', 's', [0, 3600], 'how long it can’t be picked after it ended', {
    usual: 0,
  }),
  conduct: flag(
    'Rule of conduct',
    'each time its guard begins to hold, the archetype’s obedience decides whether it is obeyed',
  ),
};
const option = part({
  id: needed(NAME),
  title: TITLE,
  note: NOTE,
  when: described(EXPRESSION, 'left out: always'),
  weight: numberOrExpression(OPTION_WEIGHT),
  cost: numberOrExpression(OPTION_COST),
  ...OPTION_FIELDS,
  each,
  considerations: list(consideration, 16),
  grades: described(list(grade, 64), 'with `graded`: what makes it strong'),
  does: described(nodeSchema, 'what it does'),
  off: described(TRUE, 'switched off: as if it were not there'),
});
export interface OptionDocument extends TypeOf<typeof option> {}

/** A number, and the range of it that counts. */
const inputOfChoice = part({ value: needed(EXPRESSION), ...RANGE_FIELDS, note: NOTE });
export type InputOfChoiceDocument = TypeOf<typeof inputOfChoice>;

export const CHOICE_FIELDS = {
  combine: choice(
    'Combine',
    COMBINATIONS,
    'how considerations become one number: `mean` (geometric, by importance), `product`, `sum` (weighted arithmetic mean), or `graded` rows',
    { usual: 'mean' },
  ),
  pick: choice(
    'Pick',
    ['best', 'weighted'],
    'the best option, or one drawn by score among those near the best',
    { usual: 'best' },
  ),
  margin: number(
    'Margin',
    '',
    [0, 1000],
    'how far below the best an option may score and still be drawn, with `weighted`',
    { usual: 0.1 },
  ),
  every: number('Weighs every', 's', [0, 3600], 'from one weighing to the next; 0: each decision', {
    usual: 0,
  }),
  commitment: number(
    'Commitment',
    '',
    [0, 1000],
    'added to the score of what runs, so that only something clearly better takes over',
    { usual: 0 },
  ),
  minDuration: number(
    'Minimum duration',
    's',
    [0, 3600],
    'how long what was picked can’t be left for another',
    { usual: 0 },
  ),
  minScore: number(
    'Minimum score',
    '',
    [-1000, 1000],
    'an option competes with a score above this',
    { usual: 0 },
  ),
  once: flag('Once', 'ends with its option’s result, instead of picking again'),
};
export const choiceOfMindSchema = part({
  title: TITLE,
  note: NOTE,
  ...CHOICE_FIELDS,
  inputs: described(record(inputOfChoice), 'inputs that several options look at, by name'),
  options: needed(list(option, 64)),
});
export interface ChoiceDocument extends TypeOf<typeof choiceOfMindSchema> {}

const openEnd = (label: string, about: string) =>
  number(label, '', [-FAR, FAR], about, { none: 'open' });
/** A trapezoid: it rises from `from` to `fullFrom`, and falls from `fullTo` to `to`. */
export const BAND_FIELDS = {
  from: openEnd('From', 'where it begins to rise; left out: open'),
  fullFrom: openEnd('Full from', 'where it holds wholly; left out: as `from`'),
  fullTo: openEnd('Full to', 'where it holds wholly last; left out: as `to`'),
  to: openEnd('To', 'where it ends; left out: open'),
};
const band = part({ name: needed(nameOf('bands')), ...BAND_FIELDS });
export type BandDocument = TypeOf<typeof band>;

/** Names for parts of a number, for the whole project. */
export const bandSetSchema = part({
  title: TITLE,
  note: NOTE,
  input: needed(described(EXPRESSION, 'the number they are parts of; read in the mind that asks')),
  bands: needed(list(band, 16, 1)),
});
export type BandSetDocument = TypeOf<typeof bandSetSchema>;
