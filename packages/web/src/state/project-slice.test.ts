import type { ProjectDocument } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import {
  changed,
  checked,
  editSaved,
  merged,
  mineKept,
  opened,
  projectReducer,
  redone,
  savingChanged,
  theirsTaken,
  undone,
  type ProjectSlot,
} from './project-slice.ts';

const titled = (title: string) => ({ title }) as ProjectDocument;
const stored = (title: string, edit: number) => ({
  id: 'night',
  edit,
  updatedAt: '2026-01-01T00:00:00Z',
  document: titled(title),
});
const change = (title: string) => changed({ document: titled(title), label: `title ${title}` });

type Action = Parameters<typeof projectReducer>[1];

function after(...actions: Action[]) {
  const slot = actions.reduce<ProjectSlot>(
    (state, action) => projectReducer(state, action),
    projectReducer({ status: 'none' }, opened(stored('one', 4))),
  );
  if (slot.status !== 'open') throw new Error('The project is not open.');
  return slot;
}

describe('edits', () => {
  it('are numbered on from the one that was opened, each waiting to be saved', () => {
    const slot = after(change('two'), change('three'));
    expect([slot.edit, slot.document.title]).toEqual([6, 'three']);
    expect(slot.unsaved.map(({ edit, document }) => [edit, document.title])).toEqual([
      [5, 'two'],
      [6, 'three'],
    ]);
  });

  it('are undone and redone as edits of their own: history only grows', () => {
    const slot = after(change('two'), undone(), redone(), undone());
    expect([slot.edit, slot.document.title]).toEqual([8, 'one']);
    expect(slot.unsaved.map(({ document }) => document.title)).toEqual([
      'two',
      'one',
      'two',
      'one',
    ]);
    expect(slot.future.map(({ label }) => label)).toEqual(['title two']);
  });

  it('a new one ends what could be redone', () => {
    expect(after(change('two'), undone(), change('three')).future).toEqual([]);
  });

  it('undoing nothing changes nothing', () => {
    expect(after(undone(), redone()).edit).toBe(4);
  });
});

describe('saving', () => {
  it('is done when the last one is', () => {
    expect(
      after(change('two'), change('three'), editSaved({ id: 'night', edit: 5, at: 'now' })).saving,
    ).toEqual({ kind: 'saving' });
    const slot = after(change('two'), editSaved({ id: 'night', edit: 5, at: 'now' }));
    expect([slot.saving, slot.unsaved]).toEqual([{ kind: 'saved', at: 'now' }, []]);
  });

  it('keeps mine on top of theirs, numbered after it', () => {
    const slot = after(
      change('mine'),
      savingChanged({
        id: 'night',
        saving: { kind: 'conflict', theirs: stored('theirs', 5), base: 4, mineAt: 'then' },
      }),
      mineKept(5),
    );
    expect([slot.edit, slot.document.title, slot.unsaved.length]).toEqual([6, 'mine', 1]);
  });

  it('puts both together on top of theirs, and undo brings mine back', () => {
    const both = merged({ document: titled('both'), theirEdit: 5 });
    const slot = after(change('mine'), both);
    expect([slot.edit, slot.document.title, slot.unsaved.length]).toEqual([6, 'both', 1]);
    expect(after(change('mine'), both, undone())).toMatchObject({
      edit: 7,
      document: titled('mine'),
    });
  });

  it('takes theirs, and undo brings mine back', () => {
    const taken = theirsTaken(stored('theirs', 5));
    expect(after(change('mine'), taken)).toMatchObject({
      edit: 5,
      document: titled('theirs'),
      unsaved: [],
    });
    expect(after(change('mine'), taken, undone())).toMatchObject({
      edit: 6,
      document: titled('mine'),
    });
  });
});

describe('what runs', () => {
  const finding = { code: 'expression', severity: 'error', path: 'x', message: 'y' } as const;

  it('stays the last good edit while a later one has errors', () => {
    const slot = after(
      checked({ edit: 4, findings: [], runs: true }),
      change('two'),
      checked({ edit: 5, findings: [finding], runs: false }),
    );
    expect([slot.runningEdit, slot.checkedEdit, slot.findings.length]).toEqual([4, 5, 1]);
  });

  it('is not confused by an answer that comes late', () => {
    const slot = after(
      change('two'),
      checked({ edit: 5, findings: [], runs: true }),
      checked({ edit: 4, findings: [finding], runs: false }),
    );
    expect([slot.runningEdit, slot.findings]).toEqual([5, []]);
  });

  it('what a check finds again stays the same object, so that it is not drawn again', () => {
    const other = { ...finding, message: 'Something else.' };
    const first = after(
      change('two'),
      checked({ edit: 5, findings: [finding, other], runs: true }),
    );
    const again = projectReducer(
      first,
      checked({ edit: 5, findings: structuredClone([other, finding]), runs: true }),
    ) as typeof first;
    expect(again.findings).toEqual([other, finding]);
    expect(again.findings[0]).toBe(first.findings[1]);
    const same = projectReducer(
      again,
      checked({ edit: 5, findings: structuredClone([other, finding]), runs: true }),
    ) as typeof first;
    expect(same.findings).toBe(again.findings);
  });
});
