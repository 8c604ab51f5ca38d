import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkDocument } from '../../findings/check-project.ts';
import type { NodeDocument, ProjectDocument, RuleDocument } from '../../model/documents.ts';
import { readProject } from '../../model/file/read-project.ts';
import { serialiseProject } from '../../model/file/serialise.ts';
import { outlineOf } from '../../model/outline.ts';
import { cornerProject } from '../../testing/orchard.fixture.ts';
import { applyCommand } from '../apply-command.ts';
import { CommandError, type DocumentPath } from '../commands/commands.ts';
import { partAt } from '../commands/put.ts';
import { freshNode } from './fresh.ts';
import { changeKind, switchRows, unwrapRow, wrapRows } from './row-kinds.ts';
import { rowAround, type RowEdit } from './row-places.ts';
import {
  dropRow,
  duplicateRow,
  insertBelow,
  moveRow,
  nestRow,
  pasteRows,
  removeRows,
  unnestRow,
} from './rows.ts';
import { extractTree, inlineTree } from './subtrees.ts';

const ROOT: DocumentPath = ['minds', 'keeper', 'trees', 'duty', 'root'];
const RULES: DocumentPath = ['minds', 'keeper', 'rules', 'habits'];

const say = (text: string): NodeDocument => ({ do: 'say', text }) as unknown as NodeDocument;

function project(root: NodeDocument): ProjectDocument {
  const document = cornerProject({ memory: { quarry: { type: 'agent' } } });
  const { keeper } = document.minds;
  keeper.activity = { tree: 'duty', with: { far: 3 } };
  keeper.trees = { duty: { parameters: { far: 'number' }, root } };
  keeper.rules = {
    habits: {
      rows: [
        {
          when: 'time > 1',
          do: [{ do: 'stop' }, { do: 'say', text: 'a' }],
          rows: [{ when: 'time > 2', do: [{ do: 'say', text: 'b' }] }],
          else: [{ do: 'say', text: 'c' }],
        },
        { when: 'time > 3', do: [{ do: 'say', text: 'd' }] },
      ],
    },
  };
  return document;
}

const THREE = { sequence: [say('a'), { selector: [say('b')] }, say('c')] };

/** The tree after an edit, and the row that has the focus. */
function after(document: ProjectDocument, edit: RowEdit) {
  const changed = applyCommand(document, edit.command);
  const root = partAt(changed, ROOT) as NodeDocument;
  return { changed, root, focused: partAt(changed, edit.focus) };
}
const rules = (document: ProjectDocument) => partAt(document, [...RULES, 'rows']) as RuleDocument[];

describe('rows of a tree', () => {
  const document = project(THREE);
  const at = (...steps: DocumentPath) => [...ROOT, ...steps];

  it('are put in directly beneath: inside what holds rows, else after', () => {
    const inside = after(document, insertBelow(document, ROOT, say('new')));
    expect(inside.root).toEqual({ sequence: [say('new'), ...THREE.sequence] });
    expect(inside.focused).toEqual(say('new'));
    const next = after(document, insertBelow(document, at('sequence', 0), say('new')));
    expect((next.root as typeof THREE).sequence[1]).toEqual(say('new'));
  });

  it('make room for themselves where one row stands alone', () => {
    const alone = project(say('only'));
    expect(after(alone, insertBelow(alone, ROOT, say('new'))).root).toEqual({
      sequence: [say('only'), say('new')],
    });
    const wrapping = project({ repeat: say('only') });
    expect(after(wrapping, insertBelow(wrapping, ROOT, say('new'))).root).toEqual({
      repeat: { sequence: [say('new'), say('only')] },
    });
    const empty = project(freshNode('repeat'));
    expect(after(empty, insertBelow(empty, ROOT, say('new')))).toMatchObject({
      root: { repeat: say('new') },
      focused: say('new'),
    });
  });

  it('are pasted after a row that has siblings, else inside', () => {
    const two = [say('x'), say('y')];
    const beside = after(document, pasteRows(document, at('sequence', 1), two));
    expect(beside.root).toEqual({ sequence: [...THREE.sequence.slice(0, 2), ...two, say('c')] });
    expect(beside.focused).toEqual(say('y'));
    expect(after(document, pasteRows(document, ROOT, two)).root).toEqual({
      sequence: [...two, ...THREE.sequence],
    });
    const rule = { when: 'time > 1', do: [{ do: 'stop' }] };
    expect(() => pasteRows(document, ROOT, [rule])).toThrow(/A rule can’t stand in a tree/);
    expect(() => pasteRows(document, [...RULES, 'rows', 0], [THREE as never])).toThrow(
      'Under a rule stand actions only.',
    );
  });

  it('are taken away, several at once, and the next has the focus', () => {
    const two = [at('sequence', 0), at('sequence', 2)];
    const left = after(document, removeRows(document, two));
    expect(left.root).toEqual({ sequence: [THREE.sequence[1]] });
    expect(left.focused).toEqual(THREE.sequence[1]);
    expect(after(document, removeRows(document, [ROOT])).root).toEqual({ sequence: [] });
    const inner = [at('sequence', 1), at('sequence', 1, 'selector', 0)];
    expect(after(document, removeRows(document, inner)).root).toEqual({
      sequence: [say('a'), say('c')],
    });
  });

  it('go in and out, and stand where they stood', () => {
    const nested = nestRow(document, at('sequence', 2));
    const { changed, root, focused } = after(document, nested);
    expect(root).toEqual({ sequence: [say('a'), { selector: [say('b'), say('c')] }] });
    expect(focused).toEqual(say('c'));
    expect(after(changed, unnestRow(changed, nested.focus)).root).toEqual(THREE);
    expect(() => nestRow(document, at('sequence', 1))).toThrow(/“Say a” holds no rows/);
    expect(() => unnestRow(document, at('sequence', 1))).toThrow(CommandError);
  });

  it('pass each other, to the end and no further', () => {
    const down = moveRow(document, at('sequence', 0), 1);
    const { changed, focused } = after(document, down);
    expect(focused).toEqual(say('a'));
    expect(after(changed, moveRow(changed, down.focus, -1)).root).toEqual(THREE);
    expect(() => moveRow(document, at('sequence', 0), -1)).toThrow('This is the first row here.');
  });

  it('are wrapped, with what is asked of them among their siblings staying outside', () => {
    const guarded = project({
      selector: [{ when: 'known(quarry)', preempts: true, ...say('a') } as NodeDocument, say('b')],
    });
    const row = at('selector', 0);
    const wrapped = after(guarded, wrapRows(guarded, [row], 'timeout'));
    expect(wrapped.focused).toEqual({
      timeout: say('a'),
      seconds: 5,
      when: 'known(quarry)',
      preempts: true,
    });
    const both = [at('sequence', 0), at('sequence', 1)];
    expect(after(document, wrapRows(document, both, 'invert')).root).toEqual({
      sequence: [{ invert: { sequence: THREE.sequence.slice(0, 2) } }, say('c')],
    });
    expect(() => wrapRows(document, [at('sequence', 0), at('sequence', 2)], 'invert')).toThrow(
      /next to each other/,
    );
    expect(after(document, unwrapRow(document, at('sequence', 1))).root).toEqual({
      sequence: [say('a'), say('b'), say('c')],
    });
    const empty = project({ sequence: [{ selector: [] }] });
    expect(() => unwrapRow(empty, at('sequence', 0))).toThrow('There is nothing inside this row.');
  });

  it('become another kind in place, with what is inside and what they carry', () => {
    const titled = project({ ...THREE, title: 'Call', when: 'time > 1' } as NodeDocument);
    expect(after(titled, changeKind(titled, ROOT, freshNode('parallel'))).root).toEqual({
      parallel: THREE.sequence,
      title: 'Call',
      when: 'time > 1',
    });
    expect(after(document, changeKind(document, ROOT, freshNode('limit'))).root).toEqual({
      limit: { sequence: THREE.sequence },
      times: 1,
    });
    expect(() => changeKind(document, ROOT, say('x'))).toThrow(/no room for what is inside/);
  });

  it('are switched off and on, and then run as if they were not there', () => {
    const row = at('sequence', 1);
    const off = after(document, switchRows(document, [row]));
    expect(
      checkDocument(off.changed).findings.filter(({ severity }) => severity === 'error'),
    ).toEqual([]);
    const rows = outlineOf('keeper', off.changed.minds.keeper, { tree: 'duty' });
    expect(rows.map(({ row: number }) => number)).toEqual([0, 1, null, null, 2]);
    expect(after(off.changed, switchRows(off.changed, [row])).root).toEqual(THREE);
    const whole = after(document, switchRows(document, [ROOT]));
    expect(checkDocument(whole.changed).findings[0]).toMatchObject({
      path: 'minds.keeper.trees.duty.root.off',
      message: expect.stringContaining('The whole tree is switched off') as string,
    });
  });

  it('are dropped before, after and into others, wherever those come to stand', () => {
    const first = at('sequence', 0);
    const into = after(document, dropRow(document, first, at('sequence', 1), 'inside'));
    expect(into.root).toEqual({ sequence: [{ selector: [say('b'), say('a')] }, say('c')] });
    expect(into.focused).toEqual(say('a'));
    const last = after(document, dropRow(document, first, at('sequence', 2), 'after'));
    expect(last.root).toEqual({ sequence: [THREE.sequence[1], say('c'), say('a')] });
    expect(last.focused).toEqual(say('a'));
    expect(() =>
      dropRow(document, at('sequence', 1), at('sequence', 1, 'selector', 0), 'after'),
    ).toThrow('A row can’t be moved into itself.');
  });

  it('become a tree of their own that brings its parameters along, and come back', () => {
    const root = {
      sequence: [say('a'), { when: 'distance(quarry) < far', ...say('near') } as NodeDocument],
    };
    const written = project(root);
    const extracted = extractTree(written, at('sequence', 1), 'Come near');
    const { changed, focused } = after(written, extracted);
    expect(focused).toEqual({ tree: 'comeNear', with: { far: 'far' } });
    expect(changed.minds.keeper.trees!.comeNear).toEqual({
      title: 'Come near',
      parameters: { far: 'number' },
      root: root.sequence[1],
    });
    const errors = checkDocument(changed).findings.filter(({ severity }) => severity === 'error');
    expect(errors).toEqual([]);
    expect(after(changed, inlineTree(changed, extracted.focus)).root).toEqual(root);
  });

  it('keep the meaning of what a tree was called with when it is put in place', () => {
    const called = project({ tree: 'near', with: { far: '1 + 2' }, title: 'There' } as never);
    called.minds.keeper.trees!.near = {
      parameters: { far: 'number' },
      root: { condition: 'far * 2 > time', title: 'Near' },
    };
    expect(after(called, inlineTree(called, ROOT)).root).toEqual({
      sequence: [{ condition: '(1 + 2) * 2 > time', title: 'Near' }],
      title: 'There',
    });
  });
});

describe('rows of rules', () => {
  const document = project(THREE);
  const at = (...steps: DocumentPath) => [...RULES, 'rows', ...steps];
  const rule: RuleDocument = { when: 'time > 9', do: [{ do: 'stop' }] };

  it('are put in after rules, and actions into them', () => {
    const next = after(document, insertBelow(document, at(0), rule));
    expect(rules(next.changed)[1]).toEqual(rule);
    const action = after(document, insertBelow(document, at(0), say('new')));
    expect(rules(action.changed)[0].do![0]).toEqual(say('new'));
    const otherwise = after(document, insertBelow(document, at(0, 'else'), say('new')));
    expect(rules(otherwise.changed)[0].else![0]).toEqual(say('new'));
    const first = after(document, insertBelow(document, RULES, rule));
    expect(rules(first.changed)[0]).toEqual(rule);
  });

  it('are made to depend on the rule above, and let go of it', () => {
    const nested = nestRow(document, at(1));
    const { changed } = after(document, nested);
    expect(rules(changed)).toHaveLength(1);
    expect(rules(changed)[0].rows![1].when).toBe('time > 3');
    expect(rules(after(changed, unnestRow(changed, nested.focus)).changed)).toEqual(
      rules(document),
    );
  });

  it('lose their last action, and their else, with nothing empty left behind', () => {
    const gone = after(document, removeRows(document, [at(1, 'do', 0), at(0, 'else')]));
    expect(rules(gone.changed)[1]).toEqual({ when: 'time > 3' });
    expect(rules(gone.changed)[0]).not.toHaveProperty('else');
  });

  it('know what they stand under', () => {
    expect(rowAround(at(0))).toBeNull();
    expect(rowAround(at(0, 'rows', 0))).toEqual(at(0));
    expect(rowAround(at(0, 'do', 1))).toEqual(at(0));
    expect(rowAround(at(0, 'else', 0))).toEqual(at(0, 'else'));
    expect(rowAround(at(0, 'else'))).toEqual(at(0));
    expect(rowAround(ROOT)).toBeNull();
    expect(rowAround([...ROOT, 'sequence', 1])).toEqual(ROOT);
    expect(rowAround([...ROOT, 'repeat'])).toEqual(ROOT);
  });
});

describe('any change of rows', () => {
  type Work = (document: ProjectDocument, path: DocumentPath, other: DocumentPath) => RowEdit;
  const WORKS: Record<string, Work> = {
    insert: (document, path) => insertBelow(document, path, say('new')),
    remove: (document, path, other) => removeRows(document, [path, other]),
    up: (document, path) => moveRow(document, path, -1),
    down: (document, path) => moveRow(document, path, 1),
    nest: (document, path) => nestRow(document, path),
    unnest: (document, path) => unnestRow(document, path),
    wrap: (document, path) => wrapRows(document, [path], 'cooldown'),
    wrapTwo: (document, path, other) => wrapRows(document, [path, other], 'selector'),
    unwrap: (document, path) => unwrapRow(document, path),
    kind: (document, path) => changeKind(document, path, freshNode('random')),
    off: (document, path, other) => switchRows(document, [path, other]),
    copy: (document, path) => duplicateRow(document, path),
    into: (document, path, other) => dropRow(document, path, other, 'inside'),
    before: (document, path, other) => dropRow(document, path, other, 'before'),
    behind: (document, path, other) => dropRow(document, path, other, 'after'),
    extract: (document, path) => extractTree(document, path, 'Part'),
    inline: (document, path) => inlineTree(document, path),
  };

  it('keeps the form, gives a row to go on with, and undoes to the same bytes', () => {
    const step = fc.record({
      work: fc.constantFrom(...Object.keys(WORKS)),
      rules: fc.boolean(),
      row: fc.nat(30),
      other: fc.nat(30),
    });
    let done = 0;
    fc.assert(
      fc.property(fc.array(step, { maxLength: 8 }), (steps) => {
        let document = project({ selector: [THREE, { repeat: say('r') }, say('x')] });
        for (const { work, rules: inRules, row, other } of steps) {
          const { keeper } = document.minds;
          const rows = outlineOf(
            'keeper',
            keeper,
            inRules ? { rules: 'habits' } : { tree: 'duty', with: { far: 3 } },
          );
          const path = (n: number) => rows[n % rows.length].path;
          const before = serialiseProject(document);
          let edit: RowEdit;
          try {
            edit = WORKS[work](document, path(row), path(other));
          } catch (error) {
            expect(error).toBeInstanceOf(CommandError);
            expect((error as Error).message).not.toMatch(/undefined|null/);
            continue;
          }
          const changed = applyCommand(document, edit.command);
          expect(serialiseProject(document)).toBe(before);
          const form = readProject(changed);
          expect(form.ok ? [] : form.faults).toEqual([]);
          expect(partAt(changed, edit.focus)).toBeDefined();
          document = changed;
          done++;
        }
      }),
      { numRuns: 300 },
    );
    expect(done).toBeGreaterThan(200);
  });
});
