import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { labelled, placeLabels } from './labels.ts';

/** Of a font whose letters are 6 px wide. */
const place = (wishes: Parameters<typeof placeLabels>[0], width = 400) =>
  placeLabels(wishes, width, (text) => text.length * 6);

describe('Labels of bodies', () => {
  it('stand where they should while there is room', () => {
    expect(
      place([
        { middle: 100, lines: [50, 20], texts: ['Warden · Rounds', 'Warden'] },
        { middle: 300, lines: [50, 20], texts: ['Goose · Rests', 'Goose'] },
      ]),
    ).toEqual([
      { middle: 100, line: 50, text: 'Warden · Rounds' },
      { middle: 300, line: 50, text: 'Goose · Rests' },
    ]);
  });

  it('go to the other line, then say less, then are left out', () => {
    const wish = { middle: 100, lines: [50, 20], texts: ['Bee 1 · Watches', 'Bee 1'] };
    const aside = { ...wish, middle: 165 };
    expect(place([wish, wish, aside, wish])).toEqual([
      { middle: 100, line: 50, text: 'Bee 1 · Watches' },
      { middle: 100, line: 20, text: 'Bee 1 · Watches' },
      { middle: 165, line: 50, text: 'Bee 1' },
      null,
    ]);
  });

  it('stay in the picture', () => {
    const [left, right] = place([
      { middle: 2, lines: [50], texts: ['Warden'] },
      { middle: 399, lines: [50], texts: ['Warden'] },
    ]);
    expect([left!.middle, right!.middle]).toEqual([22, 378]);
  });

  it('never cover each other, and the first always stands', () => {
    const wish = fc.record({
      middle: fc.integer({ min: 0, max: 400 }),
      lines: fc.array(fc.integer({ min: 0, max: 200 }), { minLength: 1, maxLength: 2 }),
      texts: fc.array(fc.string({ minLength: 1, maxLength: 20 }), { minLength: 1, maxLength: 2 }),
    });
    fc.assert(
      fc.property(fc.array(wish, { minLength: 1, maxLength: 24 }), (wishes) => {
        const placed = place(wishes);
        expect(placed[0]).not.toBeNull();
        const stand = placed.filter((label) => label !== null);
        for (const [i, a] of stand.entries())
          for (const b of stand.slice(i + 1)) {
            const apart = Math.abs(a.middle - b.middle) >= (a.text.length + b.text.length) * 3;
            expect(apart || Math.abs(a.line - b.line) >= 13).toBe(true);
          }
      }),
    );
  });
});

const crowd = (count: number) =>
  Array.from({ length: count }, (_, index) => ({ index, x: index * 10, y: 0 }));

const named = (count: number, chosen: number, played: number) =>
  labelled(crowd(count), { chosen, frame: { played } }).map(({ index }) => index);

describe('whose names stand on the ground', () => {
  it('the chosen one first, then the played one, then the others, the nearest to the chosen one first', () => {
    expect(named(6, 4, 0)).toEqual([4, 0, 3, 5, 2, 1]);
  });

  it('no more than can be read, and among many only the chosen and the played one', () => {
    expect(named(50, 30, -1)).toHaveLength(24);
    expect(named(50, 30, -1)).not.toContain(0);
    expect(named(90, 30, 2)).toEqual([30, 2]);
  });

  it('one that is both chosen and played is named once, and no one who is out of sight', () => {
    expect(named(3, 1, 1)).toEqual([1, 0, 2]);
    expect(named(3, 9, -1)).toEqual([0, 1, 2]);
  });
});
