import { describe, expect, it } from 'vitest';
import { checkProject } from '../../findings/check-project.ts';
import type { BandSetDocument, ChoiceDocument, OptionDocument } from '../../model/documents.ts';
import { programOf } from '../../testing/orchard.fixture.ts';
import { tick } from '../../world/phases/tick.ts';
import { readChoice } from '../../world/readout/choices.ts';
import { createWorld } from '../../world/world.ts';
import { considers, option, project } from './scoring.fixture.ts';

/** Scores of all options in the first tick. */
function scores(
  choice: Partial<ChoiceDocument>,
  options: Partial<OptionDocument>[],
  bands?: Record<string, BandSetDocument>,
): number[] {
  const world = createWorld(
    programOf(
      project({ ...choice, options: options.map((more, i) => option(`o${i}`, more)) }, bands),
    ),
  );
  tick(world);
  const readout = readChoice(world, { agent: 'keeper', choice: 'whatNow' })!;
  return readout.options.map(({ rows }) => Number(rows[0].score.toFixed(9)));
}

describe('a score', () => {
  it('is the geometric mean: as fair to many considerations as to few', () => {
    const all = scores({}, [
      considers(0.5),
      considers(0.5, 0.5),
      considers(0.5, 0.5, 0.5, 0.5, 0.5, 0.5),
      considers(0.2, 0.8),
      {},
    ]);
    expect(all).toEqual([0.5, 0.5, 0.5, 0.4, 1]);
  });

  it('counts a consideration by its importance', () => {
    const all = scores({}, [
      considers({ input: '0.25', importance: 3 }, 1),
      considers({ input: '0.25', importance: 0 }, 0.81),
      considers({ input: '0.25', importance: 0.5 }, { input: '1', importance: 0.5 }),
    ]);
    expect(all).toEqual([Number((0.25 ** 0.75).toFixed(9)), 0.81, 0.5]);
  });

  it('as a product, and as an arithmetic mean', () => {
    const options = [considers(0.5, 0.5), considers({ input: '0.5', importance: 3 }, 0.1)];
    expect(scores({ combine: 'product' }, options)).toEqual([0.25, 0.0125]);
    expect(scores({ combine: 'sum' }, options)).toEqual([0.5, 0.4]);
  });

  it('is multiplied with its weight, and has its cost taken off', () => {
    const all = scores({}, [
      { ...considers(0.5), weight: 2 },
      { ...considers(0.5), cost: 0.2 },
      { ...considers(0.5), weight: '1 + 1', cost: '0.1 + 0.1' },
    ]);
    expect(all).toEqual([1, 0.3, 0.8]);
  });

  it('is 0 by a veto, whatever else; without one a 0 counts as it does', () => {
    const vetoed = considers({ input: '0', veto: true, importance: 0 }, 1);
    expect(scores({ combine: 'sum' }, [vetoed, considers(0, 1)])).toEqual([0, 0.5]);
    expect(scores({}, [{ ...vetoed, cost: -5 }])).toEqual([0]);
  });

  it('is what its rows say where it is graded: the least membership times the strength, of the strongest row', () => {
    const bands: Record<string, BandSetDocument> = {
      wear: {
        input: '0.7',
        bands: [
          { name: 'fresh', fullTo: 0.4, to: 0.8 },
          { name: 'worn', from: 0.5, fullFrom: 0.9 },
        ],
      },
      range: {
        input: 'distance(self.post) + 3',
        bands: [
          { name: 'close', fullTo: 2, to: 6 },
          { name: 'far', from: 2, fullFrom: 6 },
        ],
      },
    };
    // Of 0.7: fresh 0.25, worn 0.5. Of 3 m: close 0.75, far 0.25.
    const all = scores(
      { combine: 'graded' },
      [
        { grades: [{ when: { wear: 'worn', range: 'close' }, strength: 0.8 }] },
        {
          grades: [
            { when: { wear: 'fresh' }, strength: 1 },
            { when: { range: 'close' }, strength: 0.6 },
          ],
        },
        { grades: [] },
      ],
      bands,
    );
    expect(all).toEqual([0.4, 0.45, 0]);
  });
});

describe('an input that is nothing', () => {
  it('is worth 0, and says so', () => {
    const world = createWorld(
      programOf(project({ options: [option('o', considers({ input: 'distance(heard.place)' }))] })),
    );
    tick(world);
    const { options } = readChoice(world, { agent: 'keeper', choice: 'whatNow' })!;
    expect(options[0].rows[0]).toMatchObject({
      score: 0,
      bar: 'minScore',
      cells: [{ value: null, y: 0 }],
    });
  });
});

describe('a least score below 0', () => {
  it('lets in what is vetoed or worth nothing, and names no bar for it', () => {
    const options = [
      option('vetoed', considers({ input: '0', veto: true })),
      option('costly', { cost: '2' }),
    ];
    const world = createWorld(programOf(project({ minScore: -0.5, options })));
    tick(world);
    const readout = readChoice(world, { agent: 'keeper', choice: 'whatNow' })!;
    expect(readout.options.map(({ rows }) => [rows[0].score, rows[0].bar])).toEqual([
      [0, null],
      [-1, 'minScore'],
    ]);
    expect(readout).toMatchObject({ running: 'vetoed', ended: null });
  });
});

describe('bands', () => {
  const bands: Record<string, BandSetDocument> = {
    range: {
      input: 'a',
      bands: [
        { name: 'close', fullTo: 2, to: 4 },
        { name: 'middle', from: 2, fullFrom: 4, fullTo: 6, to: 8 },
        { name: 'far', from: 6, fullFrom: 8 },
      ],
    },
  };
  const asked = (value: number, name: string) => {
    const document = project(
      {
        options: [
          option('o', considers({ input: `inBand(range, '${name}')` })),
          option('p', { when: `bandOf(range) == '${name}'` }),
        ],
      },
      bands,
    );
    document.minds.keeper.memory!.a.default = value;
    const world = createWorld(programOf(document));
    tick(world);
    const { options } = readChoice(world, { agent: 'keeper', choice: 'whatNow' })!;
    return [options[0].rows[0].score, options[1].rows[0].bar === null];
  };

  it('give a membership, and the name of the largest', () => {
    expect(asked(1, 'close')).toEqual([1, true]);
    expect(asked(3, 'close')).toEqual([0.5, true]);
    expect(asked(3.5, 'close')).toEqual([0.25, false]);
    expect(asked(3.5, 'middle')).toEqual([0.75, true]);
    expect(asked(100, 'far')).toEqual([1, true]);
  });

  const findings = (set: BandSetDocument) =>
    checkProject(
      project(
        { options: [option('o', considers({ input: 'inBand(range, "close")' }))] },
        { range: set },
      ),
    ).findings.flatMap(({ path, message }) => (path.startsWith('bands') ? [message] : []));

  it('that leave a gap, or are never the largest, are told', () => {
    expect(findings(bands.range)).toEqual([]);
    expect(
      findings({
        input: 'a',
        bands: [
          { name: 'close', fullTo: 2, to: 3 },
          { name: 'far', from: 5, fullFrom: 6 },
        ],
      }),
    ).toEqual([expect.stringMatching(/^At [34][.\d]* none of the bands/)]);
    expect(
      findings({
        input: 'a',
        bands: [
          { name: 'close', fullTo: 9 },
          { name: 'beside', from: 1, fullFrom: 2, fullTo: 3, to: 4 },
        ],
      }),
    ).toContainEqual(expect.stringMatching(/^“beside” is nowhere the largest/));
    expect(findings({ input: 'a', bands: [{ name: 'close', from: 3, fullFrom: 1 }] })).toEqual([
      expect.stringMatching(/not in order/),
    ]);
  });

  it('can’t be asked by a wrong name, nor of what is no number', () => {
    const error = (input: string, set = bands.range) =>
      checkProject(
        project({ options: [option('o', considers({ input }))] }, { range: set }),
      ).findings.find(({ severity }) => severity === 'error')!.message;
    expect(error("inBand(rnage, 'close')")).toMatch(/no bands “rnage”. Did you mean “?range/);
    expect(error("inBand(range, 'clos')")).toMatch(/no band “clos”. Did you mean “?close/);
    expect(error('inBand(range)')).toMatch(/It is written inBand/);
    expect(error("inBand(range, 'close')", { ...bands.range, input: 'self.place' })).toMatch(
      /no number/,
    );
    expect(
      error("inBand(range, 'close')", { ...bands.range, input: 'inBand(range, "far")' }),
    ).toMatch(/can’t be asked here/);
  });
});

describe('what is wrong with a choice', () => {
  const trouble = (more: Partial<OptionDocument>, choice: Partial<ChoiceDocument> = {}) =>
    checkProject(project({ ...choice, options: [option('o', more)] })).findings.find(
      ({ severity }) => severity === 'error',
    );
  it.each<[string, Partial<OptionDocument>, string, RegExp]>([
    ['nothing to do', { does: undefined }, 'options[0]', /nothing to do/],
    [
      'a range of no width',
      considers({ from: 2, to: 2 }),
      'options[0].considerations[0].to',
      /no width/,
    ],
    [
      'points out of order',
      considers({
        curve: {
          shape: 'points',
          points: [
            [0.5, 0],
            [0.2, 1],
          ],
        },
      }),
      'options[0].considerations[0].curve.points[1]',
      /does not come after/,
    ],
    [
      'a plateau that ends before it begins',
      considers({ curve: { shape: 'plateau', from: 0.5, to: 0.2 } }),
      'options[0].considerations[0].curve.to',
      /begins at 0.5 and ends before/,
    ],
    [
      'each of what is no list',
      { each: { as: 'one', list: 'a' } },
      'options[0].each.list',
      /“a” is no list but of type number/,
    ],
    [
      'each of a list that is not there',
      { each: { as: 'one', list: 'aa' } },
      'options[0].each.list',
      /no memory key “aa”/,
    ],
    [
      'a name that is taken',
      { each: { as: 'b', agents: 'hostile' } },
      'options[0].each.as',
      /means something else/,
    ],
    [
      'grades without grading',
      { grades: [{ when: {}, strength: 1 }] },
      'options[0].grades',
      /graded/,
    ],
  ])('%s', (_, more, path, words) => {
    const found = trouble(more)!;
    expect(found.path).toBe(`minds.keeper.choices.whatNow.${path}`);
    expect(found.message).toMatch(words);
  });

  it('an option of the same name, a choice that calls itself or is not there', () => {
    const twice = project({ options: [option('o', {}), option('o', {})] });
    expect(checkProject(twice).findings[0].message).toMatch(/an option “o” already/);
    expect(trouble({ does: { choice: 'whatNow' } })!.message).toMatch(/calls itself/);
    expect(trouble({ does: { choice: 'whatNext' } })!.message).toMatch(/no choice “whatNext”/);
  });
});
