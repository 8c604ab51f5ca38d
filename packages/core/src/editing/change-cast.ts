import { usualStance } from '../terms/stances.ts';
import type { FactionDocument, Name, ProjectDocument, Stance } from '../model/documents.ts';
import { NAME_ABOUT, NAME_PATTERN, namesOf } from '../model/names/names.ts';
import { CommandError, type CastChange, type CastPart } from './commands/commands.ts';

/** Changes of the cast. What an agent can't be without is not taken away while one needs it; other references go with what they mean. */

const SINGULAR: Record<CastPart, string> = {
  archetypes: 'archetype',
  squads: 'squad',
  factions: 'faction',
  setups: 'set-up',
  players: 'scripted player',
};

/** Where references to a part of the cast stand: changes each of them in place, or removes it where `to` is undefined. */
type Retarget = (document: ProjectDocument, from: Name, to: Name | undefined) => void;

function retargetField<K extends string>(
  holder: { [key in K]?: Name },
  field: K,
  from: Name,
  to: Name | undefined,
): void {
  if (holder[field] !== from) return;
  if (to === undefined) delete holder[field];
  else holder[field] = to;
}

const agentsOf = ({ grounds }: ProjectDocument) =>
  Object.values(grounds).flatMap(({ agents }) => Object.values(agents));

const RETARGET: Record<CastPart, Retarget> = {
  archetypes: (document, from, to) => {
    for (const agent of agentsOf(document))
      if (agent.archetype === from && to) agent.archetype = to;
    if (!to) return;
    for (const { waves = {} } of Object.values(document.grounds))
      for (const wave of Object.values(waves)) if (wave.archetype === from) wave.archetype = to;
    for (const breakpoint of Object.values(document.breakpoints ?? {}))
      if (breakpoint.archetype === from) breakpoint.archetype = to;
    const [before, after] = [`archetypes.${from}.`, `archetypes.${to}.`];
    for (const { changes = [] } of document.tiers ?? [])
      for (const change of changes)
        if (change.path.startsWith(before)) change.path = after + change.path.slice(before.length);
  },
  squads: (document, from, to) => {
    for (const holder of [...agentsOf(document), ...Object.values(document.archetypes)])
      retargetField(holder, 'squad', from, to);
  },
  factions: (document, from, to) => {
    for (const { overrides } of agentsOf(document))
      if (overrides) retargetField(overrides, 'faction', from, to);
    for (const archetype of Object.values(document.archetypes))
      if (archetype.faction === from && to) archetype.faction = to;
    for (const faction of Object.values(document.factions ?? {})) {
      const stance = faction.toward?.[from];
      if (stance === undefined) continue;
      delete faction.toward![from];
      if (to) faction.toward![to] = stance;
      dropEmptyStances(faction);
    }
  },
  setups: () => {},
  players: (document, from, to) => {
    for (const holder of [document.start, ...Object.values(document.setups ?? {})])
      retargetField(holder, 'player', from, to);
  },
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
  RETARGET[part](after, name, undefined);
  return after;
}

export function renameInCast(
  document: ProjectDocument,
  part: CastPart,
  name: Name,
  to: Name,
): ProjectDocument {
  if (!NAME_PATTERN.test(to))
    throw new CommandError(`“${to}” is not a usable name: it takes ${NAME_ABOUT}.`);
  // A faction need not be declared: archetypes name it.
  if (part !== 'factions') expectEntry(document, part, name);
  if (Object.hasOwn(entries(document, part), to))
    throw new CommandError(`There is a ${SINGULAR[part]} “${to}” already. Choose another name.`);
  const after = copyOf(document);
  const { [name]: entry, ...rest } = entries(after, part);
  put(after, part, entry === undefined ? rest : { ...rest, [to]: entry });
  RETARGET[part](after, name, to);
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
