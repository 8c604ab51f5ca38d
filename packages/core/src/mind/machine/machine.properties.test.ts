import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkProject } from '../../findings/check-project.ts';
import { statePaths } from '../../findings/state-paths.ts';
import type { ActionDocument, StateDocument, TransitionDocument } from '../../model/documents.ts';
import { readProject } from '../../model/file/read-project.ts';
import {
  cornerProject,
  interruptedAndNot,
  KEEN_SIGHT,
  MOVES,
  programOf,
  watch,
} from '../../testing/orchard.fixture.ts';
import { swapProgram } from '../../world/handover/swap.ts';
import { tick } from '../../world/phases/tick.ts';
import type { LedgerEntry } from '../../world/state/recorder.ts';
import { withSheds } from './sheds.fixture.ts';

/** Machines made at random, with rooms, regions, histories, final states, times, events and activities. */

const instant: fc.Arbitrary<ActionDocument> = fc.constantFrom<ActionDocument>(
  { do: 'say', text: 'Hm' },
  { do: 'stop' },
  { do: 'raise', event: 'bell' },
  { do: 'remember', key: 'heat', value: 'time % 1' },
  { do: 'forget', key: 'heat' },
  { do: 'setGait', gait: 'run' },
);
const lasting: fc.Arbitrary<ActionDocument> = fc.constantFrom<ActionDocument>(
  { do: 'wait', seconds: 0.2 },
  { do: 'turn', by: 90 },
  { do: 'turn', by: 120, uninterrupted: true },
  { do: 'moveTo', to: 'attention.of', within: 1 },
  { do: 'moveTo', to: 'self.post' },
  { do: 'followRoute', route: 'self.route' },
);
const actions = fc.option(fc.array(instant, { minLength: 1, maxLength: 2 }), { nil: undefined });

/** Where a transition leads is a number, taken modulo how many states there turn out to be. */
interface Loose extends Omit<TransitionDocument, 'to'> {
  goal: number;
}

const reason = fc.oneof(
  fc.record({ after: fc.constantFrom(0.05, 0.2, 0.5) }),
  fc.record({ on: fc.constantFrom('bell', 'done', 'done.failure', 'sight.certain', 'sight') }),
  fc.record({
    when: fc.constantFrom('heat > 0.5', 'attention.strength > 0.4', 'time % 0.7 < 0.2'),
    for: fc.constantFrom(0.05, 0.2),
  }),
  fc.record({ when: fc.constantFrom('heat < 0.2', 'time % 0.5 < 0.1', 'sees(attention.of)') }),
);
const leave: fc.Arbitrary<Loose> = fc
  .tuple(reason, fc.nat(), actions, fc.boolean(), fc.boolean())
  .map(([why, goal, act, urgent, internal]) => ({
    ...why,
    goal,
    ...(act ? { do: act } : {}),
    ...(urgent ? { urgent } : {}),
    ...(internal ? { internal } : {}),
  }));

interface Sketch {
  kind: 'plain' | 'parallel' | 'final' | 'history' | 'deepHistory';
  inner: Sketch[];
  transitions: Loose[];
  entry: ActionDocument[] | undefined;
  exit: ActionDocument[] | undefined;
  activity: ActionDocument | undefined;
}

const { sketch } = fc.letrec<{ sketch: Sketch }>((tie) => ({
  sketch: fc.record({
    kind: fc.oneof(
      { weight: 6, arbitrary: fc.constant('plain' as const) },
      {
        weight: 1,
        arbitrary: fc.constantFrom(
          'parallel' as const,
          'final' as const,
          'history' as const,
          'deepHistory' as const,
        ),
      },
    ),
    inner: fc.oneof(
      { depthSize: 'small' },
      fc.constant<Sketch[]>([]),
      fc.array(tie('sketch'), { maxLength: 3 }),
    ),
    transitions: fc.array(leave, { maxLength: 3 }),
    entry: actions,
    exit: actions,
    activity: fc.option(lasting, { nil: undefined }),
  }),
}));

/** A machine that keeps the rules of the form: firsts named, histories and finals without what they can't have. */
function machineOf(sketches: readonly Sketch[]): { initial: string; states: StateDocument[] } {
  let count = 0;
  const loose: { leave: TransitionDocument & { goal?: number } }[] = [];
  const build = (from: Sketch, top: boolean): StateDocument => {
    const id = `s${count++}`;
    const pseudo = from.kind === 'history' || from.kind === 'deepHistory' || from.kind === 'final';
    if (pseudo && !top) return { id, kind: from.kind as 'final' };
    const inner = from.inner.map((sketched) => build(sketched, false));
    const real = inner.filter((state) => state.kind !== 'history' && state.kind !== 'deepHistory');
    const parallel =
      from.kind === 'parallel' &&
      real.filter((state) => state.kind !== 'final').length === inner.length &&
      inner.length >= 2;
    const states = real.length === 0 ? [] : inner;
    const transitions = from.transitions.map((sketched) => {
      const made = { ...sketched } as TransitionDocument & { goal?: number };
      loose.push({ leave: made });
      return made;
    });
    return {
      id,
      ...(parallel ? { kind: 'parallel' as const } : {}),
      ...(states.length > 0 ? { states, ...(parallel ? {} : { initial: real[0].id }) } : {}),
      ...(from.entry ? { entry: from.entry } : {}),
      ...(from.exit ? { exit: from.exit } : {}),
      ...(from.activity ? { activity: from.activity } : {}),
      ...(transitions.length > 0 ? { transitions } : {}),
    };
  };
  const states = sketches.map((sketched) => build(sketched, true));
  const ids: string[] = [];
  const collect = (list: readonly StateDocument[]) => {
    for (const state of list) {
      ids.push(state.id);
      collect(state.states ?? []);
    }
  };
  collect(states);
  for (const { leave: made } of loose) {
    made.to = ids[made.goal! % ids.length];
    delete made.goal;
  }
  return { initial: states[0].id, states };
}

const machines = fc.array(sketch, { minLength: 1, maxLength: 4 }).map(machineOf);

function documentOf(machine: ReturnType<typeof machineOf>) {
  return cornerProject({
    machine,
    memory: { heat: { type: 'number', default: 0 } },
    sight: KEEN_SIGHT,
    ground: { walls: [{ at: [5, 1], size: [0.4, 3] }] },
  });
}

/** Parent of each state, and the states by id. */
function familyOf(
  states: readonly StateDocument[],
): Map<string, { parent: string | null; state: StateDocument }> {
  const family = new Map<string, { parent: string | null; state: StateDocument }>();
  const visit = (list: readonly StateDocument[], parent: string | null) => {
    for (const state of list) {
      family.set(state.id, { parent, state });
      visit(state.states ?? [], state.id);
    }
  };
  visit(states, null);
  return family;
}

/** Follows the ledger; returns the active states, and the first entry that is not possible after those before it. */
function follow(
  entries: readonly LedgerEntry[],
  states: readonly StateDocument[],
): { active: Set<string>; fault: string | null } {
  const family = familyOf(states);
  const active = new Set<string>();
  const running = new Map<string, string>();
  const insideOf = (id: string) => [...active].filter((other) => family.get(other)!.parent === id);
  for (const entry of entries) {
    if (entry.agent !== 'keeper') continue;
    const fault = (what: string) => ({ active, fault: `${what} at tick ${entry.tick}` });
    if (entry.kind === 'enter') {
      const { parent } = family.get(entry.state)!;
      if (active.has(entry.state)) return fault(`${entry.state} is entered twice`);
      if (parent !== null && !active.has(parent))
        return fault(`${entry.state} is entered before ${parent}`);
      active.add(entry.state);
    } else if (entry.kind === 'exit') {
      if (!active.has(entry.state)) return fault(`${entry.state} is left but was not active`);
      if (insideOf(entry.state).length > 0)
        return fault(`${entry.state} is left before what is inside it`);
      if (running.has(entry.state)) return fault(`${entry.state} is left while its activity runs`);
      active.delete(entry.state);
    } else if (entry.kind === 'begin') {
      if (!active.has(entry.state) || running.has(entry.state))
        return fault(`${entry.action} begins in ${entry.state}`);
      running.set(entry.state, entry.action);
    } else if (entry.kind === 'end') {
      if (running.get(entry.state) !== entry.action)
        return fault(`${entry.action} ends in ${entry.state}`);
      running.delete(entry.state);
    }
  }
  return { active, fault: null };
}

/** One child in each room, all regions in each parallel state, one outermost state. */
function expectWhole(active: ReadonlySet<string>, states: readonly StateDocument[]): void {
  const family = familyOf(states);
  expect([...active].filter((id) => family.get(id)!.parent === null)).toHaveLength(1);
  for (const id of active) {
    const { state } = family.get(id)!;
    const inner = (state.states ?? []).filter(
      (child) => child.kind !== 'history' && child.kind !== 'deepHistory',
    );
    if (inner.length === 0) continue;
    const here = inner.filter((child) => active.has(child.id)).length;
    expect(here, `children of ${id}`).toBe(state.kind === 'parallel' ? inner.length : 1);
  }
}

describe('any machine the checker passes', () => {
  it('enters outside in, leaves inside out, keeps one leaf a region, and ends each activity once', () => {
    fc.assert(
      fc.property(machines, (machine) => {
        const document = documentOf(machine);
        const form = readProject(document);
        expect(form.ok ? [] : form.faults).toEqual([]);
        const { run, entries } = watch(document, 5);
        for (const move of MOVES) {
          run(60, [move]);
          const { active, fault } = follow(entries, machine.states);
          expect(fault).toBeNull();
          expectWhole(active, machine.states);
        }
      }),
      { numRuns: 100 },
    );
  });

  it('goes on from a snapshot as if it had never been interrupted', () => {
    fc.assert(
      fc.property(machines, fc.integer({ min: 1, max: 80 }), (machine, at) => {
        const [interrupted, not] = interruptedAndNot(documentOf(machine), at);
        expect(interrupted).toBe(not);
      }),
      { numRuns: 40 },
    );
  });

  it('goes on as before under an edit of what it isn’t in, at any tick', () => {
    fc.assert(
      fc.property(machines, fc.integer({ min: 1, max: 120 }), (machine, at) => {
        const [left, edited] = [0, 1].map((edit) => {
          const { world, entries, run } = watch(documentOf(machine), 5);
          run(at, [MOVES[0]]);
          entries.length = 0;
          const next =
            edit === 0
              ? world
              : swapProgram(world, programOf(documentOf(withSheds(machine))), 2, 5);
          for (let i = 0; i < 120; i++) tick(next, i === 10 ? [MOVES[1]] : []);
          return entries.filter(({ kind }) => kind !== 'edit');
        });
        expect(edited).toEqual(left);
      }),
      { numRuns: 12 },
    );
  });

  it('never enters, leaves or takes what the findings say it can’t', () => {
    fc.assert(
      fc.property(machines, (machine) => {
        const document = documentOf(machine);
        const { findings } = checkProject(document);
        const of = (code: string) =>
          new Set(findings.filter((finding) => finding.code === code).map(({ path }) => path));
        const [unreachable, noWayOut, neverFires] = ['unreachable', 'noWayOut', 'neverFires'].map(
          of,
        );
        const paths = statePaths(machine, 'minds.keeper.machine');
        const { run, entries } = watch(document, 5);
        for (const move of MOVES) run(60, [move]);
        const wrong = entries.filter((entry) => {
          if (entry.agent !== 'keeper') return false;
          if (entry.kind === 'enter') return unreachable.has(paths.get(entry.state)!);
          if (entry.kind === 'exit') return noWayOut.has(paths.get(entry.state)!);
          if (entry.kind !== 'transition') return false;
          return neverFires.has(`${paths.get(entry.from)}.transitions[${entry.order - 1}]`);
        });
        expect(wrong).toEqual([]);
      }),
      { numRuns: 100 },
    );
  });
});
