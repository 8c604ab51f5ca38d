import type { Program } from '@crooked-lantern/core';
import type { LaneRow } from './lane-titles.ts';

/** Which of the lanes are shown: those of one group, and always the pinned ones, first. */

export interface LaneGroup {
  id: string;
  title: string;
  /** The names of their lanes. */
  members: ReadonlySet<string>;
}

/** What the lanes can be narrowed to: the game, a squad, an archetype; nothing that would leave none out, or all. */
export function laneGroups(program: Program | null, rows: readonly LaneRow[]): LaneGroup[] {
  if (!program) return [];
  const { agents, squads, archetypes } = program;
  const named = (isMeant: (agent: (typeof agents)[number]) => boolean) =>
    agents.filter(isMeant).map(({ name }) => name);
  const game = rows.filter(({ isOfGame }) => isOfGame).map(({ name }) => name);
  const groups = [
    { id: 'game', title: 'The game', names: game },
    ...squads.map(({ name, title }, index) => ({
      id: `squad ${name}`,
      title: `Squad: ${title}`,
      names: named(({ squad }) => squad === index),
    })),
    ...archetypes.map(({ name, title }, index) => ({
      id: `archetype ${name}`,
      title: `Archetype: ${title}`,
      names: named(({ archetype }) => archetype === index),
    })),
  ];
  const shown = new Set(rows.map(({ name }) => name));
  return groups.flatMap(({ id, title, names }) => {
    const members = new Set(names.filter((name) => shown.has(name)));
    return members.size > 0 && members.size < rows.length ? [{ id, title, members }] : [];
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
