import { describe, expect, it } from 'vitest';
import { checkProject } from '../../findings/check-project.ts';
import { ACTION_NAMES, ACTIONS } from '../../model/actions/actions.ts';
import { MEMORY_TYPES, type MemoryType, type NodeDocument } from '../../model/documents.ts';
import { readProject } from '../../model/file/read-project.ts';
import { NODE_KINDS } from '../../model/documents.ts';
import { cornerProject, KEEN_SIGHT } from '../../testing/orchard.fixture.ts';
import { demoDocument } from '../../testing/demo.fixture.ts';
import { freshAction, freshGuard, freshNode, type FreshKind } from './fresh.ts';

/** A keeper that does one row, with one key of a type. */
function doing(root: NodeDocument, type: MemoryType = 'agent') {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    memory: { first: { type } },
    machine: { initial: 'act', states: [{ id: 'act', activity: { tree: 'main' } }] },
  });
  document.minds.keeper.trees = { main: { root } };
  return document;
}

function faultsOf(document: ReturnType<typeof doing>): string[] {
  const read = readProject(document);
  return read.ok ? [] : read.faults.map(({ path, message }) => `${path} ${message}`);
}

const CALLING = ['tree', 'rules', 'choice'];
const fresh = NODE_KINDS.filter((kind) => !CALLING.includes(kind)) as FreshKind[];

describe('a guard to begin with', () => {
  it('goes by the attention of an agent, and never by senses for a director, which has none', () => {
    const document = demoDocument('harvest-night');
    expect(freshGuard(document, 'keeper')).toMatch(/attention/);
    const before = checkProject(document).findings.length;
    const [game] = document.minds.night.machine!.states;
    game.transitions = [{ to: 'won', when: freshGuard(document, 'night') }];
    expect(checkProject(document).findings).toHaveLength(before);
    game.transitions = [{ to: 'won', when: freshGuard(document, 'keeper') }];
    expect(checkProject(document).findings.length).toBeGreaterThan(before);
  });
});

describe('what is inserted', () => {
  it.each(fresh)('a %s is valid, and runs, as soon as it holds something', (kind) => {
    const document = doing(
      freshNode(kind, kind === 'condition' ? [] : [{ do: 'wait', seconds: 1 }]),
    );
    expect(faultsOf(document)).toEqual([]);
    expect(checkProject(document).findings.filter(({ severity }) => severity === 'error')).toEqual(
      [],
    );
  });

  it.each(fresh)('a %s is valid without anything in it', (kind) => {
    expect(faultsOf(doing(freshNode(kind)))).toEqual([]);
  });

  it.each(ACTION_NAMES)('the action %s is valid whatever the first key is', (action) => {
    for (const type of MEMORY_TYPES) {
      const document = doing({ do: 'stop' }, type);
      document.minds.keeper.trees!.main.root = freshAction(
        document,
        'keeper',
        action,
      ) as unknown as NodeDocument;
      expect(faultsOf(document), type).toEqual([]);
    }
  });

  it('has all an action needs', () => {
    const document = doing({ do: 'stop' });
    for (const action of ACTION_NAMES) {
      const needed = Object.entries(ACTIONS[action].parameters)
        .filter(([, { required }]) => required)
        .map(([name]) => name);
      expect(Object.keys(freshAction(document, 'keeper', action))).toEqual(['do', ...needed]);
    }
  });
});
