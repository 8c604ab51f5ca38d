import { useMemo } from 'react';
import { useCommands } from './commands.tsx';

/** Parts of a place, in the order in which F6 goes through them: labelled regions and navigation. */
const PANES = '[data-panel] nav, [data-panel] section[aria-label]';

/** What in a pane takes the focus first: what is current there, else the first that can. */
const FIRST =
  '[data-state][aria-pressed="true"], [data-state][data-active="true"], [role="row"][tabindex="0"], [data-state], button, a, [tabindex="0"], input';

/** Regions that are not inside another. */
function panes(): HTMLElement[] {
  const all = [...document.querySelectorAll<HTMLElement>(PANES)];
  return all.filter((pane) => !all.some((other) => other !== pane && other.contains(pane)));
}

function goToNext(by: 1 | -1): void {
  const all = panes();
  const now = all.findIndex((pane) => pane.contains(document.activeElement));
  for (let i = 1; i <= all.length; i++) {
    const start = now < 0 && by < 0 ? 0 : now;
    const pane = all[(start + by * i + all.length * 2) % all.length];
    const candidates = FIRST.split(', ').flatMap((each) => [
      ...pane.querySelectorAll<HTMLElement>(each),
    ]);
    const first = candidates.find((element) => !element.closest('[aria-hidden="true"]'));
    if (!first) continue;
    first.focus();
    return;
  }
}

/** F6 leads from one part of a place to the next. */
export function usePanes(): void {
  useCommands(
    useMemo(
      () => [
        {
          id: 'next-pane',
          name: 'To the next part of the page',
          keys: 'F6',
          run: () => goToNext(1),
        },
        {
          id: 'previous-pane',
          name: 'To the part of the page before',
          keys: 'Shift+F6',
          run: () => goToNext(-1),
        },
      ],
      [],
    ),
    'everywhere',
  );
}
