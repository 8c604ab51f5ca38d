import { ACTIONS, type ActionName } from './actions.ts';
import { isDirectors, needsBody } from './director-actions.ts';
import type { ProjectDocument } from './documents.ts';
import { mindsOf } from './kinds.ts';
import { byName, namesOf } from './names.ts';

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

/** Whether a mind may do something: one that directs has no body, and one that a body has does not direct. */
export function mayDo(
  { grounds, archetypes }: Pick<ProjectDocument, 'grounds' | 'archetypes'>,
  mind: string,
  action: ActionName,
): boolean {
  const directs = directingMinds({ grounds }).has(mind);
  const hasBody = Object.values(archetypes).some((each) => mindsOf(each).includes(mind));
  if (isDirectors(action)) return directs || !hasBody;
  return !directs || !needsBody(action, ACTIONS[action]);
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
