import { curveOf, STRAIGHT, type CurveDocument } from '@crooked-lantern/core';

/** Curves as lines to draw, and how they change as they are dragged. */

const STEPS = 48;

/** A polyline through a curve in a box of this size, 1 at the top. */
export function curvePath(
  curve: CurveDocument = STRAIGHT,
  width: number,
  height: number,
  steps = STEPS,
): string {
  const value = curveOf(curve);
  const xs = new Set(Array.from({ length: steps + 1 }, (_, i) => i / steps));
  // A jump is drawn as one.
  if (curve.shape === 'step') xs.add(curve.at).add(Math.max(0, curve.at - 1e-6));
  if (curve.shape === 'points') for (const [x] of curve.points) xs.add(x);
  const points = [...xs].sort((a, b) => a - b);
  return points
    .map((x, i) => {
      const [px, py] = [x * width, (1 - value(x)) * height];
      return `${i === 0 ? 'M' : 'L'}${px.toFixed(2)} ${py.toFixed(2)}`;
    })
    .join('');
}

/** A point of a curve that can be dragged. */
export interface Handle {
  id: string;
  /** What it is, for readers. */
  name: string;
  x: number;
  y: number;
  /** The curve with the handle moved there; x and y lie within 0 and 1. */
  move(x: number, y: number): CurveDocument;
}

function held(value: number, least = 0, most = 1): number {
  return Math.min(most, Math.max(least, value));
}

/** Three decimals are as fine as a hand is. */
function rounded(value: number): number {
  return Math.round(value * 1000) / 1000;
}

export function handlesOf(curve: CurveDocument = STRAIGHT): Handle[] {
  const value = curveOf(curve);
  const at = (x: number) => ({ x, y: value(x) });
  switch (curve.shape) {
    case 'linear': {
      const { slope = 1, offset = 0 } = curve;
      const end = offset + slope;
      return [
        {
          id: 'begin',
          name: 'Beginning',
          x: 0,
          y: held(offset),
          move: (_, y) => ({ shape: 'linear', slope: rounded(end - y), offset: rounded(y) }),
        },
        {
          id: 'end',
          name: 'End',
          x: 1,
          y: held(end),
          move: (_, y) => ({
            shape: 'linear',
            slope: rounded(y - offset),
            offset: rounded(offset),
          }),
        },
      ];
    }
    case 'power':
      return [
        {
          id: 'bend',
          name: 'Bend',
          ...at(0.5),
          move: (_, y) => ({
            ...curve,
            exponent: rounded(held(Math.log(held(y, 0.001, 0.999)) / Math.log(0.5), 0.01, 100)),
          }),
        },
      ];
    case 'logistic':
      return [
        {
          id: 'middle',
          name: 'Middle',
          x: curve.middle,
          y: 0.5,
          move: (x) => ({ ...curve, middle: rounded(x) }),
        },
        {
          id: 'steepness',
          name: 'Steepness',
          ...at(held(curve.middle + 0.1)),
          move: (_, y) => {
            const off = held(curve.middle + 0.1) - curve.middle || -0.1;
            const share = held(y, 0.01, 0.99);
            return {
              ...curve,
              steepness: rounded(held(Math.log(share / (1 - share)) / off, -1000, 1000)),
            };
          },
        },
      ];
    case 'bell':
      return [
        {
          id: 'middle',
          name: 'Middle',
          x: curve.middle,
          y: 1,
          move: (x) => ({ ...curve, middle: rounded(x) }),
        },
        {
          id: 'width',
          name: 'Width',
          ...at(held(curve.middle + curve.width)),
          move: (x) => ({ ...curve, width: rounded(held(Math.abs(x - curve.middle), 0.001, 10)) }),
        },
      ];
    case 'plateau': {
      const { from, to, soft = 0 } = curve;
      return [
        {
          id: 'from',
          name: 'From',
          x: from,
          y: 1,
          move: (x) => ({ ...curve, from: rounded(held(x, 0, to)) }),
        },
        {
          id: 'to',
          name: 'To',
          x: to,
          y: 1,
          move: (x) => ({ ...curve, to: rounded(held(x, from)) }),
        },
        {
          id: 'soft',
          name: 'Soft',
          x: held(to + soft),
          y: 0,
          move: (x) => ({ ...curve, soft: rounded(held(x - to)) }),
        },
      ];
    }
    case 'step':
      return [
        {
          id: 'at',
          name: 'Step',
          x: curve.at,
          y: 0.5,
          move: (x) => ({ ...curve, at: rounded(x) }),
        },
      ];
    case 'points':
      return curve.points.map(([x, y], i) => ({
        id: String(i),
        name: `Point ${i + 1}`,
        x,
        y,
        move: (toX, toY) => {
          const { points } = curve;
          // Each stays between its neighbours.
          const least = i === 0 ? 0 : points[i - 1][0] + 0.001;
          const most = i === points.length - 1 ? 1 : points[i + 1][0] - 0.001;
          const moved: [number, number] = [rounded(held(toX, least, most)), rounded(toY)];
          return { shape: 'points', points: points.map((point, k) => (k === i ? moved : point)) };
        },
      }));
  }
}

/** Share of what was asked that fell where the curve is all but level; null where nothing was asked. */
export function flatShare(curve: CurveDocument = STRAIGHT, bins: readonly number[]): number | null {
  const value = curveOf(curve);
  const total = bins.reduce((sum, count) => sum + count, 0);
  if (total === 0) return null;
  const flat = bins.reduce((sum, count, i) => {
    const [from, to] = [i / bins.length, (i + 1) / bins.length];
    return Math.abs(value(to) - value(from)) * bins.length < 0.1 ? sum + count : sum;
  }, 0);
  return flat / total;
}
