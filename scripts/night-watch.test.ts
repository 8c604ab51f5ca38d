import { readFileSync } from 'node:fs';
import path from 'node:path';
import {
  checkProject,
  createWorld,
  readProjectText,
  setRecorder,
  tick,
  withSetup,
  type Input,
  type LedgerEntry,
  type Program,
} from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';

/** That Night Watch is worth playing, as far as numbers can tell. */

const FILE = path.resolve(import.meta.dirname, '../demo/night-watch.lantern.json');

function night(
  seconds: number,
  inputs: Record<number, Partial<Input>> = {},
  setup?: string,
): LedgerEntry[] {
  const world = createWorld(nightWatch(setup));
  const entries: LedgerEntry[] = [];
  setRecorder(world, (entry) => entries.push(entry));
  for (let i = 1; i <= seconds * 60; i++) {
    const input = inputs[i];
    tick(world, input ? [{ agent: 'gleaner', x: 0, y: 0, gait: null, ...input }] : []);
  }
  return entries;
}

function nightWatch(setup?: string): Program {
  const read = readProjectText(readFileSync(FILE, 'utf8'));
  if (!read.ok) throw new Error(read.faults[0].message);
  const document = setup === undefined ? read.document : withSetup(read.document, setup);
  return checkProject(document).program!;
}

/** Whether a gleaner that is caught, and shoves who comes near and runs west, is on its feet after 40 s. */
function shovesAndRuns(seed: number): boolean {
  const world = createWorld(nightWatch('caught'), seed);
  const agent = (name: string) => world.agents.find((each) => each.name === name)!;
  const gleaner = agent('gleaner');
  const wardens = ['warden1', 'warden2', 'warden3', 'warden4'].map(agent);
  for (let i = 1; i <= 40 * 60; i++) {
    const near = wardens.some(({ x, y }) => Math.hypot(x - gleaner.x, y - gleaner.y) < 1.5);
    const shoves = near && i % 20 === 0;
    const holds = near && i % 20 < 14;
    tick(world, [
      {
        agent: 'gleaner',
        x: holds ? 0 : -1,
        y: 0.15,
        gait: 'run',
        ...(shoves && { act: 'strike' as const, move: 'shove' }),
      },
    ]);
  }
  return !gleaner.isDead;
}

const entered = (entries: readonly LedgerEntry[], ...states: string[]) =>
  entries.flatMap((entry) =>
    entry.kind === 'enter' && states.includes(entry.state) ? [`${entry.agent} ${entry.state}`] : [],
  );

describe('Night Watch', () => {
  it('leaves an agent that looks on alone for a minute', () => {
    expect(entered(night(60), 'chase', 'assist', 'bark')).toEqual([]);
  });

  it('lets one creep where one who runs is caught', () => {
    const up = { x: 0.3, y: -1 };
    const caught = (gait: string) =>
      entered(night(14, { 1: { place: [4, 27] }, 2: { ...up, gait } }), 'chase').length;
    expect(caught('run')).toBeGreaterThan(0);
    expect(caught('creep')).toBe(0);
  });

  it('rouses one squad by what it sees, and leaves the other to its rounds', () => {
    const entries = night(8, {}, 'caught');
    expect(entered(entries, 'chase').some((what) => what.startsWith('warden2'))).toBe(true);
    expect(entered(entries, 'chase', 'assist').filter((what) => /^warden[13]/.test(what))).toEqual(
      [],
    );
  });

  it('draws a warden to where a basket lands', () => {
    const entries = night(9, {
      1: { place: [14.4, 24.6] },
      2: { act: 'pickUp' },
      10: { act: 'throw', at: [18.6, 20.6] },
      11: { place: [9.2, 25.4] },
    });
    expect(entries.some((entry) => entry.kind === 'noise' && entry.what === 'landing')).toBe(true);
    expect(entered(entries, 'lookInto').length).toBeGreaterThan(0);
    expect(entered(entries, 'chase')).toEqual([]);
  });

  it('makes a fight of being caught: an agent that stands is held and beaten down', () => {
    const entries = night(25, {}, 'caught');
    const hits = entries.filter((entry) => entry.kind === 'hit');
    expect(entries.some((entry) => entry.kind === 'death' && entry.agent === 'gleaner')).toBe(true);
    const by = (move: string) =>
      new Set(hits.flatMap((hit) => (hit.move === move ? [hit.agent] : [])));
    expect(by('cudgel').size).toBeGreaterThan(1);
    // Who comes from the side only strikes.
    const roles = new Map<string, string>();
    for (const entry of entries) {
      if (entry.kind === 'role') roles.set(entry.agent, entry.role);
      if (entry.kind === 'move' && entry.move === 'hold')
        expect(roles.get(entry.agent)).not.toBe('flank');
    }
    expect(entries.some((entry) => entry.kind === 'role' && entry.role === 'flank')).toBe(true);
  });

  it('lets one get away who shoves and runs, though not always', () => {
    const away = Array.from({ length: 12 }, (_, seed) => shovesAndRuns(seed + 1)).filter(Boolean);
    expect(away.length).toBeGreaterThan(2);
    expect(away.length).toBeLessThan(12);
  });

  it('has a sleeper found and woken, and a search that looks at many places', () => {
    const found = night(240, {}, undefined);
    expect(found.some((entry) => entry.kind === 'percept' && entry.how === 'body')).toBe(true);
    const lost = night(
      60,
      { 60: { x: -1, y: 0.2, gait: 'run' }, 200: { place: [1, 27] } },
      'caught',
    );
    expect(entered(lost, 'comb').length).toBeGreaterThan(0);
    const begun = lost.filter((entry) => entry.kind === 'begin' && entry.action === 'search');
    expect(begun.length).toBeGreaterThan(0);
  });
});
