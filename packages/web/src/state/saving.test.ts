import type { ProjectDocument } from '@crooked-lantern/core';
import { configureStore } from '@reduxjs/toolkit';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client.ts';
import {
  changed,
  closed,
  merged,
  mineKept,
  opened,
  projectReducer,
  recovered,
  theirsTaken,
  undone,
} from './project-slice.ts';
import { PAUSE_MS } from './saver.ts';
import { createSaving } from './saving.ts';
import { readStash } from './stash.ts';

/** A document of the right form, with this title. */
const whole = (title: string): ProjectDocument => ({
  format: 'crooked-lantern/project',
  version: 2,
  title,
  minds: {},
  archetypes: {},
  grounds: {},
  start: { ground: 'orchard' },
});
/** A server that keeps edits, can be told to fail, and answers when it is let. */
function fakeServer() {
  const edits: unknown[] = [whole('one')];
  const failures: (number | 'lost' | 'lost answer')[] = [];
  /** How reads fail, one after the other. */
  const reads: number[] = [];
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
  const fetch = vi.fn(async (address: string, init: RequestInit = {}) => {
    if (init.method !== 'PUT') {
      const failure = reads.shift();
      if (failure !== undefined) return answer(failure, { title: 'Lost' });
      const [, number] = /\/edits\/(\d+)$/.exec(address) ?? [];
      return answer(200, number ? { document: edits[Number(number) - 1] } : stored());
    }
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
    reads,
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

const change = (title: string) => changed({ document: whole(title), label: title });

let server: ReturnType<typeof fakeServer>;
/** Tells the page of a project of the latest edit the server has, as the server does. */
let tell: (edit: number) => void;
let watched: string[];

beforeEach(() => {
  vi.useFakeTimers();
  server = fakeServer();
  watched = [];
  vi.spyOn(api, 'watch').mockImplementation((id, onSaved) => {
    watched.push(id);
    tell = onSaved;
    return () => void watched.splice(watched.indexOf(id), 1);
  });
  vi.stubGlobal('fetch', server.fetch);
  vi.stubGlobal('localStorage', fakeStorage());
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

function openStore() {
  const store = configureStore({
    reducer: { project: projectReducer },
    middleware: (defaults) => defaults().prepend(createSaving().middleware),
  });
  store.dispatch(opened({ id: 'night', edit: 1, updatedAt: 'then', document: whole('one') }));
  const project = () => {
    const { project: slot } = store.getState();
    if (slot.status !== 'open') throw new Error('The project is not open.');
    return slot;
  };
  return { store, project };
}

/** By then an edit that nothing follows has been sent, and nothing been tried again. */
const SENT_MS = PAUSE_MS + 100;

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
    await vi.advanceTimersByTimeAsync(SENT_MS);
    expect(project().saving.kind).toBe('waiting');
    expect(readStash('night')).toMatchObject({ basedOn: 1, document: whole('two') });
    store.dispatch(change('three'));
    await settle();
    expect(server.titles()).toEqual(['one', 'two', 'three']);
    expect(project().saving.kind).toBe('saved');
  });

  it('tries again later and later, and from the beginning after it went well', async () => {
    const { store } = openStore();
    server.failures.push(503, 503, 503, 503, 503, 503);
    store.dispatch(change('two'));
    await vi.advanceTimersByTimeAsync(PAUSE_MS);
    for (const [index, seconds] of [1, 2, 4, 8, 8, 8].entries()) {
      expect(server.writes).toHaveLength(index + 1);
      await vi.advanceTimersByTimeAsync(seconds * 1000 - 1);
      expect(server.writes).toHaveLength(index + 1);
      await vi.advanceTimersByTimeAsync(1);
    }
    expect(server.titles()).toEqual(['one', 'two']);
    server.failures.push(503);
    server.writes.length = 0;
    store.dispatch(change('three'));
    await vi.advanceTimersByTimeAsync(PAUSE_MS + 1000);
    expect(server.writes).toEqual(['three', 'three']);
  });

  it('keeps work by its project, and goes on where the browser keeps none', async () => {
    const { store, project } = openStore();
    server.failures.push(503);
    store.dispatch(change('two'));
    expect([readStash('night'), readStash('day')]).toMatchObject([
      { basedOn: 1, document: whole('two') },
      null,
    ]);
    const warn = vi.spyOn(console, 'warn').mockImplementation(() => {});
    vi.spyOn(localStorage, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    store.dispatch(change('three'));
    expect(warn).toHaveBeenCalledWith(
      expect.stringContaining('could not be kept in the browser'),
      expect.any(DOMException),
    );
    await settle();
    expect(server.titles()).toEqual(['one', 'two', 'three']);
    expect(project().saving.kind).toBe('saved');
    warn.mockRestore();
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

  it('goes on after a refused edit with those after it, and keeps what was refused until then', async () => {
    const { store, project } = openStore();
    server.failures.push(422, 503);
    store.dispatch(change('bad'));
    store.dispatch(change('good'));
    await vi.advanceTimersByTimeAsync(SENT_MS);
    expect(readStash('night')).toMatchObject({ basedOn: 1, document: whole('good') });
    await settle();
    expect(server.titles()).toEqual(['one', 'good']);
    expect(project()).toMatchObject({ unsaved: [], saving: { kind: 'saved' } });
    store.dispatch(change('more'));
    await settle();
    expect(server.titles()).toEqual(['one', 'good', 'more']);
  });

  it('sends nothing that the server would refuse for its form, and says what is wrong where', async () => {
    const { store, project } = openStore();
    store.dispatch(changed({ document: { ...whole('two'), minds: 3 } as never, label: 'two' }));
    await settle();
    expect(server.writes).toEqual([]);
    expect(project().saving).toMatchObject({
      kind: 'refused',
      message: expect.stringMatching(/^minds /),
    });
    const kept = localStorage.getItem('crooked-lantern.unsaved.night');
    expect(kept, 'the work is kept').toContain('"minds":3');
  });

  it('has work in the browser’s storage as soon as it is made', async () => {
    const { store } = openStore();
    server.failures.push(503);
    store.dispatch(change('two'));
    await vi.advanceTimersByTimeAsync(SENT_MS);
    store.dispatch(change('three'));
    expect(readStash('night')).toMatchObject({ basedOn: 1, document: whole('three') });
  });

  it('sends nothing while one edit follows another, and then each of them', async () => {
    const { store } = openStore();
    for (const title of ['two', 'three', 'four']) {
      store.dispatch(change(title));
      await vi.advanceTimersByTimeAsync(PAUSE_MS - 1);
      expect(server.writes).toEqual([]);
    }
    await settle();
    expect(server.writes).toEqual(['two', 'three', 'four']);
  });

  it('stops when the project is closed', async () => {
    const { store } = openStore();
    server.failures.push(503);
    store.dispatch(change('two'));
    await vi.advanceTimersByTimeAsync(SENT_MS);
    store.dispatch(closed());
    await settle();
    expect(server.writes).toEqual(['two']);
    expect(readStash('night'), 'what was not saved is still in the browser').not.toBeNull();
  });
});

describe('when another user saved first', () => {
  it('shows both and overwrites nothing', async () => {
    const { store, project } = openStore();
    server.edits.push(whole('theirs'));
    store.dispatch(change('mine'));
    await settle();
    expect(project().saving).toMatchObject({
      kind: 'conflict',
      theirs: { edit: 2, document: { title: 'theirs' } },
      base: 1,
    });
    expect(server.titles()).toEqual(['one', 'theirs']);
    store.dispatch(mineKept(2));
    await settle();
    expect(server.titles()).toEqual(['one', 'theirs', 'mine']);
    expect(project().saving.kind).toBe('saved');
  });

  it('sends nothing of what is made before it is said which to keep, and keeps it', async () => {
    const { store } = openStore();
    server.edits.push(whole('theirs'));
    store.dispatch(change('mine'));
    await settle();
    store.dispatch(change('more'));
    await settle();
    expect(server.writes).toEqual(['mine']);
    expect(readStash('night')).toMatchObject({ basedOn: 1, document: whole('more') });
    store.dispatch(mineKept(2));
    await settle();
    expect(server.titles()).toEqual(['one', 'theirs', 'more']);
  });

  it('has nothing left to save where the other saved the same', async () => {
    const { store, project } = openStore();
    server.edits.push(whole('theirs'), whole('mine'));
    store.dispatch(change('mine'));
    await settle();
    expect(project()).toMatchObject({ edit: 3, unsaved: [], saving: { kind: 'saved' } });
    expect(server.titles()).toEqual(['one', 'theirs', 'mine']);
  });

  it('saves what was put together, based on theirs', async () => {
    const { store, project } = openStore();
    server.edits.push(whole('theirs'));
    store.dispatch(change('mine'));
    await settle();
    store.dispatch(merged({ document: whole('both'), theirEdit: 2 }));
    await settle();
    expect(server.titles()).toEqual(['one', 'theirs', 'both']);
    expect(project().saving.kind).toBe('saved');
  });

  it('asks again where reading theirs fails, instead of waiting for ever', async () => {
    const { store, project } = openStore();
    server.edits.push(whole('theirs'));
    server.reads.push(503, 503);
    store.dispatch(change('mine'));
    await vi.advanceTimersByTimeAsync(SENT_MS);
    expect(project().saving.kind).toBe('waiting');
    await settle();
    expect(project().saving).toMatchObject({ kind: 'conflict', theirs: { edit: 2 } });
  });

  it('comes back to the conflict of a recovered visit, with the time of what was made then', async () => {
    const { store, project } = openStore();
    server.edits.push(whole('theirs'));
    const theirs = { id: 'night', edit: 2, updatedAt: 'then', document: whole('theirs') };
    store.dispatch(opened(theirs));
    const at = '2026-01-01T00:00:00.000Z';
    store.dispatch(recovered({ document: whole('mine'), basedOn: 1, at }));
    await settle();
    expect(project().saving).toMatchObject({ kind: 'conflict', base: 1, mineAt: at });
    store.dispatch(change('mine, and more'));
    await settle();
    expect(server.titles()).toEqual(['one', 'theirs']);
    expect(project().saving.kind).toBe('conflict');
    expect(readStash('night')).toMatchObject({ basedOn: 1, document: whole('mine, and more') });
    store.dispatch(theirsTaken(theirs));
    await settle();
    expect([server.titles(), readStash('night')]).toEqual([['one', 'theirs'], null]);
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

describe('what another window saves', () => {
  const noted = { ...whole('one'), note: 'by the other' };

  it('is shown here at once, said in words, and an undo away', async () => {
    const { store, project } = openStore();
    server.edits.push(noted);
    tell(2);
    await settle();
    expect(project()).toMatchObject({
      document: noted,
      edit: 2,
      saving: { kind: 'saved' },
      joined: { edit: 2, parts: ['note'], withMine: false },
    });
    expect(server.writes).toEqual([]);
    store.dispatch(undone());
    await settle();
    expect(server.edits.at(-1)).toEqual(whole('one'));
  });

  it('is shown also where what it was made from can’t be read any more', async () => {
    const { store, project } = openStore();
    server.edits.push(noted);
    // Of the latest edit, then of the one before.
    const answering = server.fetch.getMockImplementation()!;
    server.fetch.mockImplementation(async (address, init) =>
      address.endsWith('/edits/1')
        ? new Response(JSON.stringify({ title: 'Not found' }), { status: 404 })
        : answering(address, init),
    );
    tell(2);
    await settle();
    expect(project()).toMatchObject({ document: noted, edit: 2, saving: { kind: 'saved' } });
    store.dispatch(change('mine'));
    await settle();
    expect(server.edits.at(-1)).toEqual(whole('mine'));
  });

  it('is merged with what is unsaved here, where no part was changed by both', async () => {
    const { store, project } = openStore();
    server.edits.push(noted);
    store.dispatch(change('mine'));
    await settle();
    const both = { ...whole('mine'), note: 'by the other' };
    expect(server.edits.at(-1)).toEqual(both);
    expect(project()).toMatchObject({
      document: both,
      edit: 3,
      unsaved: [],
      saving: { kind: 'saved' },
      joined: { edit: 2, withMine: true },
    });
    expect(readStash('night')).toBeNull();
  });

  it('is merged with an edit that is made while it is read', async () => {
    const { store } = openStore();
    server.edits.push(noted);
    tell(2);
    store.dispatch(change('mine'));
    await settle();
    expect(server.edits.at(-1)).toEqual({ ...whole('mine'), note: 'by the other' });
  });

  it('is merged with unsaved work of an earlier visit', async () => {
    const { store, project } = openStore();
    server.edits.push(noted);
    store.dispatch(opened({ id: 'night', edit: 2, updatedAt: 'then', document: noted }));
    store.dispatch(recovered({ document: whole('mine'), basedOn: 1 }));
    await settle();
    expect(server.edits.at(-1)).toEqual({ ...whole('mine'), note: 'by the other' });
    expect(project()).toMatchObject({ edit: 3, saving: { kind: 'saved' } });
  });

  it('changes nothing where it is one’s own edit', async () => {
    const { store, project } = openStore();
    store.dispatch(change('two'));
    await settle();
    tell(2);
    await settle();
    expect(project()).toMatchObject({ edit: 2, joined: null, past: [{ label: 'two' }] });
  });

  it('is read again where another edit follows while it is read', async () => {
    const { project } = openStore();
    server.edits.push(noted);
    tell(2);
    const { mock } = server.fetch;
    await vi.waitFor(() => expect(mock.calls.length).toBe(2));
    server.edits.push({ ...noted, title: 'theirs' });
    tell(3);
    await settle();
    expect(project()).toMatchObject({ edit: 3, document: { title: 'theirs' } });
  });

  it('waits where the server can’t be read, and comes with the next news', async () => {
    const { project } = openStore();
    server.edits.push(noted);
    server.reads.push(503);
    tell(2);
    await settle();
    expect(project().edit).toBe(1);
    tell(2);
    await settle();
    expect(project().edit).toBe(2);
  });

  it('never replaces work that the server refused', async () => {
    const { store, project } = openStore();
    server.failures.push(422);
    store.dispatch(change('bad'));
    await settle();
    server.edits.push(noted);
    tell(2);
    await settle();
    expect(project()).toMatchObject({ document: { title: 'bad' }, saving: { kind: 'refused' } });
  });

  it('is no longer listened for once the project is closed', () => {
    const { store } = openStore();
    expect(watched).toEqual(['night']);
    store.dispatch(closed());
    expect(watched).toEqual([]);
  });
});

describe('two projects, one after the other', () => {
  it('late news of the first are not taken for news of the second', async () => {
    const { store, project } = openStore();
    let answerNow = (): void => {};
    const held = new Promise<void>((resolve) => {
      answerNow = resolve;
    });
    const answering = server.fetch.getMockImplementation()!;
    server.fetch.mockImplementationOnce(async (...call) => {
      await held;
      return answering(...call);
    });
    store.dispatch(change('two'));
    await vi.advanceTimersByTimeAsync(SENT_MS);
    store.dispatch(opened({ id: 'day', edit: 1, updatedAt: 'then', document: whole('day') }));
    server.failures.push(503, 503, 503, 503, 503, 503, 503, 503, 503);
    store.dispatch(changed({ document: whole('day two'), label: 'x' }));
    answerNow();
    await vi.advanceTimersByTimeAsync(SENT_MS);
    expect(project()).toMatchObject({ id: 'day', unsaved: [{ edit: 2 }] });
    expect(project().saving.kind).not.toBe('saved');
  });
});

describe('unsaved work that can’t be read', () => {
  it.each([
    '{',
    'null',
    '{"basedOn":1}',
    '{"basedOn":"1","document":{}}',
    JSON.stringify({ basedOn: 1, document: { ...whole('one'), minds: null } }),
    JSON.stringify({ basedOn: 1, document: { ...whole('one'), grounds: { orchard: 3 } } }),
  ])('is set aside, so that it locks nothing and is not lost: %s', (text) => {
    localStorage.setItem('crooked-lantern.unsaved.night', text);
    const faulty: string[] = [];
    expect(readStash('night', (kept) => faulty.push(kept))).toBeNull();
    expect(faulty).toEqual([text]);
    expect(localStorage.getItem('crooked-lantern.set-aside.night')).toBe(text);
    expect(readStash('night', (kept) => faulty.push(kept))).toBeNull();
    expect(faulty).toHaveLength(1);
  });
});
