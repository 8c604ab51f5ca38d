import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bindBreakpoints } from '../compile/breakpoints.ts';
import { checkProject } from '../findings/check-project.ts';
import type { BreakpointDocument } from '../model/documents/run.ts';
import type { ProjectDocument } from '../model/documents.ts';
import { demoDocument, nightWatch } from '../testing/demo.fixture.ts';
import { playedDemo } from '../testing/pinned.fixture.ts';
import { cornerProject, KEEN_SIGHT, programOf } from '../testing/orchard.fixture.ts';
import { worldHash } from '../world/handover/snapshot.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';
import { advanceTo, lastMet, watchFor, type Stop } from './breakpoints.ts';
import { advance, createRun, seek, type Run } from './run.ts';

/** A keeper that counts its looks: calm for a second, roused for half a second, over and over. */
const rounds = (breakpoints: Record<string, BreakpointDocument> = {}): ProjectDocument => ({
  ...cornerProject({
    sight: KEEN_SIGHT,
    memory: { looks: { type: 'number', default: 0 } },
    machine: {
      initial: 'calm',
      states: [
        { id: 'calm', transitions: [{ to: 'roused', after: 1 }] },
        {
          id: 'roused',
          entry: [{ do: 'remember', key: 'looks', value: 'looks + 1' }],
          transitions: [{ to: 'calm', after: 0.5 }],
        },
      ],
    },
  }),
  breakpoints,
});

/** Runs until something is to be stopped for. */
function runOn(document: ProjectDocument, most = 2000) {
  const program = programOf(document);
  const run = createRun(program, 1, 7);
  const breakpoints = watchFor(bindBreakpoints(document, program), run);
  const next = (): Stop[] => {
    for (let i = 0; i < most; i++) {
      const stops = advanceTo(breakpoints, run);
      if (stops.length > 0) return stops;
    }
    return [];
  };
  return { run, breakpoints, next };
}

const isRowEnd = (entry: LedgerEntry): entry is Extract<LedgerEntry, { kind: 'end' }> =>
  entry.kind === 'end' && entry.row !== undefined;

/** Ticks at which the keeper was roused, by the ledger. */
const roused = ({ entries }: Run) =>
  entries.filter((entry) => entry.kind === 'enter' && entry.state === 'roused').map((e) => e.tick);

describe('a breakpoint', () => {
  it.each<[string, BreakpointDocument, string]>([
    ['a state that is entered', { on: 'enter', of: 'roused' }, 'a state is entered, roused'],
    ['a state that is left', { on: 'exit', of: 'calm' }, 'a state is left, calm'],
    ['a transition', { on: 'transition', of: 'calm:1' }, 'a transition is taken, calm 1'],
    ['a key that is written', { on: 'memory', of: 'looks:1' }, 'memory is written, looks 1'],
    ['a condition that comes true', { on: 'condition', when: 'looks > 0' }, 'looks > 0: 1 > 0'],
  ])('stops at the tick of %s, and says so', (_, breakpoint, words) => {
    const { run, next } = runOn(rounds({ one: breakpoint }));
    const [stop] = next();
    expect(stop).toMatchObject({ breakpoint: 'one', agent: 'keeper', words });
    expect(stop.tick).toBe(roused(run)[0]);
    expect(run.world.tick).toBe(stop.tick);
  });

  it.each<[BreakpointDocument, (entry: LedgerEntry) => boolean]>([
    [{ on: 'ended', of: '::failure' }, (e) => isRowEnd(e) && e.ending === 'failure'],
    [{ on: 'ended' }, isRowEnd],
    [{ on: 'ended', of: ':2' }, (e) => isRowEnd(e) && e.row === 1],
    [{ on: 'picked' }, (e) => e.kind === 'picked'],
    [{ on: 'picked', of: ':nothing' }, (e) => e.kind === 'picked' && e.option === null],
    [
      { on: 'picked', of: 'ward:rakeSweep' },
      (e) => e.kind === 'picked' && e.choice === 'ward' && e.option === 'rakeSweep',
    ],
    [{ on: 'move' }, (e) => e.kind === 'move'],
    [{ on: 'move', of: 'rakeSweep' }, (e) => e.kind === 'move' && e.move === 'rakeSweep'],
    [{ on: 'hit' }, (e) => e.kind === 'hit'],
    [{ on: 'hit', of: ':landed' }, (e) => e.kind === 'hit' && e.result === 'landed'],
    [
      { on: 'percept', of: 'sight:curious' },
      (e) => e.kind === 'percept' && e.sense === 'sight' && e.how === 'curious',
    ],
    [{ on: 'percept', of: '::gleaner' }, (e) => e.kind === 'percept' && e.of === 'gleaner'],
    [{ on: 'enter' }, (e) => e.kind === 'enter'],
    [{ on: 'exit' }, (e) => e.kind === 'exit'],
  ])('%o is met by those entries and no others', (breakpoint, fits) => {
    const run = playedDemo('keepers-duel', 400);
    const document = { ...demoDocument('keepers-duel'), breakpoints: { one: breakpoint } };
    const { met } = watchFor(bindBreakpoints(document, run.latest.program), run);
    expect(met[0]).toEqual(run.entries.filter(fits).map(({ tick }) => tick));
  });

  it('leaves alone what is of another state, number or agent', () => {
    for (const other of [
      { on: 'enter', of: 'asleep' },
      { on: 'transition', of: 'calm:2' },
      { on: 'enter', of: 'roused', agent: 'gleaner' },
      { on: 'enter', of: 'roused', archetype: 'gleaner' },
      { on: 'condition', when: 'looks > 0', agent: 'gleaner' },
      { on: 'enter', of: 'roused', off: true },
    ] satisfies BreakpointDocument[])
      expect(runOn(rounds({ other }), 400).next(), JSON.stringify(other)).toEqual([]);
  });

  it('takes parts that are left out, or empty, for any', () => {
    const parts: BreakpointDocument[] = [
      { on: 'transition' },
      { on: 'transition', of: 'calm' },
      { on: 'transition', of: ':1' },
      { on: 'enter', of: 'roused', archetype: 'keeper' },
    ];
    for (const any of parts) {
      const { run, next } = runOn(rounds({ any }));
      next();
      expect(run.world.tick, JSON.stringify(any)).toBe(roused(run)[0]);
    }
  });

  it('stops from the nth time on, counted over the run, also after going back', () => {
    const { run, next } = runOn(rounds({ third: { on: 'enter', of: 'roused', after: 3 } }));
    const [third] = next();
    expect(roused(run)).toHaveLength(3);
    const [fourth] = next();
    expect(roused(run)).toHaveLength(4);
    seek(run, 10);
    expect(next()[0].tick).toBe(third.tick);
    expect(next()[0].tick).toBe(fourth.tick);
  });

  it('of a condition stops when it comes true, not while it stays so', () => {
    const { run, next } = runOn(rounds({ odd: { on: 'condition', when: 'looks % 2 == 1' } }));
    const ticks = [next(), next(), next()].map(([{ tick }]) => tick);
    expect(ticks).toEqual([0, 2, 4].map((i) => roused(run)[i]));
  });

  it('is not met by what held already where a run goes on from', () => {
    const { run, next } = runOn(rounds({ one: { on: 'condition', when: 'looks > 0' } }), 400);
    const [{ tick }] = next();
    seek(run, tick);
    expect(next()).toEqual([]);
    seek(run, tick - 1);
    expect(next()[0].tick).toBe(tick);
  });

  it('gives all that is met in one tick', () => {
    const { next } = runOn(
      rounds({ a: { on: 'enter', of: 'roused' }, b: { on: 'memory', of: 'looks' } }),
    );
    expect(next().map(({ breakpoint }) => breakpoint)).toEqual(['a', 'b']);
  });

  it('never changes what runs', () => {
    const all: Record<string, BreakpointDocument> = {
      one: { on: 'percept' },
      two: { on: 'condition', when: 'attention.strength > 0.2' },
      three: { on: 'picked' },
    };
    const document = nightWatch();
    const { run, breakpoints } = runOn({ ...document, breakpoints: all });
    const plain = createRun(programOf(document), 1, 7);
    for (let i = 0; i < 600; i++) {
      advanceTo(breakpoints, run);
      advance(plain);
    }
    expect(worldHash(run.world)).toBe(worldHash(plain.world));
  });
});

describe('looking back', () => {
  it.each<[string, BreakpointDocument]>([
    ['in the ledger', { on: 'enter', of: 'roused' }],
    ['by running it again', { on: 'condition', when: 'looks >= 1' }],
  ])('finds where it was met last: %s', (_, one) => {
    const { run, breakpoints } = runOn(rounds({ one: { ...one, after: 50 } }));
    for (let i = 0; i < 400; i++) advanceTo(breakpoints, run);
    const ticks = one.on === 'enter' ? roused(run) : roused(run).slice(0, 1);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 400 }), (at) => {
        seek(run, at);
        const hash = worldHash(run.world);
        expect(lastMet(breakpoints, run)?.tick).toBe(ticks.filter((tick) => tick < at).at(-1));
        // It only looks.
        expect(run.world.tick).toBe(at);
        expect(worldHash(run.world)).toBe(hash);
      }),
      { numRuns: 25 },
    );
  });

  it('finds nothing of what is switched off', () => {
    const { run, breakpoints } = runOn(rounds({ one: { on: 'enter', off: true } }));
    for (let i = 0; i < 200; i++) advanceTo(breakpoints, run);
    expect(lastMet(breakpoints, run)).toBeNull();
  });
});

describe('a breakpoint that can never stop anything', () => {
  it.each<[BreakpointDocument, string, RegExp]>([
    [{ on: 'enter', of: 'rousd' }, 'of', /There is no state “rousd”.*“roused”/],
    [{ on: 'enter', agent: 'keper' }, 'agent', /There is no agent “keper”.*“keeper”/],
    [{ on: 'memory', of: 'look' }, 'of', /There is no key “look”/],
    [{ on: 'condition' }, 'when', /A condition is missing/],
    [{ on: 'condition', when: 'lokks > 1' }, 'when', /lokks/],
    [{ on: 'condition', when: 'looks' }, 'when', /number/],
    [{ on: 'condition', when: 'looks > 1', agent: 'gleaner' }, 'when', /has a mind/],
  ])('is a finding: %j', (one, field, message) => {
    const { program, findings } = checkProject(rounds({ one }));
    expect(program).not.toBeNull();
    const found = findings.filter(({ path }) => path.startsWith('breakpoints.'));
    expect(found).toMatchObject([{ severity: 'warning', path: `breakpoints.one.${field}` }]);
    expect(found[0].message).toMatch(message);
  });
});
