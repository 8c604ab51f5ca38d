import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkProject } from '../../findings/check-project.ts';
import { ACTIONS, type ActionName, type ParameterSpec } from '../../model/actions/actions.ts';
import {
  NODE_KINDS,
  type NodeDocument,
  type ProjectDocument,
  type StateDocument,
} from '../../model/documents.ts';
import { namesOf } from '../../model/names/names.ts';
import { demoDocument } from '../../testing/demo.fixture.ts';
import { applyCommand } from '../apply-command.ts';
import {
  addNamed,
  freshAction,
  freshCall,
  freshGuard,
  freshInput,
  freshNode,
  keysFor,
  missingByTitle,
  offeredActions,
  type FreshKind,
} from './fresh.ts';
import { addConsideration, addOption } from './options.ts';

/** Whatever editors put in first, wherever they do, leaves a project without errors. */

const DEMOS = [
  'night-watch',
  'windfall',
  'keepers-duel',
  'harvest-night',
  'hive-day',
  'bell-hours',
];

/** Actions that an editor offers for a mind, and that need no key of memory which is not there. */
function offered(document: ProjectDocument, mind: string, lasts: boolean) {
  return offeredActions(document, mind).filter(
    (action) =>
      ACTIONS[action].lasts === lasts &&
      Object.values<ParameterSpec>(ACTIONS[action].parameters).every(
        (spec) => !spec.required || !isKey(spec) || keysFor(document, mind, spec.kind).length > 0,
      ),
  );
}

const isKey = (spec: ParameterSpec): spec is ParameterSpec & { kind: 'key' | 'list' } =>
  spec.kind === 'key' || spec.kind === 'list';

/** A new action as editors make it: what it has to name is made first. */
function made(document: ProjectDocument, mind: string, action: ActionName) {
  const lacks = missingByTitle(document, mind, action);
  const whole =
    lacks === null ? document : applyCommand(document, addNamed(document, mind, lacks, 'New one'));
  Object.assign(document, whole);
  return freshAction(document, mind, action);
}

function statesOf(states: readonly StateDocument[] = []): StateDocument[] {
  return states.flatMap((state) => [state, ...statesOf(state.states)]);
}

/** Chooses among what there is; null where there is nothing. */
type Choose = <T>(among: readonly T[]) => T | null;

/** Each puts something somewhere in a mind; false where the mind has no such place. */
const INSERTIONS: Record<
  string,
  (document: ProjectDocument, mind: string, choose: Choose) => boolean
> = {
  'an action that is done at once': (document, mind, choose) => {
    const state = choose(statesOf(document.minds[mind].machine?.states));
    const action = choose(offered(document, mind, false));
    if (!state || !action) return false;
    const fresh = made(document, mind, action);
    const transition = choose(state.transitions ?? []);
    const place = choose(transition ? ['entry', 'exit', 'do'] : ['entry', 'exit']);
    if (place === 'do') transition!.do = [...(transition!.do ?? []), fresh];
    else if (state.kind === undefined)
      state[place as 'entry'] = [...(state[place as 'entry'] ?? []), fresh];
    return true;
  },
  'an action that takes time': (document, mind, choose) => {
    const states = statesOf(document.minds[mind].machine?.states);
    const state = choose(states.filter((each) => !each.states && each.kind === undefined));
    const action = choose(offered(document, mind, true));
    if (!state || !action) return false;
    state.activity = made(document, mind, action);
    return true;
  },
  'a transition': (document, mind, choose) => {
    const states = document.minds[mind].machine?.states ?? [];
    const [from, to] = [choose(states), choose(states)];
    if (!from || !to || from.kind === 'final') return false;
    (from.transitions ??= []).push({ to: to.id, when: freshGuard(document, mind) });
    return true;
  },
  'a row of a tree': (document, mind, choose) => {
    const { trees = {} } = document.minds[mind];
    const tree = choose(namesOf(trees));
    if (tree === null) return false;
    const kinds = NODE_KINDS.filter((kind) => !['tree', 'rules', 'choice'].includes(kind));
    const wait: NodeDocument = { do: 'wait', seconds: 1 } as unknown as NodeDocument;
    const rows: (() => NodeDocument)[] = [
      () => {
        const kind = choose(kinds) as FreshKind;
        if (kind === 'condition') return { condition: freshGuard(document, mind) };
        return freshNode(kind, [wait]);
      },
      () => {
        const action = choose([
          ...offered(document, mind, true),
          ...offered(document, mind, false),
        ]);
        return made(document, mind, action!) as unknown as NodeDocument;
      },
      () =>
        freshCall(document, mind, choose(namesOf(trees).filter((each) => each !== tree)) ?? tree),
    ];
    const row = choose(namesOf(trees).length > 1 ? rows : rows.slice(0, 2))!();
    // A tree can't call itself, neither at once nor by way of others.
    if ('tree' in row) document.minds[mind].trees!.inserted = { root: { sequence: [row] } };
    else trees[tree].root = { sequence: [row, trees[tree].root] };
    return true;
  },
  'an option': (document, mind, choose) => {
    const choice = choose(namesOf(document.minds[mind].choices ?? {}));
    if (choice === null) return false;
    const { command } = addOption(document, { mind, choice }, 'New option');
    Object.assign(document, applyCommand(document, command));
    return true;
  },
  'a consideration': (document, mind, choose) => {
    const { choices = {} } = document.minds[mind];
    const choice = choose(namesOf(choices).filter((name) => choices[name].combine !== 'graded'));
    const at = choice === null ? null : choose([...choices[choice].options.keys()]);
    if (choice === null || at === null) return false;
    const fresh = { input: freshInput(document, mind) };
    const command = addConsideration(document, { mind, choice }, [at], fresh);
    Object.assign(document, applyCommand(document, command));
    return true;
  },
  'a rule': (document, mind, choose) => {
    const { rules = {} } = document.minds[mind];
    const name = choose(namesOf(rules));
    const action = choose(offered(document, mind, true));
    if (name === null || !action) return false;
    rules[name].rows.push({
      when: freshGuard(document, mind),
      do: [made(document, mind, action)],
    });
    return true;
  },
};

const errorsOf = (document: ProjectDocument) =>
  checkProject(document)
    .findings.filter(({ severity }) => severity === 'error')
    .map(({ path, message }) => `${path}: ${message}`);

describe.each(Object.entries(INSERTIONS))('%s', (_, insert) => {
  it('put in at any place, leaves a project without errors', () => {
    let inserted = 0;
    fc.assert(
      fc.property(fc.constantFrom(...DEMOS), fc.gen(), (demo, gen) => {
        const document = demoDocument(demo);
        const choose: Choose = (among) =>
          among.length === 0 ? null : gen(fc.constantFrom, ...(among as [never]));
        const mind = choose(namesOf(document.minds))!;
        if (!insert(document, mind, choose)) return;
        inserted++;
        expect(errorsOf(document)).toEqual([]);
      }),
      { numRuns: 40 },
    );
    expect(inserted).toBeGreaterThan(0);
  });
});
