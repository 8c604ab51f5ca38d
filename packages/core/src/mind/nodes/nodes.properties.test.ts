import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkProject } from '../../findings/check-project.ts';
import type {
  ActionDocument,
  NodeDocument,
  ProjectDocument,
  RuleDocument,
} from '../../model/documents.ts';
import { outlineOf } from '../../model/outline.ts';
import { readProject } from '../../model/file/read-project.ts';
import { serialiseProject } from '../../model/file/serialise.ts';
import {
  cornerProject,
  interruptedAndNot,
  KEEN_SIGHT,
  MOVES,
  watch,
} from '../../testing/orchard.fixture.ts';
import type { LedgerEntry } from '../../world/state/recorder.ts';
import { readRow, readRowCells, rowPlaces } from '../../world/readout/rows.ts';

/** Trees and rules made at random, of every kind of node, in a state that comes and goes. */

const action: fc.Arbitrary<ActionDocument> = fc.constantFrom<ActionDocument>(
  { do: 'say', text: 'Hm' },
  { do: 'stop' },
  { do: 'remember', key: 'heat', value: 'time % 1' },
  { do: 'wait', seconds: 0.1 },
  { do: 'wait', seconds: 0.3, uninterrupted: true },
  { do: 'turn', by: 90 },
  { do: 'moveTo', to: 'attention.of', within: 1 },
  { do: 'moveTo', to: 'self.post', within: 0.5 },
  { do: 'followRoute', route: 'self.route' },
);
const flag = fc.constantFrom(
  'heat > 0.5',
  'time % 0.4 < 0.2',
  'sees(attention.of)',
  'true',
  'false',
);
const seconds = fc.constantFrom<number | string>(0, 0.05, 0.2, 'heat', '1 / 0');
const guard = fc.option(
  fc.record(
    {
      when: flag,
      holds: fc.constant(true as const),
    },
    { requiredKeys: ['when'] },
  ),
  { nil: {}, freq: 2 },
);

const { node } = fc.letrec<{ node: NodeDocument }>((tie) => {
  const child = tie('node');
  const children = fc.array(child, { maxLength: 3 });
  const made: fc.Arbitrary<object> = fc.oneof(
    { maxDepth: 4, depthIdentifier: 'tree' },
    fc.oneof(action, fc.record({ condition: flag })),
    fc.record({ sequence: children, restart: fc.constant(true) }, { requiredKeys: ['sequence'] }),
    fc
      .tuple(fc.array(fc.tuple(child, fc.boolean()), { maxLength: 3 }), fc.boolean())
      .map(([list, restart]) => ({
        selector: list.map(([one, preempts]) =>
          preempts && one.when !== undefined ? { ...one, preempts: true } : one,
        ),
        ...(restart ? { restart: true } : {}),
      })),
    fc.record(
      {
        parallel: children,
        successes: fc.integer({ min: 1, max: 3 }),
        failures: fc.integer({ min: 1, max: 3 }),
      },
      { requiredKeys: ['parallel'] },
    ),
    children.map((list) => ({ random: list.map((one, i) => ({ ...one, weight: i })) })),
    fc
      .constantFrom('invert', 'succeed', 'fail')
      .chain((kind) => child.map((one) => ({ [kind]: one }))),
    fc.record(
      {
        repeat: child,
        times: fc.integer({ min: 1, max: 3 }),
        until: fc.constantFrom('success', 'failure'),
      },
      { requiredKeys: ['repeat'] },
    ),
    fc.record({ limit: child, times: fc.integer({ min: 1, max: 3 }) }),
    fc.record({ cooldown: child, seconds }),
    fc.record({ timeout: child, seconds }),
    fc.record({ delay: child, seconds }),
    fc.record({ chance: child, probability: fc.constantFrom<number | string>(0, 0.5, 1, 'heat') }),
    fc.constantFrom<object>(
      { tree: 'inner', with: { long: 0.1 } },
      { tree: 'inner', with: { long: 'heat' } },
      { rules: 'manners' },
    ),
  );
  return {
    node: fc.tuple(made, guard).map(([kind, more]) => ({ ...kind, ...more }) as NodeDocument),
  };
});

const { rule } = fc.letrec<{ rule: RuleDocument }>((tie) => ({
  rule: fc.record(
    {
      when: flag,
      edge: fc.constant(true as const),
      do: fc.array(action, { minLength: 1, maxLength: 2 }),
      rows: fc.array(tie('rule'), { maxLength: 1, depthIdentifier: 'rule' }),
      else: fc.array(action, { minLength: 1, maxLength: 1 }),
    },
    { requiredKeys: ['when', 'do'] },
  ),
}));

const documents: fc.Arbitrary<ProjectDocument> = fc
  .tuple(node, fc.array(rule, { maxLength: 3 }), fc.boolean(), fc.constantFrom(undefined, 0.05))
  .map(([root, rows, whole, every]) => {
    const document = cornerProject({
      sight: KEEN_SIGHT,
      memory: { heat: { type: 'number', default: 0 } },
      ground: { walls: [{ at: [5, 1], size: [0.4, 3] }] },
      ...(whole
        ? {}
        : {
            machine: {
              initial: 'act',
              states: [
                {
                  id: 'act',
                  activity: { tree: 'main' },
                  transitions: [
                    { to: 'rest', on: 'done' },
                    { to: 'rest', after: 0.7 },
                  ],
                },
                {
                  id: 'rest',
                  activity: { rules: 'manners' },
                  transitions: [{ to: 'act', after: 0.2 }],
                },
              ],
            },
          }),
    });
    Object.assign(document.minds.keeper, {
      ...(every === undefined ? {} : { cadence: { every } }),
      ...(whole ? { activity: { tree: 'main' } } : {}),
      trees: {
        main: { root },
        inner: {
          parameters: { long: 'number' },
          root: {
            sequence: [
              { do: 'wait', seconds: 'long' },
              { do: 'say', text: 'in' },
            ],
          },
        },
      },
      rules: { manners: { rows } },
    });
    return document;
  });

/** The first begin without an end before it, or end without a begin; null where there is none. */
function faultIn(entries: readonly LedgerEntry[]): string | null {
  const running = new Set<string>();
  for (const entry of entries) {
    if (entry.kind === 'exit' && [...running].some((key) => key.startsWith(`${entry.state} `)))
      return `${entry.state} is left while something in it runs, at tick ${entry.tick}`;
    if (entry.kind !== 'begin' && entry.kind !== 'end') continue;
    const key = `${entry.state} ${entry.row ?? ''} ${entry.action}`;
    if (entry.kind === 'begin' && running.has(key))
      return `${key} begins twice at tick ${entry.tick}`;
    if (entry.kind === 'end' && !running.delete(key))
      return `${key} ends but never began, at tick ${entry.tick}`;
    if (entry.kind === 'begin') running.add(key);
  }
  return null;
}

describe('any tree and rules the checker passes', () => {
  it('have the right form, keep it through a round trip, and come to as many rows as they are written with', () => {
    fc.assert(
      fc.property(documents, (document) => {
        const form = readProject(JSON.parse(serialiseProject(document)));
        expect(form.ok ? [] : form.faults).toEqual([]);
        const { world, run } = watch(document);
        run(1);
        const { keeper } = document.minds;
        const state = keeper.activity ? 'always' : 'act';
        const rows = rowPlaces(world, { agent: 'keeper', state });
        const written = outlineOf('keeper', keeper, { tree: 'main' });
        expect(rows.map(({ depth }) => depth)).toEqual(written.map(({ depth }) => depth));
      }),
      { numRuns: 100 },
    );
  });

  it('begin and end each action once, and nothing outlives its state', () => {
    fc.assert(
      fc.property(documents, (document) => {
        const { run, entries } = watch(document, 5);
        for (const move of MOVES) {
          run(90, [move]);
          expect(faultIn(entries)).toBeNull();
        }
      }),
      { numRuns: 150 },
    );
  });

  it('go on from a snapshot as if they had never been interrupted', () => {
    fc.assert(
      fc.property(documents, fc.integer({ min: 1, max: 80 }), (document, at) => {
        const [interrupted, not] = interruptedAndNot(document, at);
        expect(interrupted).toBe(not);
      }),
      { numRuns: 50 },
    );
  });

  it('never reach a row that the findings call unreachable, nor end where they say it can’t', () => {
    fc.assert(
      fc.property(documents, (document) => {
        const { findings } = checkProject(document);
        const dead = findings.filter(({ code }) => code === 'unreachable').map(({ path }) => path);
        const { world, run } = watch(document, 5);
        const asked = {
          agent: 'keeper',
          state: document.minds.keeper.activity ? 'always' : 'act',
        };
        for (const move of MOVES) {
          run(1, [move]);
          for (let i = 0; i < 90; i++) {
            run(1);
            const cells = readRowCells(world, asked);
            const reached = rowPlaces(world, asked).filter(
              ({ path }, row) => readRow(cells[row])?.tick === world.tick && dead.includes(path),
            );
            expect(reached).toEqual([]);
          }
        }
      }),
      { numRuns: 60 },
    );
  });
});
