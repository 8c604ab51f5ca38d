import { readText } from '../../expression/readout.ts';
import type { RunnableMind } from '../../mind/machine/mind.ts';
import type { NodeKind, NodeProgram, RuleProgram } from '../../mind/program.ts';
import { readRow, ROW_CODES, rowCode, type RowResult } from '../../mind/nodes/node.ts';
import type { Agent } from '../agents/agent.ts';
import { nameTables } from '../recording/names.ts';
import type { World } from '../world.ts';
import { findMind } from './readout.ts';

/** What the rows of a state's activity came to, compactly: they are read with every frame, and there may be hundreds. */

export { readRow, ROW_CODES, rowCode, type RowResult };

/** Whose rows: of an agent, in its first mind where none is named. */
export interface RowsAsked {
  agent: string;
  state: string;
  mind?: string;
}

interface WrittenRow {
  row: NodeProgram | RuleProgram;
  depth: number;
}

/** The rows of an activity in the order of their numbers. */
export function flattenRows(root: NodeProgram): WrittenRow[] {
  const rows: WrittenRow[] = [];
  const addRule = (rule: RuleProgram, depth: number) => {
    rows[rule.row] = { row: rule, depth };
    for (const action of rule.actions) add(action, depth + 1);
    for (const inner of rule.rows) addRule(inner, depth + 1);
    if (rule.otherwise) addRule(rule.otherwise, depth);
  };
  const add = (node: NodeProgram, depth: number) => {
    rows[node.row] = { row: node, depth };
    const { body } = node;
    if ('child' in body) add(body.child, depth + 1);
    if ('children' in body) for (const child of body.children) add(child, depth + 1);
    if ('rows' in body) for (const rule of body.rows) addRule(rule, depth + 1);
    if ('choice' in body) for (const option of body.choice.options) add(option.node, depth + 1);
  };
  add(root, 0);
  return rows;
}

function findActivity(world: World, { agent: agentName, state, mind: mindName }: RowsAsked) {
  const asked = findMind(world, agentName, mindName);
  if (!asked) return null;
  const { agent, mind } = asked;
  const index = mind.program.machine.states.findIndex(({ id }) => id === state);
  const cells = mind.machine.states[index]?.activity?.rows ?? [];
  const program = mind.program.machine.states[index]?.activity;
  return program && cells.length > 0 ? { agent, cells, root: program.root } : null;
}

/** Where the rows are written, from the top; none for a single action. */
export function rowPlaces(world: World, asked: RowsAsked): { path: string; depth: number }[] {
  const activity = findActivity(world, asked);
  return activity
    ? flattenRows(activity.root).map(({ row: { path }, depth }) => ({ path, depth }))
    : [];
}

/** When each row was reached last in this run and what came of it, as {@link readRow} reads it. */
export function readRowCells(world: World, asked: RowsAsked): Float64Array {
  const activity = findActivity(world, asked);
  if (!activity) return new Float64Array();
  const { agent, cells } = activity;
  return Float64Array.from(cells, (cell) => agent.memory[cell]);
}

/** One row that was reached in this tick, in words. */
export interface RowReadout {
  depth: number;
  kind: NodeKind | 'rule' | 'else';
  /** Its own title, else what it is. */
  title: string;
  result: RowResult;
  /** Its guard with values in place of names. */
  guard: string | null;
}

/** The rows of a state's activity that were reached in this tick, from the top. */
export function readRows(agent: Agent, mind: RunnableMind, state: number): RowReadout[] {
  const activity = mind.machine.states[state].activity;
  const program = mind.program.machine.states[state].activity;
  if (!activity || !program || activity.rows.length === 0) return [];
  return flattenRows(program.root).flatMap(({ row, depth }, index) => {
    const last = readRow(agent.memory[activity.rows[index]]);
    if (last?.tick !== agent.tick) return [];
    const isNode = 'body' in row;
    const guard = isNode ? row.guard : row.when;
    return [
      {
        depth,
        kind: isNode ? row.body.kind : row.when ? ('rule' as const) : ('else' as const),
        title: row.title,
        result: last.result,
        guard: guard && readText(guard, agent, nameTables(agent.program)),
      },
    ];
  });
}
