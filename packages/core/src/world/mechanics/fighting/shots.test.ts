import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { MoveDocument, ProjectDocument } from '../../../model/documents.ts';
import { watch } from '../../../testing/orchard.fixture.ts';
import { leadAim } from '../../../numeric/lead-aim.ts';
import { duel, fought, strike } from './fighting.fixture.ts';

/** What the keeper at (5, 5) sends toward the warden, and where it ends. */
function shot(move: Partial<MoveDocument>, change?: (document: ProjectDocument) => void, away = 4) {
  return fought({
    moves: {
      pot: { kind: 'thrown', windUp: 0.1, active: 0.1, reach: 8, speed: 12, damage: 4, ...move },
    },
    keeper: strike('pot'),
    away,
    ...(change ? { change } : {}),
  });
}

describe('what flies', () => {
  it('goes off in bursts with its gaps, and what meets no agent says so', () => {
    const { hits: found, entries } = fought({
      moves: {
        pots: {
          kind: 'thrown',
          windUp: 0.1,
          active: 0.5,
          shots: 3,
          gap: 0.2,
          reach: 8,
          speed: 20,
          damage: 5,
        },
      },
      keeper: strike('pots'),
      away: 4,
    });
    expect(found.map(({ result }) => result)).toEqual(['landed', 'landed', 'landed']);
    expect([found[1].tick - found[0].tick, found[2].tick - found[1].tick]).toEqual([12, 12]);
    expect(entries.filter((entry) => entry.kind === 'harm')).toHaveLength(3);
    const short = fought({
      moves: { pots: { kind: 'thrown', active: 0.1, reach: 2, speed: 20 } },
      keeper: strike('pots'),
      away: 4,
    });
    expect(short.hits.map(({ result }) => result)).toEqual(['missed']);
  });

  it.each([0.5, 1, 2, 3, 4])('led, meets a target that crosses at %s m/s', (speed) => {
    const thrown = (lead: boolean) =>
      fought(
        {
          moves: {
            pot: {
              kind: 'thrown',
              windUp: 0.4,
              active: 0.1,
              reach: 20,
              speed: 9,
              damage: 5,
              ...(lead ? { lead: true as const } : {}),
            },
          },
          keeper: strike('pot'),
          warden: { do: 'moveTo', to: 'self.post', within: 0.1 },
          away: 6,
          change: (document) => {
            document.archetypes.warden.gaits = { walk: speed };
            document.archetypes.keeper.sight!.cones[0].halfAngle = 170;
            document.grounds.corner.agents.warden.at = [11, 2];
            document.grounds.corner.posts = { far: { at: [11, 9], heading: 0 } } as never;
            document.grounds.corner.agents.warden.post = 'far' as never;
          },
        },
        180,
      ).hits[0]?.result;
    expect(thrown(true)).toBe('landed');
    if (speed >= 2) expect(thrown(false)).not.toBe('landed');
  });

  it('is aimed where the two will meet', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -9, max: 9, noNaN: true }),
        fc.double({ min: -9, max: 9, noNaN: true }),
        fc.double({ min: -4, max: 4, noNaN: true }),
        fc.double({ min: -4, max: 4, noNaN: true }),
        (x, y, vx, vy) => {
          fc.pre(x * x + y * y > 1);
          const [ax, ay] = leadAim(x, y, vx, vy, 12);
          const time = Math.sqrt(ax * ax + ay * ay) / 12;
          expect(Math.hypot(ax - (x + vx * time), ay - (y + vy * time))).toBeLessThan(1e-6);
        },
      ),
    );
  });
});

describe('where to aim', () => {
  const lead = (...asked: Parameters<typeof leadAim>) =>
    leadAim(...asked).map((metres) => Number(metres.toFixed(6)));

  it('is where they are, if they stand', () => {
    expect(lead(4, -3, 0, 0, 10)).toEqual([4, -3]);
  });

  it('is the first place where both meet', () => {
    // 12 m away and coming at 2 m/s: met after 1 s by what flies 10 m/s.
    expect(lead(12, 0, -2, 0, 10)).toEqual([10, 0]);
    expect(lead(8, 0, 2, 0, 10)).toEqual([10, 0]);
    // One who is faster and comes by is met twice; the first time counts.
    expect(lead(10, 3, -6, 0, 5)[0]).toBeGreaterThan(0);
  });

  it('is where they are, if it never gets there', () => {
    expect(lead(4, 0, 20, 0, 10)).toEqual([4, 0]);
    expect(lead(4, 0, 10, 0, 10)).toEqual([4, 0]);
  });

  it('is found also where both are as fast', () => {
    expect(lead(10, 0, -5, 0, 5)).toEqual([5, 0]);
    expect(lead(4, 3, -5, 0, 5)).toEqual([4 - 5 * (25 / 40), 3]);
  });
});

describe('a shot', () => {
  it('hits the body on its way, from the side it comes from, and takes the harm of its move', () => {
    const { hits: found, warden } = shot({});
    expect(found).toHaveLength(1);
    const [{ x, y, result, harm }] = found;
    expect([result, harm, warden.self.health]).toEqual(['landed', 4, 96]);
    // It ends where it first touches the body.
    expect(x).toBeCloseTo(9 - 0.3 - 0.1, 9);
    expect(y).toBeCloseTo(5, 9);
  });

  it('takes as long as its way at its speed', () => {
    const ticks = (speed: number) => {
      const { hits: found, entries } = shot({ speed });
      return found[0].tick - entries.find((entry) => entry.kind === 'move')!.tick - 6;
    };
    // About 3.4 m from the one body to the other.
    expect(ticks(12)).toBeGreaterThanOrEqual(15);
    expect(ticks(12)).toBeLessThanOrEqual(19);
    expect(ticks(6)).toBeGreaterThanOrEqual(31);
    expect(ticks(6)).toBeLessThanOrEqual(37);
  });

  it('leaves while its move is active, not in the recovery', () => {
    const { hits: found } = shot({ shots: 4, gap: 0.1, active: 0.25, recovery: 0.5 });
    expect(found).toHaveLength(3);
  });

  it('flies past one who dodges, to the agent behind', () => {
    const { hits: found } = fought({
      moves: {
        pot: { kind: 'thrown', windUp: 0.1, active: 0.1, reach: 8, speed: 12, damage: 4 },
        hop: { kind: 'dodge', active: 0.1, invulnerable: 2 },
      },
      keeper: strike('pot'),
      warden: { do: 'dodge', move: 'hop', way: 'left' },
      away: 3,
      change: ({ archetypes, grounds: { corner } }) => {
        archetypes.gleaner.health = 50;
        // It does not see who stands behind, so that it aims at the warden.
        archetypes.keeper.sight!.cones[0].range = 4;
        corner.agents.gleaner = { archetype: 'gleaner', at: [10, 5] };
      },
    });
    expect(found.map(({ of, result }) => `${of} ${result}`)).toEqual([
      'warden dodged',
      'gleaner landed',
    ]);
  });

  it('meets a guard from the direction it flies in, wherever on the body', () => {
    // It comes along x, beside the middle of a body that looks toward it with a narrow guard.
    const beside = (y: number) =>
      fought({
        moves: { pot: { kind: 'instant', windUp: 0.5, active: 0.1, reach: 8, damage: 4 } },
        guards: { high: { arc: 20, from: 0, to: 2, damageShare: 0.5 } },
        keeper: { do: 'strike', move: 'pot' },
        warden: { do: 'guard', guard: 'high', seconds: 9 },
        change: ({ archetypes, grounds: { corner } }) => {
          archetypes.warden.body = { ...archetypes.warden.body, turnRate: 0.001 };
          corner.agents.warden = { archetype: 'warden', at: [9, y], heading: 180 };
        },
      }).hits.map(({ result }) => result);
    expect([beside(5), beside(5.3), beside(4.65)]).toEqual([['guarded'], ['guarded'], ['guarded']]);
  });

  it('ends at a wall that is as high as it flies, and says so and by how much it missed', () => {
    const wall = (height: number) => (document: ProjectDocument) => {
      document.grounds.corner.walls = [{ at: [7, 4], size: [0.2, 2], kind: 'low', height }];
    };
    const stopped = shot({ from: 1, to: 1.2 }, wall(1.3));
    expect(stopped.hits.map(({ result, of }) => `${of} ${result}`)).toEqual(['warden walled']);
    const [{ x, missedBy }] = stopped.hits;
    expect(x).toBeGreaterThan(6.7);
    expect(x).toBeLessThanOrEqual(7);
    // To the side of the warden that is turned to it, less what is thrown.
    expect(missedBy).toBeCloseTo(9 - x - 0.3 - 0.1, 2);
    expect(shot({ from: 1, to: 1.2 }, wall(0.8)).hits[0].result).toBe('landed');
  });

  it('flies over an agent that is lower, and past an agent that stands beside its way', () => {
    const bystander = (at: [number, number], height?: number) => (document: ProjectDocument) => {
      // It does not see who stands beside the way, so that it aims at the warden.
      document.archetypes.keeper.sight!.cones[0].halfAngle = 5;
      document.archetypes.gleaner.health = 50;
      if (height)
        document.archetypes.gleaner.body = { ...document.archetypes.gleaner.body, height };
      document.grounds.corner.agents.gleaner = { archetype: 'gleaner', at };
    };
    const met = (...asked: Parameters<typeof bystander>) =>
      shot({ from: 1, to: 1.2, radius: 0.1 }, bystander(...asked)).hits.map(({ of }) => of);
    expect(met([7, 5])).toEqual(['gleaner']);
    expect(met([7, 5], 0.9)).toEqual(['warden']);
    expect(met([7, 5], 1.05)).toEqual(['gleaner']);
    expect(met([7, 5.38])).toEqual(['gleaner']);
    expect(met([7, 5.42])).toEqual(['warden']);
    expect(met([7, 4.62])).toEqual(['gleaner']);
    expect(met([7, 4.58])).toEqual(['warden']);
  });

  it('falls short where it drops to the ground, or has flown its reach', () => {
    const dropped = shot({ from: 0.4, to: 0.6, drop: 20 });
    expect(dropped.hits[0]).toMatchObject({ result: 'missed' });
    // From 0.5 m with 20 m/s² it takes 0.22 s.
    expect(dropped.hits[0].x).toBeGreaterThan(7.4);
    expect(dropped.hits[0].x).toBeLessThan(8.4);
    const short = shot({ reach: 2 });
    // Its front, 0.1 m before its middle, comes as far as its reach from the edge of the body.
    expect(short.hits[0].x + 0.1).toBeCloseTo(5 + 0.3 + 2, 6);
    expect(short.hits[0].missedBy).toBeGreaterThan(1);
  });

  it('goes beside by its spread, to both sides, each shot by its own', () => {
    const at = Array.from({ length: 12 }, (_, seed) => {
      const { world, run } = watch(
        duel({
          moves: { pot: { kind: 'thrown', active: 0.1, reach: 9, speed: 10, spread: 8 } },
          keeper: strike('pot'),
          away: 9,
        }),
        seed + 1,
      );
      run(20);
      const [{ vx, vy }] = world.shots;
      return (Math.atan2(vy, vx) * 180) / Math.PI;
    });
    expect(Math.max(...at)).toBeGreaterThan(2);
    expect(Math.min(...at)).toBeLessThan(-2);
    expect(Math.max(...at.map(Math.abs))).toBeLessThan(32);
    const straight = shot({}, undefined, 8);
    expect(straight.hits[0].y).toBeCloseTo(5, 9);
  });
});

describe('a straight line that hits at once', () => {
  const spark = (
    more: Partial<MoveDocument>,
    change?: (document: ProjectDocument) => void,
    away = 4,
  ) => shot({ kind: 'instant', ...more }, change, away);

  it('hits in the tick it goes off in', () => {
    const { hits: found, entries } = spark({});
    const begun = entries.find((entry) => entry.kind === 'move')!.tick;
    expect(found.map(({ result, tick }) => [result, tick - begun])).toEqual([['landed', 6]]);
  });

  it('meets the first on its way only', () => {
    const { hits: found } = spark({}, (document) => {
      document.archetypes.gleaner.health = 50;
      document.grounds.corner.agents = {
        warden: document.grounds.corner.agents.warden,
        keeper: document.grounds.corner.agents.keeper,
        gleaner: { archetype: 'gleaner', at: [7, 5.1] },
      };
    });
    expect(found.map(({ of }) => of)).toEqual(['gleaner']);
  });

  it('misses beyond its reach, and says by how much', () => {
    const { hits: found } = spark({ reach: 2 });
    expect(found.map(({ result }) => result)).toEqual(['missed']);
    expect(found[0].x).toBeCloseTo(7.2, 6);
    expect(found[0].missedBy).toBeCloseTo(9 - 7.2 - 0.3 - 0.1, 6);
  });

  it('ends at a wall', () => {
    const { hits: found } = spark({ from: 1, to: 1.2 }, (document) => {
      document.grounds.corner.walls = [{ at: [7, 4], size: [0.2, 2] }];
    });
    expect(found.map(({ result }) => result)).toEqual(['walled']);
  });
});
