import type { LedgerEntry, Program } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { doingAt } from '../engine/lane-times.ts';
import { addEntries, createLanes, type Band } from '../engine/lanes.ts';
import { nestingsOf, rowsOfLane, rowsWanted, SCORE_ROW } from './stacked-bands.ts';

/** A program of one agent, as far as its nesting is asked for: states as [id, parent, kind]. */
function programWith(states: [id: string, parent: number, kind?: string][]): Program {
  const machine = {
    states: states.map(([id, parent, kind = 'plain']) => ({ id, parent, kind })),
  };
  return {
    agents: [{ name: 'warden1', archetype: 0 }],
    archetypes: [{ stack: 0 }],
    stacks: [{ minds: [{ name: 'warden', machine }] }],
  } as unknown as Program;
}

const enter = (tick: number, state: string) => ({ tick, kind: 'enter', state });
const exit = (tick: number, state: string) => ({ tick, kind: 'exit', state });

function laneOf(list: { tick: number }[]) {
  const lanes = createLanes();
  addEntries(lanes, list.map((entry) => ({ agent: 'warden1', ...entry })) as LedgerEntry[]);
  return lanes.byAgent.get('warden1')!;
}

const texts = (bands: readonly Band[]) =>
  bands.map(({ state, from, to }) => `${state} ${from} ${to}`);

const NESTED: [string, number][] = [
  ['calm', -1],
  ['rounds', 0],
  ['peer', 0],
  ['roused', -1],
  ['chase', 3],
];

/** On its rounds, looks, gives chase. */
const night = () =>
  laneOf([
    enter(1, 'calm'),
    enter(1, 'rounds'),
    exit(20, 'rounds'),
    enter(20, 'peer'),
    exit(40, 'peer'),
    exit(40, 'calm'),
    enter(40, 'roused'),
    enter(40, 'chase'),
  ]);

describe('the rows of a lane', () => {
  const nesting = nestingsOf(programWith(NESTED)).get('warden1')!;

  it('show below the innermost states those around them, where there is room', () => {
    const { main, further } = rowsOfLane(night(), nesting, nesting.rows);
    expect(main.map(texts)).toEqual([['rounds 1 20', 'peer 20 40', 'chase 40 -1']]);
    expect(further.map(texts)).toEqual([['calm 1 40', 'roused 40 -1']]);
    expect(rowsOfLane(night(), nesting, 0).further).toEqual([]);
  });

  it('show actions of trees, those at once in rows of their own, until they or their state end', () => {
    const act = (tick: number, kind: string, action: string, row: number) =>
      ({ tick, kind, state: 'rounds', action, row, ending: 'success' }) as never;
    const lane = laneOf([
      enter(1, 'calm'),
      enter(1, 'rounds'),
      act(2, 'begin', 'moveTo', 1),
      act(5, 'begin', 'turn', 4),
      act(9, 'end', 'turn', 4),
      act(12, 'begin', 'turn', 4),
      exit(20, 'rounds'),
      enter(20, 'peer'),
      act(21, 'begin', 'wait', 1),
    ]);
    const { further } = rowsOfLane(lane, nesting, rowsWanted(lane, nesting));
    expect(further.map(texts)).toEqual([
      ['calm 1 -1'],
      ['moveTo 2 20', 'wait 21 -1'],
      ['turn 5 9', 'turn 12 20'],
    ]);
    expect(rowsWanted(lane, nesting)).toBe(3);
  });

  it('keep actions of parallel states apart, whichever ends first', () => {
    const act = (tick: number, kind: string, state: string, action: string) =>
      ({ tick, kind, state, action, row: 1, ending: 'success' }) as never;
    const lane = laneOf([
      enter(1, 'walk'),
      enter(1, 'look'),
      act(2, 'begin', 'walk', 'moveTo'),
      act(3, 'begin', 'look', 'turn'),
      act(6, 'end', 'walk', 'moveTo'),
      exit(9, 'walk'),
    ]);
    expect(texts(lane.acts)).toEqual(['moveTo 2 6', 'turn 3 -1']);
  });

  it('end with the scores of what was picked, as a row of its own', () => {
    const lane = laneOf([
      enter(1, 'calm'),
      enter(1, 'rounds'),
      { tick: 5, kind: 'picked', option: 'circle', score: 0.4 } as never,
    ]);
    const { further } = rowsOfLane(lane, nesting, 3);
    expect(further.slice(0, 2).map(texts)).toEqual([['circle 5 -1'], ['calm 1 -1']]);
    expect(further[2]).toBe(SCORE_ROW);
    expect(rowsWanted(lane, nesting)).toBe(3);
    expect(rowsOfLane(lane, nesting, 2).further).toHaveLength(2);
  });

  it('are one for a machine without nesting', () => {
    expect(
      nestingsOf(
        programWith([
          ['tend', -1],
          ['lie', -1],
        ]),
      ).get('warden1')!.rows,
    ).toBe(0);
  });

  it('keep what is active at once apart, all of it or only what was entered last', () => {
    const both = nestingsOf(
      programWith([
        ['watch', -1, 'parallel'],
        ['legs', 0],
        ['walk', 1],
        ['stand', 1],
        ['eyes', 0],
        ['look', 4],
      ]),
    ).get('warden1')!;
    expect(both.rows).toBe(3);
    const lane = laneOf([
      enter(1, 'watch'),
      enter(1, 'legs'),
      enter(1, 'walk'),
      enter(1, 'eyes'),
      enter(1, 'look'),
      exit(30, 'walk'),
      enter(30, 'stand'),
    ]);
    const { main, further } = rowsOfLane(lane, both, 4);
    expect(main.map(texts)).toEqual([['walk 1 30', 'stand 30 -1']]);
    expect(further.map(texts)).toEqual([
      ['look 1 -1'],
      ['legs 1 -1'],
      ['eyes 1 -1'],
      ['watch 1 -1'],
    ]);
    expect(texts(rowsOfLane(lane, both, 0).main[0])).toEqual(['look 1 30', 'stand 30 -1']);
  });

  it('end with death, and follow what comes after', () => {
    const lane = night();
    expect(rowsOfLane(lane, nesting, 1).further.map(texts)).toEqual([
      ['calm 1 40', 'roused 40 -1'],
    ]);
    addEntries({ ...createLanes(), byAgent: new Map([['warden1', lane]]) }, [
      { agent: 'warden1', tick: 60, kind: 'death' },
    ] as unknown as LedgerEntry[]);
    expect(rowsOfLane(lane, nesting, 1).further.map(texts)).toEqual([
      ['calm 1 40', 'roused 40 60'],
    ]);
  });

  it('leave out what was left in the tick it was entered', () => {
    const lane = laneOf([
      enter(1, 'calm'),
      enter(1, 'rounds'),
      exit(9, 'rounds'),
      enter(9, 'peer'),
      exit(9, 'peer'),
      enter(9, 'rounds'),
    ]);
    expect(texts(rowsOfLane(lane, nesting, 1).further[0])).toEqual(['calm 1 -1']);
  });
});

describe('the first row of a lane', () => {
  const picked = (tick: number, option: string | null) => ({
    tick,
    kind: 'picked',
    state: 'weigh',
    choice: 'nextMove',
    option,
    score: 0.5,
  });
  const begin = (tick: number, row: number, action: string) => ({
    tick,
    kind: 'begin',
    state: 'weigh',
    action,
    row,
  });
  const end = (tick: number, row: number, action: string) => ({
    ...begin(tick, row, action),
    kind: 'end',
    ending: 'success',
  });
  const plain = nestingsOf(programWith([['weigh', -1]])).get('warden1')!;

  it('shows the picks of a mind that is one choice, and no constant band', () => {
    const lane = laneOf([
      enter(1, 'weigh'),
      picked(1, 'flank'),
      picked(30, null),
      picked(50, 'rest'),
    ]);
    expect(rowsOfLane(lane, plain, 0)).toMatchObject({ further: [] });
    const { main, further } = rowsOfLane(lane, plain, rowsWanted(lane, plain));
    expect(main.map(texts)).toEqual([['flank 1 30', 'rest 50 -1']]);
    expect(further).toEqual([SCORE_ROW]);
    expect(doingAt(lane, false, 40)).toEqual([]);
    expect(doingAt(lane, false, 60)).toMatchObject([{ state: 'rest' }]);
  });

  it('shows the rows of a mind that is a tree or rules', () => {
    const lane = laneOf([
      enter(1, 'weigh'),
      begin(1, 2, 'followRoute'),
      end(20, 2, 'followRoute'),
      begin(20, 4, 'moveTo'),
    ]);
    expect(rowsOfLane(lane, plain, 0).main.map(texts)).toEqual([
      ['followRoute 1 20', 'moveTo 20 -1'],
    ]);
    expect(doingAt(lane, false, 10)).toMatchObject([{ state: 'followRoute' }]);
    expect(doingAt(lane, false, 25)).toMatchObject([{ state: 'moveTo' }]);
  });

  it('shows over the state what is picked there, where there is no row for it', () => {
    const lane = laneOf([
      enter(1, 'rounds'),
      exit(20, 'rounds'),
      enter(20, 'chase'),
      picked(20, 'flank'),
    ]);
    const nesting = nestingsOf(programWith(NESTED)).get('warden1')!;
    expect(rowsOfLane(lane, nesting, 0).main.map(texts)).toEqual([
      ['rounds 1 20', 'chase 20 -1'],
      ['flank 20 -1'],
    ]);
    expect(doingAt(lane, true, 10)).toMatchObject([{ state: 'rounds' }]);
    expect(doingAt(lane, true, 30)).toMatchObject([{ state: 'chase' }, { state: 'flank' }]);
  });
});
