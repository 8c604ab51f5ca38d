import { power, powerInPlace } from '../../numeric/exponential.ts';
import { compileNumber, type NumberFunction } from '../../expression/closures.ts';
import type { Facts } from '../../expression/facts.ts';
import type { Combination } from '../../model/documents/choice.ts';
import type {
  ChoiceProgram,
  ConsiderationProgram,
  GradeProgram,
  KeyProgram,
  NumberProgram,
  OptionProgram,
} from '../program.ts';
import { curveInPlace, curveOf, type Curve, type CurveInPlace } from './curves.ts';
import type { Field, Input } from './inputs.ts';

/** The score of an option: its considerations as one number. Computing it allocates nothing. */

/** One consideration, ready to be asked. */
export interface BoundConsideration extends Input {
  /** Place of the input in its field. */
  place: number;
  curve: Curve;
  /** The same, as it is asked for most. */
  inPlace: CurveInPlace;
  importance: number;
  veto: boolean;
}

export interface BoundGrade {
  memberships: readonly NumberFunction[];
  strength: number;
}

/** A number that is nothing counts as `otherwise`. */
function known(value: number, otherwise: number): number {
  return value - value === 0 ? value : otherwise;
}

export function numberOf(program: NumberProgram): NumberFunction {
  return typeof program === 'number' ? () => program : compileNumber(program.ir);
}

function bindConsideration(
  { input, from, to, curve, importance, veto }: ConsiderationProgram,
  field: Field,
  key: KeyProgram | null,
): BoundConsideration {
  const read = compileNumber(input.ir);
  return {
    input: read,
    place: field.placeOf(input.source, { input: read, from, to }, key),
    from,
    to,
    curve: curveOf(curve),
    inPlace: curveInPlace(curve),
    importance,
    veto,
  };
}

function bindGrade({ memberships, strength }: GradeProgram): BoundGrade {
  return { memberships: memberships.map(({ ir }) => compileNumber(ir)), strength };
}

/** The force of a graded row: its least membership, times its strength. */
function forceOf({ memberships, strength }: BoundGrade, facts: Facts): number {
  let least = 1;
  for (let i = 0; i < memberships.length; i++) {
    const membership = known(memberships[i](facts), 0);
    if (membership < least) least = membership;
  }
  return least * strength;
}

/** A bound is looked at with this much room, so that rounding never decides. */
const ROOM = 1e-9;

/** Takes the parts of a score when no caller asks for them. */
const unreadParts = new Float64Array(64);
const weighted = new Float64Array(1);

/** Computes the score of one option from an agent’s facts. */
export class OptionScore {
  readonly considerations: readonly BoundConsideration[];
  readonly grades: readonly BoundGrade[];
  private readonly combine: Combination;
  private readonly field: Field;
  private readonly weight: NumberFunction;
  private readonly cost: NumberFunction;
  /** Whether weight and cost are the same for every agent. */
  readonly isSteady: boolean;
  private readonly canVeto: boolean;
  /** Of all importances; an option whose considerations all count for nothing is worth 1. */
  private readonly total: number;
  /** The score that was asked for last, and what must at least be combined for it. */
  private readonly asked = Float64Array.of(NaN, -1);

  constructor({ combine }: ChoiceProgram, option: OptionProgram, field: Field) {
    const key = option.each?.key ?? null;
    this.combine = combine;
    this.field = field;
    this.considerations = option.considerations.map((each) => bindConsideration(each, field, key));
    this.grades = option.grades.map(bindGrade);
    this.weight = numberOf(option.weight);
    this.cost = numberOf(option.cost);
    this.isSteady = typeof option.weight === 'number' && typeof option.cost === 'number';
    this.canVeto = this.considerations.some(({ veto }) => veto);
    this.total = this.considerations.reduce((sum, { importance }) => sum + importance, 0);
  }

  /**
   * The score for a candidate of the field. `io` holds what it must come to at least, and then the score; or
   * −Infinity where it can’t come to that any more, without working out the rest. With `given` all is worked
   * out, and what each consideration (or graded row) is worth is written there. Numbers go by cells, since one
   * that a function gives or is given may be allocated, and this is done a thousand times a weighing.
   */
  score(facts: Facts, candidate: number, io: Float64Array, given: Float64Array | null): void {
    const { considerations, grades, field } = this;
    const parts = given ?? unreadParts;
    if (this.combine === 'graded') {
      for (let i = 0; i < grades.length; i++) parts[i] = forceOf(grades[i], facts);
      io[0] = this.fromParts(facts, parts);
      return;
    }
    const { asked } = this;
    if (given === null && !(this.isSteady && asked[0] === io[0])) this.workOutNeeded(facts, io[0]);
    const needed = given === null ? asked[1] : -1;
    const isSum = this.combine === 'sum';
    // Of a mean its power, which is compared with that of what is needed.
    let bound = isSum ? this.total : 1;
    for (let i = 0; i < considerations.length; i++) {
      const { place, inPlace, importance } = considerations[i];
      field.readInto(parts, i, facts, candidate, place);
      // An input that is nothing is worth 0.
      if (parts[i] === parts[i]) inPlace(parts, i);
      else parts[i] = 0;
      if (isSum) bound -= (1 - parts[i]) * importance;
      else if (importance === 1) bound *= parts[i];
      else {
        weighted[0] = parts[i];
        powerInPlace(weighted, 0, importance);
        bound *= weighted[0];
      }
      if (bound < needed) {
        io[0] = -Infinity;
        return;
      }
    }
    io[0] = this.fromParts(facts, parts);
  }

  /** The score from what each consideration (or graded row) is worth; a veto at 0 has the last word. */
  fromParts(facts: Facts, parts: ArrayLike<number>): number {
    const { considerations } = this;
    if (this.canVeto)
      for (let i = 0; i < considerations.length; i++)
        if (considerations[i].veto && parts[i] === 0) return 0;
    return known(this.weight(facts), 0) * this.combined(parts) - known(this.cost(facts), 0);
  }

  private combined(parts: ArrayLike<number>): number {
    const { considerations, grades, combine, total } = this;
    if (combine === 'graded') {
      let most = 0;
      for (let i = 0; i < grades.length; i++) if (parts[i] > most) most = parts[i];
      return most;
    }
    if (total === 0) return 1;
    if (combine === 'sum') {
      let sum = 0;
      for (let i = 0; i < considerations.length; i++)
        sum += parts[i] * considerations[i].importance;
      return sum / total;
    }
    let product = 1;
    for (let i = 0; i < considerations.length; i++)
      product *= power(parts[i], considerations[i].importance);
    return combine === 'mean' ? power(product, 1 / total) : product;
  }

  /** What must at least be combined to come to a score; −1 where nothing can be said before all is known. */
  private workOutNeeded(facts: Facts, atLeast: number): void {
    const { combine, total, asked } = this;
    asked[0] = atLeast;
    asked[1] = -1;
    const factor = known(this.weight(facts), 0);
    if (!(factor > 0) || total === 0 || (this.canVeto && atLeast <= 0)) return;
    const needed = (atLeast + known(this.cost(facts), 0)) / factor;
    if (!(needed > 0)) return;
    const bound =
      combine === 'mean' ? power(needed, total) : combine === 'sum' ? needed * total : needed;
    asked[1] = bound * (1 - ROOM) - ROOM;
  }
}
