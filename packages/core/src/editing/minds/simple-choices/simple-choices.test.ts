import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkProject } from '../../../findings/check-project.ts';
import { hasErrors } from '../../../compile/finding.ts';
import type { MoveDocument, ProjectDocument } from '../../../model/documents.ts';
import { readProject } from '../../../model/file/read-project.ts';
import { serialiseProject } from '../../../model/file/serialise.ts';
import { cornerProject, KEEN_SIGHT, watch } from '../../../testing/orchard.fixture.ts';
import { applyCommand } from '../../apply-command.ts';
import { repertoireOf, type FormValues, type SimpleForm } from './form.ts';
import { SIMPLE_FORMS, simpleFormOf, usualValues, writeSimpleForm } from './simple-choices.ts';

const place = { mind: 'keeper', choice: 'fight' };
const JAB: MoveDocument = {
  title: 'Jab',
  windUp: 0.2,
  active: 0.1,
  recovery: 0.2,
  reach: 1,
  damage: 1,
};

/** A keeper beside a gleaner that stands, with an empty choice that it weighs all the time. */
function project(): ProjectDocument {
  const document = cornerProject({
    sight: { ...KEEN_SIGHT, cones: [{ range: 15, halfAngle: 170, gain: 40 }] },
  });
  const { keeper, gleaner } = document.archetypes;
  keeper.moves = {
    jab: JAB,
    trip: { ...JAB, title: 'Trip', from: 0, to: 0.4 },
    hop: { kind: 'dodge', active: 0.2 },
  };
  keeper.guards = { high: { title: 'High', raise: 0.1 } };
  gleaner.health = 10_000;
  keeper.health = 10_000;
  document.minds.keeper = {
    title: 'Keeper',
    activity: { choice: 'fight' },
    choices: { fight: { title: 'Fight', note: 'Mine.', options: [] } },
  };
  return document;
}

function written(form: SimpleForm, values: FormValues): ProjectDocument {
  const document = project();
  return applyCommand(document, writeSimpleForm(document, place, form, values));
}

const form = (id: string) => SIMPLE_FORMS.find((each) => each.id === id)!;
const can = repertoireOf(project(), 'keeper');
const usual = (id: string, more: FormValues = {}) =>
  written(form(id), { ...usualValues(form(id), can), ...more });

const count = (entries: readonly { kind: string }[]) =>
  entries.filter(({ kind }) => kind === 'move').length;

describe('what a body can do', () => {
  it('is what all bodies with the mind have, dodges aside', () => {
    expect(can).toEqual({
      mind: 'keeper',
      strikes: [
        { name: 'jab', title: 'Jab' },
        { name: 'trip', title: 'Trip' },
      ],
      guards: [{ name: 'high', title: 'High' }],
    });
    const two = project();
    two.grounds.corner.agents.keeper.overrides = { moves: { poke: JAB } };
    two.archetypes.other = { ...two.archetypes.keeper, moves: { jab: JAB } };
    expect(repertoireOf(two, 'keeper').strikes.map(({ name }) => name)).toEqual(['jab']);
  });
});

describe.each(SIMPLE_FORMS.map((each) => [each.title, each] as const))('%s', (_, simple) => {
  const fields = simple.fields(can);
  const values = fc.record(
    Object.fromEntries(
      fields.map(({ name, minimum, maximum, step }) => [
        name,
        fc
          .integer({ min: Math.ceil(minimum / step), max: Math.floor(maximum / step) })
          .map((steps) => Math.round(steps * step * 100) / 100),
      ]),
    ),
  );

  it('writes what runs, and is read back from it, also from a file', () => {
    fc.assert(
      fc.property(values, (chosen) => {
        // Far begins behind near.
        const made = simple.id === 'byDistance' ? { ...chosen, far: chosen.near + 2 } : chosen;
        const document = written(simple, made);
        const { findings } = checkProject(document);
        expect(findings.filter(({ severity }) => severity === 'error')).toEqual([]);
        const read = simpleFormOf(document, place);
        expect(read?.form.id).toBe(simple.id);
        for (const [name, value] of Object.entries(made))
          expect(read?.values[name]).toBeCloseTo(value, 1);
        const file = readProject(JSON.parse(serialiseProject(document)));
        expect(file.ok && simpleFormOf(file.document, place)?.values).toEqual(read?.values);
      }),
      { numRuns: 40 },
    );
  });

  it('keeps title and note, and is one step', () => {
    const document = project();
    const after = applyCommand(
      document,
      writeSimpleForm(document, place, simple, usualValues(simple, can)),
    );
    expect(after.minds.keeper.choices!.fight).toMatchObject({ title: 'Fight', note: 'Mine.' });
    expect(document.minds.keeper.choices!.fight.options).toEqual([]);
  });

  it('is no longer what a choice is once a number was changed by hand', () => {
    const document = usual(simple.id);
    const { options } = document.minds.keeper.choices!.fight;
    options.at(-1)!.cooldown = 3;
    expect(simpleFormOf(document, place)).toBeNull();
  });

  it('has nothing wrong in it where no body has a move', () => {
    const bare = project();
    delete bare.archetypes.keeper.moves;
    delete bare.archetypes.keeper.guards;
    const nothing = repertoireOf(bare, 'keeper');
    const command = writeSimpleForm(bare, place, simple, usualValues(simple, nothing));
    const document = applyCommand(bare, command);
    expect(hasErrors(checkProject(document).findings)).toBe(false);
    expect(simpleFormOf(document, place)?.values).toEqual(usualValues(simple, nothing));
  });
});

describe('a few sliders', () => {
  it('keep it as near as it wants to be', () => {
    const away = (near: number) => {
      const { world, run } = watch(usual('sliders', { near, strikes: 0, guards: 0 }));
      run(900);
      const [a, b] = world.agents;
      return Math.hypot(a.x - b.x, a.y - b.y);
    };
    expect(away(2)).toBeGreaterThan(1.2);
    expect(away(2)).toBeLessThan(3);
    expect(away(4)).toBeGreaterThan(2.4);
    expect(away(4)).toBeLessThan(6);
  });

  it('let it strike the more often the farther they are up, and less often the longer it waits', () => {
    const strikes = (values: FormValues) => {
      const { entries, run } = watch(usual('sliders', { near: 1.4, guards: 0, ...values }));
      run(3600);
      return count(entries);
    };
    expect(strikes({ strikes: 0 })).toBe(0);
    const [seldom, often] = [
      strikes({ strikes: 0.1, waits: 0 }),
      strikes({ strikes: 1, waits: 0 }),
    ];
    expect(seldom).toBeGreaterThan(0);
    expect(often).toBeGreaterThan(seldom * 1.5);
    expect(strikes({ strikes: 1, waits: 5 })).toBeLessThan(often / 2);
  });
});

describe('a chance at an interval', () => {
  it('comes up as often as it says', () => {
    const { entries, run } = watch(usual('roll', { every: 0.5, chance: 0.3, distance: 2 }));
    run(60 * 300);
    const rolls = entries.filter(({ kind }) => kind === 'picked').length;
    const strikes = count(entries);
    // A strike takes half a second more.
    expect(rolls * 0.5 + strikes * 0.5).toBeCloseTo(300, -1);
    const error = Math.sqrt((0.3 * 0.7) / rolls);
    expect(Math.abs(strikes / rolls - 0.3)).toBeLessThan(3 * error);
  });
});

describe('weights by distance', () => {
  it('decide by how far it is what is drawn', () => {
    const document = usual('byDistance', {
      near: 3,
      far: 6,
      'closeIn.near': 0,
      'closeIn.middle': 0,
      'closeIn.far': 0,
      'circle.near': 0,
      'circle.middle': 0,
      'circle.far': 0,
      'strikeJab.near': 0,
      'strikeJab.middle': 0,
      'strikeJab.far': 1,
      'strikeTrip.near': 1,
      'strikeTrip.middle': 1,
      'strikeTrip.far': 0,
    });
    const made = (x: number) => {
      document.grounds.corner.agents.gleaner.at = [x, 5];
      const { entries, run } = watch(document);
      run(200);
      return [...new Set(entries.flatMap((entry) => (entry.kind === 'move' ? [entry.move] : [])))];
    };
    // The keeper stands at 2.
    expect(made(4)).toEqual(['trip']);
    expect(made(12)).toEqual(['jab']);
  });
});
