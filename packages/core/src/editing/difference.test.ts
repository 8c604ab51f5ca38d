import { describe, expect, it } from 'vitest';
import { nightWatch } from '../testing/demo.fixture.ts';
import { applyCommand } from './apply-command.ts';
import type { DocumentCommand } from './commands/commands.ts';
import { differenceOf } from './difference.ts';

const document = nightWatch();
const mind = 'warden';
const after = (...commands: DocumentCommand[]) => commands.reduce(applyCommand, document);
const words = (...commands: DocumentCommand[]) =>
  differenceOf(document, after(...commands)).map(
    ({ how, what, from, to }) =>
      `${how}: ${what}${from ? ` from ${from}` : ''}${to ? ` to ${to}` : ''}`,
  );

describe('the difference of two documents', () => {
  it('is none where nothing has changed', () => {
    expect(differenceOf(document, nightWatch())).toEqual([]);
  });

  it('names a number with what it was and what it is', () => {
    const change = { for: 3 };
    expect(words({ command: 'changeTransition', mind, state: 'chase', index: 1, change })).toEqual([
      'changed: for of transition 2 of Chase of Warden from 1.5 to 3',
    ]);
  });

  it('names a state that has come, gone or moved, and nothing besides', () => {
    const state = { id: 'rest', title: 'Rest' };
    expect(words({ command: 'insertState', mind, parent: null, state, at: 0 })).toEqual([
      'added: Rest of Warden to Rest',
    ]);
    const gone = words({ command: 'removeState', mind, state: 'collar' });
    expect(gone).toContain('removed: Collar of Roused of Warden from Collar');
    const moved = words({ command: 'moveState', mind, state: 'comb', parent: 'roused', at: 0 });
    expect(moved).toEqual(['moved: states inside of Roused of Warden']);
  });

  it('follows a row that was put in between others', () => {
    const path = ['minds', mind, 'trees', 'combThePlace', 'root', 'sequence', 1];
    expect(
      words({ command: 'put', how: 'insert', path, value: { do: 'wait', seconds: 2 } }),
    ).toEqual([expect.stringMatching(/^added: “Wait 2” of .* to Wait 2$/)]);
  });

  it('says of a row of another kind what it was', () => {
    const path = ['minds', mind, 'trees', 'combThePlace', 'root', 'sequence', 3];
    const [line] = words({ command: 'put', how: 'set', path, value: { do: 'stop' } });
    expect(line).toMatch(/^changed: .* from Forget quarry to Stop$/);
  });

  it('names a graded row of an option', () => {
    const path = ['minds', mind, 'choices', 'next'];
    const choiceOf = (strength: number) => ({
      combine: 'graded',
      options: [
        { id: 'one', does: { do: 'stop' }, grades: [{ when: { range: 'near' }, strength }] },
      ],
    });
    const put = (strength: number) =>
      ({ command: 'put', how: 'set', path, value: choiceOf(strength) }) as const;
    const before = after(put(1));
    expect(
      differenceOf(before, applyCommand(before, put(0.5))).map(({ what, from, to }) => [
        what,
        from,
        to,
      ]),
    ).toEqual([['strength of graded row 1 of option one of Warden', '1', '0.5']]);
  });

  it('names the cooldown of an option, though a kind of node is called so too', () => {
    const path = ['minds', mind, 'choices', 'next'];
    const choice = { options: [{ id: 'one', does: { do: 'stop' } }] };
    const before = after({ command: 'put', how: 'set', path, value: choice });
    const cooldown = [...path, 'options', 0, 'cooldown'];
    const cooled = applyCommand(before, { command: 'put', how: 'set', path: cooldown, value: 2 });
    expect(differenceOf(before, cooled)).toMatchObject([{ how: 'added', path: cooldown, to: '2' }]);
  });

  it('takes a place as one thing', () => {
    const [name] = Object.keys(document.grounds.orchard.agents);
    const path = ['grounds', 'orchard', 'agents', name, 'at'];
    const [line, ...more] = words({ command: 'put', how: 'set', path, value: [3, 4] });
    expect(line).toMatch(/to 3, 4$/);
    expect(more).toEqual([]);
  });
});
