import { HIT_RESULTS } from '../terms/fighting.ts';
import { SENSE_KINDS, SENSES } from '../terms/senses.ts';
import type { BreakpointDocument } from './documents/run.ts';
import type { ArchetypeDocument, Name, ProjectDocument, StateDocument } from './documents.ts';
import { agentNamed } from './groups.ts';
import { archetypeOf, kindsOf, mindsOf } from './kinds.ts';
import { namesOf } from './names/names.ts';

/** What the parts of a breakpoint can name, by what a project has. */

export interface Named {
  id: Name;
  title: string;
}

/** The kinds of body a breakpoint is about. */
function kindsMeant(
  document: ProjectDocument,
  { agent, archetype }: Partial<BreakpointDocument>,
): ArchetypeDocument[] {
  const { archetypes, grounds, start } = document;
  if (agent !== undefined) {
    const placed = grounds[start.ground].agents[agent];
    const named = agentNamed(document, agent)?.archetype ?? '';
    const kind = placed ? archetypeOf(document, placed) : archetypes[named];
    return kind ? [kind] : [];
  }
  if (archetype === undefined) return kindsOf(document).map((kind) => kind.archetype);
  return Object.hasOwn(archetypes, archetype) ? [archetypes[archetype]] : [];
}

/** The minds of those a breakpoint is about; without an agent or an archetype those of the director too. */
function mindsMeant(
  document: ProjectDocument,
  { agent, archetype }: Partial<BreakpointDocument>,
): Name[] {
  if (agent !== undefined) return agentNamed(document, agent)?.minds ?? [];
  const { director } = document.grounds[document.start.ground];
  const ofKinds = kindsMeant(document, { archetype }).flatMap(mindsOf);
  return archetype === undefined && director !== undefined ? [...ofKinds, director] : ofKinds;
}

/** The first mind of those a breakpoint is about, in whose names a condition is written; null where none has one. */
export function mindMeant(document: ProjectDocument, breakpoint: BreakpointDocument): Name | null {
  return mindsMeant(document, breakpoint)[0] ?? null;
}

function statesIn(states: readonly StateDocument[]): Named[] {
  return states.flatMap(({ id, title = id, states: inner = [] }) => [
    { id, title },
    ...statesIn(inner),
  ]);
}

function titled(record: Record<Name, { title?: string }> = {}): Named[] {
  return namesOf(record).map((id) => ({ id, title: record[id].title ?? id }));
}

/** Each name once. */
function unlike(named: readonly Named[]): Named[] {
  return named.filter(({ id }, i) => named.findIndex((other) => other.id === id) === i);
}

/**
 * What the first part of a breakpoint’s `of` can be, and what that is called; null for a condition. Without an
 * agent or an archetype it is all there is.
 */
export function namesMeant(
  document: ProjectDocument,
  breakpoint: Pick<BreakpointDocument, 'on' | 'agent' | 'archetype'>,
): { what: string; names: Named[] } | null {
  const kinds = kindsMeant(document, breakpoint);
  const minds = mindsMeant(document, breakpoint).flatMap((name) => document.minds[name] ?? []);
  switch (breakpoint.on) {
    case 'enter':
    case 'exit':
    case 'transition':
    case 'ended':
      return {
        what: 'state',
        // A mind that is one activity runs as one state.
        names: unlike(
          minds.flatMap(({ machine, title }) =>
            machine ? statesIn(machine.states) : [{ id: 'always', title }],
          ),
        ),
      };
    case 'picked':
      return { what: 'choice', names: unlike(minds.flatMap(({ choices }) => titled(choices))) };
    case 'move':
    case 'hit':
      return { what: 'move', names: unlike(kinds.flatMap(({ moves }) => titled(moves))) };
    case 'percept':
      return {
        what: 'sense',
        names: SENSES.map((id) => ({ id, title: SENSE_KINDS[id].title.toLowerCase() })),
      };
    case 'memory':
      return {
        what: 'key',
        names: unlike(
          minds.flatMap(({ memory = {} }) => namesOf(memory).map((id) => ({ id, title: id }))),
        ),
      };
    case 'condition':
      return null;
  }
}

/** What the second part of an `of` can be, where only some words can; null where anything can. */
export function secondMeant(
  document: ProjectDocument,
  { on, of = '' }: BreakpointDocument,
): Named[] | null {
  if (on === 'hit') return HIT_RESULTS.map((id) => ({ id, title: id }));
  if (on !== 'picked') return null;
  const [choice] = of.split(':');
  return unlike(
    Object.values(document.minds).flatMap(({ choices = {} }) =>
      namesOf(choices)
        .filter((name) => choice === '' || name === choice)
        .flatMap((name) => choices[name].options.map(({ id, title = id }) => ({ id, title }))),
    ),
  );
}
