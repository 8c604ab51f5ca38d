import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { GuardDocument, MoveDocument } from '../../../model/documents.ts';
import { gapToSector } from '../../../numeric/circles.ts';
import { fought, strike, SWEEP } from './fighting.fixture.ts';

describe('a circle and a sector', () => {
  it('are as far apart as sampled points say', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 0.05, max: 1.5, noNaN: true }),
        fc.double({ min: 0.5, max: 2, noNaN: true }),
        (x, y, halfArc, reach) => {
          const radius = 0.3;
          let least = Infinity;
          for (let i = 0; i <= 60; i++)
            for (let k = 0; k <= 60; k++) {
              const [angle, away] = [((i - 30) / 30) * halfArc, (k / 60) * reach];
              least = Math.min(
                least,
                Math.hypot(x - Math.cos(angle) * away, y - Math.sin(angle) * away),
              );
            }
          const gap = gapToSector(x, y, radius, 0, halfArc, reach);
          expect(Math.abs(gap - Math.max(0, least - radius))).toBeLessThan(0.06);
        },
      ),
    );
  });
});

/** Three gleaners around the keeper at (5, 5), who strikes once, toward +x. */
function among(move: Partial<MoveDocument>, places: Record<string, [number, number]>) {
  return fought({
    moves: { sweep: { ...SWEEP, ...move } },
    keeper: { do: 'strike', move: 'sweep' },
    change: ({ grounds: { corner }, archetypes }) => {
      delete corner.agents.warden;
      archetypes.gleaner.health = 50;
      for (const [name, at] of Object.entries(places))
        corner.agents[name] = { archetype: 'gleaner', at };
    },
  });
}

describe('a strike among several', () => {
  const places: Record<string, [number, number]> = {
    far: [6.25, 5],
    near: [5.8, 5.6],
    behind: [4, 5],
    away: [8, 5],
  };

  it('meets all in its sector, each once, and no other agent', () => {
    const { hits, world } = among({ arc: 60 }, places);
    expect(hits.map(({ of, result }) => `${of} ${result}`).sort()).toEqual([
      'far landed',
      'near landed',
    ]);
    expect(
      Object.fromEntries(world.agents.map(({ name, life }) => [name, life.health])),
    ).toMatchObject({ far: 40, near: 40, behind: 50, away: 50 });
  });

  it('that hits one meets the nearest of them, wherever it stands in the file', () => {
    for (const order of [
      ['far', 'near', 'middle'],
      ['near', 'far', 'middle'],
      ['middle', 'far', 'near'],
    ]) {
      const by = { ...places, middle: [5.9, 4.3] as [number, number] };
      const { hits } = among(
        { arc: 60, hits: 'one' },
        Object.fromEntries(order.map((name) => [name, by[name as keyof typeof by]])),
      );
      expect(hits.map(({ of }) => of)).toEqual(['near']);
    }
  });

  it('that hits one meets the only one there is', () => {
    const { hits } = among({ hits: 'one' }, { far: places.far });
    expect(hits.map(({ of }) => of)).toEqual(['far']);
  });

  it('says where it met the body: on its side toward the striker, in the middle of the heights', () => {
    const { hits } = among({ arc: 60, from: 0.4, to: 1.4 }, { near: [5.8, 5.6] });
    const [{ x, y, z }] = hits;
    // One metre away, of which the body takes 0.3.
    expect([x, y, z].map((number) => number.toFixed(3))).toEqual(['5.560', '5.420', '0.900']);
  });

  it('that met no agent says how far its tip came, at what height, and nothing of a gap where no agent was near', () => {
    const { hits } = among({ reach: 1, from: 0.2, to: 1 }, { away: [15, 9.5] });
    expect(hits).toHaveLength(1);
    const [{ of, result, x, y, z, missedBy }] = hits;
    expect([of, result, missedBy]).toEqual(['', 'missed', undefined]);
    expect([x, y, z].map((number) => number.toFixed(3))).toEqual(['6.300', '5.000', '0.600']);
  });

  it('that hits one is not used up by who dodges it or stands behind a wall', () => {
    const { hits } = fought({
      moves: {
        sweep: { ...SWEEP, arc: 80, hits: 'one', reach: 2 },
        hop: { kind: 'dodge', active: 0.1, invulnerable: 2 },
      },
      keeper: { do: 'strike', move: 'sweep' },
      warden: { do: 'dodge', move: 'hop', way: 'left' },
      change: ({ grounds: { corner }, archetypes }) => {
        archetypes.gleaner.health = 50;
        corner.agents.first = { archetype: 'gleaner', at: [6.3, 6.2] };
        corner.agents.walled = { archetype: 'gleaner', at: [5, 6.1] };
        corner.walls = [{ at: [4.5, 5.5], size: [1, 0.1] }];
        corner.agents.second = { archetype: 'gleaner', at: [6.8, 5.8] };
      },
    });
    expect(hits.map(({ of, result }) => `${of} ${result}`).sort()).toEqual([
      'first landed',
      'walled walled',
      'warden dodged',
    ]);
  });

  it('passes over friends and the dead', () => {
    const { hits } = fought({
      moves: { sweep: { ...SWEEP, arc: 60 } },
      keeper: { do: 'strike', move: 'sweep' },
      change: ({ grounds: { corner }, archetypes }) => {
        corner.agents.friend = { archetype: 'keeper', at: [5.9, 5.6], asleep: true };
        archetypes.warden.health = 50;
      },
    });
    expect(hits.map(({ of }) => of)).toEqual(['warden']);
  });
});

describe('what a move meets', () => {
  const guarded = (more: Partial<MoveDocument>, guard: GuardDocument, turned = 180) =>
    fought({
      moves: { sweep: { ...SWEEP, windUp: 1, ...more } },
      guards: { high: { raise: 0.1, damageShare: 0.25, parry: 0.2, stagger: 0.5, ...guard } },
      keeper: { sequence: [strike('sweep'), { do: 'wait', seconds: 9 }] },
      warden: { do: 'guard', guard: 'high', seconds: 9 },
      change: ({ archetypes, grounds: { corner } }) => {
        archetypes.warden.body = { ...archetypes.warden.body, turnRate: 0.001 };
        corner.agents.warden.heading = turned;
      },
    });
  const result = (...asked: Parameters<typeof guarded>) => guarded(...asked).hits[0].result;

  it('is a guard where the middle of the heights it meets is within those that are covered', () => {
    // From 0.8 to 1.6 m, with 1.2 m as their middle.
    const high = { from: 0.8, to: 1.6 };
    expect(result(high, { from: 1.1, to: 1.3 })).toBe('guarded');
    expect(result(high, { from: 1.3, to: 2 })).toBe('landed');
    expect(result(high, { from: 0, to: 1.1 })).toBe('landed');
  });

  it('is a guard within its arc to either side only', () => {
    expect(result({}, { arc: 50 }, 180 + 45)).toBe('guarded');
    expect(result({}, { arc: 50 }, 180 - 45)).toBe('guarded');
    expect(result({}, { arc: 50 }, 180 + 55)).toBe('landed');
    expect(result({}, { arc: 50 }, 180 - 55)).toBe('landed');
  });

  it('lets through its share of harm and push, and nothing else: no stagger, no opening', () => {
    const { warden, keeper } = guarded({ knockback: 1, stagger: 1 }, {});
    expect(warden.self.health).toBe(97.5);
    expect(warden.x).toBeCloseTo(6.65, 9);
    expect(warden.fight.staggeredUntil).toBeLessThanOrEqual(0);
    expect(keeper.fight.landedAt).toBeLessThanOrEqual(0);
  });

  it('harms without a push or a stagger where the move has none', () => {
    const { warden } = guarded({ knockback: 0, stagger: 0 }, { from: 0, to: 0.1 });
    expect(warden.self.health).toBe(90);
    expect(warden.x).toBeCloseTo(6.4, 9);
    expect(warden.fight.guard).toBe(0);
  });

  it('pushes and staggers no agent that dies of it', () => {
    const { warden, entries } = guarded(
      { knockback: 1, stagger: 1, damage: 500 },
      { from: 0, to: 0.1 },
    );
    expect(warden.isDead).toBe(true);
    expect(warden.x).toBeCloseTo(6.4, 9);
    expect(entries.some((entry) => entry.kind === 'end' && entry.reason?.code === 'hitBy')).toBe(
      false,
    );
  });
});
