import { readProject } from '@crooked-lantern/core';
import { createListenerMiddleware, isAnyOf } from '@reduxjs/toolkit';
import { api } from '../api/client.ts';
import {
  changed,
  closed,
  editRefused,
  editSaved,
  joinedWith,
  merged,
  mineKept,
  opened,
  opening,
  openingFailed,
  recovered,
  redone,
  savingChanged,
  theirsTaken,
  undone,
  type ProjectSlot,
} from './project-slice.ts';
import { createSaver, type Saver, type SaverEvent } from './saver.ts';
import { dropStash, stash } from './stash.ts';

/** Saves as you go: the open project has a saver, which takes its edits and reports their results. */

interface WithProject {
  project: ProjectSlot;
}

interface Listening {
  getState(): WithProject;
  dispatch(action: { type: string }): unknown;
}

const now = () => new Date().toISOString();

/** What a saver's news are to the store. Each names its project: late news never speak of another. */
function actionOf(id: string, event: SaverEvent) {
  if (event.kind === 'saved') return editSaved({ id, edit: event.edit, at: event.at });
  if (event.kind === 'refused')
    return editRefused({ id, edit: event.edit, message: event.message });
  if (event.kind === 'joined') return joinedWith({ id, ...event });
  return savingChanged({ id, saving: event });
}

/** The part of a store that saves; each store has its own. */
export function createSaving() {
  const saving = createListenerMiddleware<WithProject>();
  let saver: Saver | null = null;
  let stopWatching = () => {};

  function end(): void {
    stopWatching();
    saver?.stop();
    saver = null;
  }

  function begin(id: string, edit: number, { dispatch }: Listening): void {
    end();
    const started = createSaver(id, edit, {
      api,
      keep: (work) => stash(id, work),
      drop: () => dropStash(id),
      faultsOf: (document) => {
        const read = readProject(document);
        return read.ok ? [] : read.faults;
      },
      delay: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
      tell: (event) => dispatch(actionOf(id, event)),
    });
    saver = started;
    stopWatching = api.watch(id, (number) => started.heard(number));
  }

  /** The edit made last, which no server has yet. */
  function newest({ getState }: Listening) {
    const { project } = getState();
    return project.status === 'open' ? (project.unsaved.at(-1) ?? null) : null;
  }

  saving.startListening({
    actionCreator: opened,
    effect: ({ payload }, listening) => begin(payload.id, payload.edit, listening),
  });
  saving.startListening({
    matcher: isAnyOf(changed, undone, redone, joinedWith),
    effect: (_, listening) => {
      const edit = newest(listening);
      if (edit) saver?.add(edit, now());
    },
  });
  saving.startListening({
    actionCreator: recovered,
    // Where another edit came in between, the server refuses it as based on an older one.
    effect: ({ payload: { basedOn, at } }, listening) =>
      saver?.resume(basedOn, newest(listening), at ?? now()),
  });
  saving.startListening({
    actionCreator: mineKept,
    effect: ({ payload }, listening) => saver?.resume(payload, newest(listening), now()),
  });
  saving.startListening({
    actionCreator: merged,
    effect: ({ payload }, listening) => saver?.resume(payload.theirEdit, newest(listening), now()),
  });
  saving.startListening({
    actionCreator: theirsTaken,
    effect: ({ payload }) => saver?.resume(payload.edit, null, now()),
  });
  saving.startListening({ matcher: isAnyOf(closed, opening, openingFailed), effect: end });
  return saving;
}
