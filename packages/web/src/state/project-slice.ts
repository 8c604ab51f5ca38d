import type { Finding, ProjectDocument } from '@crooked-lantern/core';
import { createSlice, original, type PayloadAction } from '@reduxjs/toolkit';
import type { StoredProject } from '../api/client.ts';
import type { EarlierStep, History } from './history.ts';
import type { Stash } from './stash.ts';

/** A version of the document with its number, and in words what it changes. */
export interface Edit {
  edit: number;
  document: ProjectDocument;
  what: string;
}

/** A document to go back or forth to. One of an earlier visit is read from the server when it is asked for. */
type Step = {
  /** What leads from this document to the one after it: “guard of Chase”. */
  label: string;
} & ({ document: ProjectDocument } | { document: null; number: number });

type SavingState =
  | { kind: 'saved'; at: string }
  | { kind: 'saving' }
  /** The server or its database does not answer; tried again by itself. */
  | { kind: 'waiting'; message: string }
  /** Another save came first; both come from the edit `base`. */
  | { kind: 'conflict'; theirs: StoredProject; base: number; mineAt: string }
  | { kind: 'refused'; message: string };

/** What another window saved, and was taken over here. */
interface Joined {
  theirs: StoredProject;
  /** What is shown from now on: `theirs`, or that with what was unsaved here. */
  document: ProjectDocument;
  /** In words what the other changed. */
  parts: string[];
}

export interface ProjectState {
  id: string;
  document: ProjectDocument;
  edit: number;
  past: Step[];
  future: Step[];
  /** Edits not yet kept by the server, oldest first. */
  unsaved: Edit[];
  saving: SavingState;
  /** What another window changed last, until it is dismissed. */
  joined: { edit: number; parts: string[]; withMine: boolean } | null;
  findings: Finding[];
  /** The latest edit that could be put in force; 0 before the first. */
  runningEdit: number;
  /**
   * Set where the project was opened with errors, until an edit runs: the earlier edit that was put in force
   * instead, null where none runs.
   */
  earlier: { edit: number | null } | null;
  checkedEdit: number;
}

export type ProjectSlot =
  | { status: 'none' }
  | { status: 'loading'; id: string }
  | { status: 'failed'; id: string; message: string }
  | ({ status: 'open' } & ProjectState);

type OpenSlot = Extract<ProjectSlot, { status: 'open' }>;

/** Documents share what is the same in them, so that a step takes a few kilobytes. */
const UNDO_STEPS = 5000;

function put(state: OpenSlot, document: ProjectDocument, what: string): void {
  state.document = document;
  state.edit += 1;
  state.unsaved.push({ edit: state.edit, document, what });
}

/** The same on top of another’s edit, which came first. */
function putOnTop(
  state: OpenSlot,
  document: ProjectDocument,
  theirEdit: number,
  what: string,
): void {
  state.edit = theirEdit;
  state.unsaved = [];
  state.checkedEdit = 0;
  put(state, document, what);
  state.saving = { kind: 'saving' };
}

/** Shows another's edit, with nothing of ours on top. */
function take(state: OpenSlot, theirs: StoredProject): void {
  state.document = theirs.document;
  state.edit = theirs.edit;
  state.unsaved = [];
  state.checkedEdit = 0;
  state.saving = { kind: 'saved', at: theirs.updatedAt };
}

/** Parts in words, the first of them only where there are many: “guard of Chase and 3 more”. */
export function listed(parts: readonly string[]): string {
  const [first = 'nothing', ...more] = parts;
  return more.length === 0 ? first : `${first} and ${more.length} more`;
}

/** What two checks found alike stays the same object, so that what shows it is not rendered again. */
function keepAlike(before: Finding[], after: Finding[]): Finding[] {
  const known = new Map(before.map((finding) => [JSON.stringify(finding), finding]));
  const kept = after.map((finding) => known.get(JSON.stringify(finding)) ?? finding);
  const isSame = kept.length === before.length && kept.every((one, i) => one === before[i]);
  return isSame ? before : kept;
}

function whenOpen<P>(change: (state: OpenSlot, payload: P) => void) {
  return (state: ProjectSlot, { payload }: PayloadAction<P>) => {
    if (state.status === 'open') change(state, payload);
  };
}

/** The same for news of a project by its id, which are of no other that has been opened since. */
function whenMeant<P>(change: (state: OpenSlot, payload: P) => void) {
  return whenOpen<P & { id: string }>((state, payload) => {
    if (state.id === payload.id) change(state, payload);
  });
}

const slice = createSlice({
  name: 'project',
  initialState: { status: 'none' } as ProjectSlot,
  reducers: {
    opening: (_, { payload }: PayloadAction<string>): ProjectSlot => ({
      status: 'loading',
      id: payload,
    }),
    openingFailed: (
      _,
      { payload }: PayloadAction<{ id: string; message: string }>,
    ): ProjectSlot => ({ status: 'failed', ...payload }),
    opened: (
      _,
      { payload: { id, edit, document, updatedAt } }: PayloadAction<StoredProject>,
    ): ProjectSlot => ({
      status: 'open',
      id,
      document,
      edit,
      past: [],
      future: [],
      unsaved: [],
      saving: { kind: 'saved', at: updatedAt },
      joined: null,
      findings: [],
      runningEdit: 0,
      earlier: null,
      checkedEdit: 0,
    }),
    closed: (): ProjectSlot => ({ status: 'none' }),
    changed: whenOpen<{ document: ProjectDocument; label: string }>(
      (state, { document, label }) => {
        state.past.push({ document: state.document, label });
        if (state.past.length > UNDO_STEPS) state.past.shift();
        state.future = [];
        put(state, document, label);
      },
    ),
    undone: whenOpen<void>((state) => {
      const step = state.past.at(-1);
      if (!step?.document) return;
      state.past.pop();
      state.future.push({ document: state.document, label: step.label });
      put(state, step.document, `undone: ${step.label}`);
    }),
    redone: whenOpen<void>((state) => {
      const step = state.future.at(-1);
      if (!step?.document) return;
      state.future.pop();
      state.past.push({ document: state.document, label: step.label });
      put(state, step.document, `redone: ${step.label}`);
    }),
    /** What edits of earlier visits can be gone back to; forth only where nothing was changed since. */
    historyRead: whenMeant<History>((state, { past, future }) => {
      const stepTo = ({ number, label }: EarlierStep): Step => ({ label, document: null, number });
      if (state.past.length === 0 && state.future.length === 0) state.future = future.map(stepTo);
      state.past.unshift(...past.map(stepTo));
    }),
    stepRead: whenMeant<{ from: 'past' | 'future'; document: ProjectDocument }>(
      (state, { from, document }) => {
        const step = state[from].pop();
        if (step) state[from].push({ label: step.label, document });
      },
    ),
    checked: whenOpen<{ edit: number; findings: Finding[]; runs: boolean }>(
      (state, { edit, findings, runs }) => {
        if (edit < state.checkedEdit) return;
        state.checkedEdit = edit;
        state.findings = keepAlike(original<unknown>(state.findings) as Finding[], findings);
        if (!runs) return;
        state.runningEdit = edit;
        state.earlier = null;
      },
    ),
    /** The edit that was opened has errors: what runs instead, null for nothing. */
    earlierEditRuns: whenMeant<{ edit: number | null }>((state, { edit }) => {
      if (state.runningEdit > 0) return;
      state.runningEdit = edit ?? 0;
      state.earlier = { edit };
    }),
    /** Work of an earlier visit that no server took, based on an edit that may no longer be the latest. */
    recovered: whenOpen<Stash>((state, { document }) => {
      const label = 'unsaved work of the last visit';
      state.past.push({ document: state.document, label });
      put(state, document, label);
    }),
    savingChanged: whenMeant<{ saving: SavingState }>((state, { saving }) => {
      state.saving = saving;
    }),
    editSaved: whenMeant<{ edit: number; at: string }>((state, { edit, at }) => {
      state.unsaved = state.unsaved.filter((unsaved) => unsaved.edit > edit);
      state.saving = state.unsaved.length > 0 ? { kind: 'saving' } : { kind: 'saved', at };
    }),
    /** The edit is not sent again; those after it are. */
    editRefused: whenMeant<{ edit: number; message: string }>((state, { edit, message }) => {
      state.unsaved = state.unsaved.filter((unsaved) => unsaved.edit !== edit);
      state.saving = { kind: 'refused', message };
    }),
    joinedWith: whenMeant<Joined>((state, { theirs, document, parts }) => {
      const withMine = document !== theirs.document;
      if (parts.length > 0) state.joined = { edit: theirs.edit, parts, withMine };
      const label = `the other window’s edit: ${listed(parts)}`;
      if (parts.length > 0) state.past.push({ document: state.document, label });
      state.future = [];
      if (withMine) return putOnTop(state, document, theirs.edit, `merged with ${label}`);
      take(state, theirs);
    }),
    joinedDismissed: whenOpen<void>((state) => {
      state.joined = null;
    }),
    theirsTaken: whenOpen<StoredProject>((state, theirs) => {
      state.past.push({ document: state.document, label: 'taking the other window’s edit' });
      state.future = [];
      take(state, theirs);
    }),
    /** Some of ours and some of theirs, on top of theirs. */
    merged: whenOpen<{ document: ProjectDocument; theirEdit: number }>(
      (state, { document, theirEdit }) => {
        const label = 'merging with the other window’s edit';
        state.past.push({ document: state.document, label });
        state.future = [];
        putOnTop(state, document, theirEdit, label);
      },
    ),
    mineKept: whenOpen<number>((state, theirEdit) =>
      putOnTop(state, state.document, theirEdit, 'kept on top of the other window’s edit'),
    ),
  },
});

export const {
  opening,
  openingFailed,
  opened,
  closed,
  changed,
  undone,
  redone,
  historyRead,
  stepRead,
  checked,
  earlierEditRuns,
  recovered,
  savingChanged,
  editSaved,
  editRefused,
  joinedWith,
  joinedDismissed,
  theirsTaken,
  mineKept,
  merged,
} = slice.actions;
export const projectReducer = slice.reducer;
