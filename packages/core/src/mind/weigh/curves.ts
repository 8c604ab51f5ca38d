import { exp, power } from '../../numeric/exponential.ts';
import type { CurveDocument } from '../../model/choice-documents.ts';

/** Curves from x in 0…1 to y in 0…1. */

export type Curve = (x: number) => number;

function unit(y: number): number {
  return y > 1 ? 1 : y > 0 ? y : 0;
}

/** 0 at 0, 1 at 1, level at both. */
function smooth(t: number): number {
  return t * t * (3 - 2 * t);
}

function plateau(from: number, to: number, soft: number): Curve {
  return (x) => {
    if (x >= from && x <= to) return 1;
    const away = x < from ? from - x : x - to;
    return away >= soft ? 0 : smooth(1 - away / soft);
  };
}

/** Straight between the points, level outside of them. */
function throughPoints(points: readonly (readonly [number, number])[]): Curve {
  const xs = Float64Array.from(points, ([x]) => x);
  const ys = Float64Array.from(points, ([, y]) => y);
  const last = xs.length - 1;
  return (x) => {
    if (x <= xs[0]) return unit(ys[0]);
    for (let i = 1; i <= last; i++) {
      if (x >= xs[i]) continue;
      return unit(ys[i - 1] + ((ys[i] - ys[i - 1]) * (x - xs[i - 1])) / (xs[i] - xs[i - 1]));
    }
    return unit(ys[last]);
  };
}

/** The curve of a document. Results are held between 0 and 1. */
export function curveOf(curve: CurveDocument): Curve {
  switch (curve.shape) {
    case 'linear': {
      const { slope = 1, offset = 0 } = curve;
      return (x) => unit(offset + slope * x);
    }
    case 'power': {
      const { exponent } = curve;
      return (x) => unit(power(x, exponent));
    }
    case 'logistic': {
      const { middle, steepness } = curve;
      return (x) => unit(1 / (1 + exp(-steepness * (x - middle))));
    }
    case 'bell': {
      const { middle, width } = curve;
      return (x) => unit(exp(-0.5 * ((x - middle) / width) * ((x - middle) / width)));
    }
    case 'plateau':
      return plateau(curve.from, curve.to, curve.soft ?? 0);
    case 'step': {
      const { at } = curve;
      return (x) => (x >= at ? 1 : 0);
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
