import { expInPlace, powerInPlace } from '../../numeric/exponential.ts';
import type { CurveDocument } from '../../model/documents/choice.ts';

/** Curves from x in 0…1 to y in 0…1. */

export type Curve = (x: number) => number;

/** The same for an x that stands in a cell, y put in its place: what is done so often is to allocate nothing. */
export type CurveInPlace = (cells: Float64Array, at: number) => void;

function unit(y: number): number {
  return y > 1 ? 1 : y > 0 ? y : 0;
}

/** 0 at 0, 1 at 1, level at both. */
function smooth(t: number): number {
  return t * t * (3 - 2 * t);
}

function plateau(from: number, to: number, soft: number): CurveInPlace {
  return (cells, at) => {
    const x = cells[at];
    const away = x < from ? from - x : x - to;
    if (x >= from && x <= to) cells[at] = 1;
    else cells[at] = away >= soft ? 0 : smooth(1 - away / soft);
  };
}

/** Straight between the points, level outside of them. */
function throughPoints(points: readonly (readonly [number, number])[]): CurveInPlace {
  const xs = Float64Array.from(points, ([x]) => x);
  const ys = Float64Array.from(points, ([, y]) => y);
  const last = xs.length - 1;
  return (cells, at) => {
    const x = cells[at];
    let i = 0;
    while (i <= last && x >= xs[i]) i++;
    // Level before the first point and after the last.
    if (i === 0 || x === xs[0]) cells[at] = unit(ys[0]);
    else if (i > last) cells[at] = unit(ys[last]);
    else
      cells[at] = unit(ys[i - 1] + ((ys[i] - ys[i - 1]) * (x - xs[i - 1])) / (xs[i] - xs[i - 1]));
  };
}

const cell = new Float64Array(1);

/** The curve of a document. Results are held between 0 and 1. */
export function curveOf(curve: CurveDocument): Curve {
  const run = curveInPlace(curve);
  return (x) => {
    cell[0] = x;
    run(cell, 0);
    return cell[0];
  };
}

export function curveInPlace(curve: CurveDocument): CurveInPlace {
  switch (curve.shape) {
    case 'linear': {
      const { slope = 1, offset = 0 } = curve;
      return (cells, at) => {
        cells[at] = unit(offset + slope * cells[at]);
      };
    }
    case 'power': {
      const { exponent } = curve;
      return (cells, at) => {
        powerInPlace(cells, at, exponent);
        cells[at] = unit(cells[at]);
      };
    }
    case 'logistic': {
      const { middle, steepness } = curve;
      return (cells, at) => {
        cells[at] = -steepness * (cells[at] - middle);
        expInPlace(cells, at);
        cells[at] = unit(1 / (1 + cells[at]));
      };
    }
    case 'bell': {
      const { middle, width } = curve;
      return (cells, at) => {
        const away = (cells[at] - middle) / width;
        cells[at] = -0.5 * away * away;
        expInPlace(cells, at);
        cells[at] = unit(cells[at]);
      };
    }
    case 'plateau':
      return plateau(curve.from, curve.to, curve.soft ?? 0);
    case 'step': {
      const { at } = curve;
      return (cells, place) => {
        cells[place] = cells[place] >= at ? 1 : 0;
      };
    }
    case 'points':
      return throughPoints(curve.points);
  }
}

/** The curve of a consideration that states none. */
export const STRAIGHT: CurveDocument = { shape: 'linear' };

/** An input as a share of its range, held between 0 and 1; with `from` above `to` the range is turned round. */
export function shareOfRange(value: number, from: number, to: number): number {
  return unit((value - from) / (to - from));
}
