import { describe, expect, it } from 'vitest';
import { gameProject, kill } from '../../testing/director.fixture.ts';
import { KEEN_SIGHT, watch } from '../../testing/orchard.fixture.ts';
import { pictureSide, SIDE_STRIDE } from './overview.ts';

/** What the played side knows of who is where. */

function known(world: Parameters<typeof pictureSide>[0]): Record<string, [number, number, number]> {
  const picture = pictureSide(world);
  const list: [string, [number, number, number]][] = [];
  for (let i = 0; i < picture.length; i += SIDE_STRIDE)
    list.push([
      world.agents[picture[i]].name,
      [Math.round(picture[i + 1]), Math.round(picture[i + 2]), picture[i + 3]],
    ]);
  return Object.fromEntries(list);
}

/** A wall hides the keeper from the gleaner; a friend of the gleaner stands beyond it. */
function behindWall() {
  const document = gameProject({
    wave: { starts: 'director' },
    director: { activity: { do: 'wait', seconds: 1 } },
    ground: { walls: [{ at: [5, 0.5], size: [0.4, 9] }] },
  });
  document.archetypes.friend = {
    ...document.archetypes.keeper,
    faction: 'gleaners',
    sight: KEEN_SIGHT,
  };
  document.grounds.corner.agents.friend = { archetype: 'friend', at: [3, 2], heading: 100 };
  return document;
}

describe('what the played side knows', () => {
  it('is its own, whom it has before it, and what its others see and remember', () => {
    const document = behindWall();
    const { world, run } = watch(document);
    expect(known(world)).toEqual({ gleaner: [8, 5, 1], friend: [3, 2, 1] });
    run(60);
    expect(known(world).keeper).toEqual([2, 5, 1]);
    const friend = world.agents.find(({ name }) => name === 'friend')!;
    friend.body.heading = -Math.PI / 2;
    run(2);
    expect(known(world).keeper).toEqual([2, 5, 0]);
    kill(world, 'beetles.1');
    expect(Object.keys(known(world)).some((name) => name.startsWith('beetles'))).toBe(false);
  });

  it('is all there is where no agent is played', () => {
    const document = behindWall();
    delete document.start.play;
    const { world } = watch(document);
    expect(Object.keys(known(world)).sort()).toEqual(['friend', 'gleaner', 'keeper']);
  });
});
