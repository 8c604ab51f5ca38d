import type { ProjectDocument } from '@crooked-lantern/core';
import { afterEach, expect, it, vi } from 'vitest';
import { api } from '../api/client.ts';
import { runEarlierEdit } from './earlier-edit.ts';

/** Edits by number from 1: the digest of each, and which of them run. */
function withEdits(digests: string[], running: number[]) {
  vi.spyOn(api, 'edits').mockResolvedValue({
    edits: digests
      .map((digest, i) => ({ number: i + 1, digest, createdAt: '2026-01-01T00:00:00Z' }))
      .reverse(),
    more: 0,
  });
  const read = vi.spyOn(api, 'readEdit').mockImplementation((id, number) =>
    Promise.resolve({
      id,
      edit: number,
      updatedAt: '2026-01-01T00:00:00Z',
      document: { title: `edit ${number}` } as ProjectDocument,
    }),
  );
  const submit = vi.fn((_: ProjectDocument, number: number) =>
    Promise.resolve({ findings: [], runs: running.includes(number) }),
  );
  return { read, submit, engine: { submit } };
}
afterEach(() => vi.restoreAllMocks());

it('the latest earlier edit without errors comes into force', async () => {
  const { engine, submit } = withEdits(['a', 'b', 'c', 'd'], [1, 2]);
  expect(await runEarlierEdit(engine, 'night', 4, () => true)).toBe(2);
  expect(submit.mock.calls.map(([{ title }, number]) => [title, number])).toEqual([
    ['edit 3', 3],
    ['edit 2', 2],
  ]);
});

it('a document that was tried before is not tried again, nor the one that was opened', async () => {
  const { engine, submit } = withEdits(['a', 'b', 'c', 'b', 'c'], [1]);
  expect(await runEarlierEdit(engine, 'night', 5, () => true)).toBe(1);
  expect(submit.mock.calls.map(([, number]) => number)).toEqual([4, 1]);
});

it('edits that came after the one that was opened are left out', async () => {
  const { engine, read } = withEdits(['a', 'b', 'c'], [1, 3]);
  expect(await runEarlierEdit(engine, 'night', 2, () => true)).toBe(1);
  expect(read).toHaveBeenCalledTimes(1);
});

it('where none runs, none does', async () => {
  const { engine } = withEdits(['a', 'b'], []);
  expect(await runEarlierEdit(engine, 'night', 2, () => true)).toBeNull();
});

it('of many edits with errors only so many are read', async () => {
  const { engine, read } = withEdits(
    Array.from({ length: 200 }, (_, i) => `digest ${i}`),
    [1],
  );
  expect(await runEarlierEdit(engine, 'night', 200, () => true)).toBeNull();
  expect(read).toHaveBeenCalledTimes(30);
});

it('nothing is put in force any more once something runs', async () => {
  const { engine, submit } = withEdits(['a', 'b', 'c'], [1]);
  let asked = 0;
  expect(await runEarlierEdit(engine, 'night', 3, () => asked++ === 0)).toBeNull();
  expect(submit).toHaveBeenCalledTimes(1);
});
