import type { Program } from '@crooked-lantern/core';
import { useCallback, useMemo, useState, type ReactNode } from 'react';
import { useCommands } from '../shell/commands.tsx';
import { QuietButton } from '../ui/button.tsx';
import { Menu } from '../ui/overlays/menu.tsx';
import { toggled } from '../ui/words/toggled.ts';
import {
  chosenRows,
  foldableSquads,
  foldedRows,
  laneGroups,
  narrowingGroups,
} from './lane-choice.ts';
import type { LaneRow } from './lane-titles.ts';

const ALL_AGENTS = 'All agents';
const NO_AGENTS: ReadonlySet<string> = new Set();

/** Which lanes are shown, and the menu that says so and changes it. */
export function useLaneChoice(
  program: Program | null,
  all: readonly LaneRow[],
  agent: string | null,
): { rows: readonly LaneRow[]; menu: ReactNode; unfold: (squad: string) => void } {
  const [chosen, setChosen] = useState<string | null>(null);
  const [pinned, setPinned] = useState(NO_AGENTS);
  const [folded, setFolded] = useState(NO_AGENTS);
  const everything = useMemo(() => laneGroups(program, all), [program, all]);
  const groups = useMemo(() => narrowingGroups(everything, all), [everything, all]);
  const squads = useMemo(() => foldableSquads(everything), [everything]);
  // A group that an edit took away shows every agent again.
  const group = groups.find(({ id }) => id === chosen) ?? null;
  const rows = useMemo(() => {
    const isFolded = squads.filter(({ id }) => folded.has(id));
    return foldedRows(chosenRows(all, group, pinned), isFolded, pinned);
  }, [all, group, pinned, squads, folded]);
  const followed = all.find(({ name }) => name === agent);
  const isPinned = followed !== undefined && pinned.has(followed.name);
  const pinWords =
    followed && (isPinned ? `Unpin ${followed.title}` : `Pin ${followed.title} on top`);
  const pin = useCallback(() => {
    if (agent !== null) setPinned((before) => toggled(before, agent));
  }, [agent]);
  const isAnyOpen = squads.some(({ id }) => !folded.has(id));
  const foldWords = squads.length > 0 && (isAnyOpen ? 'Fold all squads' : 'Unfold all squads');
  const foldAll = useCallback(
    () => setFolded(isAnyOpen ? new Set(squads.map(({ id }) => id)) : NO_AGENTS),
    [isAnyOpen, squads],
  );
  const toggle = useCallback((squad: string) => setFolded((before) => toggled(before, squad)), []);
  useCommands(
    useMemo(
      () => [
        ...(pinWords ? [{ id: 'pin-lane', name: `${pinWords} in the ledger`, run: pin }] : []),
        ...(foldWords
          ? [{ id: 'fold-lanes', name: `${foldWords} in the ledger`, run: foldAll }]
          : []),
      ],
      [pinWords, pin, foldWords, foldAll],
    ),
    'ledger',
  );
  const title = group?.title ?? ALL_AGENTS;
  const foldEntries = squads.map(({ id, squad }) => {
    const words = `${folded.has(id) ? 'Unfold' : 'Fold'} ${squad}`;
    return { id: `fold ${id}`, text: words, label: words, onAction: () => toggle(id) };
  });
  const menu = (groups.length > 0 || squads.length > 0 || followed) && (
    <Menu
      label="Lanes shown"
      entries={[
        ...[{ id: 'all', title: ALL_AGENTS }, ...groups].map(({ id, title: name }) => ({
          id,
          text: name,
          label: name,
          onAction: () => setChosen(id === 'all' ? null : id),
        })),
        ...foldEntries,
        ...(foldWords && squads.length > 1
          ? [{ id: 'fold', text: foldWords, label: foldWords, onAction: foldAll }]
          : []),
        ...(pinWords ? [{ id: 'pin', text: pinWords, label: pinWords, onAction: pin }] : []),
      ]}
    >
      <QuietButton aria-label={`Lanes shown: ${title}. Choose`}>{title}</QuietButton>
    </Menu>
  );
  return { rows, menu, unfold: toggle };
}
