import {
  createWorld,
  setRecorder,
  tick,
  type Input,
  type LedgerEntry,
  type World,
} from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { demoProgram } from './demo-program.fixture.ts';

/** That Bell Hours can be won and lost, that the bell turns all bees, and that smoke sends them home and lets them go on. */

const program = demoProgram('bell-hours');

type Player = (world: World) => Partial<Input>;

const WAX_HOUSE = { x: 29, y: 10 };
const COOLDOWN = 7.2 * 60;

/** Carries frames to the wax house; with smoke, swings the censer at bees that come near while they guard. */
function carrier(smokes: boolean): Player {
  let swungAt = -COOLDOWN;
  return (world) => {
    const own = world.agents.find(({ name }) => name === 'gleaner')!;
    const away = ({ x, y }: { x: number; y: number }) => Math.hypot(x - own.x, y - own.y);
    const go = (to: { x: number; y: number }): Partial<Input> => ({
      x: (to.x - own.x) / away(to),
      y: (to.y - own.y) / away(to),
      gait: 'run',
    });
    const isGuarding = world.schedule.at % 2 === 1;
    const isNear = world.agents.some(
      (agent) => agent.archetype.name === 'bee' && away(agent) < 2.2,
    );
    if (smokes && isGuarding && isNear && world.tick - swungAt > COOLDOWN) {
      swungAt = world.tick;
      return { act: 'strike', move: 'censer' };
    }
    if (own.carried >= 0) return away(WAX_HOUSE) < 0.9 ? { act: 'drop' } : go(WAX_HOUSE);
    const frames = world.things.filter(({ carrier: by, x }) => by < 0 && x < 28);
    if (frames.length === 0) return {};
    const frame = frames.reduce((best, each) => (away(each) < away(best) ? each : best));
    if (away(frame) < 0.9) return { act: 'pickUp' };
    return own.x > 6 ? go({ x: 5.4, y: 10 }) : go(frame);
  };
}

function played(player: Player | null, seconds: number): { world: World; entries: LedgerEntry[] } {
  const world = createWorld(program);
  const entries: LedgerEntry[] = [];
  setRecorder(world, (entry) => entries.push(entry));
  for (let i = 0; i < seconds * 60 && !world.result; i++) {
    const done = player?.(world);
    tick(world, done ? [{ agent: 'gleaner', x: 0, y: 0, gait: null, ...done }] : []);
  }
  return { world, entries };
}

const isBee = ({ agent }: LedgerEntry) => agent.startsWith('bee');

describe('Bell Hours', () => {
  it('is lost by who stands about, and by who carries without a censer', () => {
    expect(played(null, 130).world.result).toMatchObject({ how: 'lost' });
    expect(played(carrier(false), 130).world.result).toMatchObject({ how: 'lost' });
  });

  it('is won by who carries five frames, and smokes the bees that guard', () => {
    expect(played(carrier(true), 130).world.result).toMatchObject({ how: 'won' });
  });

  it('turns every bee with each stroke of the bell, in that tick', () => {
    const { entries } = played(() => ({ x: -1, y: 1 }), 45);
    const rings = entries.flatMap((entry) => (entry.kind === 'mode' ? [entry] : []));
    expect(rings.map(({ mode }) => mode)).toEqual(['foraging', 'guarding', 'foraging', 'guarding']);
    for (const { tick: at, mode } of rings.slice(1)) {
      const turned = entries.filter(
        (entry) =>
          isBee(entry) &&
          entry.kind === 'enter' &&
          entry.tick === at &&
          entry.state === (mode === 'guarding' ? 'guards' : 'forages'),
      );
      const dazed = entries.filter((entry) => isBee(entry) && entry.kind === 'hit').length;
      expect(turned.length + dazed).toBeGreaterThanOrEqual(12);
    }
  });

  it('sends smoked bees drifting home, and on with what the bell says by then', () => {
    const { entries } = played(carrier(true), 60);
    const dazed = entries.filter(
      (entry) => isBee(entry) && entry.kind === 'enter' && entry.state === 'dazed',
    );
    expect(dazed.length).toBeGreaterThan(0);
    for (const { agent, tick: at } of dazed) {
      const next = entries.find(
        (entry) =>
          entry.agent === agent &&
          entry.tick > at + 60 &&
          entry.kind === 'enter' &&
          ['forages', 'guards', 'dazed'].includes(entry.state),
      );
      if (next?.kind !== 'enter' || next.state === 'dazed') continue;
      const rung = entries.filter((entry) => entry.kind === 'mode' && entry.tick <= next.tick);
      const now = rung.at(-1);
      expect(now?.kind === 'mode' && now.mode).toBe(
        next.state === 'guards' ? 'guarding' : 'foraging',
      );
    }
  });

  it('gives the bees four ways of aiming, three bees each', () => {
    const { world } = played(null, 5);
    const roles = world.agents.flatMap(({ archetype, role }) =>
      archetype.name === 'bee' ? [program.texts[role]] : [],
    );
    const count = (name: string) => roles.filter((role) => role === name).length;
    expect(['chase', 'lead', 'cut', 'comb'].map(count)).toEqual([3, 3, 3, 3]);
  });

  it('slows down an agent that carries a frame', () => {
    const world = createWorld(program);
    const own = world.agents.find(({ name }) => name === 'gleaner')!;
    const { body } = own;
    const free = body.pace;
    Object.assign(body, { x: 3.2, y: 7.6 });
    const act = (what: Input['act']): Input => ({
      agent: 'gleaner',
      x: 0,
      y: 0,
      gait: null,
      act: what,
    });
    tick(world, [act('pickUp')]);
    expect(own.carried).toBeGreaterThanOrEqual(0);
    expect(body.pace).toBeCloseTo(free * 0.75, 10);
    tick(world, [act('drop')]);
    expect(body.pace).toBe(free);
  });
});
