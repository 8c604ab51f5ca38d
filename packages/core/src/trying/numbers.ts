import type { DocumentCommand, DocumentPath } from '../editing/commands/commands.ts';
import { partAt } from '../editing/commands/put.ts';
import { wordsOfPath } from '../editing/commands/path-words.ts';
import { parseExpression } from '../expression/parse.ts';
import type { Name, ProjectDocument, StateDocument } from '../model/documents.ts';
import { agentNamed } from '../model/groups.ts';
import type { Target } from '../ledger/explain/target.ts';

/** Single numbers of a document that may decide whether an agent is in a state, picks an option or does a row. */

/** One number, wherever it is written. */
export interface NumberSite {
  /** What it is called: “guard of transition 1 of Calm of Warden”. */
  words: string;
  value: number;
  /** It is a time that something lasts, in seconds. */
  lasts: boolean;
  /** The change that puts another number in its place. */
  put: (value: number) => DocumentCommand;
}

/** Fields that say how long something goes on. */
const LASTS: readonly unknown[] = ['seconds', 'wait', 'for', 'after', 'minDuration', 'maxDuration'];

function fieldSite(document: ProjectDocument, path: DocumentPath): NumberSite[] {
  const value = partAt(document, path);
  if (typeof value !== 'number') return [];
  return [
    {
      words: wordsOfPath(document, path),
      value,
      lasts: LASTS.includes(path.at(-1)),
      put: (next) => ({ command: 'put', how: 'set', path, value: next }),
    },
  ];
}

/** Where numbers stand in an expression, with their signs. */
function literalsIn(source: string): { from: number; to: number; value: number }[] {
  const parsed = parseExpression(source);
  const found: { from: number; to: number; value: number }[] = [];
  const visit = (node: unknown): void => {
    if (typeof node !== 'object' || node === null) return;
    const { type, value, start, end, operator, argument } = node as Record<string, unknown>;
    const inner = argument as Record<string, unknown> | undefined;
    if (type === 'UnaryExpression' && operator === '-' && typeof inner?.value === 'number') {
      found.push({ from: start as number, to: end as number, value: -inner.value });
      return;
    }
    if (type === 'Literal' && typeof value === 'number')
      found.push({ from: start as number, to: end as number, value });
    for (const part of Object.values(node)) visit(part);
  };
  if (parsed.ok) visit(parsed.node);
  return found;
}

function expressionSites(document: ProjectDocument, path: DocumentPath): NumberSite[] {
  const source = partAt(document, path);
  if (typeof source !== 'string') return [];
  return literalsIn(source).map(({ from, to, value }) => ({
    words: `${wordsOfPath(document, path)}, ${source}`,
    value,
    lasts: false,
    put: (next) => {
      const before = source.slice(0, from);
      // A minus after a minus would be read as one sign.
      const said = next < 0 && before.trimEnd().endsWith('-') ? `(${next})` : String(next);
      return { command: 'put', how: 'set', path, value: before + said + source.slice(to) };
    },
  }));
}

/** Fields that hold expressions, in choices and in trees. */
const EXPRESSIONS: readonly unknown[] = ['when', 'input', 'weight'];

/** All numbers in a part of the document, those of its expressions among them; of an option all but what it does. */
function sitesWithin(document: ProjectDocument, path: DocumentPath): NumberSite[] {
  const part = partAt(document, path);
  if (typeof part === 'number') return fieldSite(document, path);
  if (EXPRESSIONS.includes(path.at(-1)) && typeof part === 'string')
    return expressionSites(document, path);
  if (typeof part !== 'object' || part === null) return [];
  const steps = Array.isArray(part) ? part.map((_, i) => i) : Object.keys(part);
  return steps
    .filter((step) => step !== 'does')
    .flatMap((step) => sitesWithin(document, [...path, step]));
}

/** Each state with its path and the ids around it, outermost first. */
function listed(
  states: readonly StateDocument[],
  path: DocumentPath,
  around: readonly string[] = [],
): { state: StateDocument; path: DocumentPath; around: readonly string[] }[] {
  return states.flatMap((state, i) => {
    const here = [...path, i];
    const inner = listed(state.states ?? [], [...here, 'states'], [...around, state.id]);
    return [{ state, path: here, around }, ...inner];
  });
}

/** The numbers of the transitions that lead to a state, or to one around or inside it. */
function transitionSites(document: ProjectDocument, mind: Name, goal: string): NumberSite[] {
  const all = listed(document.minds[mind]?.machine?.states ?? [], [
    'minds',
    mind,
    'machine',
    'states',
  ]);
  const target = all.find(({ state }) => state.id === goal);
  if (!target) return [];
  const leads = new Set([
    goal,
    ...target.around,
    ...all.filter(({ around }) => around.includes(goal)).map(({ state }) => state.id),
  ]);
  return all.flatMap(({ state, path }) =>
    (state.transitions ?? []).flatMap(({ to }, i) => {
      if (to === undefined || !leads.has(to)) return [];
      const leave = [...path, 'transitions', i];
      return [
        ...expressionSites(document, [...leave, 'when']),
        ...fieldSite(document, [...leave, 'for']),
        ...fieldSite(document, [...leave, 'after']),
      ];
    }),
  );
}

/** What a body perceives with, where it is written for an agent: with it where it differs, else with its kind. */
function senseSites(document: ProjectDocument, agent: Name): NumberSite[] {
  const { ground } = document.start;
  // Agents of a wave are not written one by one; a director has no body.
  const archetype = agentNamed(document, agent)?.archetype ?? null;
  if (archetype === null) return [];
  const { overrides } = document.grounds[ground].agents[agent] ?? {};
  return (['sight', 'hearing', 'reaction'] as const).flatMap((part) => {
    const own: DocumentPath = ['grounds', ground, 'agents', agent, 'overrides', part];
    const isOwn = overrides !== undefined && part in overrides;
    return sitesWithin(document, isOwn ? own : ['archetypes', archetype, part]);
  });
}

/** States of a mind that do an activity which calls a part of it. */
function statesThatDo(document: ProjectDocument, mind: Name, part: 'tree' | 'choice', name: Name) {
  return listed(document.minds[mind]?.machine?.states ?? [], []).flatMap(({ state }) =>
    calls(document, mind, state.activity, part, name) ? [state.id] : [],
  );
}

function calls(
  document: ProjectDocument,
  mind: Name,
  activity: unknown,
  part: 'tree' | 'choice',
  name: Name,
): boolean {
  if (typeof activity !== 'object' || activity === null) return false;
  const said = activity as Record<string, unknown>;
  if (said[part] === name) return true;
  const { tree } = said;
  const called = typeof tree === 'string' ? document.minds[mind].trees?.[tree]?.root : undefined;
  return [called, ...Object.values(said)].some((inner) => calls(document, mind, inner, part, name));
}

/** The numbers that decide within the mind. */
function sitesOfGoal(document: ProjectDocument, mind: Name, goal: Target): NumberSite[] {
  if (goal.kind === 'state') return transitionSites(document, mind, goal.state);
  const [part, parts, name] =
    goal.kind === 'option'
      ? (['choice', 'choices', goal.choice] as const)
      : (['tree', 'trees', goal.of] as const);
  const own = sitesWithin(document, ['minds', mind, parts, name]);
  const there = statesThatDo(document, mind, part, name).flatMap((state) =>
    transitionSites(document, mind, state),
  );
  return [...own, ...there];
}

/**
 * The single numbers that may decide whether an agent comes to a goal: of the transitions there, of the choice or
 * the tree it is in, of the agent's senses, and of the lamps.
 */
export function numbersThatMatter(
  document: ProjectDocument,
  agent: Name,
  mind: Name,
  goal: Target,
): NumberSite[] {
  return [
    ...sitesOfGoal(document, mind, goal),
    ...senseSites(document, agent),
    ...sitesWithin(document, ['grounds', document.start.ground, 'lamps']).filter(({ words }) =>
      /^(reach|strength)/.test(words),
    ),
  ];
}
