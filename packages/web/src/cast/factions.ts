import {
  archetypeOf,
  freshIn,
  kindsOf,
  type ProjectDocument,
  usualStance,
  type Stance,
} from '@crooked-lantern/core';

/** The factions of a project: those declared and those that archetypes and agents name, in ascending order. */
export function factionNames(document: ProjectDocument): string[] {
  const named = kindsOf(document).map(({ archetype }) => archetype.faction);
  const declared = Object.keys(document.factions ?? {}).filter((name) => !name.startsWith('x-'));
  return [...new Set([...declared, ...named])].sort();
}

export function factionTitle({ factions }: ProjectDocument, name: string): string {
  return factions?.[name]?.title ?? name;
}

/** How one faction stands to another: its explicit stance, or friendly to its own and hostile to all others. */
export function stanceOf(
  factions: ProjectDocument['factions'],
  of: string,
  toward: string,
): Stance {
  const said = factions?.[of]?.toward?.[toward];
  return said ?? usualStance(of, toward);
}

/** A faction that is hostile to the played agent: one that there is, else a new one. */
export function hostileFaction(document: ProjectDocument): string {
  const { grounds, start } = document;
  const played = grounds[start.ground]?.agents[start.play ?? ''];
  const kind = played && archetypeOf(document, played);
  const hostile = factionNames(document).find(
    (name) => kind && stanceOf(document.factions, name, kind.faction) === 'hostile',
  );
  return hostile ?? freshIn(document.factions, 'newcomers');
}

export function factionTint(
  document: ProjectDocument,
  name: string,
  tints: readonly string[],
): string {
  return tints[Math.max(0, factionNames(document).indexOf(name)) % tints.length];
}
