import type {
  ArchetypeDocument,
  OverridesDocument,
  PlacedAgentDocument,
  ProjectDocument,
} from './documents.ts';
import { namesOf } from './names/names.ts';

/** Parts of an archetype that are merged field by field; the rest is replaced. */
const MERGED = ['body', 'gaits', 'sight', 'hearing', 'lantern', 'moves', 'guards'] as const;

/** What an agent with these overrides is. A sense it lacks and only gets a part of stays as incomplete as it is written. */
export function withOverrides(
  archetype: ArchetypeDocument,
  overrides: OverridesDocument | undefined,
): ArchetypeDocument {
  if (!overrides) return archetype;
  const merged = { ...archetype, ...overrides } as ArchetypeDocument;
  for (const part of MERGED) {
    if (overrides[part] !== undefined)
      Object.assign(merged, { [part]: { ...archetype[part], ...overrides[part] } });
  }
  return merged;
}

/** What a placed agent is: its archetype with what differs; undefined where there is no such archetype. */
export function archetypeOf(
  { archetypes }: Pick<ProjectDocument, 'archetypes'>,
  { archetype, overrides }: PlacedAgentDocument,
): ArchetypeDocument | undefined {
  if (!Object.hasOwn(archetypes, archetype)) return undefined;
  return withOverrides(archetypes[archetype], overrides);
}

/** A kind of agent: an archetype, or what one placed agent makes of it. */
export interface Kind {
  /** Of the archetype. */
  name: string;
  /** Where the document says it. */
  path: string;
  archetype: ArchetypeDocument;
  /** The one agent it is for, and where it differs; null for an archetype. */
  agent: string | null;
  overrides: OverridesDocument | null;
}

/** The archetypes, then the agents that differ from theirs. */
export function kindsOf(document: ProjectDocument): Kind[] {
  const { archetypes, grounds, start } = document;
  const agents = Object.hasOwn(grounds, start.ground) ? grounds[start.ground].agents : {};
  return [
    ...namesOf(archetypes).map((name) => ({
      name,
      path: `archetypes.${name}`,
      archetype: archetypes[name],
      agent: null,
      overrides: null,
    })),
    ...namesOf(agents).flatMap((agent) => {
      const { archetype: name, overrides } = agents[agent];
      const archetype = archetypeOf(document, agents[agent]);
      if (!overrides || !archetype) return [];
      const path = `grounds.${start.ground}.agents.${agent}.overrides`;
      return [{ name, path, archetype, agent, overrides }];
    }),
  ];
}

/** The minds an archetype has, in the order they decide in. */
export function mindsOf(archetype: ArchetypeDocument): string[] {
  return [
    ...new Set([
      ...(archetype.mind === undefined ? [] : [archetype.mind]),
      ...(archetype.minds ?? []),
    ]),
  ];
}
