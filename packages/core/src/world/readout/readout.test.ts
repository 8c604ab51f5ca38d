import { describe, expect, it } from 'vitest';
import { compiled } from '../../testing/demo.fixture.ts';
import { cornerProject, KEEN_SIGHT } from '../../testing/orchard.fixture.ts';
import { tick } from '../phases/tick.ts';
import { createWorld } from '../world.ts';
import { readMind } from './readout.ts';

/** What is read of the guard of a keeper that has nobody near it. */
function guardOfLonely(when: string) {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    machine: {
      initial: 'stand',
      states: [
        { id: 'stand', transitions: [{ to: 'go', when }] },
        { id: 'go', transitions: [{ to: 'stand', when: 'false' }] },
      ],
    },
  });
  delete document.grounds.corner.agents.gleaner;
  delete document.start.play;
  const world = createWorld(compiled(document), 1);
  tick(world);
  const [leave] = readMind(world, 'keeper', 'stand')!.state!.transitions;
  return leave;
}

describe('a guard that fails', () => {
  it('says in words what no sense has brought', () => {
    expect(guardOfLonely('attention.strength > 0.3')).toMatchObject({
      holds: false,
      text: '0 > 0.3',
      lacks: ['notices nobody'],
    });
    expect(guardOfLonely("found.kind == 'body'").lacks).toEqual(['has found nothing']);
    expect(guardOfLonely("sees(attention.of) || found.kind == 'body'").lacks).toEqual([
      'notices nobody',
      'has found nothing',
    ]);
  });

  it('lacks nothing where other things keep it from holding', () => {
    expect(guardOfLonely('time > 100')).toMatchObject({ holds: false, lacks: [], failing: [] });
    expect(guardOfLonely('time < 100 && attention.strength < 0.1')).toMatchObject({
      holds: true,
      lacks: [],
    });
  });

  it('lacks only what the conditions that fail ask for', () => {
    const { text, failing, lacks } = guardOfLonely('attention.strength < 0.1 && time > 100');
    expect(failing.map((at) => text.slice(...at))).toEqual(['0.02 > 100']);
    expect(lacks).toEqual([]);
  });
});
