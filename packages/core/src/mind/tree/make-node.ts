import { compileFlag, compileNumber, type NumberFunction } from '../../expression/closures.ts';
import { reserve } from '../cells.ts';
import type { ActivityProgram, NodeProgram, NumberProgram } from '../program.ts';
import { Rules } from '../rules/rules.ts';
import { FAILURE, SUCCESS } from '../status.ts';
import { Parallel, Selector, Sequence, WeightedRandom } from './composites.ts';
import {
  Chance,
  Condition,
  Cooldown,
  Delay,
  Limit,
  Mapped,
  Repeat,
  Subtree,
  Timeout,
} from './decorators.ts';
import { Leaf, type Grove } from './leaf.ts';
import { TreeNode, type Behaviour } from './node.ts';

/** An activity bound for running. */
export interface RunnableActivity {
  name: string;
  root: Behaviour;
  again: boolean;
  /** The cell of each row's last result, by row; empty for a single action. */
  rows: number[];
  /** The cells it takes: the first, and one past the last. */
  from: number;
  to: number;
}

function numberOf(program: NumberProgram): NumberFunction {
  return typeof program === 'number' ? () => program : compileNumber(program.ir);
}

function makeBody(program: NodeProgram, grove: Grove, rows: number[]): Behaviour {
  const { body } = program;
  const { layout } = grove;
  const below = (child: NodeProgram) => makeNode(child, grove, rows);
  switch (body.kind) {
    case 'action':
      return new Leaf(body.action, program.row, grove);
    case 'condition':
      return new Condition(compileFlag(body.test.ir));
    case 'sequence':
      return new Sequence(body.children.map(below), body.restart, layout);
    case 'selector':
      return new Selector(body.children.map(below), body.restart, layout);
    case 'parallel':
      return new Parallel(body.children.map(below), body.successes, body.failures);
    case 'random':
      return new WeightedRandom(body.children.map(below), body.weights.map(numberOf), layout);
    case 'subtree':
      return new Subtree(below(body.child));
    case 'invert':
      return new Mapped(below(body.child), FAILURE, SUCCESS);
    case 'succeed':
      return new Mapped(below(body.child), SUCCESS, SUCCESS);
    case 'fail':
      return new Mapped(below(body.child), FAILURE, FAILURE);
    case 'repeat': {
      const until = body.until === null ? undefined : body.until === 'success' ? SUCCESS : FAILURE;
      return new Repeat(below(body.child), body.times, until, layout);
    }
    case 'limit':
      return new Limit(below(body.child), body.times, layout);
    case 'cooldown':
      return new Cooldown(below(body.child), numberOf(body.seconds), layout);
    case 'timeout':
      return new Timeout(below(body.child), numberOf(body.seconds), layout);
    case 'delay':
      return new Delay(below(body.child), numberOf(body.seconds), layout);
    case 'chance':
      return new Chance(below(body.child), numberOf(body.p));
    case 'rules':
      return new Rules(body.rows, grove, rows);
  }
}

function makeNode(program: NodeProgram, grove: Grove, rows: number[]): TreeNode {
  const at = reserve(grove.layout, 1);
  rows[program.row] = at;
  return new TreeNode(
    makeBody(program, grove, rows),
    at,
    program.guard && compileFlag(program.guard.ir),
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
    root.path === '' && root.body.kind === 'action'
      ? new Leaf(root.body.action, -1, grove)
      : makeNode(root, grove, rows);
  return { name, again, root: bound, rows, from, to: grove.layout.initial.length };
}
