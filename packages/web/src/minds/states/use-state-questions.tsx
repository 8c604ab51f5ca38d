import type { StateDocument } from '@crooked-lantern/core';
import { useCallback, useMemo } from 'react';
import { useEngine } from '../../engine/use-engine.tsx';
import { useCommands } from '../../shell/commands.tsx';
import { useAsk } from '../../shell/use-ask.ts';
import { useBreakpoints } from '../../state/use-breakpoints.ts';
import type { MenuEntry } from '../../ui/overlays/menu.tsx';
import { Kbd } from '../../ui/pill.tsx';
import { keyShown } from '../../ui/timing/pressed-key.ts';
import { titleOf } from '../document-names.ts';

/** What can be asked of a state while it runs, for its menu: why it is active or not, and to stop when it is entered. */
export function useStateQuestions(
  mind: string,
  state: StateDocument | null,
  agent: string | null,
): readonly MenuEntry[] {
  const engine = useEngine();
  const ask = useAsk();
  const { isSet, toggle: toggleAt } = useBreakpoints();
  const id = state?.id ?? '';
  const toggle = useCallback(() => toggleAt({ on: 'enter', of: id }), [toggleAt, id]);
  const stopWords = isSet({ on: 'enter', of: id })
    ? 'Stop no longer when it is entered'
    : 'Stop when it is entered';
  const title = state && titleOf(state);
  useCommands(
    useMemo(
      () =>
        title === null
          ? []
          : [
              {
                id: 'stop-at-state',
                name: `${title}: ${stopWords[0].toLowerCase()}${stopWords.slice(1)}`,
                keys: 'Shift+KeyB',
                run: toggle,
              },
            ],
      [title, stopWords, toggle],
    ),
  );
  if (!state) return [];
  return [
    {
      id: 'why',
      text: 'Why is it here, or not',
      label: 'Why is it here, or not',
      onAction: () => {
        const isHere = engine.frame?.readout?.active.includes(state.id) ?? false;
        const target = { kind: 'state', state: state.id } as const;
        ask({
          agent,
          asking: isHere ? { ask: 'why' } : { ask: 'whyNot', target },
          mind,
        });
      },
    },
    {
      id: 'stop',
      text: stopWords,
      label: (
        <>
          {stopWords} <Kbd>{keyShown('Shift+B')}</Kbd>
        </>
      ),
      onAction: toggle,
    },
  ];
}
