import { tierInForce } from '@crooked-lantern/core';
import { ChevronDown } from 'lucide-react';
import { useMemo } from 'react';
import { useCommands } from '../shell/commands.tsx';
import { perform } from '../state/perform.ts';
import { useAppDispatch, useProject } from '../state/store.ts';
import { QuietButton } from '../ui/button.tsx';
import { Menu } from '../ui/overlays/menu.tsx';
import { runInBackground } from '../state/failures.ts';

/** The tier in force, switched while the run goes on: agents keep what they have. */
export function TierPill() {
  const dispatch = useAppDispatch();
  const tiers = useProject(({ document }) => document.tiers);
  const inForce = useProject(({ document }) => tierInForce(document));
  useCommands(
    useMemo(() => {
      if (!tiers || tiers.length < 2 || !inForce) return [];
      const next = tiers[(tiers.indexOf(inForce) + 1) % tiers.length];
      return [
        {
          id: 'next-tier',
          name: `Tier: turn to ${next.title ?? next.name}`,
          keys: 'Shift+KeyT',
          run: () =>
            runInBackground(
              dispatch(perform({ command: 'changeStart', change: { tier: next.name } })),
            ),
        },
      ];
    }, [dispatch, tiers, inForce]),
    'project',
  );
  if (!tiers || !inForce) return null;
  return (
    <Menu
      label="Tier"
      entries={tiers.map(({ name, title = name }) => ({
        id: name,
        text: title,
        label: title,
        onAction: () =>
          runInBackground(dispatch(perform({ command: 'changeStart', change: { tier: name } }))),
      }))}
    >
      <QuietButton aria-label={`Tier ${inForce.title ?? inForce.name}. Choose another (Shift+T)`}>
        tier <strong>{inForce.title ?? inForce.name}</strong> <ChevronDown size={12} aria-hidden />
      </QuietButton>
    </Menu>
  );
}
