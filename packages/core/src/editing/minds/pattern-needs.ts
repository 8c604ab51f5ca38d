import type { ArchetypeDocument, Name, ProjectDocument } from '../../model/documents.ts';
import { freshIn, nameFromWords } from '../../model/names/fresh-name.ts';
import { namesOf } from '../../model/names/names.ts';
import type { DocumentCommand, DocumentPath } from '../commands/commands.ts';
import { NEW_HEARING, WATCHFUL_SIGHT } from './fresh-senses.ts';
import { FRESH_MOVE } from './fresh.ts';
import type { Pattern, PatternNeed } from './pattern-parts.ts';
import { set } from './row-places.ts';
import { addMind, type NewMind } from './whole-minds.ts';

/** What an archetype must have for a pattern to do what it is for, and the mind put in together with it. */

/** The moves of an archetype that hit something. */
export function strikingMoves({ moves = {} }: ArchetypeDocument): Name[] {
  return namesOf(moves).filter((name) => moves[name].kind !== 'dodge');
}

/** Agents of an archetype on the start’s ground that follow no route. */
function withoutRoute({ grounds, start }: ProjectDocument, archetype: Name): Name[] {
  const { agents } = grounds[start.ground];
  return namesOf(agents).filter(
    (name) => agents[name].archetype === archetype && agents[name].route === undefined,
  );
}

/** What a pattern needs and an archetype, or its placed agents, have not. */
export function lackedBy(
  document: ProjectDocument,
  archetype: Name,
  { needs }: Pattern,
): PatternNeed[] {
  const body = document.archetypes[archetype];
  const { agents } = document.grounds[document.start.ground];
  const placed = Object.values(agents).filter((agent) => agent.archetype === archetype);
  const has: Record<PatternNeed, boolean> = {
    sight: body.sight !== undefined,
    hearing: body.hearing !== undefined,
    squad:
      body.squad !== undefined ||
      (placed.length > 0 && placed.every(({ squad }) => squad !== undefined)),
    move: strikingMoves(body).length > 0,
    route: withoutRoute(document, archetype).length === 0,
  };
  return needs.filter((need) => !has[need]);
}

/** What gives an archetype something that a pattern needs. A route is one of the ground’s; where there is none, nothing is done. */
function giving(document: ProjectDocument, archetype: Name, need: PatternNeed): DocumentCommand[] {
  const { grounds, start, squads } = document;
  const at: DocumentPath = ['archetypes', archetype];
  const { title, moves } = document.archetypes[archetype];
  switch (need) {
    case 'sight':
      return [set([...at, 'sight'], WATCHFUL_SIGHT)];
    case 'hearing':
      return [set([...at, 'hearing'], NEW_HEARING)];
    case 'move': {
      const move = { ...FRESH_MOVE, title: 'Strike' };
      return [set([...at, 'moves'], { ...moves, [freshIn(moves, 'strike')]: move })];
    }
    case 'squad': {
      const squad = { title: `Squad of ${title}` };
      const name = nameFromWords(squad.title, squads, 'squad');
      return [set(['squads'], { ...squads, [name]: squad }), set([...at, 'squad'], name)];
    }
    case 'route': {
      const { routes } = grounds[start.ground];
      const [route] = namesOf(routes);
      if (route === undefined) return [];
      return withoutRoute(document, archetype).map((agent) =>
        set(['grounds', start.ground, 'agents', agent, 'route'], route),
      );
    }
  }
}

/** Where a pattern is put in: for an archetype, with those of its needs that are made on the way; null for none yet. */
export interface PatternUse {
  archetype: Name;
  give: readonly PatternNeed[];
}

/** The move a pattern strikes with, as it will be called: one of the archetype’s, or the one that is made. */
export function moveFor(document: ProjectDocument, use: PatternUse | null): Name {
  const body = use && document.archetypes[use.archetype];
  const [first] = body ? strikingMoves(body) : [];
  return first ?? freshIn(body?.moves, 'strike');
}

/** A new mind made of a pattern, with what it needs, as one step. */
export function addPattern(
  document: ProjectDocument,
  pattern: Pattern,
  values: Readonly<Record<string, number>>,
  move: Name,
  use: PatternUse | null,
): NewMind {
  const { name, command } = addMind(document, pattern.make(values, move));
  if (!use) return { name, command };
  const given = use.give.flatMap((need) => giving(document, use.archetype, need));
  return {
    name,
    command: {
      command: 'several',
      what: `new mind ${pattern.title}`,
      commands: [command, ...given, set(['archetypes', use.archetype, 'mind'], name)],
    },
  };
}
