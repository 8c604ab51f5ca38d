import { describe, expect, it } from 'vitest';
import { cornerProject, KEEN_SIGHT, watch } from '../../testing/orchard.fixture.ts';
import { kill } from '../../testing/director.fixture.ts';
import { MOST_APART, pictureRays, RAY_STRIDE } from './picture.ts';

/** Rows before the keeper, from the middle outward. */
const ROWS = [0, 1, -1, 2, -2, 3, -3, 4];

/** A keeper with so many gleaners in rows in front of it. */
function keeperBefore(gleaners: number) {
  const document = cornerProject({
    machine: { initial: 'stand', states: [{ id: 'stand' }] },
    sight: KEEN_SIGHT,
    ground: {
      agents: Object.fromEntries([
        ['keeper', { archetype: 'keeper', at: [2, 5], heading: 0 }],
        ...Array.from({ length: gleaners }, (_, i) => [
          `gleaner${i}`,
          {
            archetype: 'gleaner',
            at: [4.5 + 0.8 * Math.floor(i / ROWS.length), 5 + 0.9 * ROWS[i % ROWS.length]],
            heading: 0,
          },
        ]),
      ]),
    },
  });
  document.archetypes.gleaner.health = 10;
  delete document.start.play;
  return watch(document).world;
}

const raysOf = (world: ReturnType<typeof keeperBefore>, watched: string | null) =>
  pictureRays(world, watched).length / RAY_STRIDE;

describe('lines of sight', () => {
  it('go to every agent in a cone that is no friend of the watched agent, and not to the dead', () => {
    const world = keeperBefore(3);
    expect(raysOf(world, null)).toBe(3);
    expect(raysOf(world, 'gleaner0')).toBe(3);
    kill(world, 'gleaner1');
    expect(raysOf(world, null)).toBe(2);
  });

  it('are those of the one who is watched where there are many', () => {
    const world = keeperBefore(MOST_APART);
    expect(raysOf(world, null)).toBe(0);
    expect(raysOf(world, 'gleaner0')).toBe(0);
    expect(raysOf(world, 'keeper')).toBeGreaterThan(20);
  });
});
