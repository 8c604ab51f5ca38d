import { usualStance } from '../terms/stances.ts';
import type { FactionDocument, Name, ProjectDocument, Stance } from '../model/documents.ts';
import { namesOf } from '../model/names/names.ts';
import { CommandError, type CastChange, type CastPart } from './commands/commands.ts';

/** Changes of the cast. What an agent can't be without is not taken away while one needs it; other references go with what they mean. */

const SINGULAR: Record<CastPart, string> = {
  archetypes: 'archetype',
  squads: 'squad',
  factions: 'faction',
  setups: 'set-up',
  players: 'scripted player',
};

const agentsOf = ({ grounds }: ProjectDocument) =>
  Object.values(grounds).flatMap(({ agents }) => Object.values(agents));

function drop<K extends string>(holders: readonly { [key in K]?: Name }[], field: K, name: Name) {
  for (const holder of holders) if (holder[field] === name) delete holder[field];
}

/** Takes away what refers to a part of the cast that is gone, in place. What can’t be without one keeps it there. */
const DROP_REFERENCES: Record<CastPart, (document: ProjectDocument, gone: Name) => void> = {
  archetypes: () => {},
  squads: (document, gone) =>
    drop([...agentsOf(document), ...Object.values(document.archetypes)], 'squad', gone),
  factions: (document, gone) => {
    drop(
      agentsOf(document).flatMap(({ overrides }) => overrides ?? []),
      'faction',
      gone,
    );
    for (const faction of Object.values(document.factions ?? {})) {
      delete faction.toward?.[gone];
      dropEmptyStances(faction);
    }
  },
  setups: () => {},
  players: (document, gone) =>
    drop([document.start, ...Object.values(document.setups ?? {})], 'player', gone),
};

function dropEmptyStances(faction: FactionDocument): void {
  if (faction.toward && Object.keys(faction.toward).length === 0) delete faction.toward;
}

/** A part of the cast as it stands, by name; what is left out is empty. */
function entries(document: ProjectDocument, part: CastPart): Record<Name, unknown> {
  return document[part] ?? {};
}

function expectEntry(document: ProjectDocument, part: CastPart, name: Name): void {
  if (!Object.hasOwn(entries(document, part), name))
    throw new CommandError(`There is no ${SINGULAR[part]} “${name}”.`);
}

function copyOf(document: ProjectDocument): ProjectDocument {
  return JSON.parse(JSON.stringify(document)) as ProjectDocument;
}

/** Records that may be left out are, when nothing is in them. */
function put(document: ProjectDocument, part: CastPart, record: Record<Name, unknown>): void {
  if (part !== 'archetypes' && namesOf(record).length === 0) delete document[part];
  else Object.assign(document, { [part]: record });
}

/** Why an entry can't be taken away; null where it can. */
function whyKept(document: ProjectDocument, part: CastPart, name: Name): string | null {
  if (part === 'archetypes') {
    const users = Object.values(document.grounds).flatMap(({ agents }) =>
      namesOf(agents)
        .filter((agent) => agents[agent].archetype === name)
        .map((agent) => agents[agent].title ?? agent),
    );
    return users.length === 0
      ? null
      : `${users.join(', ')} ${users.length === 1 ? 'is' : 'are'} made from it. Take them off the ground first, or give them another archetype.`;
  }
  if (part === 'factions') {
    const users = namesOf(document.archetypes).filter(
      (archetype) => document.archetypes[archetype].faction === name,
    );
    return users.length === 0
      ? null
      : `${users.map((user) => document.archetypes[user].title).join(', ')} ${users.length === 1 ? 'is' : 'are'} on that side. Give them another first.`;
  }
  return null;
}

export function setInCast(document: ProjectDocument, change: CastChange): ProjectDocument {
  const { part, name, value } = change;
  const after = copyOf(document);
  const record = { ...entries(after, part) };
  if (value !== null) {
    record[name] = value;
    put(after, part, record);
    return after;
  }
  expectEntry(document, part, name);
  const reason = whyKept(document, part, name);
  if (reason) throw new CommandError(`The ${SINGULAR[part]} “${name}” stays: ${reason}`);
  delete record[name];
  put(after, part, record);
  DROP_REFERENCES[part](after, name);
  return after;
}

/** How one faction stands to another. What holds anyway is left out: friendly to its own, hostile to others. */
export function setStance(
  document: ProjectDocument,
  of: Name,
  toward: Name,
  stance: Stance,
): ProjectDocument {
  const after = copyOf(document);
  const factions = { ...after.factions };
  const faction = { ...factions[of], toward: { ...factions[of]?.toward, [toward]: stance } };
  if (stance === usualStance(of, toward)) delete faction.toward[toward];
  dropEmptyStances(faction);
  if (Object.keys(faction).length === 0) delete factions[of];
  else factions[of] = faction;
  put(after, 'factions', factions);
  return after;
}
