// @vitest-environment happy-dom
import type { ProjectDocument } from '@crooked-lantern/core';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { api, ApiError, type StoredProject } from '../api/client.ts';
import { openProject } from './open-project.ts';
import { closed } from './project-slice.ts';
import { createStore } from './store.ts';

const stored = (id: string): StoredProject => ({
  id,
  edit: 2,
  updatedAt: '2026-01-01T00:00:00Z',
  document: { title: id } as ProjectDocument,
});

/** Answers of the server that are still to come, in the order they were asked for. */
let answers: { give(): void; fail(): void }[];

beforeEach(() => {
  answers = [];
  vi.spyOn(api, 'read').mockImplementation(
    (id) =>
      new Promise((resolve, reject) =>
        answers.push({
          give: () => resolve(stored(id)),
          fail: () => reject(new ApiError(404, 'There is no such project.')),
        }),
      ),
  );
  vi.spyOn(api, 'watch').mockReturnValue(() => {});
  vi.spyOn(api, 'edits').mockResolvedValue({
    edits: [2, 1].map((number) => ({
      number,
      createdAt: '2026-01-01T00:00:00Z',
      digest: `of ${number}`,
    })),
    more: 0,
  });
});
afterEach(() => vi.restoreAllMocks());

it('a project that was left while the server answered does not come up over the one opened since', async () => {
  const store = createStore();
  const both = [store.dispatch(openProject('night')), store.dispatch(openProject('day'))];
  answers[1].give();
  answers[0].give();
  await Promise.all(both);
  expect(store.getState().project).toMatchObject({ status: 'open', id: 'day' });
});

it('an error about a project that was left is not shown for the one opened since', async () => {
  const store = createStore();
  const both = [store.dispatch(openProject('night')), store.dispatch(openProject('day'))];
  answers[0].fail();
  await both[0];
  expect(store.getState().project).toEqual({ status: 'loading', id: 'day' });
  answers[1].give();
  await both[1];
});

it('a project that is left and opened again at once has each earlier edit once', async () => {
  const store = createStore();
  const first = store.dispatch(openProject('night'));
  store.dispatch(closed());
  const second = store.dispatch(openProject('night'));
  for (const answer of answers) answer.give();
  await Promise.all([first, second]);
  await vi.waitFor(() => {
    const { project } = store.getState();
    expect(project.status === 'open' && project.past.map(({ label }) => label)).toEqual(['edit 2']);
  });
  expect(api.edits).toHaveBeenCalledTimes(1);
});
