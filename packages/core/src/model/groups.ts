import { fitsView } from '../terms/views.ts';
import { ACTIONS, type ActionName, type ActionSpec } from './actions/actions.ts';
import { isDirectors, needsBody } from './actions/director-actions.ts';
import { poolSize } from './documents/director.ts';
import type { Name, ProjectDocument } from './documents.ts';
import { archetypeOf, mindsOf } from './kinds.ts';
import { byName, namesOf } from './names/names.ts';

/** Names that stand for some of the agents of the start’s ground: of archetypes, factions, squads and waves. One name for two of them stands for both. */
export function groupNames({
  archetypes,
  factions = {},
  squads = {},
  grounds,
  start,
}: ProjectDocument): string[] {
  const ground = Object.hasOwn(grounds, start.ground) ? grounds[start.ground] : undefined;
  const names = [
    ...namesOf(archetypes),
    ...Object.values(archetypes).map(({ faction }) => faction),
    ...namesOf(factions),
    ...namesOf(squads),
    ...namesOf(ground?.waves ?? {}),
  ];
  return [...new Set(names)].sort(byName);
}

/**
 * Whether a mind may do something: some ground has a view that it fits; a mind that directs has no body, and one that
 * a body has does not direct.
 */
export function mayDo(
  { grounds, archetypes }: Pick<ProjectDocument, 'grounds' | 'archetypes'>,
  mind: string,
  action: ActionName,
): boolean {
  const directs = directingMinds({ grounds }).has(mind);
  const hasBody = Object.values(archetypes).some((each) => mindsOf(each).includes(mind));
  const spec: ActionSpec = ACTIONS[action];
  if (!Object.values(grounds).some(({ view }) => fitsView(spec, view))) return false;
  if (isDirectors(action)) return directs || !hasBody;
  return !directs || !needsBody(action, spec);
}

/** The minds that direct some ground. */
export function directingMinds({ grounds }: Pick<ProjectDocument, 'grounds'>): Set<string> {
  return new Set(Object.values(grounds).flatMap(({ director }) => director ?? []));
}

/** What the agent that has a ground’s director for its mind is called. */
export const DIRECTOR_NAME = 'director';

/** What the agents of a wave are called. Declared agents have no dots in their names. */
export function poolName(wave: string, number: number): string {
  return `${wave}.${number}`;
}

/** An agent of the start’s ground: placed there, one that comes with a wave, or the director. */
export interface NamedAgent {
  name: Name;
  title: string;
  /** Null for the director. */
  archetype: Name | null;
  /** Null for the director, and for an unknown archetype. */
  faction: Name | null;
  /** Its minds, in the order they decide in. */
  minds: Name[];
}

/** Every agent that a run on the start’s ground has, by the order they are written in. */
export function allAgents(document: ProjectDocument): NamedAgent[] {
  const { grounds, start, archetypes } = document;
  const ground = Object.hasOwn(grounds, start.ground) ? grounds[start.ground] : undefined;
  if (!ground) return [];
  const { agents, waves = {}, director } = ground;
  const placed = namesOf(agents).map((name) => {
    const own = archetypeOf(document, agents[name]);
    const { title = name, archetype } = agents[name];
    return {
      name,
      title,
      archetype,
      faction: own?.faction ?? null,
      minds: own ? mindsOf(own) : [],
    };
  });
  const comers = namesOf(waves).flatMap((wave) => {
    const { archetype, title = wave } = waves[wave];
    const own = Object.hasOwn(archetypes, archetype) ? archetypes[archetype] : undefined;
    return Array.from({ length: poolSize(waves[wave]) }, (_, i) => ({
      name: poolName(wave, i + 1),
      title: `${title} ${i + 1}`,
      archetype,
      faction: own?.faction ?? null,
      minds: own ? mindsOf(own) : [],
    }));
  });
  const directing = director === undefined ? [] : [director];
  return [
    ...placed,
    ...comers,
    ...directing.map((mind) => ({
      name: DIRECTOR_NAME,
      title: 'Director',
      archetype: null,
      faction: null,
      minds: [mind],
    })),
  ];
}

/** What people call a key of an agent’s memory: its title in the first of the agent’s minds that gives it one, else its name. */
export function titleOfKey(document: ProjectDocument, minds: readonly Name[], key: Name): string {
  const titles = minds.flatMap((mind) => document.minds[mind]?.memory?.[key]?.title ?? []);
  return titles[0] ?? key;
}

/** The agent of a name; undefined where a run has none of it. */
export function agentNamed(document: ProjectDocument, name: Name): NamedAgent | undefined {
  return allAgents(document).find((agent) => agent.name === name);
}
