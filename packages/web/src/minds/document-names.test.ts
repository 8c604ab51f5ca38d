import { namesOf, type ProjectDocument } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { listStates, shortReason, usualMind, wholeReason } from './document-names.ts';

describe('short words for a transition', () => {
  it.each([
    [{ note: 'in reach', when: 'sees(quarry)', for: 2 }, 'in reach'],
    [{ on: 'done' }, 'done'],
    [{ when: '!sees(quarry)', for: 1.5 }, '!sees(quarry) 1.5\u00a0s'],
    [{ after: 2 }, 'after 2\u00a0s'],
    [{ on: 'bell', when: 'time > 3' }, 'bell time > 3'],
    [{ when: 'awareness(attention.of) >= 1' }, 'awareness(attention…'],
    [{ when: 'attention.strength > 0.5', for: 1 }, 'attention.strength… 1\u00a0s'],
    [{ when: 'sees(quarry) and distance(quarry) < 2' }, 'sees(quarry)…'],
    [{ note: 'nothing was found anywhere' }, 'nothing was found…'],
    [{ when: 'isFreeForEveryoneAround' }, 'isFreeForEveryoneAro…'],
  ])('%o reads “%s”', (leave, words) => {
    expect(shortReason(leave)).toBe(words);
  });
});

it('the whole reason of a transition cuts nothing', () => {
  const leave = { on: 'bell', when: 'awareness(attention.of) >= 1 and !sees(quarry)', for: 2 };
  expect(wholeReason(leave)).toBe(
    'bell awareness(attention.of) >= 1 and !sees(quarry) for 2\u00a0s',
  );
  expect(wholeReason({ note: 'heard', on: 'bell', after: 2 })).toBe('heard: bell after 2\u00a0s');
});

it('lists states in document order with the states around them', () => {
  const document = {
    minds: {
      goose: {
        machine: {
          initial: 'a',
          states: [{ id: 'a', states: [{ id: 'b', states: [{ id: 'c' }] }] }, { id: 'd' }],
        },
      },
    },
  } as unknown as ProjectDocument;
  expect(listStates(document, 'goose').map(({ state, around }) => [state.id, around])).toEqual([
    ['a', []],
    ['b', ['a']],
    ['c', ['a', 'b']],
    ['d', []],
  ]);
  expect(listStates(document, 'hound')).toEqual([]);
});

it('leaves fields of other tools out of the names', () => {
  expect(namesOf({ warden: 1, 'x-colour': 2, goose: 3 })).toEqual(['goose', 'warden']);
});

const project = (archetypes: Record<string, string | undefined>, placed: string[]) =>
  ({
    minds: { goose: {}, hound: {}, warden: {} },
    archetypes: Object.fromEntries(
      Object.entries(archetypes).map(([name, mind]) => [name, mind === undefined ? {} : { mind }]),
    ),
    grounds: {
      orchard: {
        agents: Object.fromEntries(placed.map((archetype, i) => [`a${i}`, { archetype }])),
      },
    },
    start: { ground: 'orchard' },
  }) as unknown as ProjectDocument;

describe('the mind shown where none is named', () => {
  const kinds = { goose: 'goose', gleaner: undefined, warden: 'warden', hound: 'hound' };
  it('is that of the most agents, else the first by name', () => {
    expect(usualMind(project(kinds, ['gleaner', 'goose', 'warden', 'warden']))).toBe('warden');
    expect(usualMind(project(kinds, ['warden', 'hound']))).toBe('hound');
    expect(usualMind(project(kinds, []))).toBe('goose');
  });
});
