import { because } from '../../terms/reasons.ts';
import { describe, expect, it } from 'vitest';
import type { MoveDocument } from '../../model/documents.ts';
import { programOf } from '../../testing/orchard.fixture.ts';
import { duel } from '../mechanics/fighting/fighting.fixture.ts';
import { createWorld } from '../world.ts';
import { guardNamed, isCovering, lengthOf, moveNamed, phaseAt, whyNotBegin } from './fight.ts';
import { impactOn } from './forecast.ts';
import { trueOpponent } from './opponents.ts';

/** The keeper at (5, 5) has been at its first move for so many ticks; the warden stands four metres off. */
function facing(move: Partial<MoveDocument>, elapsed: number) {
  const world = createWorld(
    programOf(
      duel({
        moves: {
          other: { active: 0.1 },
          sweep: { windUp: 0.5, active: 0.1, recovery: 0.4, reach: 1, damage: 1, ...move },
        },
        guards: { high: { raise: 0.1 }, low: { raise: 0.2 } },
        away: 4,
      }),
    ),
    1,
  );
  const of = (name: string) => world.agents.find((each) => each.name === name)!;
  const [keeper, warden] = [of('keeper'), of('warden')];
  const place = keeper.archetype.moves.findIndex(({ name }) => name === 'sweep');
  Object.assign(keeper.fight, { move: place, startedAt: warden.tick - elapsed });
  return { world, keeper, warden, move: keeper.archetype.moves[place] };
}

/** Seconds until the keeper’s move can hit the warden, were it so far off and moving so. */
function impact(
  move: Partial<MoveDocument>,
  elapsed: number,
  away: number,
  { vx = 0, vy = 0, keeper: speed = [0, 0] as [number, number] } = {},
): number {
  const { world, keeper, warden } = facing(move, elapsed);
  [keeper.body.vx, keeper.body.vy] = speed;
  return Number(
    impactOn(
      warden,
      keeper.index,
      trueOpponent(world, keeper.index),
      5 + away,
      5,
      vx,
      vy,
      0,
    ).toFixed(6),
  );
}

describe('the impact of what another does', () => {
  it('is as far off as the rest of its wind-up, and now while it is active', () => {
    expect(impact({}, 0, 1)).toBe(0.5);
    expect(impact({}, 12, 1)).toBe(0.3);
    expect(impact({}, 30, 1)).toBe(0);
    expect(impact({}, 35, 1)).toBe(0);
    expect(impact({}, 36, 1)).toBeNaN();
  });

  it('is none out of its reach and what it advances, counted from body to body', () => {
    // Two bodies of 0.3 m and a reach of 1 m.
    expect(impact({}, 0, 1.59)).toBe(0.5);
    expect(impact({}, 0, 1.61)).toBeNaN();
    // It advances over its six active ticks, and hits once it has come near enough.
    expect(impact({ advance: 0.5 }, 0, 1.6)).toBe(0.5);
    expect(impact({ advance: 0.5 }, 0, 2.09)).toBeCloseTo(35 / 60, 6);
    expect(impact({ advance: 0.5 }, 0, 2.11)).toBeNaN();
  });

  it('is none once it has hit this body, or another if it hits one, or where it is turned away', () => {
    const { world, keeper, warden } = facing({}, 31);
    const seconds = () =>
      impactOn(warden, keeper.index, trueOpponent(world, keeper.index), 6, 5, 0, 0, 0);
    expect(seconds()).toBe(0);
    keeper.fight.heading = Math.PI;
    expect(seconds()).toBeNaN();
    keeper.fight.heading = 0;
    keeper.fight.struck = [warden.index];
    expect(seconds()).toBeNaN();
    keeper.fight.struck = [];
    keeper.fight.spent = true;
    expect(seconds()).toBeNaN();
    // What still winds up turns as fast as it may, and that may be too late.
    const turned = (turn: number) => {
      const { world, keeper, warden } = facing({ turn }, 0);
      Object.assign(keeper.fight, { target: warden.index });
      keeper.body.heading = Math.PI;
      return impactOn(warden, keeper.index, trueOpponent(world, keeper.index), 6, 5, 0, 0, 0);
    };
    expect(turned(360)).toBe(0.5);
    expect(turned(90)).toBeNaN();
  });

  it('goes by where both will be by then', () => {
    expect(impact({}, 0, 2.5, { vx: -2 })).toBe(0.5);
    expect(impact({}, 0, 1.5, { vx: 2 })).toBeNaN();
    expect(impact({}, 0, 2.5, { keeper: [2, 0] })).toBe(0.5);
    expect(impact({}, 0, 1.5, { keeper: [-2, 0] })).toBeNaN();
    expect(impact({}, 0, 1, { vy: 4 })).toBeNaN();
    expect(impact({}, 0, 1, { keeper: [0, -4] })).toBeNaN();
    expect(impact({}, 0, 1, { vy: 4, keeper: [0, 4] })).toBe(0.5);
  });

  it('of what is thrown is later by its flight', () => {
    const thrown = { kind: 'thrown', reach: 6, speed: 10 } as const;
    // It leaves in the first active tick, and flies from the next on: 3 m take 18 ticks.
    expect(impact(thrown, 0, 3.6)).toBe(0.8);
    expect(impact(thrown, 0, 0.6)).toBeCloseTo(31 / 60, 6);
    expect(impact({ reach: 6 }, 0, 3.6)).toBe(0.5);
  });

  it('is none of a dodge, of what passes overhead, and of who does nothing', () => {
    expect(impact({ kind: 'dodge' }, 0, 1)).toBeNaN();
    expect(impact({ from: 1.9, to: 2.2 }, 0, 1)).toBeNaN();
    expect(impact({ from: 1.6, to: 2.2 }, 0, 1)).toBe(0.5);
    const { keeper, warden } = facing({}, 0);
    keeper.fight.move = -1;
    const elsewhere = warden.at(6, 5).here;
    expect(elsewhere.impactIn(keeper.index, true)).toBeNaN();
    expect(elsewhere.impactIn(99, true)).toBeNaN();
    expect(elsewhere.impactIn(keeper.index, false)).toBeNaN();
  });
});

describe('what another does', () => {
  it('is its move and the part of it, until that is over', () => {
    const said = (elapsed: number) => {
      const { world, keeper, warden } = facing({}, elapsed);
      const { texts } = world.statics.program;
      const { around } = warden;
      return [around.phaseOf(keeper.index), around.moveOf(keeper.index)].map(
        (word) => texts[word] ?? null,
      );
    };
    expect(said(0)).toEqual(['windUp', 'sweep']);
    expect(said(29)).toEqual(['windUp', 'sweep']);
    expect(said(30)).toEqual(['active', 'sweep']);
    expect(said(35)).toEqual(['active', 'sweep']);
    expect(said(36)).toEqual(['recovery', 'sweep']);
    expect(said(59)).toEqual(['recovery', 'sweep']);
    expect(said(60)).toEqual([null, null]);
  });

  it('is its guard and its health too, in truth', () => {
    const { world, keeper } = facing({}, 0);
    keeper.fight.guard = 1;
    keeper.life.health = 42;
    const { x, y, seen } = trueOpponent(world, keeper.index)!;
    expect([x, y, seen.health]).toEqual([5, 5, 42]);
    expect(world.statics.program.texts[seen.guard]).toBe('low');
    keeper.fight.guard = -1;
    expect(trueOpponent(world, keeper.index)!.seen.guard).toBe(-1);
  });
});

describe('a move', () => {
  it('is found by its name, as a guard is', () => {
    const { keeper } = facing({}, 0);
    const { moves, guards } = keeper.archetype;
    expect(moves.map(({ word }) => moveNamed(keeper, word))).toEqual([0, 1]);
    expect(guards.map(({ word }) => guardNamed(keeper, word))).toEqual([0, 1]);
    expect([moveNamed(keeper, 9999), guardNamed(keeper, 9999)]).toEqual([-1, -1]);
  });

  it('lasts as long as its parts', () => {
    expect(lengthOf(facing({}, 0).move)).toBe(60);
    expect(phaseAt(facing({ windUp: 0 }, 0).move, 0)).not.toBe(phaseAt(facing({}, 0).move, 0));
  });

  it('can’t be begun by who lies, is staggered, is at another, or has no such move', () => {
    const { keeper, move } = facing({}, 0);
    const why = (place: number) => whyNotBegin(keeper, place);
    const place = keeper.fight.move;
    expect(why(place)).toEqual(because('busyWithMove', move.title));
    keeper.fight.move = -1;
    expect(why(place)).toBeNull();
    expect(why(7)).toEqual(because('noSuchMove'));
    keeper.fight.staggeredUntil = keeper.tick + 1;
    expect(why(place)).toEqual(because('staggered'));
    keeper.fight.staggeredUntil = keeper.tick;
    expect(why(place)).toBeNull();
    keeper.fight.readyAt[place] = keeper.tick + 1;
    expect(why(place)).toEqual(because('moveNotReady', move.title));
    keeper.fight.readyAt[place] = keeper.tick;
    expect(why(place)).toBeNull();
    keeper.asleep = true;
    expect(why(place)).toEqual(because('lying'));
  });
});

describe('a guard', () => {
  it('covers from when it is raised for as long as it may be held', () => {
    const guard = { ...facing({}, 0).keeper.archetype.guards[0], raise: 6, maxDuration: 10 };
    const covers = [5, 6, 15, 16].map((held) => isCovering(guard, 100, 100 + held));
    expect(covers).toEqual([false, true, true, false]);
  });
});
