import { readProject, type ProjectDocument } from '@crooked-lantern/core';
import { useEffect } from 'react';
import type { EngineClient } from '../engine/engine-client.ts';
import { checked, earlierEditRuns } from '../state/project-slice.ts';
import { useAppStore } from '../state/store.ts';
import { wellAfterOpening } from '../ui/timing/well-after-opening.ts';
import { runInBackground } from '../state/failures.ts';
import { runEarlierEdit } from './earlier-edit.ts';
import { linkedMoment, openMoment } from './open-moment.ts';

/**
 * Hands every edit of a project to its engine as soon as it is made: the engine checks it while the page is still
 * being drawn with it. The first that runs begins to play, unless the address names a tick. Where the project opens
 * with errors, its last edit without any runs.
 */
export function useSubmitting(engine: EngineClient | null, id: string): void {
  const store = useAppStore();
  useEffect(() => {
    if (!engine) return;
    // Read before the pages write into the address what is looked at.
    const asked = linkedMoment(window.location.search);
    let current = true;
    let latest: ProjectDocument | null = null;
    let begun = false;
    let cancel = () => {};
    const begin = (edit: number) => {
      if (begun) return;
      begun = true;
      runInBackground(openMoment(engine, asked, edit));
    };
    /** A project that opens with errors shows its last edit without any, until they are mended. */
    const fallBack = async (edit: number) => {
      const openNow = () => {
        const { project } = store.getState();
        return current && project.status === 'open' && project.id === id ? project : null;
      };
      const earlier = await runEarlierEdit(engine, id, edit, () => openNow()?.runningEdit === 0);
      const project = openNow();
      if (!project) return;
      // What is checked and asked about, and what comes into force next, follows from the latest.
      latest = project.document;
      await engine.submit(latest, project.edit);
      if (!current) return;
      store.dispatch(earlierEditRuns({ id, edit: earlier }));
      if (earlier !== null) begin(earlier);
    };
    const submit = () => {
      const { project } = store.getState();
      if (project.status !== 'open' || project.id !== id || project.document === latest) return;
      const { document, edit } = project;
      // Of an edit only what it changed is looked at here; over there all of it would be. The first document is left
      // to the worker, which has time while the page is drawn.
      const isFirst = latest === null;
      const hasForm = !isFirst && readProject(document).ok;
      latest = document;
      runInBackground(
        engine.submit(document, edit, hasForm).then(
          ({ findings, runs }) => {
            if (!current) return;
            // So that the first edit finds it looked at.
            if (isFirst) cancel = wellAfterOpening(() => readProject(document));
            if (latest !== document) return;
            store.dispatch(checked({ edit, findings, runs }));
            if (runs) begin(edit);
            else if (isFirst) runInBackground(fallBack(edit));
          },
          (error: unknown) => {
            // It is handed over again when the engine is restarted, or with the next edit.
            if (latest === document) latest = null;
            throw error;
          },
        ),
      );
    };
    submit();
    const unsubscribe = store.subscribe(submit);
    const forgetRestart = engine.onRestart(submit);
    return () => {
      current = false;
      cancel();
      unsubscribe();
      forgetRestart();
    };
  }, [engine, id, store]);
}
