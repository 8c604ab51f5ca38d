import { MOST_APART } from '@crooked-lantern/core';
import type { Frame } from '../../engine/protocol.ts';

/** Where the names of bodies stand, so that none covers another. */

/** No more agents than this are named: the chosen one, the played one, and those nearest to them. Among many only those two. */
const MOST_LABELS = 24;

interface InSight {
  index: number;
  x: number;
  y: number;
}

/** Which agents are named, those first that matter most. */
export function labelled<T extends InSight>(
  inSight: readonly T[],
  { chosen, frame }: { chosen: number; frame: Pick<Frame, 'played'> },
): T[] {
  const first = [chosen, frame.played].flatMap(
    (index) => inSight.find((each) => each.index === index) ?? [],
  );
  if (inSight.length > MOST_APART) return [...new Set(first)];
  const [centre] = first;
  const far = ({ x, y }: T) => (centre ? Math.hypot(x - centre.x, y - centre.y) : 0);
  const others = inSight
    .filter((each) => !first.includes(each))
    .sort((one, other) => far(one) - far(other));
  return [...new Set(first), ...others].slice(0, MOST_LABELS);
}

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
