import { because } from '@crooked-lantern/core';
import type { LedgerEntry } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { dotOf } from '../ledger/mark-words.ts';
import { onlyAgentTitles } from './entry-titles.ts';
import { NIGHT } from '../theme/tokens.ts';
import { addEntries, createLanes, furtherBands, GAME_LANE, scoreLane, waveLane } from './lanes.ts';
import { sleepOf } from '../ledger/draw-bands.ts';
import { asleepUntil, timeShares } from './lane-times.ts';

type Short = { tick: number } & Record<string, unknown>;
const entries = (list: Short[]) =>
  list.map((entry) => ({ agent: 'warden1', ...entry })) as unknown as LedgerEntry[];

function laneFrom(list: Short[]) {
  const lanes = createLanes();
  addEntries(lanes, entries(list));
  return lanes.byAgent.get('warden1')!;
}

const enter = (tick: number, state: string) => ({ tick, kind: 'enter', state });
const exit = (tick: number, state: string) => ({ tick, kind: 'exit', state });

describe('the lane of an agent', () => {
  it('shows what went wrong as dots: failures with a reason, skipped decisions, overwritten memory', () => {
    const end = (row: number, more: object) => ({ tick: 5, kind: 'end', state: 'a', row, ...more });
    const lane = laneFrom([
      { tick: 2, kind: 'skipped', action: 'wait' },
      { tick: 3, kind: 'overwrote', key: 'mark', of: 'warden2' },
      end(1, { action: 'turn', ending: 'failure', reason: because('channelTaken', 'eyes') }),
      end(2, { action: 'moveTo', ending: 'failure', reason: because('noPath', 'otherIsland') }),
      end(3, { action: 'wait', ending: 'failure' }),
      end(4, { action: 'wait', ending: 'success' }),
    ]);
    expect(lane.dots.map(({ entry }) => dotOf(entry, NIGHT, onlyAgentTitles())?.words)).toEqual([
      'makes no decision until “wait” ends',
      'wrote mark over what warden2 wrote in the same tick',
      '“turn” failed (row 2): something else took its eyes',
    ]);
  });

  it('shows from when on what a state does has ended, until it begins again or is left', () => {
    const begin = (tick: number) => ({ tick, kind: 'begin', state: 'watch', action: 'look' });
    const end = (tick: number, ending: string, row?: number) => ({
      tick,
      kind: 'end',
      state: 'watch',
      action: 'look',
      ending,
      ...(row === undefined ? {} : { row }),
    });
    const bands = (...list: Short[]) => laneFrom([enter(1, 'watch'), begin(1), ...list]).bands;
    expect(bands(end(20, 'success'))).toEqual([{ state: 'watch', from: 1, to: -1, endedAt: 20 }]);
    expect(bands(end(20, 'failure', 3), end(30, 'failure'), exit(40, 'watch'))).toEqual([
      { state: 'watch', from: 1, to: 40, endedAt: 30 },
    ]);
    expect(bands(end(20, 'success'), begin(21))).toEqual([{ state: 'watch', from: 1, to: -1 }]);
    expect(bands(end(20, 'stopped'))).toEqual([{ state: 'watch', from: 1, to: -1 }]);
  });

  it('shows what its other minds are in beside the first, until it dies', () => {
    const of = (mind: string, entry: object) => ({ tick: 0, ...entry, mind });
    const lanes = createLanes();
    addEntries(
      lanes,
      entries([
        enter(1, 'rounds'),
        of('lantern', enter(1, 'low')),
        of('lantern', exit(8, 'low')),
        of('lantern', enter(8, 'high')),
        { tick: 20, kind: 'death', by: '' },
      ]),
    );
    const lane = lanes.byAgent.get('warden1')!;
    expect(lane.bands).toEqual([{ state: 'rounds', from: 1, to: 20 }]);
    expect(lane.besides.get('lantern')!.bands).toEqual([
      { state: 'low', from: 1, to: 8 },
      { state: 'high', from: 8, to: 20 },
    ]);
    expect([lanes.furtherRows, furtherBands(lane).length]).toEqual([1, 1]);
  });

  it('knows until when an agent slept who began asleep', () => {
    expect(asleepUntil(undefined)).toBe(Infinity);
    expect(asleepUntil(laneFrom([{ tick: 3, kind: 'awareness', value: 0 }]))).toBe(Infinity);
    expect(asleepUntil(laneFrom([enter(40, 'rounds')]))).toBe(40);
    expect(asleepUntil(laneFrom([{ tick: 25, kind: 'death', by: '' }, enter(40, 'rounds')]))).toBe(
      25,
    );
  });

  it('keeps what each pick scored, and nothing where nothing was worth doing', () => {
    const pick = (tick: number, option: string | null, score: number) => ({
      tick,
      kind: 'picked',
      option,
      score,
    });
    const lane = laneFrom([pick(3, 'circle', 0.4), pick(9, null, 0.1), pick(12, 'strike', 0.9)]);
    expect(lane.scores).toEqual([
      { tick: 3, value: 0.4 },
      { tick: 9, value: 0 },
      { tick: 12, value: 0.9 },
    ]);
  });

  it('shows what it picked, each until the next, a state’s end or death', () => {
    const pick = (tick: number, option: string | null) => ({ tick, kind: 'picked', option });
    const lane = laneFrom([
      enter(1, 'fight'),
      pick(2, 'closeIn'),
      pick(9, 'strike'),
      pick(20, null),
      pick(30, 'wait'),
      exit(40, 'fight'),
      pick(50, 'wait'),
      { tick: 60, kind: 'death', by: '' },
    ]);
    expect(lane.picks).toEqual([
      { state: 'closeIn', from: 2, to: 9 },
      { state: 'strike', from: 9, to: 20 },
      { state: 'wait', from: 30, to: 40 },
      { state: 'wait', from: 50, to: 60 },
    ]);
  });

  it('shows what is left of its health from the first harm on, and is whole when it respawns', () => {
    const harm = (tick: number, amount: number, left: number) => ({
      tick,
      kind: 'harm',
      amount,
      left,
      by: '',
    });
    const lane = laneFrom([
      { tick: 5, kind: 'recycled', x: 0, y: 0 },
      harm(10, 4, 6),
      harm(20, 6, 0),
      { tick: 50, kind: 'recycled', x: 0, y: 0 },
      harm(60, 1, 9),
      { tick: 70, kind: 'came', wave: 'west', at: 'west', x: 0, y: 0 },
    ]);
    expect(lane.fullHealth).toBe(10);
    expect(lane.health).toEqual([
      { tick: 10, value: 6 },
      { tick: 20, value: 0 },
      { tick: 50, value: 10 },
      { tick: 60, value: 9 },
      { tick: 70, value: 10 },
    ]);
  });

  it('shows when it slept for want of a player near, until it woke or left', () => {
    const lane = laneFrom([
      { tick: 1, kind: 'sleeps' },
      { tick: 30, kind: 'wakes' },
      enter(31, 'rounds'),
      { tick: 50, kind: 'sleeps' },
      { tick: 70, kind: 'left' },
      { tick: 90, kind: 'sleeps' },
    ]);
    expect(lane.sleeps).toEqual([
      { from: 1, to: 30 },
      { from: 50, to: 70, inState: true },
      { from: 90, to: -1 },
    ]);
    expect(sleepOf(lane, false)).toEqual(lane.sleeps);
    expect(sleepOf(undefined, true)).toEqual([{ from: 0, to: Infinity }]);
  });

  it('shows the moves it made for as long as each lasted', () => {
    const move = (tick: number, name: string) => ({ tick, kind: 'move', move: name, lasts: 30 });
    const lane = laneFrom([
      move(10, 'jab'),
      move(60, 'sweep'),
      { tick: 70, kind: 'broken', move: 'sweep', reason: 'staggered' },
      move(80, 'jab'),
      { tick: 120, kind: 'death', by: '' },
    ]);
    expect(lane.moves).toEqual([
      { state: 'jab', from: 10, to: 40 },
      { state: 'sweep', from: 60, to: 70 },
      { state: 'jab', from: 80, to: 110 },
    ]);
  });

  it('is of the first mind alone where an agent has several', () => {
    const lane = laneFrom([enter(1, 'walk'), { ...enter(2, 'mute'), mind: 'mouth' }]);
    expect(lane.bands).toEqual([{ state: 'walk', from: 1, to: -1 }]);
  });

  it('names the innermost state, one band a stretch', () => {
    const lane = laneFrom([
      enter(1, 'calm'),
      enter(1, 'rounds'),
      exit(10, 'rounds'),
      exit(10, 'calm'),
      enter(10, 'roused'),
      enter(10, 'chase'),
    ]);
    expect(lane.bands).toEqual([
      { state: 'rounds', from: 1, to: 10 },
      { state: 'chase', from: 10, to: -1 },
    ]);
  });

  it('shows nothing of a state that was only passed through', () => {
    const lane = laneFrom([
      enter(1, 'a'),
      exit(5, 'a'),
      enter(5, 'b'),
      exit(5, 'b'),
      enter(5, 'c'),
    ]);
    expect(lane.bands.map(({ state }) => state)).toEqual(['a', 'c']);
  });

  it('goes on in one band when a state is left and entered again in one tick', () => {
    const lane = laneFrom([enter(1, 'a'), exit(5, 'a'), enter(5, 'a')]);
    expect(lane.bands).toEqual([{ state: 'a', from: 1, to: -1 }]);
  });

  it('shows what a player makes an agent do', () => {
    const input = (tick: number, x: number, gait: string | null) => ({
      tick,
      kind: 'input',
      x,
      y: 0,
      gait,
    });
    expect(
      laneFrom([input(3, 1, null), input(9, 1, 'run'), input(12, 0, null)]).bands.map(
        ({ state }) => state,
      ),
    ).toEqual(['walks', 'run', 'stands']);
  });

  it('keeps percepts and lines of speech as dots, awareness as a line', () => {
    const lane = laneFrom([
      {
        tick: 4,
        kind: 'percept',
        sense: 'sight',
        how: 'curious',
        of: 'gleaner',
        x: 1,
        y: 2,
        strength: 0.3,
      },
      { tick: 5, kind: 'say', text: 'Hm?' },
      { tick: 6, kind: 'awareness', value: 0.5 },
    ]);
    expect(lane.dots.map(({ tick }) => tick)).toEqual([4, 5]);
    expect(lane.awareness).toEqual([{ tick: 6, value: 0.5 }]);
  });

  it('marks edits for all lanes', () => {
    const lanes = createLanes();
    addEntries(lanes, entries([{ tick: 7, kind: 'edit', edit: 3 }]));
    expect(lanes.edits).toEqual([{ tick: 7, edit: 3 }]);
  });
});

describe('shares of time', () => {
  it('add up to one, up to the tick asked about', () => {
    const lane = laneFrom([
      enter(0, 'a'),
      exit(30, 'a'),
      enter(30, 'b'),
      exit(40, 'b'),
      enter(40, 'a'),
    ]);
    expect([...timeShares(lane, 100)]).toEqual([
      ['a', 0.9],
      ['b', 0.1],
    ]);
    expect([...timeShares(lane, 35)]).toEqual([
      ['a', 30 / 35],
      ['b', 5 / 35],
    ]);
  });
});

describe('the lanes of the game', () => {
  it('show modes, what each score came to, and the times a wave has come, with who came', () => {
    const lanes = createLanes();
    const all = (list: Short[]) =>
      addEntries(lanes, list.map((entry) => ({ agent: '', ...entry })) as unknown as LedgerEntry[]);
    all([
      { tick: 1, kind: 'mode', mode: 'calm', seconds: 2 },
      { tick: 1, kind: 'wave', wave: 'beetles', how: 'comes', times: 1 },
      { tick: 1, agent: 'beetles.1', kind: 'came', wave: 'beetles', at: 'Gap', x: 1, y: 1 },
      {
        tick: 9,
        kind: 'wave',
        wave: 'beetles',
        how: 'held',
        times: 1,
        reason: because('waveNoRoom', 'Gap'),
      },
      { tick: 20, kind: 'score', score: 'touches', by: 1, value: 1 },
      { tick: 30, kind: 'wave', wave: 'beetles', how: 'over', times: 1 },
      { tick: 40, kind: 'score', score: 'touches', by: -2, value: -1 },
      { tick: 121, kind: 'mode', mode: 'roused' },
      { tick: 150, kind: 'result', how: 'won', words: 'Well done.' },
    ]);
    expect(lanes.byAgent.get(GAME_LANE)?.bands).toEqual([
      { state: 'calm', from: 1, to: 121 },
      { state: 'roused', from: 121, to: 150 },
    ]);
    expect(lanes.byAgent.get(scoreLane('touches'))?.bands).toEqual([
      { state: '1', from: 20, to: 40 },
      { state: '-1', from: 40, to: -1 },
    ]);
    const wave = lanes.byAgent.get(waveLane('beetles'))!;
    expect(wave.bands).toEqual([{ state: '1', from: 1, to: 30 }]);
    expect(wave.dots.map(({ entry }) => dotOf(entry, NIGHT, onlyAgentTitles())?.words)).toEqual([
      'comes with beetles, at Gap',
      'beetles is held up: there is no room at Gap',
    ]);
    expect(lanes.comers).toEqual(['beetles.1']);
  });

  it('end the states of who is taken off the ground', () => {
    const lane = laneFrom([enter(1, 'comes'), { tick: 30, kind: 'left' }]);
    expect(lane.bands).toEqual([{ state: 'comes', from: 1, to: 30 }]);
  });
});
