import type { RunnableMind } from '../../mind/machine/mind.ts';
import { withSpans, type CheckedExpression } from '../../expression/ir.ts';
import { readRow, type RowResult } from '../../mind/nodes/node.ts';
import { activityEnd } from '../../world/readout/readout.ts';
import {
  activeStates,
  fact,
  entriesOf,
  firstLooked,
  rerunning,
  sinceOf,
  type RerunProgress,
  type Asked,
  type Question,
  type Statement,
} from './statement.ts';
import type { NodeProgram } from '../../mind/program.ts';
import { allRows, findRow, rowsBelow, type FoundRow, type Row } from './find-row.ts';
import type { Target } from './target.ts';
import { look, partStatement, watchGuard, type WatchedPart } from './watch.ts';

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

/** What must hold for a row to start, once the row above lets it; null where that is nothing. */
function conditionOf(row: Row, parent: Row | undefined): CheckedExpression | null {
  if ('body' in row) return row.guard;
  if (row.when) return row.when;
  const rules = parent ? rowsBelow(parent) : [];
  const owner = rules.find((rule) => 'otherwise' in rule && rule.otherwise === row);
  return owner && 'when' in owner && owner.when ? negated(owner.when) : null;
}

function negated({ source, ir }: CheckedExpression): CheckedExpression {
  const text = `!(${source})`;
  const a = withSpans(ir, ([from, to]) => [from + 2, to + 2]);
  return { source: text, ir: { op: 'not', at: [0, text.length], type: 'flag', a } };
}

type ResultOf = (row: Row) => RowResult | null;

/** What the row above lets happen, or not. */
function stepDown(parent: Row, child: Row, resultOf: ResultOf): Statement[] {
  // All rules of a set are tested in each decision, and those inside one that fires.
  if (!('body' in parent) || !('body' in child)) return [];
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

/** What the kind of a rule, and the rules above it, let happen or not. */
function asRule(
  row: Row,
  holds: boolean,
  resultOf: ResultOf,
  overruledBy: (row: Row) => string | null,
): Statement[] {
  const uses = 'what it needs is used by no row above';
  const user = overruledBy(row);
  if (user !== null) return [not(uses, `“${user}” uses it`)];
  if ('body' in row || !row.edge) return [];
  const turned = 'that has only just become true';
  if (resultOf(row) !== null) return [fact(turned, null)];
  if (row.actions.some((action) => resultOf(action) === 'running'))
    return [fact('it runs already', null)];
  return [not(turned, holds ? 'it was so before' : 'it is not so')];
}

/** What the agent's tree or rules would have to do for a row to run. */
export function* whyNotRow(
  question: Question,
  asking: RunnableMind,
  { of, row }: Extract<Target, { kind: 'row' }>,
): Generator<RerunProgress, Statement> {
  const found = findRow(asking, of, row);
  const { id } = asking.program.machine.states[found.state];
  let guards: WatchedPart[][] = [];
  let under: RunnableMind | null = null;
  const asked = yield* rerunning(question, (now) => {
    const { mind, agent } = now;
    if (mind !== under)
      guards = found.way.map((row, i) =>
        watchGuard(conditionOf(sameRow(mind, row), found.way[i - 1]), guards[i]),
      );
    under = mind;
    const here = activeStates(now).some((state) => mind.program.machine.states[state].id === id);
    for (const part of guards.flat()) look(part, agent, here);
  });
  const entries = entriesOf(question, asked);
  const stay = sinceOf(asked, id, entries);
  const overruledBy = (row: Row) => {
    const entry = entries.findLast(
      (each) =>
        each.kind === 'overruled' &&
        each.tick === question.tick &&
        each.state === id &&
        each.row === row.row,
    );
    if (entry?.kind !== 'overruled') return null;
    const by = allRows(asking).find(
      ({ state, last }) => state === found.state && last.row === entry.by,
    );
    return by?.last.title ?? null;
  };
  return rowStatement(asked, found, guards, {
    ...stay,
    first: firstLooked(question),
    overruledBy,
  });
}

/** The row that stands at the same place under another edit; the row itself where there is none. */
function sameRow(mind: RunnableMind, row: Row): Row {
  return allRows(mind).find(({ last }) => last.path === row.path)?.last ?? row;
}

/** What a row of a state's activity came to in the agent's tick; null where it was not reached. */
function resultIn({ agent, mind }: Asked, state: number, { row }: Row): RowResult | null {
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
  stay: {
    active: boolean;
    since: number | null;
    first: number | null;
    overruledBy: (row: Row) => string | null;
  },
): Statement {
  const { title } = mind.program.machine.states[state];
  const resultOf = (other: Row) => resultIn({ agent, mind }, state, other);
  const row = way[way.length - 1];
  const result = resultOf(row);
  const inState = { ...fact(`it is in ${title}`, stay.since), holds: stay.active };
  const end = stay.active ? activityEnd(agent, mind, state) : null;
  const goesOn =
    end === null
      ? []
      : [
          {
            ...fact(
              `what the state does goes on: it ${end.ending === 'success' ? 'succeeded' : 'failed'} and ended`,
              end.tick,
            ),
            holds: false,
          },
        ];
  const needs = way.flatMap((each, i) => [
    ...(i > 0 ? stepDown(way[i - 1], each, resultOf) : []),
    ...guards[i].map((part) => partStatement(part, agent, stay.first)),
    ...asRule(
      each,
      guards[i].every(({ holds }) => holds),
      resultOf,
      stay.overruledBy,
    ),
  ]);
  return {
    statement: `${agent.placed.title} does “${row.title}”`,
    holds: result === 'running' || result === 'success',
    values: [{ part: 'it', value: result === null ? 'was not reached' : WORDS[result] }],
    since: null,
    nearest: null,
    cause: [inState, ...goesOn, ...needs],
  };
}
