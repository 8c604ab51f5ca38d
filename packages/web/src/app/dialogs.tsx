import { Suspense, useMemo, useState } from 'react';
import { useCommands } from '../shell/commands.tsx';
import { useAppDispatch, useAppSelector } from '../state/store.ts';
import { useAsk } from '../shell/use-ask.ts';
import { historyShown, referenceShown, shortcutsShown } from '../state/view-slice.ts';
import { latePart, overThePage } from '../loading/late-part.tsx';

// They are loaded when they are first needed, so that a project opens without waiting for them.
const HistoryDialog = latePart(
  'the history',
  () => import('../history/history-dialog.tsx').then((file) => file.HistoryDialog),
  overThePage,
);
const ReferenceDialog = latePart(
  'the reference',
  () => import('../help/reference-dialog.tsx').then((file) => file.ReferenceDialog),
  overThePage,
);
const ShortcutSheet = latePart(
  'the shortcuts',
  () => import('../help/shortcut-sheet.tsx').then((file) => file.ShortcutSheet),
  overThePage,
);

/** What opens over the pages. */
export const LATE_DIALOGS = [HistoryDialog, ReferenceDialog, ShortcutSheet];

/** What the thing with the focus, or the word that is being written, is called in the reference. */
function inFocus(): string {
  const marked = document.activeElement?.closest<HTMLElement>('[data-reference]');
  return marked?.dataset.reference ?? '';
}

/** True from the first time on that it is wanted. */
function useFromThen(wanted: boolean): boolean {
  const [was, setWas] = useState(wanted);
  if (wanted && !was) setWas(true);
  return was || wanted;
}

/** What opens over every place of a project, with the commands that open it. */
export function Dialogs() {
  const dispatch = useAppDispatch();
  const ask = useAsk();
  const view = useAppSelector((state) => state.view);
  useCommands(
    useMemo(
      () => [
        {
          id: 'history',
          name: 'History of edits',
          keys: 'F4',
          run: () => dispatch(historyShown(true)),
        },
        {
          id: 'reference',
          name: 'Reference',
          keys: 'F1',
          run: () => dispatch(referenceShown(inFocus())),
        },
        {
          id: 'shortcuts',
          name: 'Shortcuts',
          keys: 'Shift+?',
          run: () => dispatch(shortcutsShown(true)),
        },
        {
          id: 'why',
          name: 'Ask why the followed agent does what it does, or not something else',
          keys: 'Shift+KeyW',
          run: () => ask({ agent: null, asking: { ask: 'why' } }),
        },
      ],
      [dispatch, ask],
    ),
    'project',
  );
  const history = useFromThen(view.history);
  // Its pages are in the command list too.
  const reference = useFromThen(view.reference !== null || view.commandList);
  const shortcuts = useFromThen(view.shortcuts);
  return (
    <Suspense fallback={null}>
      {history && <HistoryDialog />}
      {reference && <ReferenceDialog />}
      {shortcuts && <ShortcutSheet />}
    </Suspense>
  );
}
