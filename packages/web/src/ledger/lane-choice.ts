import type { Program } from '@crooked-lantern/core';
import type { LaneRow } from './lane-titles.ts';

/** Which of the lanes are shown: those of one group, and always the pinned ones, first; a folded squad is one lane. */

export interface LaneGroup {
  id: string;
  title: string;
  /** For a squad: its title alone. */
  squad?: string;
  /** The names of their lanes. */
  members: ReadonlySet<string>;
}

/** The game, the squads and the archetypes, as far as they have lanes. */
export function laneGroups(program: Program | null, rows: readonly LaneRow[]): LaneGroup[] {
  if (!program) return [];
  const { agents, squads, archetypes } = program;
  const named = (isMeant: (agent: (typeof agents)[number]) => boolean) =>
    agents.filter(isMeant).map(({ name }) => name);
  const game = rows.filter(({ isOfGame }) => isOfGame).map(({ name }) => name);
  const groups: (Omit<LaneGroup, 'members'> & { names: string[] })[] = [
    { id: 'game', title: 'The game', names: game },
    ...squads.map(({ name, title }, index) => ({
      id: `squad ${name}`,
      title: `Squad: ${title}`,
      squad: title,
      names: named(({ squad }) => squad === index),
    })),
    ...archetypes.map(({ name, title }, index) => ({
      id: `archetype ${name}`,
      title: `Archetype: ${title}`,
      names: named(({ archetype }) => archetype === index),
    })),
  ];
  const shown = new Set(rows.map(({ name }) => name));
  return groups.flatMap(({ names, ...group }) => {
    const members = new Set(names.filter((name) => shown.has(name)));
    return members.size > 0 ? [{ ...group, members }] : [];
  });
}

/** What the lanes can be narrowed to: what leaves any out. */
export function narrowingGroups(groups: readonly LaneGroup[], rows: readonly LaneRow[]) {
  return groups.filter(({ members }) => members.size < rows.length);
}

/** What can be folded: squads of several. */
export function foldableSquads(groups: readonly LaneGroup[]): LaneGroup[] {
  return groups.filter(({ squad, members }) => squad !== undefined && members.size > 1);
}

/** The same lanes, with those of each folded squad as one where its first stood; pinned ones stay by themselves. */
export function foldedRows(
  rows: readonly LaneRow[],
  squads: readonly LaneGroup[],
  pinned: ReadonlySet<string>,
): LaneRow[] {
  const made = new Set<LaneGroup>();
  return rows.flatMap((row) => {
    const isIn = ({ members }: LaneGroup, { name }: LaneRow) =>
      members.has(name) && !pinned.has(name);
    const squad = squads.find((each) => isIn(each, row));
    if (!squad) return [row];
    if (made.has(squad)) return [];
    made.add(squad);
    const members = rows.filter((other) => isIn(squad, other));
    return [{ name: squad.id, title: `${squad.squad}: ${members.length}`, members }];
  });
}

export function chosenRows(
  rows: readonly LaneRow[],
  group: LaneGroup | null,
  pinned: ReadonlySet<string>,
): LaneRow[] {
  const isPinned = ({ name }: LaneRow) => pinned.has(name);
  return [
    ...rows.filter(isPinned),
    ...rows.filter((row) => !isPinned(row) && (!group || group.members.has(row.name))),
  ];
}
