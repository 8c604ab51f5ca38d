import { describe, expect, it } from 'vitest';
import type { GroundDocument } from '../../model/documents.ts';
import { cornerProject, watch } from '../../testing/orchard.fixture.ts';
import { lightAt } from './light.ts';
import { tick } from '../phases/tick.ts';

function dark(ground: Partial<GroundDocument>, lantern = false) {
  const document = cornerProject({ ground: { light: 0.1, ...ground } });
  if (lantern) document.archetypes.keeper.lantern = { reach: 4, strength: 0.8 };
  document.minds.keeper.machine = { initial: 'stand', states: [{ id: 'stand' }] };
  return watch(document);
}

const LAMP = { at: [5, 5] as [number, number], reach: 4, strength: 0.8 };

describe('light', () => {
  it('is what is everywhere, and what a lamp adds, less with distance', () => {
    const { world } = dark({ lamps: { one: LAMP } });
    expect(lightAt(world, 15, 5)).toBe(0.1);
    expect(lightAt(world, 5, 5)).toBeCloseTo(0.9, 12);
    expect(lightAt(world, 7, 5)).toBeCloseTo(0.1 + 0.8 * (1 - 0.25), 12);
    expect(lightAt(world, 9, 5)).toBe(0.1);
  });

  it('adds up, and never above 1', () => {
    const { world } = dark({ lamps: { one: LAMP, two: { ...LAMP, at: [6, 5] } } });
    expect(lightAt(world, 5.5, 5)).toBe(1);
  });

  it('does not go through walls, but over low cover', () => {
    const wall = { at: [6, 0] as [number, number], size: [0.3, 10] as [number, number] };
    expect(lightAt(dark({ lamps: { one: LAMP }, walls: [wall] }).world, 7, 5)).toBe(0.1);
    const low = dark({ lamps: { one: LAMP }, walls: [{ ...wall, kind: 'low' }] }).world;
    expect(lightAt(low, 7, 5)).toBeGreaterThan(0.5);
  });

  it('falls through a gate while it is open', () => {
    const gates = {
      way: {
        at: [6, 0] as [number, number],
        size: [0.3, 10] as [number, number],
        state: 'open' as const,
      },
    };
    const { world } = dark({ lamps: { one: LAMP }, gates });
    expect(lightAt(world, 7, 5)).toBeGreaterThan(0.5);
    const closed = dark({
      lamps: { one: LAMP },
      gates: { way: { ...gates.way, state: 'closed' } },
    });
    expect(lightAt(closed.world, 7, 5)).toBe(0.1);
  });

  it('goes with the agent that carries it, and sleeps with it', () => {
    const { world } = dark({}, true);
    const keeper = world.agents.find(({ name }) => name === 'keeper')!;
    expect(lightAt(world, keeper.x, keeper.y)).toBeCloseTo(0.9, 12);
    keeper.body.x += 8;
    tick(world);
    expect(lightAt(world, 2, 5)).toBe(0.1);
    keeper.asleep = true;
    expect(lightAt(world, keeper.x, keeper.y)).toBe(0.1);
  });
});
