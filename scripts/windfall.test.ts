import {
  createWorld,
  tick,
  worldHash,
  type Input,
  type Program,
  type ProjectDocument,
  type World,
} from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { demoProgram } from './demo-program.fixture.ts';

/** That Windfall can be won and lost on both tiers, that the tiers differ, and that the referee weighs right. */

function windfall(
  tier: 'near' | 'plans',
  change: (document: ProjectDocument) => void = () => {},
): Program {
  return demoProgram('windfall', (document) => {
    document.start.tier = tier;
    change(document);
  });
}

const CELLAR = { x: 2.3, y: 8.2 };

/** Fetches what is worth most by some measure, and carries it home. Zones are those of the file. */
function fetcher(worth: (weight: number, way: number, home: number) => number) {
  let bound: number | null = null;
  return (world: World): Partial<Input> => {
    const gleaner = world.agents.find(({ name }) => name === 'gleaner')!;
    const { things, statics } = world;
    const isHome = (x: number) => x < 3.8 || x > 22.2;
    const away = (x: number, y: number) => Math.hypot(x - gleaner.x, y - gleaner.y);
    if (gleaner.carried >= 0) {
      bound = null;
      if (away(CELLAR.x, CELLAR.y) < 1) return { act: 'drop' };
      return toward(gleaner, CELLAR.x, CELLAR.y);
    }
    const isFree = (thing: number) => things[thing].carrier < 0 && !isHome(things[thing].x);
    if (bound === null || !isFree(bound)) {
      const value = (thing: number) => {
        const { x, y } = things[thing];
        const home = Math.hypot(x - CELLAR.x, y - CELLAR.y);
        return worth(statics.program.ground.things[thing].weight, away(x, y), home);
      };
      const free = things.map((_, thing) => thing).filter(isFree);
      if (free.length === 0) return {};
      bound = free.reduce((best, thing) => (value(thing) > value(best) ? thing : best));
    }
    const { x, y } = things[bound];
    return away(x, y) < 0.7 ? { act: 'pickUp' } : toward(gleaner, x, y);
  };
}

function toward({ x, y }: { x: number; y: number }, toX: number, toY: number): Partial<Input> {
  const away = Math.hypot(toX - x, toY - y);
  return { x: (toX - x) / away, y: (toY - y) / away };
}

const NEAREST = () => fetcher((_, way) => -way);
const BEST = () => fetcher((weight, way, home) => weight / (way + home + 2));

function played(program: Program, seed: number, player: ((world: World) => Partial<Input>) | null) {
  const world = createWorld(program, seed);
  for (let i = 0; i < 160 * 60 && !world.result; i++) {
    const done = player?.(world);
    tick(world, done ? [{ agent: 'gleaner', x: 0, y: 0, gait: 'run', ...done }] : []);
  }
  return world;
}

describe('Windfall', () => {
  it.each(['near', 'plans'] as const)('is lost on %s by who only stands', (tier) => {
    expect(played(windfall(tier), 1, null).result?.how).toBe('lost');
  });

  it('is won by who takes what is near, against a magpie that does so too, and lost against one that plans', () => {
    expect(played(windfall('near'), 1, NEAREST()).result?.how).toBe('won');
    expect(played(windfall('plans'), 1, NEAREST()).result?.how).toBe('lost');
  });

  it('is won on both tiers by who weighs what each is worth', () => {
    for (const tier of ['near', 'plans'] as const)
      expect(played(windfall(tier), 1, BEST()).result?.how, tier).toBe('won');
  });

  it('comes out the same again, to the last bit', () => {
    const [a, b] = [1, 2].map(() => played(windfall('plans'), 7, BEST()));
    expect(worldHash(a)).toBe(worldHash(b));
    expect(a.scores).toEqual(b.scores);
  });

  it('shows what lies at each home, also when something is taken from it again', () => {
    const program = windfall('near');
    const world = createWorld(program, 1);
    const take = (name: string, x: number, y: number) => {
      const thing = program.ground.things.findIndex((each) => each.name === name);
      Object.assign(world.things[thing], { x, y });
    };
    take('moonPear', 2, 8);
    take('russetWest', 23, 8);
    tick(world);
    const shown = () =>
      Object.fromEntries(
        program.director.scores.map(({ name }, i) => [name, Number(world.scores[i].toFixed(3))]),
      );
    expect(shown()).toEqual({ yours: 1.1, magpies: 0.2 });
    take('moonPear', 12, 8);
    tick(world);
    expect(shown()).toEqual({ yours: 0, magpies: 0.2 });
  });

  it('calls it even where both come to three kilograms in one tick', () => {
    const program = windfall('near', ({ grounds }) => {
      const { things } = grounds.slope;
      things!.moonPear = { ...things!.moonPear, at: [2, 8], weight: 3 };
      things!.russetEast = { ...things!.russetEast, at: [23.8, 7.2], weight: 3 };
    });
    const world = createWorld(program, 1);
    tick(world);
    expect(world.result).toMatchObject({ how: 'over', tick: 1 });
  });

  it('ends when the night does, for who has more by then', () => {
    const program = windfall('near', ({ grounds, archetypes }) => {
      archetypes.magpie.gaits.hop = 0.4;
      grounds.slope.schedule!.modes[0].for = 12;
    });
    const world = played(program, 1, NEAREST());
    expect(world.result).toMatchObject({ how: 'won', tick: 12 * 60 + 1 });
  });
});
