import {
  archetypeOf,
  HIT_RESULTS,
  mindsOf,
  namesOf,
  SENSES,
  SENSE_KINDS,
  type ArchetypeDocument,
  type BreakpointDocument,
  type MindDocument,
  type ProjectDocument,
  type StateDocument,
} from '@crooked-lantern/core';

/** What a breakpoint can be about, by the names a project has. */
export interface Named {
  id: string;
  title: string;
}

function statesOf(states: readonly StateDocument[]): StateDocument[] {
  return states.flatMap((state) => [state, ...statesOf(state.states ?? [])]);
}

/** The kinds of body a breakpoint is about. */
export function kindsMeant(
  document: ProjectDocument,
  { agent, archetype }: BreakpointDocument,
): ArchetypeDocument[] {
  const { agents } = document.grounds[document.start.ground];
  if (agent !== undefined) {
    const kind = agents[agent] && archetypeOf(document, agents[agent]);
    return kind ? [kind] : [];
  }
  return archetype === undefined
    ? Object.values(document.archetypes)
    : [document.archetypes[archetype]].filter(Boolean);
}

/** The first mind of those it is about, in whose names a condition is written; null where none has one. */
export function mindMeant(document: ProjectDocument, breakpoint: BreakpointDocument) {
  const [mind] = kindsMeant(document, breakpoint).flatMap((kind) => mindsOf(kind).slice(0, 1));
  return mind ?? null;
}

function titled(records: readonly (Record<string, { title?: string }> | undefined)[]): Named[] {
  return records.flatMap((record = {}) =>
    namesOf(record).map((id) => ({ id, title: record[id].title ?? id })),
  );
}

/** Each name once. */
function unlike(named: readonly Named[]): Named[] {
  return named.filter(({ id }, i) => named.findIndex((other) => other.id === id) === i);
}

/** What the first part of a breakpoint’s `of` can be. */
export function namesMeant(document: ProjectDocument, breakpoint: BreakpointDocument): Named[] {
  const kinds = kindsMeant(document, breakpoint);
  const minds = kinds
    .flatMap(mindsOf)
    .map((name): MindDocument | undefined => document.minds[name]);
  switch (breakpoint.on) {
    case 'enter':
    case 'exit':
    case 'transition':
    case 'ended':
      return unlike(
        minds.flatMap((mind) =>
          statesOf(mind?.machine?.states ?? []).map(({ id, title = id }) => ({ id, title })),
        ),
      );
    case 'picked':
      return unlike(titled(minds.map((mind) => mind?.choices)));
    case 'move':
    case 'hit':
      return unlike(titled(kinds.map(({ moves }) => moves)));
    case 'percept':
      return SENSES.map((id) => ({ id, title: SENSE_KINDS[id].title.toLowerCase() }));
    case 'memory':
      return unlike(
        minds.flatMap((mind) => namesOf(mind?.memory ?? {}).map((id) => ({ id, title: id }))),
      );
    case 'condition':
      return [];
  }
}

/** What the second part can be, where only some words can; null where anything can. */
export function secondMeant(
  document: ProjectDocument,
  breakpoint: BreakpointDocument,
): Named[] | null {
  const [first = ''] = (breakpoint.of ?? '').split(':');
  if (breakpoint.on === 'hit') return HIT_RESULTS.map((id) => ({ id, title: id }));
  if (breakpoint.on !== 'picked') return null;
  return unlike(
    Object.values(document.minds).flatMap(({ choices = {} }) =>
      namesOf(choices)
        .filter((name) => first === '' || name === first)
        .flatMap((name) => choices[name].options.map(({ id, title = id }) => ({ id, title }))),
    ),
  );
}
