import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CURVES, freshCurve, type CurveDocument } from '../../model/documents/choice.ts';
import { curveOf, shareOfRange } from './curves.ts';

const share = fc.double({ min: 0, max: 1, noNaN: true });

type FormulaCurve = Exclude<CurveDocument, { shape: 'points' }>;
type Values = Record<string, number>;

/** What is stated of each shape, and the same in code. */
const STATED: Record<
  FormulaCurve['shape'],
  [formula: string, y: (x: number, values: Values) => number]
> = {
  linear: ['offset + slope * x', (x, { slope, offset }) => offset + slope * x],
  power: ['x ^ exponent', (x, { exponent }) => x ** exponent],
  logistic: [
    '1 / (1 + exp(-steepness * (x - middle)))',
    (x, { steepness, middle }) => 1 / (1 + Math.exp(-steepness * (x - middle))),
  ],
  bell: [
    'exp(-0.5 * ((x - middle) / width) ^ 2)',
    (x, { middle, width }) => Math.exp(-0.5 * ((x - middle) / width) ** 2),
  ],
  plateau: [
    't ^ 2 * (3 - 2 * t), where t = 1 - max(0, from - x, x - to) / soft, at least 0',
    (x, { from, to, soft }) => {
      const t = Math.max(0, 1 - Math.max(0, from - x, x - to) / soft);
      return t ** 2 * (3 - 2 * t);
    },
  ],
  step: ['x < at ? 0 : 1', (x, { at }) => (x < at ? 0 : 1)],
};

const SHAPES = Object.keys(STATED) as (keyof typeof STATED)[];

const CASES: [string, FormulaCurve][] = [
  ['linear', { shape: 'linear' }],
  ['linear, falling', { shape: 'linear', slope: -1.5, offset: 1.2 }],
  ['power', { shape: 'power', exponent: 3 }],
  ['a root', { shape: 'power', exponent: 0.4 }],
  ['logistic', { shape: 'logistic', middle: 0.4, steepness: 12 }],
  ['logistic, falling', { shape: 'logistic', middle: 0.6, steepness: -9 }],
  ['bell', { shape: 'bell', middle: 0.3, width: 0.1 }],
  ['plateau', { shape: 'plateau', from: 0.2, to: 0.7, soft: 0.1 }],
  ['step', { shape: 'step', at: 0.5 }],
  ...SHAPES.map((name): [string, FormulaCurve] => [
    `${name} as it begins`,
    freshCurve(name) as FormulaCurve,
  ]),
];

describe('a curve', () => {
  it.each(CASES)('%s follows its formula at its ends and between', (_, document) => {
    const [formula, y] = STATED[document.shape];
    expect(CURVES[document.shape].formula).toBe(formula);
    const values = { slope: 1, offset: 0, ...document } as unknown as Values;
    const curve = curveOf(document);
    const held = (x: number) => Math.max(0, Math.min(1, y(x, values)));
    for (const x of [0, 1]) expect(curve(x)).toBeCloseTo(held(x), 12);
    fc.assert(
      fc.property(share, (x) => {
        expect(curve(x)).toBeCloseTo(held(x), 12);
      }),
    );
  });

  it('plateau is 1 between its ends, falls to 0 within its softness, half way down in the middle of it', () => {
    const curve = curveOf({ shape: 'plateau', from: 0.25, to: 0.5, soft: 0.125 });
    expect([0.125, 0.25, 0.4, 0.5, 0.625].map(curve)).toEqual([0, 1, 1, 1, 0]);
    expect([curve(0.1875), curve(0.5625)]).toEqual([0.5, 0.5]);
    const hard = curveOf({ shape: 'plateau', from: 0.3, to: 0.5 });
    expect([hard(0.29999), hard(0.3), hard(0.5), hard(0.50001)]).toEqual([0, 1, 1, 0]);
  });

  it('points are joined by straight lines, level outside of them', () => {
    const curve = curveOf({
      shape: 'points',
      points: [
        [0.2, 0.4],
        [0.4, 1],
        [0.9, 0],
      ],
    });
    expect([0, 0.2, 0.4, 0.9, 1].map(curve)).toEqual([0.4, 0.4, 1, 0, 0]);
    expect(curve(0.3)).toBeCloseTo(0.7, 12);
    expect(curve(0.65)).toBeCloseTo(0.5, 12);
  });

  it('is monotone between the points it states, and never leaves 0 to 1', () => {
    const rising: CurveDocument[] = [
      { shape: 'linear', slope: 2, offset: -0.3 },
      { shape: 'power', exponent: 2.7 },
      { shape: 'logistic', middle: 0.5, steepness: 30 },
      { shape: 'step', at: 0.2 },
      { shape: 'plateau', from: 0.7, to: 1, soft: 0.5 },
      { shape: 'bell', middle: 1, width: 0.4 },
    ];
    fc.assert(
      fc.property(fc.constantFrom(...rising), share, share, (document, a, b) => {
        const curve = curveOf(document);
        const [low, high] = [curve(Math.min(a, b)), curve(Math.max(a, b))];
        expect(low).toBeGreaterThanOrEqual(0);
        expect(high).toBeLessThanOrEqual(1);
        expect(low).toBeLessThanOrEqual(high + 1e-15);
      }),
    );
  });
});

describe('a range', () => {
  it('becomes 0 to 1, held at its ends, turned round where it falls', () => {
    expect([-1, 2, 4, 6, 9].map((value) => shareOfRange(value, 2, 6))).toEqual([0, 0, 0.5, 1, 1]);
    expect([2, 3, 6].map((value) => shareOfRange(value, 6, 2))).toEqual([1, 0.75, 0]);
  });
});
