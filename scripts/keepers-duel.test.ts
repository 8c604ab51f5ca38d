import { createWorld, tick, type Input, type Program, type World } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { demoProgram } from './demo-program.fixture.ts';

/** That Keeper’s Duel can be won and lost on each tier, and that the tiers differ. */

const TIERS = ['gentle', 'steady', 'fierce'] as const;
type Tier = (typeof TIERS)[number];

/** Seconds after which the duel is a draw. */
const LONGEST = 120;

function duelAt(tier: Tier): Program {
  return demoProgram('keepers-duel', ({ start }) => {
    start.tier = tier;
  });
}

interface Sides {
  gleaner: World['agents'][number];
  keeper: World['agents'][number];
}

/** What a player does in a tick; null for the same as before. */
type Player = (sides: Sides) => Partial<Input> | null;

interface Outcome {
  won: boolean;
  lost: boolean;
  seconds: number;
  /** States the keeper’s mind has been in. */
  phases: Set<string>;
}

function fought(program: Program, seed: number, player: Player): Outcome {
  const world = createWorld(program, seed);
  const of = (name: string) => world.agents.find((agent) => agent.name === name)!;
  const sides = { gleaner: of('gleaner'), keeper: of('keeper') };
  const { machine } = sides.keeper.minds[0];
  const phases = new Set<string>();
  let at = 0;
  for (; at < LONGEST * 60 && !sides.gleaner.isDead && !sides.keeper.isDead; at++) {
    const done = player(sides);
    tick(world, done ? [{ agent: 'gleaner', x: 0, y: 0, gait: null, ...done }] : []);
    const { memory } = sides.keeper;
    const { active } = machine.cells;
    for (let i = 1; i <= memory[active]; i++)
      phases.add(sides.keeper.minds[0].program.machine.states[memory[active + i]].id);
  }
  return {
    won: sides.keeper.isDead && !sides.gleaner.isDead,
    lost: sides.gleaner.isDead,
    seconds: at / 60,
    phases,
  };
}

const LOW = ['lowHook', 'stamp'];

/**
 * Watches the keeper’s moves, answers some of them with the guard that fits, and strikes when it can. How often
 * it answers, and how soon, is what it is good at.
 */
interface Skill {
  /** How likely it answers a move it has seen. */
  answers: number;
  /** Ticks until it sees one. */
  late: number;
  /** Ticks between its own strikes. */
  patience: number;
  /** How likely it strikes without an opening. */
  bold: number;
}

function duellist({ answers, late, patience, bold }: Skill): Player {
  let luck = 12345;
  const chance = (p: number) => {
    luck = (Math.imul(luck, 1103515245) + 12345) >>> 0;
    return (luck >>> 8) / 2 ** 24 < p;
  };
  let seen = -1;
  let answered = false;
  let guarding = false;
  let wait = 0;
  return ({ gleaner, keeper }) => {
    const dx = keeper.x - gleaner.x;
    const dy = keeper.y - gleaner.y;
    const away = Math.hypot(dx, dy);
    const toward = { x: dx / away, y: dy / away };
    const move = keeper.archetype.moves[keeper.fight.move];
    const elapsed = gleaner.tick - keeper.fight.startedAt;
    if (move && keeper.fight.startedAt !== seen) {
      seen = keeper.fight.startedAt;
      answered = chance(answers);
    }
    const impact = move ? move.windUp - elapsed : Infinity;
    const isComing =
      move !== undefined && move.kind !== 'dodge' && elapsed >= late && impact + move.active > 0;
    if (isComing && answered && impact < 16) {
      if (['overhead', 'charge'].includes(move.name) && gleaner.fight.move < 0 && impact < 9)
        return { x: -toward.y, y: toward.x, act: 'dodge', move: 'hop' };
      const guard = LOW.includes(move.name) ? 'low' : 'high';
      guarding = true;
      return { x: toward.x * 0.01, y: toward.y * 0.01, act: 'guard', move: guard };
    }
    if (guarding) {
      guarding = false;
      return { act: 'lower' };
    }
    // Who has seen a move coming waits for it, and does not strike into it.
    const isWaiting = move !== undefined && answered && elapsed >= late && impact + move.active > 0;
    if (wait-- > 0 || gleaner.fight.move >= 0 || isWaiting) return null;
    if (away > 1.45) return { ...toward };
    const left = move ? move.windUp + move.active + move.recovery - elapsed : 0;
    const isStaggered = keeper.fight.staggeredUntil > gleaner.tick + 26;
    const isOpen = isStaggered || (move !== undefined && impact + move.active <= 0 && left > 12);
    wait = patience;
    if (!isOpen && !chance(bold)) return null;
    return {
      x: toward.x * 0.01,
      y: toward.y * 0.01,
      act: 'strike',
      move: isStaggered || left > 28 ? 'swing' : 'jab',
    };
  };
}

const SKILLED: Skill = { answers: 0.97, late: 12, patience: 3, bold: 0.02 };
const MIDDLING: Skill = { answers: 0.7, late: 15, patience: 10, bold: 0.3 };

const programs = Object.fromEntries(TIERS.map((tier) => [tier, duelAt(tier)])) as Record<
  Tier,
  Program
>;

function winRate(tier: Tier, skill: Skill, seeds: number): number {
  let won = 0;
  for (let seed = 1; seed <= seeds; seed++)
    if (fought(programs[tier], seed, duellist(skill)).won) won++;
  return won / seeds;
}

describe('Keeper’s Duel', () => {
  it.each(TIERS)('is lost by who only stands, and won by who watches, on %s', (tier) => {
    const still = fought(programs[tier], 1, () => null);
    expect(still).toMatchObject({ won: false, lost: true });
    expect(winRate(tier, SKILLED, 20)).toBeGreaterThan(0.5);
  });

  it('is harder from tier to tier for who is middling', () => {
    const rates = TIERS.map((tier) => winRate(tier, MIDDLING, 80));
    expect(rates[0]).toBeGreaterThan(rates[1] + 0.1);
    expect(rates[1]).toBeGreaterThan(rates[2] + 0.1);
    expect(rates[2]).toBeLessThan(0.5);
  });

  it('goes through its three phases', () => {
    const { won, phases } = fought(programs.steady, 2, duellist(SKILLED));
    expect(won).toBe(true);
    for (const phase of ['tending', 'warding', 'pressing', 'wrath'])
      expect(phases).toContain(phase);
  });
});
