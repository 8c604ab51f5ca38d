import { describe, expect, it } from 'vitest';
import { cornerProject, KEEN_SIGHT, programOf } from '../../testing/orchard.fixture.ts';
import type { Question, Statement } from './statement.ts';
import { find, ran } from './statements.fixture.ts';
import { whyNotNamed } from './why-not.ts';
import { why } from './why.ts';

describe('rows of trees', () => {
  const guarding = programOf(
    (() => {
      const document = cornerProject({
        sight: KEEN_SIGHT,
        machine: {
          initial: 'watch',
          states: [
            {
              id: 'watch',
              title: 'Watch',
              activity: { tree: 'guard' },
              transitions: [{ to: 'off', after: 9 }],
            },
            { id: 'off', transitions: [{ to: 'watch', after: 9 }] },
          ],
        },
      });
      document.minds.keeper.trees = {
        guard: {
          root: {
            selector: [
              {
                title: 'Go after it',
                when: 'attention.strength > 0.5 && distance(attention.of) < 3',
                sequence: [
                  { do: 'say', text: 'There!' },
                  { do: 'moveTo', to: 'attention.of', within: 1 },
                ],
              },
              { title: 'Look about', repeat: { do: 'turn', by: 90 } },
            ],
          },
        },
      };
      return document;
    })(),
  );
  const guarded = ran(guarding);
  const question = (tick: number): Question => ({ run: guarded, agent: 'keeper', tick });

  it('why names what each row came to', () => {
    const answer = why(question(60));
    const doing = find(answer, 'it does guard')!;
    expect(doing.cause.map(({ statement, holds }) => `${holds ? '+' : '-'} ${statement}`)).toEqual([
      '+ Selector: runs',
      '+ · Look about: runs',
      '+ · · Turn 90: runs',
    ]);
  });

  it('why not names the guard that does not hold, and when it came nearest', () => {
    const answer = whyNotNamed(question(60), 'Go after it');
    expect(answer).toMatchObject({ statement: 'keeper does “Go after it”', holds: false });
    expect(find(answer, 'it is in Watch')).toMatchObject({ holds: true, since: 1 });
    const far = find(answer, 'distance(attention.of) < 3')!;
    expect(far).toMatchObject({ holds: false, since: 1 });
    expect(far.nearest!.text).toMatch(/^[456](\.\d+)? < 3$/);
  });

  it('why not of a row inside one that was not reached says which did not let it', () => {
    const answer = whyNotNamed(question(60), 'guard:4');
    expect(answer.statement).toBe('keeper does “Move to attention.of within 1”');
    expect(find(answer, '“Say There!” before it succeeds')).toMatchObject({
      holds: false,
      values: [{ part: 'it', value: 'was not reached' }],
    });
  });

  it('why not of a row beside the one that was drawn says that another was', () => {
    const document = cornerProject({
      machine: { initial: 'roll', states: [{ id: 'roll', activity: { tree: 'dice' } }] },
    });
    document.minds.keeper.trees = {
      dice: {
        root: {
          random: [
            { title: 'Heads', do: 'wait', seconds: 9, weight: 1 },
            { title: 'Tails', do: 'wait', seconds: 9, weight: 0 },
          ],
        },
      },
    };
    const run = ran(programOf(document));
    const asked = (row: string) => whyNotNamed({ run, agent: 'keeper', tick: 60 }, row);
    expect(find(asked('Tails'), 'draws it')).toMatchObject({
      holds: false,
      values: [{ part: 'it', value: 'another was drawn' }],
    });
    expect(asked('Heads')).toMatchObject({ holds: true });
  });

  it('why not of a row that runs says so', () => {
    expect(whyNotNamed(question(60), 'Look about')).toMatchObject({ holds: true });
  });
});

describe('why not of a row of rules', () => {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    machine: { initial: 'watch', states: [{ id: 'watch', activity: { rules: 'conduct' } }] },
  });
  document.minds.keeper.rules = {
    conduct: {
      rows: [
        {
          title: 'Near',
          when: 'attention.strength > 0.1 && distance(attention.of) < 3',
          do: [{ do: 'moveTo', to: 'attention.of', within: 1 }],
          else: [{ do: 'say', text: 'Far off.' }],
        },
        { title: 'Look', when: 'true', do: [{ do: 'turn', by: 90 }] },
        { title: 'Look again', when: 'true', do: [{ do: 'turn', by: 45 }] },
        {
          title: 'Once',
          when: 'true',
          edge: true,
          do: [{ do: 'say', text: 'Here I am.' }],
          rows: [
            { title: 'Within', when: 'attention.strength > 5', do: [{ do: 'say', text: 'You!' }] },
          ],
        },
      ],
    },
  };
  const run = ran(programOf(document));
  const asked = (row: string, tick = 60) => whyNotNamed({ run, agent: 'keeper', tick }, row);
  const failing = ({ cause }: Statement) =>
    cause
      .filter(({ holds }) => !holds)
      .map(({ statement, values }) => [statement, values[0]?.value]);

  it('names the part of its condition that does not hold, and when it came nearest', () => {
    const answer = asked('Near');
    expect(answer).toMatchObject({ statement: 'keeper does “Near”', holds: false });
    expect(failing(answer).map(([statement]) => statement)).toEqual(['distance(attention.of) < 3']);
    expect(find(answer, 'distance(attention.of) < 3')!.nearest!.text).toMatch(/ < 3$/);
    expect(asked('conduct:3').statement).toBe('keeper does “Move to attention.of within 1”');
  });

  it('of an else asks for the opposite of what it belongs to', () => {
    const condition = '!(attention.strength > 0.1 && distance(attention.of) < 3)';
    expect(find(asked('else'), condition)).toMatchObject({ holds: true });
    expect(asked('else').holds).toBe(true);
  });

  it('says which row above uses what it needs', () => {
    const [, second] = [asked('Turn 90'), asked('Turn 45')];
    expect(second.holds).toBe(false);
    expect(failing(second)).toEqual([
      ['what it needs is used by no row above', '“Turn 90” uses it'],
    ]);
    expect(asked('Turn 90').holds).toBe(true);
  });

  it('says that what fires once has been true before, and so of what is inside it', () => {
    expect(asked('Once', 1)).toMatchObject({ holds: true });
    expect(failing(asked('Once'))).toEqual([
      ['that has only just become true', 'it was so before'],
    ]);
    expect(failing(asked('Within')).map(([statement]) => statement)).toEqual([
      'that has only just become true',
      'attention.strength > 5',
    ]);
  });
});
