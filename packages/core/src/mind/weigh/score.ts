import { power } from '../../numeric/exponential.ts';
import { compileNumber, type NumberFunction } from '../../expression/closures.ts';
import type { Facts } from '../../expression/facts.ts';
import type { Combination } from '../../model/choice-documents.ts';
import type {
  ChoiceProgram,
  ConsiderationProgram,
  GradeProgram,
  NumberProgram,
  OptionProgram,
} from '../program.ts';
import { curveOf, shareOfRange, type Curve } from './curves.ts';

/** What an option is worth: its considerations as one number. Nothing is allocated when it is worked out. */

/** One consideration, ready to be asked. */
export interface BoundConsideration {
  input: NumberFunction;
  from: number;
  to: number;
  curve: Curve;
  importance: number;
  veto: boolean;
}

/** Works an option’s score out for whoever the facts are of. */
export interface Scorer {
  considerations: readonly BoundConsideration[];
  grades: readonly BoundGrade[];
  /**
   * The score; or, where it can’t come to `atLeast` any more, −Infinity without working out the rest. With
   * `parts` all is worked out, and what each consideration (or grade) is worth is written there.
   */
  score(facts: Facts, atLeast: number, parts: Float64Array | null): number;
  /** The score from what each consideration (or graded row) is worth. */
  fromParts(facts: Facts, parts: ArrayLike<number>): number;
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

function bindConsideration(program: ConsiderationProgram): BoundConsideration {
  const { from, to, importance, veto } = program;
  return {
    input: compileNumber(program.input.ir),
    from,
    to,
    curve: curveOf(program.curve),
    importance,
    veto,
  };
}

function bindGrade({ memberships, strength }: GradeProgram): BoundGrade {
  return { memberships: memberships.map(({ ir }) => compileNumber(ir)), strength };
}

/** What one consideration is worth, 0 to 1; an input that is nothing is worth 0. */
export function worthOf(consideration: BoundConsideration, facts: Facts): number {
  const { input, from, to, curve } = consideration;
  const value = input(facts);
  return value - value === 0 ? curve(shareOfRange(value, from, to)) : 0;
}

/** The force of a graded row: its least membership, times its strength. */
export function forceOf({ memberships, strength }: BoundGrade, facts: Facts): number {
  let least = 1;
  for (let i = 0; i < memberships.length; i++) {
    const membership = known(memberships[i](facts), 0);
    if (membership < least) least = membership;
  }
  return least * strength;
}

/** Of all importances; an option whose considerations all count for nothing is worth 1. */
function totalOf(considerations: readonly BoundConsideration[]): number {
  return considerations.reduce((sum, { importance }) => sum + importance, 0);
}

/** A bound is looked at with this much room, so that rounding never decides. */
const ROOM = 1e-9;

/** What considerations (or graded rows) come to together, from what each is worth; a veto at 0 has the last word. */
type Combine = (parts: ArrayLike<number>) => number;

function combineOf(
  combination: Combination,
  considerations: readonly BoundConsideration[],
  grades: readonly BoundGrade[],
): Combine {
  const total = totalOf(considerations);
  const root = 1 / (total || 1);
  switch (combination) {
    case 'mean':
    case 'product':
      return (parts) => {
        let product = 1;
        for (let i = 0; i < considerations.length; i++)
          product *= power(parts[i], considerations[i].importance);
        return combination === 'mean' ? power(product, root) : product;
      };
    case 'sum':
      return (parts) => {
        if (total === 0) return 1;
        let sum = 0;
        for (let i = 0; i < considerations.length; i++)
          sum += parts[i] * considerations[i].importance;
        return sum / total;
      };
    case 'graded':
      return (parts) => {
        let most = 0;
        for (let i = 0; i < grades.length; i++) if (parts[i] > most) most = parts[i];
        return most;
      };
  }
}

/** The most that can still be combined, given what the first few are worth. */
type Bound = (parts: Float64Array, count: number) => number;

function boundOf(combination: Combination, considerations: readonly BoundConsideration[]): Bound {
  const total = totalOf(considerations) || 1;
  if (combination === 'sum')
    return (parts, count) => {
      let lost = 0;
      for (let i = 0; i < count; i++) lost += (1 - parts[i]) * considerations[i].importance;
      return 1 - lost / total;
    };
  // Of a mean its power, which is compared with that of what is needed.
  return (parts, count) => {
    let product = 1;
    for (let i = 0; i < count; i++) product *= power(parts[i], considerations[i].importance);
    return product;
  };
}

const nobodyLooks = new Float64Array(64);

export function makeScorer({ combine }: ChoiceProgram, option: OptionProgram): Scorer {
  const considerations = option.considerations.map(bindConsideration);
  const grades = option.grades.map(bindGrade);
  const [weight, cost] = [numberOf(option.weight), numberOf(option.cost)];
  const combined = combineOf(combine, considerations, grades);
  const bound = boundOf(combine, considerations);
  const canVeto = considerations.some(({ veto }) => veto);
  const total = totalOf(considerations) || 1;
  const isGraded = combine === 'graded';

  const fromParts = (facts: Facts, parts: ArrayLike<number>): number => {
    for (let i = 0; i < considerations.length; i++)
      if (considerations[i].veto && parts[i] === 0) return 0;
    return known(weight(facts), 0) * combined(parts) - known(cost(facts), 0);
  };

  /** What must at least be combined to come to a score; −1 where nothing can be said before all is known. */
  const neededFor = (facts: Facts, atLeast: number): number => {
    const factor = known(weight(facts), 0);
    if (!(factor > 0) || (canVeto && atLeast <= 0)) return -1;
    const needed = (atLeast + known(cost(facts), 0)) / factor;
    if (!(needed > 0)) return -1;
    return (combine === 'mean' ? power(needed, total) : needed) * (1 - ROOM) - ROOM;
  };

  return {
    considerations,
    grades,
    fromParts,
    score(facts, atLeast, given) {
      const parts = given ?? nobodyLooks;
      if (isGraded) {
        for (let i = 0; i < grades.length; i++) parts[i] = forceOf(grades[i], facts);
        return fromParts(facts, parts);
      }
      const needed = given === null ? neededFor(facts, atLeast) : -1;
      for (let i = 0; i < considerations.length; i++) {
        parts[i] = worthOf(considerations[i], facts);
        if (needed > 0 && bound(parts, i + 1) < needed) return -Infinity;
      }
      return fromParts(facts, parts);
    },
  };
}
