import { describe, expect, it } from 'vitest';
import type { RuleDocument } from '../../model/documents.ts';
import { cornerProject, KEEN_SIGHT, story, watch } from '../../testing/orchard.fixture.ts';

const say = (text: string) => [{ do: 'say', text }];

/** A keeper that is these rules and nothing else. */
function ruled(rows: RuleDocument[]) {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    memory: { seen: { type: 'flag' }, tally: { type: 'number', default: 0 } },
  });
  Object.assign(document.minds.keeper, { activity: { rules: 'all' }, rules: { all: { rows } } });
  return watch(document);
}

function heard(entries: Parameters<typeof story>[0]): string {
  return entries
    .flatMap((entry) => (entry.kind === 'say' ? [`${entry.text}@${entry.tick}`] : []))
    .join(' ');
}

describe('rows', () => {
  it('level: fires each decision while it holds; edge: once, and again after a break', () => {
    const when = 'time % 0.1 < 0.045';
    const level = ruled([{ when, do: say('l') }]);
    level.run(14);
    expect(heard(level.entries)).toBe('l@1 l@2 l@6 l@7 l@8 l@12 l@13 l@14');
    const edge = ruled([{ when, edge: true, do: say('e') }]);
    edge.run(14);
    expect(heard(edge.entries)).toBe('e@1 e@6 e@12');
  });

  it('are all tested on the same facts, before any of them acts', () => {
    const { run, entries } = ruled([
      { when: '!seen', do: [{ do: 'remember', key: 'seen', value: 'true' }, ...say('first')] },
      { when: 'seen', do: say('second') },
      { when: '!seen', do: say('third') },
    ]);
    run(2);
    // The voice belongs to the uppermost row that wants it, so “third” is overruled in tick 1.
    expect(heard(entries)).toBe('first@1 second@2');
    expect(entries.filter(({ kind }) => kind === 'overruled')).toMatchObject([
      { tick: 1, row: 7, action: 'say', by: 3 },
    ]);
  });

  it('a dependent row is tested only when its parent fires', () => {
    const { run, entries } = ruled([
      {
        when: 'time < 0.06',
        rows: [{ when: 'time > 0.03', do: say('inner') }],
      },
    ]);
    run(10);
    expect(heard(entries)).toBe('inner@2 inner@3');
  });

  it('an edge row below another starts again each time the parent fires again', () => {
    const { run, entries } = ruled([
      { when: 'time % 0.1 < 0.045', rows: [{ when: 'true', edge: true, do: say('in') }] },
    ]);
    run(14);
    expect(heard(entries)).toBe('in@1 in@6 in@12');
  });

  it('else is done while the row does not hold', () => {
    const { run, entries } = ruled([{ when: 'time > 0.04', do: say('late'), else: say('early') }]);
    run(4);
    expect(heard(entries)).toBe('early@1 early@2 late@3 late@4');
  });

  it('the else of an edge row is done when it turns false', () => {
    const { run, entries } = ruled([
      { when: 'time % 0.1 < 0.045', edge: true, do: say('on'), else: say('off') },
    ]);
    run(14);
    expect(heard(entries)).toBe('on@1 off@3 on@6 off@9 on@12');
  });
});

describe('actions that take time', () => {
  it('of a level row stop with the row, of an edge row go on to their end', () => {
    const turning = (edge: boolean): RuleDocument => ({
      when: 'time < 0.1',
      ...(edge ? { edge } : {}),
      do: [{ do: 'wait', seconds: 0.5 }],
    });
    const level = ruled([turning(false)]);
    level.run(40);
    expect(story(level.entries).filter((line) => line.includes('wait'))).toEqual([
      'begin wait in always row 3',
      'stopped wait in always row 3',
    ]);
    const edge = ruled([turning(true)]);
    edge.run(40);
    expect(story(edge.entries).filter((line) => line.includes('wait'))).toEqual([
      'begin wait in always row 3',
      'success wait in always row 3',
    ]);
  });

  it('give their channel up to a row above, and take it back when that is over', () => {
    const { run, entries } = ruled([
      { when: 'time > 0.1 && time < 0.2', do: [{ do: 'turn', by: -90 }] },
      { when: 'true', do: [{ do: 'turn', by: 360 }] },
    ]);
    run(20);
    expect(story(entries).filter((line) => /turn/.test(line))).toEqual([
      'begin turn in always row 5',
      'stopped turn in always row 5',
      'begin turn in always row 3',
      'stopped turn in always row 3',
      'begin turn in always row 5',
    ]);
    expect(entries.filter(({ kind }) => kind === 'overruled').map(({ tick }) => tick)).toEqual([
      7, 8, 9, 10, 11,
    ]);
  });

  it('are stopped with the state that runs the rules', () => {
    const document = cornerProject({
      machine: {
        initial: 'guard',
        states: [
          { id: 'guard', activity: { rules: 'all' }, transitions: [{ to: 'rest', after: 0.2 }] },
          { id: 'rest' },
        ],
      },
    });
    document.minds.keeper.rules = {
      all: { rows: [{ when: 'true', do: [{ do: 'wait', seconds: 9 }] }] },
    };
    const { run, entries } = watch(document);
    run(20);
    expect(story(entries).slice(-4)).toEqual([
      'stopped wait in guard row 3',
      'stopped all in guard',
      'exit guard',
      'enter rest',
    ]);
  });
});
