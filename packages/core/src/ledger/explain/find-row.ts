import type { RunnableMind } from '../../mind/machine/mind.ts';
import { childrenOf } from '../../mind/nodes/index.ts';
import type { NodeProgram, RuleProgram } from '../../mind/program.ts';
import { QuestionError } from './statement.ts';

/** Rows of what states do, by the name of their tree or rules and their number. */

/** A row of a tree, or of rules. */
export type Row = NodeProgram | RuleProgram;

/** A row of what some state does, with the rows above it: the root first, itself last. */
export interface FoundRow {
  state: number;
  way: Row[];
}

export function rowsBelow(row: Row): readonly Row[] {
  const withElse = (rule: RuleProgram) => (rule.otherwise ? [rule, rule.otherwise] : [rule]);
  if (!('body' in row)) return [...row.actions, ...row.rows.flatMap(withElse)];
  return row.body.kind === 'rules' ? row.body.rows.flatMap(withElse) : childrenOf(row);
}

function ways(row: Row, above: Row[] = []): Row[][] {
  const here = [...above, row];
  return [here, ...rowsBelow(row).flatMap((below) => ways(below, here))];
}

/** All rows of a mind, each with those above it, by state. */
export function allRows({ program }: RunnableMind): (FoundRow & { name: string; last: Row })[] {
  return program.machine.states.flatMap(({ activity }, state) =>
    activity
      ? ways(activity.root).map((way) => ({ state, way, name: activity.name, last: way.at(-1)! }))
      : [],
  );
}

export function noRow({ program }: RunnableMind, what: string): QuestionError {
  const states = program.machine.states.map(({ title }) => title).join(', ');
  return new QuestionError(
    `This mind has no state or row “${what}”. States: ${states}. Rows are named by their title, or by the name of their tree or rules as tree:3.`,
  );
}

/**
 * The row with that number, from 1, of a tree or of rules.
 *
 * @throws {QuestionError} the mind has no such row
 */
export function findRow(mind: RunnableMind, of: string, row: number): FoundRow {
  const found = allRows(mind).find(({ name, last }) => name === of && last.row + 1 === row);
  if (!found) throw noRow(mind, `${of}:${row}`);
  return found;
}
