import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cornerProject } from '../../testing/orchard.fixture.ts';
import type { ProjectDocument } from '../../model/documents.ts';
import { readProject } from '../../model/file/read-project.ts';
import { serialiseProject } from '../../model/file/serialise.ts';
import { applyCommand } from '../apply-command.ts';
import { CommandError, type DocumentPath, type PutCommand } from './commands.ts';
import { wordsOfPath } from './path-words.ts';
import { inverseOfPut, partAt } from './put.ts';

const TREE: DocumentPath = ['minds', 'keeper', 'trees', 'guard', 'root'];

function project(): ProjectDocument {
  const document = cornerProject({
    memory: { quarry: { type: 'agent', forgetAfter: 4 } },
    machine: {
      initial: 'watch',
      states: [
        {
          id: 'watch',
          title: 'Watch',
          entry: [{ do: 'stop' }],
          activity: { tree: 'guard' },
          transitions: [{ to: 'off', when: 'time > 3' }],
        },
        { id: 'off', transitions: [{ to: 'watch', after: 1 }] },
      ],
    },
  });
  document.minds.keeper.trees = {
    guard: {
      root: {
        selector: [
          {
            title: 'Go after it',
            when: 'known(quarry)',
            sequence: [{ do: 'say', text: 'There!' }],
          },
          { repeat: { do: 'turn', by: 90 }, times: 3 },
        ],
      },
    },
  };
  document.minds.keeper.rules = {
    shout: { rows: [{ when: 'time > 1', edge: true, do: [{ do: 'say', text: 'Ho' }] }] },
  };
  return document;
}

const document = project();
const set = (path: DocumentPath, value: unknown): PutCommand => ({
  command: 'put',
  how: 'set',
  path,
  value,
});
const insert = (path: DocumentPath, value: unknown): PutCommand => ({
  command: 'put',
  how: 'insert',
  path,
  value,
});
const remove = (path: DocumentPath): PutCommand => ({ command: 'put', how: 'remove', path });

describe('put', () => {
  it.each<[string, PutCommand, DocumentPath, unknown]>([
    [
      'a guard of a node',
      set([...TREE, 'selector', 0, 'when'], 'time > 2'),
      [...TREE, 'selector', 0, 'when'],
      'time > 2',
    ],
    [
      'a whole tree',
      set(['minds', 'keeper', 'trees', 'more'], { root: { do: 'stop' } }),
      ['minds', 'keeper', 'trees', 'more', 'root', 'do'],
      'stop',
    ],
    [
      'a key where there is no memory yet',
      set(['minds', 'gleaner', 'memory', 'home'], { type: 'point' }),
      ['minds', 'gleaner', 'memory', 'home', 'type'],
      'point',
    ],
    [
      'a whole mind',
      set(['minds', 'goose'], { title: 'Goose', activity: { do: 'stop' } }),
      ['minds', 'goose', 'title'],
      'Goose',
    ],
    [
      'a row of rules',
      insert(['minds', 'keeper', 'rules', 'shout', 'rows', 0], {
        when: 'time > 9',
        do: [{ do: 'stop' }],
      }),
      ['minds', 'keeper', 'rules', 'shout', 'rows', 1, 'when'],
      'time > 1',
    ],
    [
      'the first entry of a list',
      insert(['minds', 'keeper', 'machine', 'states', 1, 'entry', 0], { do: 'stop' }),
      ['minds', 'keeper', 'machine', 'states', 1, 'entry'],
      [{ do: 'stop' }],
    ],
  ])('sets or inserts %s', (_, command, path, value) => {
    const start = project();
    start.minds.gleaner = { title: 'Gleaner', activity: { do: 'stop' } };
    expect(partAt(applyCommand(start, command), path)).toEqual(value);
  });

  it('removes, with what is then empty where that may be missing', () => {
    const after = applyCommand(document, remove(['minds', 'keeper', 'memory', 'quarry']));
    expect(Object.hasOwn(after.minds.keeper, 'memory')).toBe(false);
    const bare = applyCommand(document, remove([...TREE, 'selector', 0, 'sequence', 0]));
    expect(partAt(bare, [...TREE, 'selector', 0, 'sequence'])).toEqual([]);
  });

  it.each<[string, PutCommand, RegExp]>([
    [
      'a value of the wrong form',
      set([...TREE, 'selector', 1, 'times'], 'many'),
      /times must be a number, not "many"/,
    ],
    [
      'an unknown field',
      set(['minds', 'keeper', 'machien'], {}),
      /machien is not a field.*Did you mean “machine”/,
    ],
    [
      'a name that can’t be one',
      set(['minds', 'Keeper 2'], { title: 'x', activity: { do: 'stop' } }),
      /usable name/,
    ],
    ['what must be there taken away', remove(['minds', 'keeper', 'title']), /title is missing/],
    [
      'a place past the end',
      set([...TREE, 'selector', 2], { do: 'stop' }),
      /no minds\.keeper\.trees\.guard\.root\.selector\[2\]; the list has 2/,
    ],
    ['a number where names are', set(['minds', 0], {}), /by a number, but there is no list/],
    [
      'a name where numbers are',
      set([...TREE, 'selector', 'first'], {}),
      /by a name, but there is a list/,
    ],
    ['a way through a value', set(['title', 'x'], 1), /has no parts/],
    ['something that is not there', remove(['minds', 'goose']), /no minds\.goose to remove/],
    ['an insertion outside a list', insert(['minds', 'goose'], {}), /in no list/],
    ['no path', set([], {}), /at least one step/],
    ['a broken number', set([...TREE, 'selector', 0.5], {}), /whole numbers/],
    ['a trick', set(['__proto__', 'polluted'], true), /not a field|no parts|by a name/],
  ])('is refused for %s, saying where and why', (_, command, words) => {
    const before = JSON.stringify(document);
    expect(() => applyCommand(document, command)).toThrow(CommandError);
    expect(() => applyCommand(document, command)).toThrow(words);
    expect(JSON.stringify(document)).toBe(before);
    expect(({} as { polluted?: boolean }).polluted).toBeUndefined();
  });

  it('keeps the form, and is taken back by its inverse to the same bytes', () => {
    const paths = allPaths(document);
    const value = fc.oneof(
      fc.constantFrom<unknown>(
        { do: 'stop' },
        { root: { do: 'stop' } },
        'time > 5',
        2,
        true,
        'calm',
        {
          type: 'number',
        },
      ),
      fc.constantFrom(...paths).map((path) => partAt(document, path)),
    );
    const commands = fc.array(
      fc.record({
        command: fc.constant('put' as const),
        how: fc.constantFrom('set', 'insert', 'remove'),
        path: fc.constantFrom(...paths),
        value,
      }),
      { minLength: 1, maxLength: 12 },
    );
    let done = 0;
    fc.assert(
      fc.property(commands, (list) => {
        let now = document;
        const back: PutCommand[] = [];
        for (const command of list) {
          let after: ProjectDocument;
          try {
            after = applyCommand(now, command);
          } catch (error) {
            expect(error).toBeInstanceOf(CommandError);
            continue;
          }
          expect(readProject(after).ok).toBe(true);
          back.unshift(inverseOfPut(now, command));
          now = after;
          done++;
        }
        for (const command of back) now = applyCommand(now, command);
        expect(serialiseProject(now)).toBe(serialiseProject(document));
      }),
      { numRuns: 150 },
    );
    expect(done).toBeGreaterThan(100);
  });
});

function allPaths(value: unknown, path: DocumentPath = []): DocumentPath[] {
  if (typeof value !== 'object' || value === null) return path.length > 0 ? [path] : [];
  const inner = Object.entries(value).flatMap(([key, part]) =>
    allPaths(part, [...path, Array.isArray(value) ? Number(key) : key]),
  );
  return path.length > 0 ? [path, ...inner] : inner;
}

describe('a path in words', () => {
  it.each<[DocumentPath, string]>([
    [['minds', 'keeper'], 'Keeper'],
    [['minds', 'keeper', 'memory', 'quarry', 'forgetAfter'], 'forgetting of key quarry of Keeper'],
    [
      ['minds', 'keeper', 'machine', 'states', 0, 'transitions', 0, 'when'],
      'guard of transition 1 of Watch of Keeper',
    ],
    [
      ['minds', 'keeper', 'machine', 'states', 0, 'entry', 0],
      'action 1 on entry of Watch of Keeper',
    ],
    [[...TREE, 'selector', 0, 'when'], 'guard of “Go after it” of tree guard of Keeper'],
    [
      [...TREE, 'selector', 0, 'sequence', 0],
      '“Say There!” of “Go after it” of tree guard of Keeper',
    ],
    [
      ['minds', 'keeper', 'rules', 'shout', 'rows', 0, 'edge'],
      'edge of row 1 of rules shout of Keeper',
    ],
    [['archetypes', 'keeper', 'health'], 'health of Keeper'],
    [['title'], 'title'],
  ])('%j is %s', (path, words) => {
    expect(wordsOfPath(document, path)).toBe(words);
  });
});
