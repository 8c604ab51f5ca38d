import { power } from '../../numeric/exponential.ts';
import { compileNumber, type NumberFunction } from '../../expression/closures.ts';
import type { Facts } from '../../expression/facts.ts';
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

/** Geometric mean by importance, or the bare product. Both only fall with each consideration. */
function multiplied(
  considerations: readonly BoundConsideration[],
  isMean: boolean,
  weight: NumberFunction,
  cost: NumberFunction,
): Scorer['score'] {
  const total = isMean ? totalOf(considerations) || 1 : 1;
  const root = 1 / total;
  const canVeto = considerations.some(({ veto }) => veto);
  return (facts, atLeast, parts) => {
    const factor = known(weight(facts), 0);
    const off = known(cost(facts), 0);
    let needed = -1;
    if (parts === null && factor > 0 && !(canVeto && atLeast <= 0)) {
      const combined = (atLeast + off) / factor;
      if (combined > 0) needed = power(combined, total) * (1 - ROOM) - ROOM;
    }
    let product = 1;
    let isVetoed = false;
    for (let i = 0; i < considerations.length; i++) {
      const { importance, veto } = considerations[i];
      const worth = worthOf(considerations[i], facts);
      if (parts !== null) parts[i] = worth;
      if (worth === 0 && veto) isVetoed = true;
      product *= power(worth, importance);
      if (product < needed) return -Infinity;
    }
    return isVetoed ? 0 : factor * (isMean ? power(product, root) : product) - off;
  };
}

/** Arithmetic mean by importance: what is still to come can add its importance at most. */
function summed(
  considerations: readonly BoundConsideration[],
  weight: NumberFunction,
  cost: NumberFunction,
): Scorer['score'] {
  const total = totalOf(considerations) || 1;
  const none = totalOf(considerations) === 0;
  const canVeto = considerations.some(({ veto }) => veto);
  return (facts, atLeast, parts) => {
    const factor = known(weight(facts), 0);
    const off = known(cost(facts), 0);
    const mayStop = parts === null && factor > 0 && !(canVeto && atLeast <= 0);
    const needed = mayStop ? ((atLeast + off) / factor) * total * (1 - ROOM) - ROOM : -Infinity;
    let sum = none ? total : 0;
    let lost = 0;
    let isVetoed = false;
    for (let i = 0; i < considerations.length; i++) {
      const { importance, veto } = considerations[i];
      const worth = worthOf(considerations[i], facts);
      if (parts !== null) parts[i] = worth;
      if (worth === 0 && veto) isVetoed = true;
      sum += worth * importance;
      lost += (1 - worth) * importance;
      if (total - lost < needed) return -Infinity;
    }
    return isVetoed ? 0 : factor * (sum / total) - off;
  };
}

/** The largest force of its rows. */
function graded(
  grades: readonly BoundGrade[],
  weight: NumberFunction,
  cost: NumberFunction,
): Scorer['score'] {
  return (facts, _, parts) => {
    let most = 0;
    for (let i = 0; i < grades.length; i++) {
      const force = forceOf(grades[i], facts);
      if (parts !== null) parts[i] = force;
      if (force > most) most = force;
    }
    return known(weight(facts), 0) * most - known(cost(facts), 0);
  };
}

export function makeScorer({ combine }: ChoiceProgram, option: OptionProgram): Scorer {
  const considerations = option.considerations.map(bindConsideration);
  const grades = option.grades.map(bindGrade);
  const [weight, cost] = [numberOf(option.weight), numberOf(option.cost)];
  return {
    considerations,
    grades,
    score:
      combine === 'graded'
        ? graded(grades, weight, cost)
        : combine === 'sum'
          ? summed(considerations, weight, cost)
          : multiplied(considerations, combine === 'mean', weight, cost),
  };
}
