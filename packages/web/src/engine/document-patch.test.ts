import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { patched, patchOf, type Patch } from './document-patch.ts';

/** A patch as it comes out of the other thread. */
const sent = (patch: Patch): Patch => structuredClone(patch);

type Json = fc.JsonValue;

/** One edit somewhere in it that leaves all else the same objects, as edits of documents do; `picks` say where. */
function edited(value: Json, picks: readonly number[], put: Json): Json {
  const [pick, ...rest] = picks;
  if (pick === undefined || typeof value !== 'object' || value === null) return put;
  const parts: [string | number, Json][] = Array.isArray(value)
    ? [...value.entries()]
    : Object.entries(value as Record<string, Json>);
  const at = pick % (parts.length + 3);
  // One is changed within, or another comes before, or the first goes, or all turn round.
  const others: [string | number, Json][] =
    at < parts.length
      ? parts.map(([key, part], i) => [key, i === at ? edited(part, rest, put) : part])
      : at === parts.length
        ? [['between', put], ...parts.filter(([key]) => key !== 'between')]
        : at === parts.length + 1
          ? parts.slice(1)
          : parts.toReversed();
  return Array.isArray(value) ? others.map(([, part]) => part) : Object.fromEntries(others);
}

const json = fc.jsonValue({ maxDepth: 4 });
const picks = fc.array(fc.nat(1000), { maxLength: 5 });

describe('a patch of a document', () => {
  it('makes the next version of the one before, to the order of its fields', () => {
    fc.assert(
      fc.property(json, fc.array(fc.tuple(picks, json), { maxLength: 4 }), (first, edits) => {
        // The other side has copies, as from another thread, and gets nothing but patches.
        let [here, there]: [Json, unknown] = [first, patched(null, sent(patchOf(null, first)))];
        for (const [where, put] of edits) {
          const next = edited(here, where, put);
          there = patched(there, sent(patchOf(here, next)));
          here = next;
          expect(JSON.stringify(there)).toBe(JSON.stringify(here));
        }
      }),
    );
  });

  it('tells any two apart, which share nothing', () => {
    fc.assert(
      fc.property(json, json, (before, after) => {
        const there = patched(structuredClone(before), sent(patchOf(before, after)));
        expect(JSON.stringify(there)).toBe(JSON.stringify(after));
      }),
    );
  });

  it('holds what the edit changed alone, and leaves all else the same objects', () => {
    const row = (n: number) => ({ do: 'wait', seconds: n });
    const before = { title: 'Night', trees: { patrol: [row(1), row(2), row(3)], rest: [row(4)] } };
    const { trees } = before;
    const after = { ...before, trees: { ...trees, patrol: [row(0), trees.patrol[0], row(9)] } };
    const patch = patchOf(before, after);
    expect(JSON.stringify(patch)).not.toContain('Night');
    const made = patched(before, patch) as typeof before;
    expect(made).toEqual(after);
    expect(made.trees.rest).toBe(trees.rest);
    expect(made.trees.patrol[1]).toBe(trees.patrol[0]);
    // An item that came in takes the place of none of those that stay.
    expect(trees.patrol).toEqual([row(1), row(2), row(3)]);
  });

  it('gives an edit back as it was when it is undone', () => {
    const before = { a: { b: [1, 2] }, c: 3 };
    const after = { c: 3, a: { b: [2] } };
    const there = patched(structuredClone(before), sent(patchOf(before, after)));
    expect(patched(there, sent(patchOf(after, before)))).toEqual(before);
  });
});
