import type { Stance } from '../terms/stances.ts';
import type { Expression, Name, NodeDocument, NumberOrExpression } from './documents.ts';

/** How minds weigh what to do: choices, what speaks for each option, and the bands numbers are named by. */

export const COMBINATIONS = ['mean', 'product', 'sum', 'graded'] as const;
/** How an option's considerations become one number. */
export type Combination = (typeof COMBINATIONS)[number];

export const PICKS = ['best', 'weighted'] as const;
export type PickRule = (typeof PICKS)[number];

export interface ChoiceDocument {
  title?: string;
  note?: string;
  /** Left out: mean. */
  combine?: Combination;
  /** Left out: best. */
  pick?: PickRule;
  /** With `weighted`: how far below the best an option may score and still be drawn. */
  margin?: number;
  /** Seconds from one weighing to the next; left out: each decision. */
  every?: number;
  /** Added to the score of what runs. */
  commitment?: number;
  /** Seconds that what was picked can’t be left for another. */
  minDuration?: number;
  /** An option competes with a score above this. */
  minScore?: number;
  /** Ends with its option’s result; left out: picks again. */
  once?: true;
  /** Inputs that several options look at, by name. */
  inputs?: Record<Name, InputOfChoiceDocument>;
  options: OptionDocument[];
}

/** A number, and the range of it that counts. */
export interface InputOfChoiceDocument {
  value: Expression;
  from?: number;
  to?: number;
  note?: string;
}

export interface OptionDocument {
  id: Name;
  title?: string;
  note?: string;
  /** Left out: always. */
  when?: Expression;
  /** A rule of conduct: each time its guard begins to hold, the archetype’s `obedience` is the probability that it is obeyed. */
  conduct?: true;
  /** Only the highest rank that has an option competes. */
  rank?: number;
  weight?: NumberOrExpression;
  /** Taken off the score. */
  cost?: NumberOrExpression;
  /** Seconds it can’t be picked after it ended. */
  cooldown?: number;
  /** Weighed once for each of these. */
  each?: EachDocument;
  considerations?: ConsiderationDocument[];
  /** With `graded`: what makes it strong. */
  grades?: GradeDocument[];
  /** What it does. */
  does?: NodeDocument;
  /** Switched off: as if it were not there. */
  off?: true;
}

/** What an option is weighed for, each under the name `as`. */
export type EachDocument = { as: Name } & (
  | { agents: Stance }
  | { things: string }
  | { list: Name }
  | { places: number; within: number; around?: Expression }
);

export interface ConsiderationDocument {
  title?: string;
  note?: string;
  /** An expression, or the name of one of the choice’s inputs. */
  input: Expression;
  /** What becomes 0 and what becomes 1; left out: those of the input, else 0 and 1. */
  from?: number;
  to?: number;
  /** Left out: straight. */
  curve?: CurveDocument;
  importance?: number;
  /** At 0 it makes the whole score 0. */
  veto?: true;
}

export const CURVE_SHAPES = [
  'linear',
  'power',
  'logistic',
  'bell',
  'plateau',
  'step',
  'points',
] as const;
export type CurveShape = (typeof CURVE_SHAPES)[number];

/** From x in 0…1 to y in 0…1. */
export type CurveDocument =
  | { shape: 'linear'; slope?: number; offset?: number }
  | { shape: 'power'; exponent: number }
  | { shape: 'logistic'; middle: number; steepness: number }
  | { shape: 'bell'; middle: number; width: number }
  | { shape: 'plateau'; from: number; to: number; soft?: number }
  | { shape: 'step'; at: number }
  | { shape: 'points'; points: [number, number][] };

/** Strong where all its bands hold. */
export interface GradeDocument {
  /** By band set: the band. */
  when: Record<Name, Name>;
  /** 0…1 */
  strength: number;
  note?: string;
}

/** Names for parts of a number, for the whole project. */
export interface BandSetDocument {
  title?: string;
  note?: string;
  /** The number they are parts of; read in the mind that asks. */
  input: Expression;
  bands: BandDocument[];
}

/** A trapezoid: it rises from `from` to `fullFrom`, and falls from `fullTo` to `to`. A side that is left out is open. */
export interface BandDocument {
  name: Name;
  from?: number;
  fullFrom?: number;
  fullTo?: number;
  to?: number;
}
