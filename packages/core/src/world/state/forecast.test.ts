import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { MoveDocument } from '../../model/documents.ts';
import { KEEN_SIGHT, programOf } from '../../testing/orchard.fixture.ts';
import { duel } from '../mechanics/fighting/fighting.fixture.ts';
import { tick } from '../phases/tick.ts';
import { createWorld, setRecorder } from '../world.ts';

/** What was forecast in each tick of a fight, and the ticks in which it was hit. */
interface Fought {
  forecasts: { tick: number; seconds: number }[];
  hits: number[];
  /** Whether the keeper could have reached from where it stood, asked as it began. */
  couldReach: boolean;
}

interface Setting {
  move: MoveDocument;
  /** Where the warden stands when the keeper, at (30, 30), begins, and where it goes, in m/s. */
  x: number;
  y: number;
  vx: number;
  vy: number;
  /** Degrees. */
  heading: number;
}

const BEGIN = 30;

/** The keeper makes its move once at a warden that goes straight on. */
function fight({ move, x, y, vx, vy, heading }: Setting): Fought {
  const document = duel({
    moves: { swing: move },
    change: ({ grounds: { corner }, archetypes }) => {
      Object.assign(corner, { width: 60, height: 60 });
      corner.agents.keeper = { archetype: 'keeper', at: [30, 30], heading };
      corner.agents.warden = { archetype: 'warden', at: [x, y], heading: 0 };
      archetypes.keeper.sight = {
        ...KEEN_SIGHT,
        cones: [{ range: 40, halfAngle: 180, gain: 90 }],
      };
      archetypes.warden.sight = archetypes.keeper.sight;
      archetypes.warden.health = 1_000_000;
    },
  });
  const world = createWorld(programOf(document), 1);
  const of = (name: string) => world.agents.find((each) => each.name === name)!;
  const [keeper, warden] = [of('keeper'), of('warden')];
  const { word } = keeper.archetype.moves[0];
  const fought: Fought = { forecasts: [], hits: [], couldReach: false };
  setRecorder(world, (entry) => {
    if (entry.kind === 'hit' && entry.result === 'landed') fought.hits.push(entry.tick);
  });
  // The warden is steered like a player, straight on and as fast as it goes already, so that the forecast has to be right
  // to the last millimetre; it does not decide, and what it could ask for is asked as the keeper decides.
  const [pace, steerX, steerY] = [4, vx / 4, vy / 4];
  world.decideFor = (agent) => {
    if (agent !== keeper) return;
    if (world.tick > BEGIN)
      fought.forecasts.push({
        tick: world.tick,
        seconds: warden.here.impactIn(keeper.index, false),
      });
    if (world.tick !== BEGIN) return;
    fought.couldReach = keeper.here.canReach(word, warden.index);
    expect(keeper.strike(word, warden.index, 0)).toBeNull();
  };
  for (let i = 1; i < BEGIN + 180; i++) {
    // It waits until the keeper begins.
    const goes = i >= BEGIN;
    if (i === BEGIN) Object.assign(warden.body, { vx, vy });
    Object.assign(warden.body, { pace, steerX: goes ? steerX : 0, steerY: goes ? steerY : 0 });
    tick(world);
  }
  return fought;
}

/** Numbers on a fine grid: the least doubles there are say nothing of a fight, and take for ever to be made smaller. */
const GRID = 997;
const number = (min: number, max: number) =>
  fc.integer({ min: 0, max: GRID }).map((at) => min + ((max - min) * at) / GRID);
const angle = number(-Math.PI, Math.PI);

const strike: fc.Arbitrary<MoveDocument> = fc.record({
  windUp: number(0.1, 0.6),
  active: number(0.05, 0.3),
  recovery: fc.constant(0.3),
  reach: number(0.3, 3),
  arc: number(10, 90),
  advance: number(0, 1.5),
  turn: number(0, 720),
});
const shot: fc.Arbitrary<MoveDocument> = fc.record({
  kind: fc.constantFrom('thrown' as const, 'instant' as const),
  windUp: number(0.1, 0.6),
  active: number(0.05, 0.5),
  reach: number(1, 9),
  speed: number(4, 20),
  radius: number(0.05, 0.3),
  lead: fc.constantFrom(true as const, undefined),
  shots: fc.integer({ min: 1, max: 3 }),
  gap: number(0.05, 0.3),
});

function setting(move: fc.Arbitrary<MoveDocument>, fastest: number): fc.Arbitrary<Setting> {
  return fc
    .record({
      move,
      // No round distance: one that is met to the last digit may round to either tick.
      away: number(1.2137, 5.9731),
      side: angle,
      speed: number(0, fastest),
      course: angle,
      heading: number(-180, 180),
    })
    .map(({ move, away, side, speed, course, heading }) => ({
      move,
      heading,
      x: 30 + Math.cos(side) * away,
      y: 30 + Math.sin(side) * away,
      vx: Math.cos(course) * speed,
      vy: Math.sin(course) * speed,
    }));
}

/** Nearest that the two come, in metres. */
function nearest({ x, y, vx, vy }: Setting): number {
  let least = Infinity;
  for (let i = 0; i < 180; i++)
    least = Math.min(least, Math.hypot(x + (vx * i) / 60 - 30, y + (vy * i) / 60 - 30));
  return least;
}

function holds(each: Setting) {
  // Bodies that touch push each other off their ways.
  fc.pre(nearest(each) > 0.7);
  const { forecasts, hits } = fight(each);
  for (const { tick: at, seconds } of forecasts) {
    const hit = hits.find((one) => one >= at);
    expect([at, Number.isNaN(seconds) ? undefined : at + Math.round(seconds * 60)]).toEqual([
      at,
      hit,
    ]);
  }
}

describe('a forecast names the tick in which it is hit, in each tick up to that', () => {
  it('of a strike at one who stands or walks', () => {
    fc.assert(fc.property(setting(strike, 3), holds), { numRuns: 50, endOnFailure: true });
  });

  it('of what flies, before it leaves and under way, and of what hits at once', () => {
    fc.assert(fc.property(setting(shot, 3), holds), { numRuns: 50, endOnFailure: true });
  });
});

describe('what can be reached', () => {
  it('is what the move hits, begun there and then by one who faces it', () => {
    fc.assert(
      fc.property(fc.oneof(setting(strike, 3), setting(shot, 3)), (each) => {
        fc.pre(nearest(each) > 0.7);
        const heading = (Math.atan2(each.y - 30, each.x - 30) * 180) / Math.PI;
        const move = { ...each.move, turn: 3600, arc: 90 };
        const { couldReach, hits } = fight({ ...each, move, heading });
        expect(couldReach).toBe(hits.length > 0);
      }),
      { numRuns: 50, endOnFailure: true },
    );
  });
});
