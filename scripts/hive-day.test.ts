import {
  checkProject,
  createWorld,
  setRecorder,
  tick,
  type Input,
  type LedgerEntry,
  type Program,
  type ProjectDocument,
  type World,
} from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { demoProgram, demoDocument } from './demo-program.fixture.ts';

/** That Hive Day is lost by who stands by and won by who helps, and that its beekeepers go about their day as the docs say. */

const hiveDay = (change?: (document: ProjectDocument) => void) => demoProgram('hive-day', change);

const RACK = { x: 18.3, y: 11 };
/** The gap in the hedge, on the side of the hives and on the other. */
const GAP = { y: 10.2, near: 7.4, far: 9.2 };

/** Carries combs from the hives through the gap to the rack. */
function carries(world: World): Partial<Input> {
  const own = world.agents.find(({ name }) => name === 'apprentice')!;
  const away = (x: number, y: number) => Math.hypot(x - own.x, y - own.y);
  const go = (x: number, y: number): Partial<Input> => ({
    x: (x - own.x) / away(x, y),
    y: (y - own.y) / away(x, y),
    gait: 'run',
  });
  if (own.carried >= 0) {
    if (away(RACK.x, RACK.y) < 1.1) return { act: 'drop' };
    if (own.x < GAP.near) return go(GAP.near + 0.9, GAP.y);
    return own.x < GAP.far ? go(GAP.far + 0.2, GAP.y) : go(RACK.x, RACK.y);
  }
  const combs = world.things.filter(({ carrier, x }) => carrier < 0 && x < 6.5);
  if (combs.length === 0) return {};
  const comb = combs.reduce((best, each) => (each.x > best.x ? each : best));
  if (away(comb.x, comb.y) < 0.9) return { act: 'pickUp' };
  if (own.x > GAP.far) return go(GAP.far, GAP.y);
  return own.x > GAP.near + 0.2 ? go(GAP.near, GAP.y) : go(comb.x, comb.y);
}

interface Played {
  world: World;
  entries: LedgerEntry[];
}

function played(
  program: Program,
  player: ((world: World) => Partial<Input>) | null,
  seconds: number,
  look: (world: World) => void = () => {},
): Played {
  const world = createWorld(program);
  const entries: LedgerEntry[] = [];
  setRecorder(world, (entry) => entries.push(entry));
  for (let i = 0; i < seconds * 60 && !world.result; i++) {
    const done = player?.(world);
    tick(world, done ? [{ agent: 'apprentice', x: 0, y: 0, gait: null, ...done }] : []);
    look(world);
  }
  return { world, entries };
}

describe('Hive Day', () => {
  it('is lost by who stands by', () => {
    const { world } = played(hiveDay(), null, 180);
    expect(world.result).toMatchObject({ how: 'lost' });
    expect(world.scores[0]).toBeGreaterThan(8);
  });

  it('is won by who carries combs to the rack', () => {
    expect(played(hiveDay(), carries, 180).world.result).toMatchObject({ how: 'won' });
  });

  it('never has two hands at one bench, and cuts no agent off in mid-act', () => {
    const program = hiveDay();
    const benches = program.ground.zones.filter(({ name }) => name.startsWith('bench'));
    let most = 0;
    const { entries } = played(program, null, 120, (world) => {
      const at = (bench: (typeof benches)[number]) =>
        world.agents.filter(({ x, y, body, archetype }) => {
          const [dx, dy] = [x - bench.x - bench.width / 2, y - bench.y - bench.height / 2];
          const stands = body.vx * body.vx + body.vy * body.vy < 0.01;
          return archetype.name === 'beekeeper' && stands && dx * dx + dy * dy < 0.25;
        }).length;
      for (const bench of benches) {
        expect(at(bench)).toBeLessThan(2);
        most = Math.max(
          most,
          benches.reduce((sum, each) => sum + at(each), 0),
        );
      }
    });
    expect(most).toBeGreaterThan(2);
    const cutOff = entries.filter(
      (entry) => entry.kind === 'end' && entry.action === 'wait' && entry.ending === 'stopped',
    );
    expect(cutOff).toEqual([]);
  });

  it('sees to each need in its order: thirst before hunger before sleep before work', () => {
    const need = (key: string, initial: number) => (document: ProjectDocument) => {
      const { memory } = document.minds.beekeeper;
      for (const each of ['thirst', 'hunger', 'tired'])
        Object.assign(memory![each], { default: each === key || each === 'tired' ? initial : 0 });
    };
    const firstOf = (change: (document: ProjectDocument) => void) => {
      const { world } = played(hiveDay(change), null, 3);
      return world.agents.find(({ name }) => name === 'keeper6')!.body.goalY;
    };
    expect(firstOf(need('thirst', 1))).toBe(16.5);
    expect(firstOf(need('hunger', 1))).toBe(16.5);
    expect(firstOf(need('tired', 1))).toBe(2.2);
    expect(firstOf(need('tired', 0))).toBeGreaterThan(4);
  });

  it('has no finding but that its beekeepers go by what is true', () => {
    expect(checkProject(demoDocument('hive-day')).findings.map(({ code }) => code)).toEqual([
      'cheats',
    ]);
  });

  it('takes a fourth need by duplicating a branch, as the docs say', () => {
    const program = hiveDay((document) => {
      const { memory, trees } = document.minds.beekeeper;
      memory!.lonely = { ...memory!.thirst, default: 0.8 };
      trees!.talk = {
        ...trees!.drink,
        title: 'Talk',
        root: {
          sequence: [
            { do: 'moveTo', to: 'middleOf(table)', within: 2 },
            { do: 'wait', seconds: 3, uninterrupted: true },
            { do: 'remember', key: 'lonely', value: '0' },
          ],
        },
      };
      const { root } = trees!.day as { root: { selector: object[] } };
      root.selector.splice(4, 0, { tree: 'talk', when: 'lonely > 0.75', title: 'Company' });
    });
    const { entries } = played(program, null, 40);
    const talked = entries.filter((entry) => entry.kind === 'memory' && entry.key === 'lonely');
    expect(new Set(talked.map(({ agent }) => agent)).size).toBeGreaterThan(6);
  });
});
