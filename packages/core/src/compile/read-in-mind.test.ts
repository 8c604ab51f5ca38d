import { describe, expect, it } from 'vitest';
import { cornerProject, watch } from '../testing/orchard.fixture.ts';
import { worldHash } from '../world/handover/snapshot.ts';
import { readInMind } from './read-in-mind.ts';

const document = cornerProject({
  memory: {
    mood: { type: 'text', default: 'calm' },
    patience: { type: 'number', unit: 's', default: 2 },
    quarry: { type: 'agent' },
  },
  machine: {
    initial: 'stand',
    states: [{ id: 'stand', transitions: [{ to: 'stand', when: "mood == 'cross'" }] }],
  },
});
document.minds.keeper.trees = {
  look: { title: 'Look', parameters: { place: 'point' }, root: { do: 'face', at: 'place' } },
};
const { world } = watch(document);
const keeper = world.agents.find(({ name }) => name === 'keeper')!;

/** Each part with its value, as text. */
const read = (source: string, tree?: string) =>
  readInMind(document, keeper, 'keeper', source, tree).map(
    ({ at, value }) => `${source.slice(...at)} → ${value}`,
  );

describe('the parts of an expression', () => {
  it('are read from the agent, the whole first; literals say themselves', () => {
    expect(read('patience * 2 > 3 && !known(quarry)')).toEqual([
      'patience * 2 > 3 && !known(quarry) → true',
      'patience * 2 > 3 → true',
      'patience * 2 → 4',
      'patience → 2',
      '!known(quarry) → true',
      'known(quarry) → false',
      'quarry → nothing',
    ]);
  });

  it('know the texts of the program, and find none equal that it lacks', () => {
    expect(read("mood == 'calm'")[0]).toBe("mood == 'calm' → true");
    expect(read("mood == 'cross'")[0]).toBe("mood == 'cross' → false");
    expect(read("mood == 'never heard of'")[0]).toBe("mood == 'never heard of' → false");
    expect(read('mood')).toEqual(['mood → calm']);
  });

  it('leave out what each call of a tree gives another value', () => {
    expect(read('distance(place) < 3 && patience > 1', 'look')).toEqual([
      'patience > 1 → true',
      'patience → 2',
    ]);
    expect(read('self.place', 'look')).toEqual(['self.place → (2, 5)']);
  });

  it('are none where there is an error, or no such mind', () => {
    expect(read('patience >')).toEqual([]);
    expect(read('nobody')).toEqual([]);
    expect(readInMind(document, keeper, 'gleaner', 'patience')).toEqual([]);
  });

  it('change nothing by being read', () => {
    const before = worldHash(world);
    read('distance(attention.place) + patience + time');
    expect(worldHash(world)).toBe(before);
  });
});
