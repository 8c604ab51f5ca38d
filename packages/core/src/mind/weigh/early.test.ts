import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ChoiceDocument, OptionDocument } from '../../model/documents.ts';
import { programOf } from '../../testing/orchard.fixture.ts';
import { worldHash } from '../../world/handover/snapshot.ts';
import { tick } from '../../world/phases/tick.ts';
import { createWorld, setRecorder } from '../../world/world.ts';
import { considers, option, project } from './scoring.fixture.ts';

describe('stopping early', () => {
  const share = fc.integer({ min: 0, max: 10 }).map((tenths) => tenths / 10);
  const consideration = (inputs: readonly string[]) =>
    fc.record(
      {
        input: fc.oneof(share.map(String), fc.constantFrom(...inputs)),
        importance: fc.constantFrom(0, 0.5, 1, 2),
        veto: fc.constantFrom(true as const),
        curve: fc.constantFrom(
          { shape: 'power' as const, exponent: 2 },
          { shape: 'step' as const, at: 0.5 },
          { shape: 'linear' as const, slope: -1, offset: 1 },
        ),
      },
      { requiredKeys: ['input'] },
    );
  /** An option that reads memory, and what it is weighed for if there is something, in all that it reads. */
  const optionOf = (each: OptionDocument['each'] | undefined) => {
    const inputs = ['a', 'b', '1 - a', 'distance(attention.of) / 9'];
    const near = each ? ['distance(one) / 9'] : [];
    return fc
      .record(
        {
          considerations: fc.array(consideration([...inputs, ...near]), { maxLength: 5 }),
          rank: fc.integer({ min: 0, max: 1 }),
          conduct: fc.constant(true as const),
          weight: fc.oneof(fc.constantFrom('b', ...near), fc.constantFrom(0.5, 1, 3)),
          cost: fc.oneof(fc.constantFrom('a / 2', ...near), fc.constantFrom(-0.3, 0, 0.4)),
          when: fc.constantFrom('a < 0.6', 'b > 0.3', ...near.map((input) => `${input} < 0.45`)),
        },
        { requiredKeys: ['considerations'] },
      )
      .map(({ conduct, ...made }) => ({
        ...made,
        ...(each ? { each } : {}),
        // A rule of conduct needs a guard.
        ...(conduct && made.when ? { conduct } : {}),
      }));
  };
  const anOption = fc.oneof(
    optionOf(undefined),
    optionOf({ as: 'one', agents: 'hostile' }),
    optionOf({ as: 'one', places: 5, within: 3 }),
  );
  const choice = fc.record({
    combine: fc.constantFrom('mean' as const, 'product' as const, 'sum' as const),
    pick: fc.constantFrom('best' as const, 'weighted' as const),
    margin: share,
    minScore: fc.constantFrom(-0.5, 0, 0.3),
    commitment: fc.constantFrom(0, 0.2),
    options: fc
      .array(anOption, { minLength: 1, maxLength: 5 })
      .map((options) => options.map((more, i) => option(`o${i}`, more))),
  });

  /** What a score comes to where it must be so much at least; null where that was given up. */
  function asked(
    combine: ChoiceDocument['combine'],
    more: Partial<OptionDocument>,
    atLeast: number,
  ): number | null {
    const world = createWorld(programOf(project({ combine, options: [option('o', more)] })));
    const keeper = world.agents.find(({ name }) => name === 'keeper')!;
    const [weighed] = [...keeper.minds[0].machine.states[0].activity!.choices.values()];
    const { scorer, field } = weighed.weigher.options[0];
    field.begin();
    field.find(keeper);
    const io = Float64Array.of(atLeast);
    scorer.score(keeper, 0, io, null);
    return io[0] === -Infinity ? null : Number(io[0].toFixed(9));
  }

  it.each<[ChoiceDocument['combine'], Partial<OptionDocument>, number]>([
    ['product', considers(0.5, 0.4), 0.2],
    ['product', considers({ input: '0.5', importance: 2 }, 0.4), 0.1],
    ['product', { ...considers(0.5, 0.4), weight: 3 }, 0.6],
    ['product', { ...considers(0.5, 0.4), weight: 3, cost: 0.2 }, 0.4],
    ['product', { ...considers(0.5, 0.4), weight: '3', cost: '0.2' }, 0.4],
    ['mean', considers(0.5, 0.5), 0.5],
    ['mean', considers({ input: '0.25', importance: 3 }, 1), Number((0.25 ** 0.75).toFixed(9))],
    ['mean', { ...considers(0.64, 0.25), weight: 2, cost: -0.1 }, 0.9],
    ['sum', considers(0.5, 0.1), 0.3],
    ['sum', considers({ input: '0.5', importance: 3 }, 0.1), 0.4],
    ['sum', { ...considers(0.5, 0.1), weight: 2, cost: 0.5 }, 0.1],
    ['sum', considers({ input: '0.9', veto: true }, 0.1), 0.5],
  ])('%s of %o is given up just where it can’t come to what is asked', (combine, more, score) => {
    expect(asked(combine, more, -Infinity)).toBe(score);
    expect(asked(combine, more, score - 1e-6)).toBe(score);
    expect(asked(combine, more, score + 1e-6)).toBeNull();
    expect(asked(combine, more, 1e6)).toBeNull();
  });

  it.each<[string, ChoiceDocument['combine'], Partial<OptionDocument>, number]>([
    ['without a consideration', 'mean', { weight: 0.5 }, 0.5],
    [
      'with considerations that count for nothing',
      'mean',
      considers({ input: '0.2', importance: 0 }),
      1,
    ],
    ['with a weight of nothing', 'mean', { ...considers(0.5), weight: 0 }, 0],
    ['with a negative weight', 'product', { ...considers(0.5), weight: -1 }, -0.5],
    [
      'with a weight that is not known',
      'mean',
      { ...considers(0.5), weight: 'distance(heard.place)' },
      0,
    ],
    ['that pays more than is asked', 'mean', { ...considers(0.5), cost: -5 }, 5.5],
  ])('an option %s is worked out', (_, combine, more, score) => {
    expect(asked(combine, more, score)).toBe(score);
  });

  it('a veto has the last word below what is asked, too', () => {
    expect(asked('sum', { ...considers({ input: '0', veto: true }, 1), cost: 3 }, -9)).toBe(0);
  });

  it('picks what working everything out picks', () => {
    fc.assert(
      fc.property(choice, fc.array(share, { minLength: 12, maxLength: 12 }), (document, values) => {
        const weighing = project(document);
        weighing.archetypes.keeper.obedience = 0.5;
        const program = programOf(weighing);
        const [early, full] = [createWorld(program), createWorld(program)];
        setRecorder(full, () => {});
        const set = (world: typeof full, key: number, value: number) => {
          const keeper = world.agents.find(({ name }) => name === 'keeper')!;
          keeper.memory[keeper.stack!.program.keys[key].slot] = value;
        };
        values.forEach((value, i) => {
          for (const world of [early, full]) {
            set(world, i % 2, value);
            tick(world);
          }
        });
        expect(worldHash(early)).toBe(worldHash(full));
      }),
      { numRuns: 250 },
    );
  });
});
