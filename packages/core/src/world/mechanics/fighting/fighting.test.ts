import { because } from '../../../terms/reasons.ts';
import { describe, expect, it } from 'vitest';
import { checkProject } from '../../../findings/check-project.ts';
import type {
  GuardDocument,
  MoveDocument,
  NodeDocument,
  ProjectDocument,
} from '../../../model/documents.ts';
import { programOf, watch } from '../../../testing/orchard.fixture.ts';
import { tick } from '../../phases/tick.ts';
import { createWorld } from '../../world.ts';
import { takeSnapshot, restoreSnapshot, worldHash } from '../../handover/snapshot.ts';
import { swapProgram } from '../../handover/swap.ts';
import { BEGUN, duel, FIRST_ACTIVE, fought, strike, SWEEP, type Duel } from './fighting.fixture.ts';

describe('a strike', () => {
  it('hits in its first active tick, once, and is over after its recovery', () => {
    const {
      hits: found,
      warden,
      entries,
    } = fought({
      moves: { sweep: SWEEP },
      keeper: {
        sequence: [strike('sweep'), { do: 'say', text: 'Over.' }, { do: 'wait', seconds: 9 }],
      },
    });
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({
      tick: FIRST_ACTIVE,
      agent: 'keeper',
      of: 'warden',
      result: 'landed',
      harm: 10,
    });
    expect(warden.self.health).toBe(90);
    // 30 + 6 + 24 ticks.
    expect(entries.find((entry) => entry.kind === 'say')!.tick).toBe(BEGUN + 60);
  });

  it('misses what is out of reach, and says by how much', () => {
    const { hits: found, keeper } = fought({
      moves: { sweep: SWEEP },
      keeper: strike('sweep'),
      away: 2,
    });
    // Two bodies of 0.3 m, a reach of 1 m: 0.4 m are missing.
    expect(found[0].result).toBe('missed');
    expect(found[0].missedBy).toBeCloseTo(0.4, 6);
    expect(keeper.program.texts[keeper.self.lastResult]).toBe('missed');
  });

  it('goes as far beside as its maker aims badly, once for each use', () => {
    const spit: MoveDocument = {
      kind: 'thrown',
      windUp: 0.1,
      active: 0.4,
      recovery: 0.1,
      reach: 6,
      damage: 1,
      speed: 12,
      shots: 3,
      gap: 0.1,
    };
    const angles = (aimError: number, seed: number) => {
      const document = duel({
        moves: { spit },
        keeper: strike('spit'),
        away: 4,
        change: ({ archetypes }) => {
          archetypes.keeper.aimError = aimError;
        },
      });
      const world = createWorld(programOf(document), seed);
      const found = new Set<number>();
      for (let i = 0; i < 50; i++) {
        tick(world);
        for (const { vx, vy } of world.shots) found.add(Math.atan2(vy, vx));
      }
      return [...found];
    };
    expect(angles(0, 1)).toEqual([0]);
    const seeds = Array.from({ length: 300 }, (_, seed) => seed);
    const errors = seeds.flatMap((seed) => {
      const own = angles(5, seed);
      expect(own).toHaveLength(1);
      return own;
    });
    const deviation = Math.sqrt(errors.reduce((sum, each) => sum + each * each, 0) / errors.length);
    // The standard error of a deviation from 300 draws is a 24th of it.
    expect(Math.abs((deviation * 180) / Math.PI - 5)).toBeLessThan(3 * (5 / Math.sqrt(600)));
  });

  it('passes over who crouches under it', () => {
    const low = fought({
      moves: { high: { ...SWEEP, from: 1.2, to: 1.6 } },
      keeper: strike('high'),
      change: (document) => {
        document.archetypes.warden.gaits = { walk: 2, creep: { speed: 1, crouched: true } };
        document.archetypes.warden.gait = 'creep';
        document.archetypes.keeper.gaits = document.archetypes.warden.gaits;
      },
    });
    expect(low.hits.map(({ result }) => result)).toEqual(['missed']);
    const upright = fought({
      moves: { high: { ...SWEEP, from: 1.2, to: 1.6 } },
      keeper: strike('high'),
    });
    expect(upright.hits.map(({ result }) => result)).toEqual(['landed']);
  });

  it('does not go through a wall that is as high, and goes over one that is not', () => {
    const behind = (height: number) =>
      fought({
        moves: { sweep: { ...SWEEP, reach: 2 } },
        keeper: strike('sweep'),
        change: (document) => {
          document.grounds.corner.walls = [{ at: [5.6, 4], size: [0.2, 2], kind: 'low', height }];
        },
      }).hits.map(({ result }) => result);
    expect(behind(1.4)).toEqual(['walled']);
    expect(behind(0.6)).toEqual(['landed']);
  });

  it('carries the body on, up to whom it meets', () => {
    const { keeper, hits: found } = fought({
      moves: { lunge: { ...SWEEP, advance: 3, reach: 0.4 } },
      keeper: strike('lunge'),
      away: 2.5,
    });
    expect(found[0].result).toBe('landed');
    expect(keeper.x).toBeGreaterThan(5.5);
    expect(keeper.x).toBeLessThanOrEqual(5 + 2.5 - 0.6 + 1e-9);
  });

  it('can’t be begun before its cooldown is over', () => {
    const { entries } = fought(
      {
        moves: { jab: { active: 0.1, reach: 0.1, cooldown: 1 } },
        keeper: { repeat: { succeed: strike('jab') }, times: 400 },
      },
      200,
    );
    const begun = entries.flatMap((entry) => (entry.kind === 'move' ? [entry.tick] : []));
    // It ends in the fifth tick after its first, and cools down for sixty.
    expect(begun[1] - begun[0]).toBe(65);
  });
});

describe('a guard', () => {
  const against = (seconds: number, guard: GuardDocument, move: Partial<MoveDocument> = {}) =>
    fought({
      moves: { sweep: { ...SWEEP, ...move } },
      guards: { high: { raise: 0.1, damageShare: 0.25, ...guard } },
      keeper: strike('sweep'),
      warden: {
        sequence: [
          { do: 'guard', guard: 'high', seconds },
          { do: 'wait', seconds: 9 },
        ],
      },
    }).hits[0];

  it('that ends one tick before the impact is hit; one that ends on it is not', () => {
    // Raised in tick 7, it is lowered as soon as it has been held for so many ticks; the impact is in tick 37.
    expect(against(30 / 60, {}).result).toBe('landed');
    expect(against(31 / 60, {})).toMatchObject({ result: 'guarded', harm: 2.5 });
  });

  it('covers its heights and its arc only, and not before it is raised', () => {
    expect(against(5, { from: 0, to: 0.6 }).result).toBe('landed');
    expect(against(5, { raise: 0.6 }).result).toBe('landed');
    expect(against(5, { maxDuration: 0.3 }).result).toBe('landed');
    const behind = fought({
      moves: { sweep: SWEEP },
      guards: { high: {} },
      keeper: strike('sweep'),
      warden: { do: 'guard', guard: 'high', seconds: 5 },
      change: (document) => {
        document.grounds.corner.agents.warden.heading = 0;
      },
    });
    expect(behind.hits[0].result).toBe('landed');
  });

  it('parries just after it was raised, and staggers the attacker', () => {
    const {
      hits: found,
      keeper,
      warden,
      entries,
    } = fought(
      {
        moves: { sweep: SWEEP },
        guards: { high: { raise: 0.1, parry: 0.3, stagger: 1 } },
        keeper: strike('sweep'),
        warden: {
          sequence: [
            { do: 'wait', seconds: 0.3 },
            { do: 'guard', guard: 'high', seconds: 5 },
          ],
        },
      },
      60,
    );
    expect(found[0].result).toBe('parried');
    expect(warden.self.health).toBe(100);
    expect(keeper.fight.staggeredUntil).toBe(FIRST_ACTIVE + 61);
    expect(entries).toContainEqual(
      expect.objectContaining({
        kind: 'broken',
        move: 'sweep',
        reason: because('parriedBy', 'warden'),
      }),
    );
  });
});

describe('a dodge', () => {
  it('is untouchable for its time, and carries the body away', () => {
    const dodging = (untouchable: number) =>
      fought({
        moves: {
          sweep: { ...SWEEP, reach: 3 },
          hop: { kind: 'dodge', active: 0.3, advance: 0.5, invulnerable: untouchable },
        },
        keeper: strike('sweep'),
        warden: {
          sequence: [
            { do: 'wait', seconds: 0.4 },
            { do: 'dodge', move: 'hop', way: 'back' },
          ],
        },
      });
    const dodged = dodging(0.3);
    expect(dodged.hits.map(({ result }) => result)).toEqual(['dodged']);
    expect(dodged.warden.x).toBeCloseTo(6.9, 3);
    expect(dodging(0.05).hits.map(({ result }) => result)).toEqual(['landed']);
  });
});

describe('stagger', () => {
  const staggered = (sturdy: boolean) =>
    fought({
      moves: {
        jab: { ...SWEEP, windUp: 0.2, stagger: 0.5, knockback: 0.4 },
        slow: { ...SWEEP, windUp: 1, reach: 2, ...(sturdy ? { sturdy: true as const } : {}) },
      },
      keeper: strike('jab'),
      warden: { sequence: [strike('slow'), { do: 'wait', seconds: 9 }] },
    });

  it('breaks off what is not sturdy, with the reason, and pushes', () => {
    const { entries, warden, hits: found } = staggered(false);
    expect(found.map(({ agent, result }) => `${agent} ${result}`)).toEqual(['keeper landed']);
    expect(entries).toContainEqual(
      expect.objectContaining({
        kind: 'end',
        agent: 'warden',
        action: 'strike',
        ending: 'failure',
        reason: because('hitBy', 'keeper'),
      }),
    );
    expect(warden.x).toBeCloseTo(6.8, 2);
  });

  it('leaves alone what is sturdy', () => {
    expect(staggered(true).hits.map(({ agent, result }) => `${agent} ${result}`)).toEqual([
      'keeper landed',
      'warden landed',
    ]);
  });
});

describe('one tick', () => {
  it('in which both hit hurts both, and can be the last of both', () => {
    const {
      keeper,
      warden,
      hits: found,
    } = fought({
      moves: { sweep: { ...SWEEP, damage: 100 } },
      keeper: strike('sweep'),
      warden: strike('sweep'),
    });
    expect(found.map(({ tick: at, result }) => [at, result])).toEqual([
      [FIRST_ACTIVE, 'landed'],
      [FIRST_ACTIVE, 'landed'],
    ]);
    expect([keeper.isDead, warden.isDead]).toEqual([true, true]);
  });

  it('does not depend on the order in the file: equal fighters win as often', () => {
    const document = duel({
      moves: { jab: { windUp: 0.2, active: 0.1, recovery: 0.2, reach: 1, damage: 40 } },
      keeper: {
        repeat: {
          sequence: [
            { do: 'wait', seconds: 0.05 },
            { chance: strike('jab'), probability: 0.3 },
          ],
        },
        times: 1000,
      },
      warden: {
        repeat: {
          sequence: [
            { do: 'wait', seconds: 0.05 },
            { chance: strike('jab'), probability: 0.3 },
          ],
        },
        times: 1000,
      },
    });
    for (const mind of ['keeper', 'warden']) {
      const { root } = document.minds[mind].trees!.main;
      const [, succeed] = (root as { sequence: NodeDocument[] }).sequence;
      const loop = (succeed as { succeed: { repeat: { sequence: NodeDocument[] } } }).succeed;
      loop.repeat.sequence[1] = {
        succeed: { chance: strike('jab'), probability: 0.3 },
      } as NodeDocument;
    }
    const program = programOf(document);
    let [keeper, warden] = [0, 0];
    for (let seed = 1; seed <= 2000; seed++) {
      const world = createWorld(program, seed);
      const [a, b] = world.agents;
      for (let i = 0; i < 1200 && !a.isDead && !b.isDead; i++) tick(world);
      if (a.isDead && !b.isDead) warden++;
      if (b.isDead && !a.isDead) keeper++;
    }
    expect(keeper + warden).toBeGreaterThan(1000);
    expect(Math.abs(keeper / (keeper + warden) - 0.5)).toBeLessThan(0.03);
  });
});

describe('what can be asked', () => {
  const asking = (
    expression: string,
    type: 'text' | 'number' | 'flag',
    options: Duel = {},
    ticks = 20,
  ) => {
    const watched = watch(
      duel({
        moves: { sweep: SWEEP },
        guards: { high: { raise: 0.1 } },
        keeper: {
          repeat: {
            sequence: [
              { do: 'remember', key: 'answer', value: expression },
              { do: 'wait', seconds: 0.02 },
            ],
          },
          times: 1000,
        },
        change: (document) => {
          document.minds.keeper.memory = { answer: { type } };
        },
        ...options,
      }),
    );
    watched.run(ticks);
    return watched.memory().answer;
  };

  it('is what others are seen to do, and when it will hit', () => {
    const striking = { warden: strike('sweep') };
    expect(asking('moveOf(attention.of)', 'text', striking)).toBe('sweep');
    expect(asking('phaseOf(attention.of)', 'text', striking)).toBe('windUp');
    expect(asking('phaseOf(attention.of)', 'text', striking, 50)).toBe('recovery');
    // Asked in one of the last two ticks: begun in tick 7, impact in 37.
    expect(Number(asking('impactIn(attention.of)', 'number', striking))).toBeCloseTo(17 / 60, 1);
    expect(asking('known(impactIn(attention.of))', 'flag', { ...striking, away: 3 })).toBe('false');
    expect(
      asking('guarding(attention.of)', 'text', { warden: { do: 'guard', guard: 'high' } }),
    ).toBe('high');
    expect(asking('healthOf(attention.of)', 'number')).toBe('100');
  });

  it('is what its own moves allow', () => {
    expect(asking("ready('sweep')", 'flag')).toBe('true');
    expect(asking("ready('swoop')", 'flag')).toBe('false');
    expect(asking("canReach('sweep', attention.of)", 'flag')).toBe('true');
    expect(asking("canReach('sweep', attention.of)", 'flag', { away: 3 })).toBe('false');
    expect(
      asking("at(cheat.place(attention.of), canReach('sweep', attention.of))", 'flag', { away: 3 }),
    ).toBe('true');
    expect(asking('self.healthShare', 'number', { warden: strike('sweep') }, 60)).toBe('0.9');
    expect(Number(asking('sinceHit', 'number', { warden: strike('sweep') }, 60))).toBeGreaterThan(
      0.2,
    );
  });

  it('is seen as late as the reaction is', () => {
    const late = {
      warden: strike('sweep'),
      change: (document: ProjectDocument) => {
        document.minds.keeper.memory = { answer: { type: 'text' as const } };
        document.archetypes.keeper.reaction = 0.25;
      },
    };
    expect(asking('moveOf(attention.of)', 'text', late, 18)).toBe('nothing');
    expect(asking('moveOf(attention.of)', 'text', late, 28)).toBe('sweep');
  });

  it('can be asked for in truth, which is told in the findings', () => {
    const truth = (question: string, type: 'text' | 'number') => {
      const change = (document: ProjectDocument) => {
        document.minds.keeper.memory = { answer: { type } };
        document.archetypes.keeper.reaction = 0.25;
      };
      return asking(
        `cheat.${question}(attention.of)`,
        type,
        { warden: strike('sweep'), change },
        18,
      );
    };
    expect(truth('moveOf', 'text')).toBe('sweep');
    expect(truth('phaseOf', 'text')).toBe('windUp');
    expect(truth('guarding', 'text')).toBe('nothing');
    expect(truth('healthOf', 'number')).toBe('100');
    expect(Number(truth('impactIn', 'number'))).toBeGreaterThan(0.2);
    const document = duel({
      keeper: { when: "cheat.moveOf(attention.of) == 'sweep'", do: 'wait', seconds: 1 },
    });
    expect(checkProject(document).findings.find(({ code }) => code === 'cheats')?.message).toBe(
      '“Fighter” goes by what is true, whether it is perceived or not: cheat.moveOf. Ask for what is perceived, or leave it where it is meant.',
    );
  });
});

describe('a fight', () => {
  const both: Duel = {
    moves: {
      sweep: { ...SWEEP, stagger: 0.2 },
      pot: {
        kind: 'thrown',
        active: 0.2,
        shots: 2,
        gap: 0.1,
        reach: 9,
        speed: 9,
        damage: 2,
        spread: 4,
      },
    },
    guards: { high: {} },
    keeper: {
      repeat: {
        random: [strike('sweep'), strike('pot'), { do: 'guard', guard: 'high', seconds: 0.3 }],
      },
      until: 'failure',
    },
    warden: {
      repeat: { random: [strike('sweep'), strike('pot'), { do: 'wait', seconds: 0.2 }] },
      until: 'failure',
    },
  };

  it('goes on as it was after a snapshot and an edit that changes nothing', () => {
    const program = programOf(duel(both));
    const world = createWorld(program, 3);
    for (let i = 0; i < 75; i++) tick(world);
    const kept = takeSnapshot(world);
    const swapped = swapProgram(world, programOf(duel(both)), 2, 3);
    expect(worldHash(swapped)).toBe(worldHash(world));
    const later: string[] = [];
    for (let i = 0; i < 120; i++) {
      tick(world);
      tick(swapped);
      later.push(worldHash(world));
      expect(worldHash(swapped)).toBe(later[i]);
    }
    restoreSnapshot(world, kept);
    for (let i = 0; i < 120; i++) tick(world);
    expect(worldHash(world)).toBe(later[119]);
  });

  it('goes on where its target is gone, and finds no agent', () => {
    const program = programOf(duel({ moves: { sweep: SWEEP }, keeper: strike('sweep') }));
    const world = createWorld(program);
    for (let i = 0; i < 20; i++) tick(world);
    const without = duel({ moves: { sweep: SWEEP }, keeper: strike('sweep') });
    delete without.grounds.corner.agents.warden;
    const next = swapProgram(world, programOf(without), 2, 1);
    for (let i = 0; i < 60; i++) tick(next);
    const [keeper] = next.agents;
    expect(keeper.program.texts[keeper.self.lastResult]).toBe('missed');
  });
});

describe('what is wrong with a move', () => {
  const errors = (moves: Record<string, MoveDocument>, keeper?: NodeDocument) =>
    checkProject(duel({ moves, keeper })).findings.flatMap(({ severity, path, message }) =>
      severity === 'error' ? [`${path}: ${message}`] : [],
    );

  it('is said at its place', () => {
    expect(errors({ jab: { active: 0.005 } })[0]).toMatch(
      /^archetypes\.keeper\.moves\.jab\.active: 0\.005 s is shorter than a tick/,
    );
    expect(errors({ jab: { active: 0.1, from: 1.4, to: 1 } })[0]).toMatch(
      /moves\.jab\.to: It passes from 1\.4 to 1/,
    );
    expect(errors({ jab: { active: 0.1 } }, strike('jap'))[0]).toMatch(
      /“keeper” has no move “jap”. Did you mean “?jab/,
    );
  });
});
