import { describe, expect, it } from 'vitest';
import type { MoveDocument, ProjectDocument, WallDocument } from '../../../model/documents.ts';
import { cornerProject, watch } from '../../../testing/orchard.fixture.ts';

const TRIP: MoveDocument = {
  windUp: 0.1,
  active: 0.2,
  recovery: 0.2,
  reach: 1,
  from: 0,
  to: 0.4,
  damage: 5,
  knockback: 0.8,
};

/** A keeper at (2, 5) that makes a move at once toward a basket at (3, 5); and what came of it. */
function knocked(
  move: MoveDocument,
  walls: WallDocument[] = [],
  change?: (document: ProjectDocument) => void,
) {
  const document = cornerProject({});
  document.archetypes.keeper.moves = { move };
  document.minds.keeper = {
    title: 'Keeper',
    activity: { tree: 'main' },
    trees: {
      main: {
        root: {
          sequence: [
            { do: 'strike', move: 'move' },
            { do: 'wait', seconds: 60 },
          ],
        },
      },
    },
  };
  document.grounds.corner.walls = walls;
  document.grounds.corner.things = { basket: { at: [3, 5], kind: 'basket', noise: 8 } };
  change?.(document);
  const { run, world, entries } = watch(document);
  run(60);
  const { x, y } = world.things[0];
  return { x, y, entries };
}

describe('a thing that lies in the way of a strike', () => {
  it('is knocked as far as the move pushes, once a use, and is heard', () => {
    const { x, y, entries } = knocked(TRIP);
    expect([x, y]).toEqual([expect.closeTo(3.8, 6), expect.closeTo(5, 6)]);
    expect(entries.filter(({ kind }) => kind === 'knocked')).toHaveLength(1);
    const noise = entries.find((entry) => entry.kind === 'noise');
    expect(noise).toMatchObject({ what: 'landing', reach: 4 });
  });

  it('stays where it is under what passes over it, beside it or short of it, and behind a wall', () => {
    expect(knocked({ ...TRIP, from: 0.6, to: 1.4 }).x).toBe(3);
    expect(knocked({ ...TRIP, reach: 0.3 }).x).toBe(3);
    const wall: WallDocument = { at: [2.6, 4], size: [0.1, 2], kind: 'wall', height: 2 };
    expect(knocked(TRIP, [wall]).x).toBe(3);
  });

  it('comes to rest before a wall', () => {
    const wall: WallDocument = { at: [3.6, 4], size: [0.1, 2], kind: 'wall', height: 2 };
    const { x } = knocked(TRIP, [wall]);
    expect(x).toBeGreaterThan(3.2);
    expect(x).toBeLessThanOrEqual(3.4);
  });

  it('goes by what all push that meet it in one tick', () => {
    const { x, y } = knocked(TRIP, [], (document) => {
      const { agents } = document.grounds.corner;
      agents.other = { archetype: 'keeper', at: [4, 5], heading: 180 };
    });
    expect(x).toBeCloseTo(3, 6);
    expect(y).toBeCloseTo(5, 6);
  });

  it('counts for nothing in what came of the move', () => {
    const { entries } = knocked(TRIP);
    expect(entries.filter((entry) => entry.kind === 'hit')).toEqual([
      expect.objectContaining({ result: 'missed' }),
    ]);
  });
});
