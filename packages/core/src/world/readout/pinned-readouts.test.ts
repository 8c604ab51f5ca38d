import { describe, expect, it } from 'vitest';
import { revisit, type Run } from '../../ledger/run.ts';
import { expectPinned, jsonLine, PINNED_DEMOS, playedDemo } from '../../testing/pinned.fixture.ts';
import type { World } from '../world.ts';
import { readChoice, readChoiceAt, readHeat, runningOption } from './choices.ts';
import { readFollowed } from './followed.ts';
import { pictureGame } from './game.ts';
import { pictureSide } from './overview.ts';
import { pictureFights } from './picture-fights.ts';
import {
  pictureBodies,
  pictureForces,
  pictureKnown,
  picturePaths,
  pictureRays,
  pictureShared,
  pictureThings,
  playedAgent,
} from './picture.ts';
import { readMind } from './readout.ts';
import { readRowCells, readRows, rowPlaces } from './rows.ts';

/** What is shown of runs of the demos is shown as it was. */

/** The pictures of every agent. */
function* pictures(world: World): Generator<string> {
  yield `played ${playedAgent(world)}`;
  yield `bodies ${jsonLine(pictureBodies(world))}`;
  yield `rays ${jsonLine(pictureRays(world, null))}`;
  yield `things ${jsonLine(pictureThings(world))}`;
  yield `forces ${jsonLine(pictureForces(world))}`;
  yield `paths ${jsonLine(picturePaths(world))}`;
  yield `shared ${jsonLine(pictureShared(world))}`;
  yield `fights ${jsonLine(pictureFights(world))}`;
  yield `game ${jsonLine(pictureGame(world))}`;
  yield `side ${jsonLine(pictureSide(world))}`;
}

/** What is shown of one that is watched. */
function* watched(world: World, agent: string): Generator<string> {
  yield `rays of ${agent} ${jsonLine(pictureRays(world, agent))}`;
  yield `known to ${agent} ${jsonLine(pictureKnown(world, agent))}`;
  yield `followed ${agent} ${jsonLine(readFollowed(world, agent))}`;
  const { minds } = world.agents.find(({ name }) => name === agent)!;
  for (const { program } of minds) {
    const { name: mind, machine } = program;
    for (const { id: state } of machine.states) {
      const asked = { agent, mind, state };
      yield `${mind} in ${state} ${jsonLine(readMind(world, agent, state, mind))}`;
      yield `rows ${jsonLine([rowPlaces(world, asked), readRowCells(world, asked)])}`;
    }
  }
}

function* weighed(world: World, agent: string, choice: string): Generator<string> {
  const asked = { agent, choice };
  yield `${agent} ${choice} runs ${runningOption(world, asked)}`;
  yield `${agent} ${choice} ${jsonLine(readChoice(world, asked))}`;
  yield `${agent} ${choice} elsewhere ${jsonLine(readChoiceAt(world, asked, 6, 5))}`;
}

function shown(run: Run, ticks: readonly number[], lines: (world: World) => Iterable<string>) {
  return ticks.flatMap((tick) => [`tick ${tick}`, ...lines(revisit(run, tick))]);
}

describe('what is shown', () => {
  it.each(PINNED_DEMOS)('of every agent in %s', (name) => {
    expectPinned(`shown/${name}`, [shown(playedDemo(name, 300), [40, 170, 300], pictures)]);
  });

  it.each([
    ['keepers-duel', 'keeper', 'ward', 'rakeSweep'],
    ['night-watch', 'warden3', 'collar', 'hold'],
    ['windfall', 'magpie', 'windfalls', 'fetch'],
    ['hive-day', 'keeper1', 'comb', 'fetch'],
  ])('of one who is watched in %s: %s', (name, agent, choice, option) => {
    const run = playedDemo(name, 240);
    expectPinned(`shown/${name}-watched`, [
      shown(run, [60, 170, 240], function* (world) {
        yield* watched(world, agent);
        yield* weighed(world, agent, choice);
      }),
      shown(run, [170], function* (world) {
        const heat = readHeat(world, { agent, choice }, option, 2);
        yield `heat of ${option} ${jsonLine(heat)}`;
      }),
    ]);
  });

  it.each([
    ['windfall', 'director'],
    ['night-watch', 'hound'],
    ['bell-hours', 'bee6'],
  ])('of what is done in %s by %s', (name, agent) => {
    const run = playedDemo(name, 300);
    expectPinned(`shown/${name}-${agent}`, [
      shown(run, [1, 150, 300], function* (world) {
        yield* watched(world, agent);
        const found = world.agents.find((each) => each.name === agent)!;
        for (const state of found.minds[0].machine.states)
          yield `does in ${state.index}: ${jsonLine(readRows(found, found.minds[0], state.index))}`;
      }),
    ]);
  });

  it('is nothing of who or what is not there', () => {
    const { world } = playedDemo('keepers-duel', 60);
    const [keeper, nobody] = [
      { agent: 'keeper', choice: 'ward' },
      { agent: 'nobody', choice: 'ward' },
    ];
    expect(readMind(world, 'nobody', null)).toBeNull();
    expect(readMind(world, 'keeper', null, 'gone')).toEqual(readMind(world, 'keeper', null));
    expect(readMind(world, 'gleaner', null)).toBeNull();
    expect(readMind(world, 'keeper', 'nowhere')!.state).toBeNull();
    expect(readMind(world, 'keeper', null, 'keeper')!.agent).toBe('keeper');
    for (const asked of [nobody, { ...keeper, choice: 'other' }]) {
      expect(readChoice(world, asked)).toBeNull();
      expect(readChoiceAt(world, asked, 3, 3)).toBeNull();
      expect(readHeat(world, asked, 'circle', 1)).toBeNull();
      expect(runningOption(world, asked)).toBeNull();
    }
    expect(readHeat(world, keeper, 'other', 1)).toBeNull();
    expect(readFollowed(world, 'nobody')).toBeNull();
    expect(pictureKnown(world, 'nobody')).toBeNull();
    for (const asked of [
      { agent: 'nobody', state: 'warding' },
      { agent: 'keeper', state: 'nowhere' },
      { agent: 'keeper', state: 'fight' },
    ]) {
      expect(rowPlaces(world, asked)).toEqual([]);
      expect(readRowCells(world, asked)).toHaveLength(0);
    }
  });
});
