/** Where the names of bodies stand, so that none covers another. */

/** All in pixels. */
export interface LabelWish {
  /** Where its middle should be. */
  middle: number;
  /** Baselines it may stand on, best first. */
  lines: readonly number[];
  /** What it may say, best first. */
  texts: readonly string[];
}

export interface PlacedLabel {
  middle: number;
  line: number;
  text: string;
}

/** Height of a line of text, and how much of it is above the baseline. */
const HEIGHT = 13;
const ABOVE = 10;

interface Box {
  left: number;
  right: number;
  top: number;
}

const overlap = (a: Box, b: Box) =>
  a.left < b.right && b.left < a.right && Math.abs(a.top - b.top) < HEIGHT;

/**
 * A place for each wish, those first that come first; null where there is none left for it. Labels stay between 0 and
 * `width`.
 * @param measure gives the width of a text
 */
export function placeLabels(
  wishes: readonly LabelWish[],
  width: number,
  measure: (text: string) => number,
): (PlacedLabel | null)[] {
  const taken: Box[] = [];
  return wishes.map(({ middle: wished, lines, texts }) => {
    for (const text of texts) {
      const half = measure(text) / 2;
      const middle = Math.min(width - half - 4, Math.max(half + 4, wished));
      for (const line of lines) {
        const box = { left: middle - half - 2, right: middle + half + 2, top: line - ABOVE };
        if (taken.some((other) => overlap(box, other))) continue;
        taken.push(box);
        return { middle, line, text };
      }
    }
    return null;
  });
}
