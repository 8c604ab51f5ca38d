import { describe, expect, it } from 'vitest';
import { cornerProject, programOf } from '../testing/orchard.fixture.ts';

describe('things and agents that share a title', () => {
  it('are numbered in the order of the file; others keep theirs', () => {
    const document = cornerProject({ machine: { initial: 'go', states: [{ id: 'go' }] } });
    const { corner } = document.grounds;
    corner.things = {
      first: { title: 'Pear', at: [4, 4] },
      basket: { title: 'Basket', at: [4, 6] },
      second: { title: 'Pear', at: [5, 4] },
    };
    corner.agents.twin = { ...corner.agents.keeper, at: [9, 6], title: 'Keeper' };
    corner.agents.keeper = { ...corner.agents.keeper, title: 'Keeper' };
    const { ground, agents } = programOf(document);
    const titles = (list: readonly { name: string; title: string }[]) =>
      Object.fromEntries(list.map(({ name, title }) => [name, title]));
    expect(titles(ground.things)).toEqual({
      basket: 'Basket',
      first: 'Pear (1)',
      second: 'Pear (2)',
    });
    expect(titles(agents)).toEqual({
      gleaner: 'gleaner',
      keeper: 'Keeper (1)',
      twin: 'Keeper (2)',
    });
  });
});
