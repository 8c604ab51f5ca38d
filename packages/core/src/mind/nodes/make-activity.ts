import { compileFlag } from '../../expression/closures.ts';
import { reserve, type CellLayout } from '../cells.ts';
import { heeded, type Guard } from '../heed.ts';
import type { ActivityProgram, NodeProgram } from '../program.ts';
import { numberOf } from '../weigh/score.ts';
import type { Choice } from './choice.ts';
import type { Grove } from './grove.ts';
import { kindOfBody } from './index.ts';
import { Leaf } from './leaf.ts';
import { TreeNode, type Behaviour } from './node.ts';

/** An activity bound for running. */
export interface RunnableActivity {
  name: string;
  root: Behaviour;
  again: boolean;
  /** The cell of each row's last result, by row; empty for a single action. */
  rows: number[];
  /** Its choices, by row. */
  choices: ReadonlyMap<number, Choice>;
  /** The cells it takes: the first, and one past the last. */
  from: number;
  to: number;
}

function guardOf({ guard, conduct }: NodeProgram, layout: CellLayout): Guard | null {
  const holds = guard && compileFlag(guard.ir);
  return holds && conduct ? heeded(holds, layout) : holds;
}

function makeNode(program: NodeProgram, grove: Grove, rows: number[]): TreeNode {
  const at = reserve(grove.layout, 1);
  rows[program.row] = at;
  return new TreeNode(
    kindOfBody(program.body).make(program.body, {
      grove,
      layout: grove.layout,
      row: program.row,
      cells: rows,
      below: (child) => makeNode(child, grove, rows),
      number: numberOf,
      flag: ({ ir }) => compileFlag(ir),
    }),
    at,
    guardOf(program, grove.layout),
    program.holds,
    program.preempts,
  );
}

/** Binds what a state does to its place in the cells. */
export function makeActivity(program: ActivityProgram, grove: Grove): RunnableActivity {
  const { name, again, root } = program;
  const from = grove.layout.initial.length;
  const rows: number[] = [];
  const bound =
    root.path === '' && root.body.kind === 'do'
      ? new Leaf(root.body.action, -1, grove)
      : makeNode(root, grove, rows);
  const { choices } = grove;
  return { name, again, root: bound, rows, choices, from, to: grove.layout.initial.length };
}
