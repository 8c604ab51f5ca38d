import { outlineOf, type MindDocument } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { knownRows, unfoldedFor, visibleRows } from './visible-rows.ts';

const mind: MindDocument = {
  title: 'Keeper',
  trees: {
    main: {
      root: {
        sequence: [
          { selector: [{ condition: 'known(quarry)' }, { do: 'wait', seconds: 1 }] },
          { do: 'say', text: 'On' },
        ],
      },
    },
  },
};

const outline = (of: MindDocument) => outlineOf('keeper', of, { tree: 'main' });

/** The mind with a first row before all others. */
function withFirst(): MindDocument {
  const { sequence } = mind.trees!.main.root as { sequence: object[] };
  return {
    ...mind,
    trees: { main: { root: { sequence: [{ do: 'wait', seconds: 2 }, ...sequence] } as never } },
  };
}

describe('rows that are known', () => {
  it('are the same objects after an edit elsewhere, and others where they changed', () => {
    const before = knownRows(outline(mind));
    const edited = structuredClone(mind);
    const [selector, say] = (mind.trees!.main.root as { sequence: object[] }).sequence;
    edited.trees!.main.root = { sequence: [selector, { ...say, text: 'Off' }] } as never;
    const after = knownRows(outline(edited), before);
    expect(after.map((row, i) => row === before[i])).toEqual([true, true, true, true, false]);
  });

  it('are others where what they say of themselves changed, and not what is inside them', () => {
    const before = knownRows(outline(mind));
    const edited = structuredClone(mind);
    const { sequence } = mind.trees!.main.root as { sequence: object[] };
    edited.trees!.main.root = { sequence, restart: true, note: 'From the first child.' } as never;
    const after = knownRows(outline(edited), before);
    expect(after.map((row, i) => row === before[i])).toEqual([false, true, true, true, true]);
    expect(after[0].row).toMatchObject({ node: { restart: true } });
  });

  it('are others where they moved: their paths are no longer the same', () => {
    const before = knownRows(outline(mind));
    const after = knownRows(outline(withFirst()), before);
    expect(after).toHaveLength(6);
    expect(after.filter((row) => before.includes(row))).toEqual([]);
    expect(after.map(({ row }) => row)).toEqual(outline(withFirst()));
  });

  it('are found inside folded ones', () => {
    const rows = knownRows(outline(mind));
    const folded = new Set([rows[0].id, rows[1].id]);
    expect(visibleRows(rows, folded)).toEqual([rows[0]]);
    expect(visibleRows(rows, unfoldedFor(rows, folded, rows[2].id))).toEqual(rows);
    expect(unfoldedFor(rows, folded, rows[0].id)).toBe(folded);
  });
});
