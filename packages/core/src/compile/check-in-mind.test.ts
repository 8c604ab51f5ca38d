import { describe, expect, it } from 'vitest';
import { cornerProject } from '../testing/orchard.fixture.ts';
import { checkInMind } from './check-in-mind.ts';
import type { ExpressionPlace } from './wanted-types.ts';
import { compileProject } from './compile-project.ts';

const document = cornerProject({
  memory: {
    quarry: { type: 'agent' },
    patience: { type: 'number', unit: 's', default: 2 },
    lair: { type: 'point' },
  },
  machine: { initial: 'stand', states: [{ id: 'stand' }] },
  ground: {
    routes: {
      round: {
        points: [
          [1, 1],
          [2, 1],
        ],
      },
    },
  },
});
const before = JSON.stringify(document);

const GUARD: ExpressionPlace = { guard: true };
const parameter = (
  action: string,
  name: string,
  rest: Record<string, string> = {},
): ExpressionPlace => ({ action: { do: action, ...rest }, parameter: name });

/** The first fault of an expression at its place; empty for none. */
function fault(source: string, place: ExpressionPlace): string {
  return checkInMind(document, 'keeper', source, place)[0]?.message ?? '';
}

describe('an expression at its place', () => {
  it.each<[string, ExpressionPlace, string]>([
    ['sees(quarry)', GUARD, ''],
    ['distance(quarry)', GUARD, 'true or false is needed'],
    ['quarry', parameter('moveTo', 'to'), ''],
    ['lair', parameter('moveTo', 'to'), ''],
    ['round', parameter('moveTo', 'to'), 'a point or an agent is needed'],
    ['round', parameter('followRoute', 'route'), ''],
    ['rond', parameter('followRoute', 'route'), 'Did you mean “round”?'],
    ['distance(quarry) / 2', parameter('moveTo', 'within'), ''],
    ['patience', parameter('moveTo', 'within'), 'This gives s; m is needed'],
    ['patience * 2', parameter('wait', 'seconds'), ''],
    ['attention.of', parameter('remember', 'value', { key: 'quarry' }), ''],
    ['time', parameter('remember', 'value', { key: 'quarry' }), 'an agent is needed'],
    ['time', parameter('remember', 'value', { key: 'patience' }), ''],
    [
      'distance(lair)',
      parameter('remember', 'value', { key: 'patience' }),
      'This gives m; s is needed',
    ],
    ['anything(', GUARD, 'stops too early'],
  ])('%s in %o: %s', (source, place, words) => {
    if (words === '') expect(fault(source, place)).toBe('');
    else expect(fault(source, place)).toContain(words);
  });

  it('says what the compiler would say, and changes nothing', () => {
    const wrong = 'seez(quarry)';
    const edited = structuredClone(document);
    edited.minds.keeper.machine!.states[0].transitions = [{ to: 'stand', when: wrong }];
    const [compiled] = compileProject(edited).findings;
    expect(fault(wrong, GUARD)).toBe(compiled.message);
    expect(JSON.stringify(document)).toBe(before);
  });
});
