import { BUILTINS, checkInMind } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { newProject } from '../home/new-project.ts';
import {
  expressionOf,
  namesFor,
  questionsWith,
  wordsFor,
  testedType,
  TESTS,
  TOPICS,
  type Question,
} from './questions.ts';

const document = newProject('Night');
const [mind] = Object.keys(document.minds);
const memory: NonNullable<(typeof document.minds)[string]['memory']> = {
  quarry: { type: 'agent', note: 'its target' },
  spot: { type: 'point' },
  patience: { type: 'number', default: 1 },
  mood: { type: 'text', default: 'calm' },
  combed: { type: 'list of point' },
  words: { type: 'list of text' },
  turns: { type: 'list of number' },
  met: { type: 'list of agent' },
  held: { type: 'thing' },
};
document.minds[mind].memory = memory;
const ground = document.grounds[document.start.ground];
ground.gates = { wicket: { a: [1, 1], b: [2, 1] } } as never;
ground.scores = { baskets: {} };
ground.zones = { store: { x: 1, y: 1, width: 1, height: 1 } } as never;
const keys = Object.entries(memory).map(([name, { type, note }]) => ({
  name,
  type,
  note,
}));
const ON_GROUND = { gate: ['wicket'], zone: ['store'], score: ['baskets'], move: ['swing'] };

/** What may be given for each parameter, the first that fits. */
const given = ({ parameters }: Question): string[] =>
  (parameters ?? []).map(({ type }) =>
    type === 'number' ? '3' : type === 'text' ? 'calm' : namesFor(type, keys, ON_GROUND)[0],
  );

describe('questions', () => {
  it('reach everything an expression can name, but for what only works with numbers', () => {
    const asked = new Set(
      [true, false].flatMap((isDirector) => questionsWith([], isDirector).map(({ name }) => name)),
    );
    const left = BUILTINS.map(({ name }) => name).filter((name) => !asked.has(name));
    const ofNumbers = ['min', 'max', 'abs', 'floor', 'clamp', 'trapezoid'];
    expect(left.sort()).toEqual([...ofNumbers, 'at', 'inBand', 'bandOf'].sort());
  });

  it.each(Object.keys(TOPICS))('has some about %s', (topic) => {
    expect(questionsWith(keys, false).filter((question) => question.topic === topic)).not.toEqual(
      [],
    );
  });

  it('all become guards without a fault, however they are tested', () => {
    const faults = questionsWith(keys, false).flatMap((question) => {
      if (question.result.startsWith('list') || question.result === 'route') return [];
      return Object.keys(TESTS[testedType(question.result)]).flatMap((how) => {
        const source = expressionOf(question, given(question), { how, with: '2' });
        return checkInMind(document, mind, source, { guard: true }).map(
          ({ message }) => `${source}: ${message}`,
        );
      });
    });
    expect(faults).toEqual([]);
  });

  it('offer what is true of every agent to a director alone', () => {
    const [anybody, director] = [false, true].map((isDirector) =>
      questionsWith([], isDirector).map(({ name }) => name),
    );
    expect(anybody).not.toContain('alive');
    expect(director).toContain('alive');
  });

  it('give the answer itself where that is wanted', () => {
    const place = questionsWith(keys, false).find(({ name }) => name === 'lastSeen')!;
    expect(expressionOf(place, ['quarry'], null)).toBe('lastSeen(quarry)');
  });
});

describe('what is asked of a director', () => {
  it('is never what a body or senses would tell', () => {
    const names = questionsWith([], true).map(({ name }) => name);
    expect(names).toContain('mode');
    expect(
      names.filter((name) => /^(self|attention|seen|heard|found|told|harm)\./.test(name)),
    ).toEqual([]);
  });
});

describe('the words a text can be', () => {
  const document = {
    start: { ground: 'orchard' },
    grounds: {
      orchard: {
        schedule: {
          modes: [
            { mode: 'day', for: 9 },
            { mode: 'dusk', for: 9 },
          ],
        },
        things: { basket: { at: [1, 1], kind: 'basket' } },
      },
    },
    archetypes: { keeper: { moves: { sweep: {}, jab: {} }, guards: { high: {} } } },
    tiers: [{ name: 'gentle' }],
    squads: { watch: { roles: [{ role: 'flank' }] } },
  } as never;
  const wordsOf = (name: string) => {
    const question = questionsWith([], false).find((each) => each.name === name)!;
    return wordsFor(question, document);
  };

  it('are those of the project, or those that can come', () => {
    expect(wordsOf('mode')).toEqual(['day', 'dusk']);
    expect(wordsOf('tier')).toEqual(['gentle']);
    expect(wordsOf('self.role')).toEqual(['flank']);
    expect(wordsOf('moveOf')).toEqual(['jab', 'sweep']);
    expect(wordsOf('guarding')).toEqual(['high']);
    expect(wordsOf('found.kind')).toEqual(['basket']);
    expect(wordsOf('phaseOf')).toEqual(['windUp', 'active', 'recovery']);
    expect(wordsOf('attention.kind')).toEqual(['sight', 'harm', 'hearing', 'found', 'told']);
    expect(wordsOf('distance')).toEqual([]);
  });
});
