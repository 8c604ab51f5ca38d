import type { Program } from '@crooked-lantern/core';
import { useCallback, useMemo, useState, type ReactNode } from 'react';
import { useCommands } from '../shell/commands.tsx';
import { QuietButton } from '../ui/button.tsx';
import { Menu } from '../ui/menu.tsx';
import { chosenRows, laneGroups } from './lane-choice.ts';
import type { LaneRow } from './lane-titles.ts';

const EVERYBODY = 'Everybody';
const NOBODY: ReadonlySet<string> = new Set();

/** Which lanes are shown, and the menu that says so and changes it. */
export function useLaneChoice(
  program: Program | null,
  all: readonly LaneRow[],
  agent: string | null,
): { rows: readonly LaneRow[]; menu: ReactNode } {
  const [chosen, setChosen] = useState<string | null>(null);
  const [pinned, setPinned] = useState(NOBODY);
  const groups = useMemo(() => laneGroups(program, all), [program, all]);
  // A group that an edit took away shows everybody again.
  const group = groups.find(({ id }) => id === chosen) ?? null;
  const rows = useMemo(() => chosenRows(all, group, pinned), [all, group, pinned]);
  const followed = all.find(({ name }) => name === agent);
  const isPinned = followed !== undefined && pinned.has(followed.name);
  const pinWords =
    followed && (isPinned ? `Unpin ${followed.title}` : `Pin ${followed.title} on top`);
  const pin = useCallback(() => {
    if (agent === null) return;
    setPinned((before) => {
      const after = new Set(before);
      if (!after.delete(agent)) after.add(agent);
      return after;
    });
  }, [agent]);
  useCommands(
    useMemo(
      () => (pinWords ? [{ id: 'pin-lane', name: `${pinWords} in the ledger`, run: pin }] : []),
      [pinWords, pin],
    ),
  );
  const title = group?.title ?? EVERYBODY;
  const menu = (groups.length > 0 || followed) && (
    <Menu
      label="Lanes shown"
      entries={[
        ...[{ id: 'all', title: EVERYBODY }, ...groups].map(({ id, title: name }) => ({
          id,
          text: name,
          label: name,
          onAction: () => setChosen(id === 'all' ? null : id),
        })),
        ...(pinWords ? [{ id: 'pin', text: pinWords, label: pinWords, onAction: pin }] : []),
      ]}
    >
      <QuietButton aria-label={`Lanes shown: ${title}. Choose`}>{title}</QuietButton>
    </Menu>
  );
  return { rows, menu };
}
