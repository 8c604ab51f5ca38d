import type { ProjectDocument } from '@crooked-lantern/core';
import { configureStore } from '@reduxjs/toolkit';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { changed, closed, mineKept, opened, projectReducer, undone } from './project-slice.ts';
import { saving } from './saving.ts';
import { readStash } from './stash.ts';

/** A server that keeps edits, can be told to fail, and answers when it is let. */
function fakeServer() {
  const edits: unknown[] = [{ title: 'one' }];
  const failures: (number | 'lost' | 'lost answer')[] = [];
  const writes: string[] = [];
  const answer = (status: number, body: unknown) =>
    new Response(status === 204 ? null : JSON.stringify(body), {
      status,
      headers: { 'content-type': 'application/json' },
    });
  const stored = () => ({
    id: 'night',
    edit: edits.length,
    updatedAt: '2026-01-01T00:00:00Z',
    document: edits[edits.length - 1],
  });
  const fetch = vi.fn(async (_: string, init: RequestInit = {}) => {
    if (init.method !== 'PUT') return answer(200, stored());
    const document = JSON.parse(init.body as string) as { title: string };
    writes.push(document.title);
    const failure = failures.shift();
    if (failure === 'lost') throw new TypeError('network');
    if (typeof failure === 'number')
      return answer(failure, { title: 'Refused', detail: 'for a test', status: failure });
    const basedOn = Number(/\d+/.exec((init.headers as Record<string, string>)['if-match'])![0]);
    if (basedOn !== edits.length)
      return answer(412, { title: 'Stale', status: 412, currentEdit: edits.length });
    edits.push(document);
    if (failure === 'lost answer') throw new TypeError('network');
    return answer(200, stored());
  });
  return {
    edits,
    failures,
    writes,
    fetch,
    titles: () => edits.map((document) => (document as { title: string }).title),
  };
}

function fakeStorage(): Storage {
  const kept = new Map<string, string>();
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  } as unknown as Storage;
}

const titled = (title: string) => ({ title }) as ProjectDocument;
const change = (title: string) => changed({ document: titled(title), label: title });

let server: ReturnType<typeof fakeServer>;

beforeEach(() => {
  vi.useFakeTimers();
  server = fakeServer();
  vi.stubGlobal('fetch', server.fetch);
  vi.stubGlobal('localStorage', fakeStorage());
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

function openStore() {
  const store = configureStore({
    reducer: { project: projectReducer },
    middleware: (defaults) => defaults().prepend(saving.middleware),
  });
  store.dispatch(opened({ id: 'night', edit: 1, updatedAt: 'then', document: titled('one') }));
  const project = () => {
    const { project: slot } = store.getState();
    if (slot.status !== 'open') throw new Error('The project is not open.');
    return slot;
  };
  return { store, project };
}

/** Lets everything that is under way come to its end, retries included. */
const settle = () => vi.advanceTimersByTimeAsync(30_000);

describe('saving as you go', () => {
  it('sends every edit in its turn, one at a time', async () => {
    const { store, project } = openStore();
    store.dispatch(change('two'));
    store.dispatch(change('three'));
    store.dispatch(undone());
    expect(project().saving).toEqual({ kind: 'saving' });
    await settle();
    expect(server.titles()).toEqual(['one', 'two', 'three', 'two']);
    expect(project()).toMatchObject({ edit: 4, unsaved: [], saving: { kind: 'saved' } });
    expect(readStash('night')).toBeNull();
  });

  it('takes up an edit made while another is on its way', async () => {
    const { store } = openStore();
    store.dispatch(change('two'));
    await Promise.resolve();
    store.dispatch(change('three'));
    await settle();
    expect(server.titles()).toEqual(['one', 'two', 'three']);
    expect(server.writes).toEqual(['two', 'three']);
  });
});

describe('when the server can’t take it', () => {
  it.each([
    ['the database is lost', 503],
    ['the server is lost', 'lost'],
    ['there were too many requests', 429],
  ] as const)('because %s, it says so, keeps the work, and tries again', async (_, failure) => {
    const { store, project } = openStore();
    server.failures.push(failure, failure, failure);
    store.dispatch(change('two'));
    await vi.advanceTimersByTimeAsync(100);
    expect(project().saving.kind).toBe('waiting');
    expect(readStash('night')).toEqual({ basedOn: 1, document: titled('two') });
    store.dispatch(change('three'));
    await settle();
    expect(server.titles()).toEqual(['one', 'two', 'three']);
    expect(project().saving.kind).toBe('saved');
  });

  it('because it refuses the document, it says why and waits for another', async () => {
    const { store, project } = openStore();
    server.failures.push(422);
    store.dispatch(change('two'));
    await settle();
    expect(project().saving).toEqual({ kind: 'refused', message: 'Refused. for a test' });
    expect(server.writes).toEqual(['two']);
    store.dispatch(undone());
    await settle();
    expect(project().saving.kind).toBe('saved');
  });

  it('stops when the project is closed', async () => {
    const { store } = openStore();
    server.failures.push(503);
    store.dispatch(change('two'));
    await vi.advanceTimersByTimeAsync(100);
    store.dispatch(closed());
    await settle();
    expect(server.writes).toEqual(['two']);
    expect(readStash('night'), 'what was not saved is still in the browser').not.toBeNull();
  });
});

describe('when somebody else saved first', () => {
  it('shows both and overwrites nothing', async () => {
    const { store, project } = openStore();
    server.edits.push({ title: 'theirs' });
    store.dispatch(change('mine'));
    await settle();
    expect(project().saving).toMatchObject({
      kind: 'conflict',
      theirs: { edit: 2, document: { title: 'theirs' } },
    });
    expect(server.titles()).toEqual(['one', 'theirs']);
    store.dispatch(mineKept(2));
    await settle();
    expect(server.titles()).toEqual(['one', 'theirs', 'mine']);
    expect(project().saving.kind).toBe('saved');
  });

  it('knows its own edit again when only the answer was lost', async () => {
    const { store, project } = openStore();
    server.failures.push('lost answer');
    store.dispatch(change('two'));
    store.dispatch(change('three'));
    await settle();
    expect(server.titles()).toEqual(['one', 'two', 'three']);
    expect(project().saving.kind).toBe('saved');
  });
});
