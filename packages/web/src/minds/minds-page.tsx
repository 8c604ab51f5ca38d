import { Suspense, useCallback, useEffect, type ReactNode, useState } from 'react';
import { useProject } from '../state/store.ts';
import { useEngine, useEngineValue } from '../engine/use-engine.tsx';
import { GroundView } from '../ground/ground-view.tsx';
import { LedgerPanel } from '../ledger/ledger-panel.tsx';
import { PlacePanes } from '../shell/panes.tsx';
import { useCoverageCommand } from '../shell/coverage-toggle.tsx';
import { PlaceLayout } from '../ui/place.ts';
import type { CalledPart } from './actions/activity-call.tsx';
import { MindList } from './mind-list.tsx';
import { Sheet } from './sheet-layout.ts';
import { StatePlan } from './plan/state-plan.tsx';
import { StateSheet } from './states/state-sheet.tsx';
import { useCopyLinkCommand } from './use-copy-link.ts';
import { useSelection, type Selection } from './use-selection.ts';
import { isWriting, PasteProvider, usePaste } from './use-paste.tsx';
import { useStateWork } from './states/use-state-work.tsx';
import { latePart } from '../loading/late-part.tsx';

// The states are here at once; other sheets come when they are opened.
const MemorySheet = latePart('the sheet of memory', () =>
  import('./memory/memory-sheet.tsx').then((file) => file.MemorySheet),
);
const MindSheet = latePart('the sheet of the mind', () =>
  import('./mind-sheet.tsx').then((file) => file.MindSheet),
);
const PartSheet = latePart('this sheet', () =>
  import('./part-sheet.tsx').then((file) => file.PartSheet),
);

/** The innermost active state of the watched agent. */
function useLeaf(): string | null {
  return useEngineValue(({ frame }) => {
    const active = frame?.readout?.active;
    return active && active.length > 0 ? active[active.length - 1] : null;
  });
}

/** What is opened besides the states. */
function OtherSheet({
  selection,
  select,
  startsFocused,
}: {
  selection: Selection;
  select: (change: Partial<Selection>) => void;
  startsFocused: boolean;
}) {
  const { mind, sheet } = selection;
  if (sheet === 'memory') return <MemorySheet key={mind} mind={mind} />;
  const [part, name] = sheet!.split('.');
  if (part === 'trees' || part === 'rules' || part === 'choices')
    return (
      <PartSheet
        key={`${mind} ${sheet}`}
        selection={selection}
        part={part}
        name={name ?? ''}
        select={select}
        startsFocused={startsFocused}
      />
    );
  return <MindSheet key={mind} selection={selection} select={select} />;
}

/** How characters behave: the state plan, the chosen state's sheet, the running ground beside it, the ledger below. */
export function MindsPage({ header }: { header: ReactNode }) {
  const engine = useEngine();
  const selection = useSelection();
  const { select } = selection;
  const leaf = useLeaf();
  const planned = useProject(
    ({ document }) =>
      selection.sheet === null && document.minds[selection.mind]?.machine !== undefined,
  );
  const shown = selection.state ?? leaf;
  useEffect(
    () => engine.watch(selection.agent, selection.mind, shown),
    [engine, selection.agent, selection.mind, shown],
  );
  const selectState = useCallback((state: string | null) => select({ state }), [select]);
  const openPart = useCallback(
    (part: CalledPart, name: string) => select({ sheet: `${part}.${name}` }),
    [select],
  );
  // A page that has just been opened leaves the focus alone; what is opened from it takes it.
  const [firstSheet] = useState(selection.sheet);
  const [moved, setMoved] = useState(false);
  if (!moved && selection.sheet !== firstSheet) setMoved(true);
  const work = useStateWork(selection, select);
  const { paste, dialog: pasteDialog } = usePaste(selection, select);
  useEffect(() => {
    // What has no place of its own for it goes into the mind as a whole.
    const onPaste = (event: ClipboardEvent) => {
      if (event.defaultPrevented || isWriting(event.target)) return;
      if (paste(event.clipboardData?.getData('text/plain') ?? '', null)) event.preventDefault();
    };
    window.addEventListener('paste', onPaste);
    return () => window.removeEventListener('paste', onPaste);
  }, [paste]);
  useCopyLinkCommand();
  useCoverageCommand();
  const selectAgent = useCallback((agent: string) => select({ agent }), [select]);
  return (
    <PasteProvider value={paste}>
      <PlaceLayout>
        {header}
        <PlacePanes
          place="minds"
          list={{
            name: 'the list of minds',
            size: '198px',
            least: '120px',
            content: <MindList selection={selection} select={select} />,
          }}
          plan={
            planned
              ? {
                  name: 'the state plan',
                  size: '46%',
                  least: '110px',
                  content: (
                    <StatePlan
                      selection={selection}
                      shown={shown}
                      onSelect={selectState}
                      work={work}
                      startsFocused={moved}
                    />
                  ),
                }
              : null
          }
          work={
            selection.sheet === null ? (
              <StateSheet
                key={shown}
                selection={selection}
                shown={shown}
                onSelect={selectState}
                onOpen={openPart}
                work={work}
              />
            ) : (
              <Suspense fallback={<Sheet aria-busy />}>
                <OtherSheet selection={selection} select={select} startsFocused={moved} />
              </Suspense>
            )
          }
          side={{
            name: 'the ground',
            size: '32%',
            least: '220px',
            content: <GroundView agent={selection.agent} onSelectAgent={selectAgent} />,
          }}
          kept="side"
          ledger={<LedgerPanel agent={selection.agent} onSelectAgent={selectAgent} />}
        />
        {work.dialog}
        {pasteDialog}
      </PlaceLayout>
    </PasteProvider>
  );
}
