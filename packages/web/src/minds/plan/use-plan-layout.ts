import type { ProjectDocument } from '@crooked-lantern/core';
import { useEffect, useMemo, useState } from 'react';
import { useProject } from '../../state/store.ts';
import { listStates } from '../document-names.ts';
import { wellAfterOpening } from '../../ui/timing/well-after-opening.ts';
import { keepLayouts, readLayouts } from './kept-layouts.ts';
import {
  fittest,
  LAYOUT_VERSION,
  layoutPlans,
  prepareLayouter,
  type PlanLayout,
} from './plan-layout.ts';
import { runInBackground } from '../../state/failures.ts';

/** The rooms around a state, and itself. */
function roomsAround(document: ProjectDocument, mind: string, state: string | null): string {
  const listed = listStates(document, mind).find((entry) => entry.state.id === state);
  return listed ? [...listed.around, listed.state.id].join(' ') : '';
}

/**
 * Layout of a mind's plan for a space of this shape, null before the first, and whether another is being made that
 * takes its place. `folds` has the rooms that were folded (true) or unfolded by hand.
 */
export function usePlanLayout(
  mind: string,
  chosen: string | null,
  room: { width: number; height: number },
  folds: ReadonlyMap<string, boolean>,
): { layout: PlanLayout | null; isBusy: boolean } {
  const around = useProject((project) => roomsAround(project.document, mind, chosen));
  const unfolded = [...folds].flatMap(([id, folded]) => (folded ? [] : [id]));
  const folded = [...folds].flatMap(([id, isFolded]) => (isFolded ? [id] : [])).join(' ');
  const open = [around, ...unfolded].join(' ');
  const states = useProject((project) => project.document.minds[mind]?.machine?.states);
  // Only what is drawn makes a new layout: numbers change all the time while one works.
  const drawn = useMemo(
    () =>
      JSON.stringify(states ?? [], (key, value: unknown) =>
        // Of what is done when a transition is taken only that there is something.
        key === 'do' ? [] : ['entry', 'exit', 'activity'].includes(key) ? undefined : value,
      ),
    [states],
  );
  const key = `${LAYOUT_VERSION}\n${open}\n${folded}\n${drawn}`;
  // While another is being made the one before stays, so that nothing flashes.
  const [last, setLast] = useState<{ key: string; plans: PlanLayout[] } | null>(null);
  const kept = useMemo(() => readLayouts(key), [key]);
  useEffect(() => {
    let current = true;
    if (kept) {
      setLast({ key, plans: kept });
      // The layout engine is large.
      return wellAfterOpening(prepareLayouter);
    }
    runInBackground(
      layoutPlans(JSON.parse(drawn), {
        open: new Set(open.split(' ')),
        folded: new Set(folded.split(' ')),
      }).then((plans) => {
        keepLayouts(key, plans);
        if (current) setLast({ key, plans });
      }),
    );
    return () => {
      current = false;
    };
  }, [kept, key, drawn, open, folded]);
  const plans = kept ?? last?.plans;
  const layout = useMemo(() => (plans ? fittest(plans, room) : null), [plans, room]);
  return { layout, isBusy: !kept && last?.key !== key };
}
