import { checkProject, type Program } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { newProject } from '../home/new-project.ts';
import {
  chosenRows,
  foldableSquads,
  foldedRows,
  laneGroups,
  narrowingGroups,
} from './lane-choice.ts';
import { stripAt } from './draw-lanes.ts';
import { laneRows, type LaneRow } from './lane-titles.ts';

/** Two keepers of one squad, one of none, and the played gleaner. */
function lanes(): { program: Program; rows: LaneRow[] } {
  const document = newProject('Night');
  const ground = document.grounds[document.start.ground];
  const [keeper] = Object.entries(ground.agents).find(([name]) => name !== document.start.play)!;
  const placed = (x: number, squad?: string) => ({
    ...ground.agents[keeper],
    at: [x, 2] as [number, number],
    ...(squad && { squad }),
  });
  ground.agents = {
    [document.start.play!]: ground.agents[document.start.play!],
    one: placed(3, 'east'),
    two: placed(6, 'east'),
    three: placed(9),
  };
  document.squads = { east: { title: 'East' } };
  const { program, findings } = checkProject(document);
  if (!program) throw new Error(findings.map(({ message }) => message).join('\n'));
  return { program, rows: laneRows(program, []) };
}

const names = (rows: readonly LaneRow[]) => rows.map(({ name }) => name);

describe('the lanes that are shown', () => {
  it('are all, in their order, where nothing is chosen', () => {
    const { rows } = lanes();
    expect(chosenRows(rows, null, new Set())).toEqual(rows);
  });

  it('can be narrowed to a squad or an archetype, as far as that leaves any out', () => {
    const { program, rows } = lanes();
    const groups = narrowingGroups(laneGroups(program, rows), rows);
    const east = groups.find(({ id }) => id === 'squad east')!;
    expect(names(chosenRows(rows, east, new Set()))).toEqual(['one', 'two']);
    expect(groups.some(({ id }) => id === 'game')).toBe(false);
    for (const { members } of groups) {
      expect(members.size).toBeGreaterThan(0);
      expect(members.size).toBeLessThan(rows.length);
    }
    expect(laneGroups(null, [])).toEqual([]);
  });

  it('begin with those that are pinned, whatever else is shown', () => {
    const { program, rows } = lanes();
    const east = laneGroups(program, rows).find(({ id }) => id === 'squad east')!;
    expect(names(chosenRows(rows, east, new Set(['three'])))).toEqual(['three', 'one', 'two']);
    expect(names(chosenRows(rows, null, new Set(['two'])))[0]).toBe('two');
    expect(chosenRows(rows, null, new Set(['two', 'nobody']))).toHaveLength(rows.length);
  });

  it('of a folded squad are one, where its first stood; who is pinned keeps a lane', () => {
    const { program, rows } = lanes();
    const squads = foldableSquads(laneGroups(program, rows));
    expect(squads.map(({ squad }) => squad)).toEqual(['East']);
    const folded = foldedRows(rows, squads, new Set());
    expect(folded).toHaveLength(rows.length - 1);
    const east = folded.find(({ members }) => members)!;
    expect(east).toMatchObject({ name: 'squad east', title: 'East: 2' });
    expect(names(east.members!)).toEqual(['one', 'two']);
    expect(names(folded).indexOf('squad east')).toBe(names(rows).indexOf('one'));
    const pinned = foldedRows(chosenRows(rows, null, new Set(['one'])), squads, new Set(['one']));
    expect(names(pinned)[0]).toBe('one');
    expect(pinned.find(({ members }) => members)!.title).toBe('East: 1');
    expect(foldedRows(rows, [], new Set())).toEqual(rows);
  });

  it('that are folded tell whose strip is pointed at', () => {
    const lane = 36;
    expect(stripAt(0, 4, lane)).toBe(0);
    expect(stripAt(3, 4, lane)).toBe(0);
    expect(stripAt(8, 4, lane)).toBe(1);
    expect(stripAt(lane, 4, lane)).toBe(3);
  });
});
