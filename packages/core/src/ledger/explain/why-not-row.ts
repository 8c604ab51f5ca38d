import type { RunnableMind } from '../../mind/machine/mind.ts';
import type { NodeProgram } from '../../mind/program.ts';
import { childrenOf } from '../../mind/nodes/index.ts';
import { readRow, type RowResult } from '../../mind/nodes/node.ts';
import {
  activeStates,
  fact,
  QuestionError,
  entriesOf,
  firstLooked,
  rerunning,
  sinceOf,
  type RerunProgress,
  whoIsAsked,
  type Asked,
  type Question,
  type Statement,
} from './statement.ts';
import { look, partStatement, watchGuard, type WatchedPart } from './watch.ts';

/** A row of some state's tree, with the rows above it: the root first, itself last. */
export interface FoundRow {
  state: number;
  way: NodeProgram[];
}

function ways(node: NodeProgram, above: NodeProgram[]): NodeProgram[][] {
  const here = [...above, node];
  return [here, ...childrenOf(node).flatMap((child) => ways(child, here))];
}

/** The row of that title, or as `tree:3`. Throws a {@link QuestionError} where there is none. */
export function findRow(mind: RunnableMind, what: string): FoundRow {
  const { states } = mind.program.machine;
  const rows = states.flatMap(({ activity }, state) =>
    activity ? ways(activity.root, []).map((way) => ({ state, way, name: activity.name })) : [],
  );
  const last = ({ way }: FoundRow) => way[way.length - 1];
  const [tree, number] = what.split(':');
  const found =
    rows.find((row) => row.name === tree && String(last(row).row + 1) === number) ??
    rows.find((row) => last(row).title.toLowerCase() === what.toLowerCase());
  if (found) return found;
  throw new QuestionError(
    `This mind has no state or row “${what}”. States: ${states.map(({ id }) => id).join(', ')}. Rows are named by their title, or as tree:3.`,
  );
}

function not(statement: string, value: string): Statement {
  return {
    statement,
    holds: false,
    values: [{ part: 'it', value }],
    since: null,
    nearest: null,
    cause: [],
  };
}

const WORDS: Record<RowResult, string> = {
  running: 'runs',
  success: 'succeeded',
  failure: 'failed',
  stopped: 'was stopped',
};

/** What the row above lets happen, or not. */
function stepDown(
  parent: NodeProgram,
  child: NodeProgram,
  resultOf: (node: NodeProgram) => RowResult | null,
): Statement[] {
  const { body } = parent;
  const said = (node: NodeProgram) => {
    const result = resultOf(node);
    return result === null ? 'was not reached' : WORDS[result];
  };
  if (body.kind === 'sequence' || body.kind === 'selector') {
    const needed = body.kind === 'sequence' ? 'success' : 'failure';
    const verb = body.kind === 'sequence' ? 'succeeds' : 'fails';
    const before = body.children.slice(0, body.children.indexOf(child));
    return before.map((sibling) =>
      resultOf(sibling) === needed
        ? fact(`“${sibling.title}” before it ${verb}`, null)
        : not(`“${sibling.title}” before it ${verb}`, said(sibling)),
    );
  }
  if (resultOf(child) !== null || resultOf(parent) === null) return [];
  if (body.kind === 'random') return [not(`“${parent.title}” draws it`, 'another was drawn')];
  return [not(`“${parent.title}” lets it start`, said(parent))];
}

/** What the agent's tree would have to do for a row to run. */
export function* whyNotRow(question: Question, what: string): Generator<RerunProgress, Statement> {
  const { mind: asking } = whoIsAsked(question);
  const found = findRow(asking, what);
  const { id } = asking.program.machine.states[found.state];
  let guards: WatchedPart[][] = [];
  let under: RunnableMind | null = null;
  const asked = yield* rerunning(question, (now) => {
    const { mind, agent } = now;
    if (mind !== under)
      guards = found.way.map((node, i) => watchGuard(sameRow(mind, node).guard, guards[i]));
    under = mind;
    const here = activeStates(now).some((state) => mind.program.machine.states[state].id === id);
    for (const part of guards.flat()) look(part, agent, here);
  });
  const stay = sinceOf(asked, id, entriesOf(question, asked));
  return rowStatement(asked, found, guards, { ...stay, first: firstLooked(question) });
}

/** The row that stands at the same place under another edit; the row itself where there is none. */
function sameRow(mind: RunnableMind, node: NodeProgram): NodeProgram {
  for (const { activity } of mind.program.machine.states) {
    const way = activity && ways(activity.root, []).find((each) => each.at(-1)!.path === node.path);
    if (way) return way.at(-1)!;
  }
  return node;
}

/** What a node of a state's activity came to in the agent's tick; null where it was not reached. */
function resultIn({ agent, mind }: Asked, state: number, { row }: NodeProgram): RowResult | null {
  const last = readRow(agent.memory[mind.machine.states[state].activity!.rows[row]]);
  return last !== null && last.tick === agent.tick ? last.result : null;
}

/** What a row came to in the agent's tick; null where it was not reached. */
export function resultNow(asked: Asked, { state, way }: FoundRow): RowResult | null {
  return resultIn(asked, state, way[way.length - 1]);
}

function rowStatement(
  { agent, mind }: Asked,
  { state, way }: FoundRow,
  guards: readonly WatchedPart[][],
  stay: { active: boolean; since: number | null; first: number | null },
): Statement {
  const { title } = mind.program.machine.states[state];
  const resultOf = (node: NodeProgram) => resultIn({ agent, mind }, state, node);
  const row = way[way.length - 1];
  const result = resultOf(row);
  const inState = { ...fact(`it is in ${title}`, stay.since), holds: stay.active };
  const needs = way.flatMap((node, i) => [
    ...(i > 0 ? stepDown(way[i - 1], node, resultOf) : []),
    ...guards[i].map((part) => partStatement(part, agent, stay.first)),
  ]);
  return {
    statement: `${agent.placed.title} does “${row.title}”`,
    holds: result === 'running' || result === 'success',
    values: [{ part: 'it', value: result === null ? 'was not reached' : WORDS[result] }],
    since: null,
    nearest: null,
    cause: [inState, ...needs],
  };
}
