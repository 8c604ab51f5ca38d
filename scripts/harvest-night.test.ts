import {
  createWorld,
  setRecorder,
  tick,
  worldHash,
  type Input,
  type World,
} from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { demoProgram } from './demo-program.fixture.ts';

/** That Harvest Night can be won and lost, that its swarm is one, and that a fallen target is let go of at once. */

const program = demoProgram('harvest-night');

type Player = (world: World) => Partial<Input>;

const named = (world: World, name: string) => world.agents.find((agent) => agent.name === name)!;
const living = (world: World, archetype: string) =>
  world.agents.filter(
    (agent) => agent.archetype.name === archetype && !agent.away && !agent.isDead,
  );

/** Goes for agents near the press, and strikes what is in reach. */
const fights: Player = (world) => {
  const [hand, press] = [named(world, 'hand'), named(world, 'press')];
  const away = (a: { x: number; y: number }, b: { x: number; y: number }) =>
    Math.hypot(a.x - b.x, a.y - b.y);
  const worth = (foe: { x: number; y: number }) => away(foe, press) + 0.5 * away(foe, hand);
  const foes = [...living(world, 'beetle'), ...living(world, 'cricket')];
  if (foes.length === 0) return {};
  const foe = foes.reduce((best, each) => (worth(each) < worth(best) ? each : best));
  const metres = away(foe, hand);
  const [x, y] = [(foe.x - hand.x) / metres, (foe.y - hand.y) / metres];
  if (metres < 1.5) return { x: x * 0.01, y: y * 0.01, act: 'strike', move: 'sweep' };
  return { x, y, gait: 'run' };
};

/** Walks out to meet them alone, and never lifts the rake. */
const strollsOut: Player = (world) => {
  const hand = named(world, 'hand');
  return hand.x > 2 ? { x: -1, y: hand.y > 9 ? -0.4 : 0 } : {};
};

function played(player: Player, until: number, look: (world: World) => void = () => {}): World {
  const world = createWorld(program, 1);
  for (let i = 0; i < until * 60 && !world.result; i++) {
    tick(world, [{ agent: 'hand', x: 0, y: 0, gait: null, ...player(world) }]);
    look(world);
  }
  return world;
}

describe('Harvest Night', () => {
  it('is lost by who goes out to meet them alone', () => {
    expect(played(strollsOut, 60).result).toMatchObject({ how: 'lost' });
  });

  it('is won by who fights beside the others, against a swarm of two hundred', () => {
    let [most, brought] = [0, 0];
    const world = played(fights, 120, (now) => {
      most = Math.max(most, living(now, 'beetle').length);
      brought = Math.max(brought, living(now, 'keeper').length);
    });
    expect(world.result).toMatchObject({ how: 'won' });
    expect(most).toBeGreaterThan(100);
    expect(brought).toBeGreaterThan(30);
    const swarm = program.director.waves.filter(({ name }) => name.startsWith('swarm'));
    expect(swarm.reduce((sum, { count }) => sum + count, 0)).toBe(200);
    expect(
      world.waves.every(({ isOver }, i) => isOver || program.director.waves[i].name === 'help'),
    ).toBe(true);
  });

  it('lets go of a target in the tick in which it falls', () => {
    const world = createWorld(program, 1);
    let deaths = 0;
    setRecorder(world, (entry) => {
      if (entry.kind === 'death') deaths++;
    });
    for (let i = 0; i < 25 * 60; i++) {
      tick(world);
      for (const agent of world.agents.filter(({ isDead }) => !isDead))
        for (const { of, visible } of agent.tracks)
          if (world.agents[of].isDead && world.agents[of].life.diedAt < world.tick)
            expect(visible).toBe(false);
    }
    expect(deaths).toBeGreaterThan(5);
  });

  it('comes out the same again, to the last bit', () => {
    const [a, b] = [1, 2].map(() => played(fights, 16));
    expect(worldHash(a)).toBe(worldHash(b));
  });
});
