import { describe, expect, it } from 'vitest';
import type { MindDocument, ProjectDocument } from '../../model/documents.ts';
import { gameProject } from '../../testing/director.fixture.ts';
import { programOf } from '../../testing/orchard.fixture.ts';
import { advance, createRun } from '../run.ts';
import { answer } from './asking.ts';
import { why } from './why.ts';

const director: MindDocument = {
  title: 'Game',
  machine: {
    initial: 'plays',
    states: [
      { id: 'plays', transitions: [{ to: 'over', after: 0.5 }] },
      {
        id: 'over',
        title: 'Over',
        entry: [{ do: 'end', result: 'lost', words: 'Too late.' }],
      },
    ],
  },
};

function ran(document: ProjectDocument) {
  const run = createRun(programOf(document), 1);
  for (let i = 0; i < 90; i++) advance(run);
  return (tick: number, agent = 'keeper') => answer({ run, agent, tick }, { ask: 'ended' });
}

describe('why the run ended', () => {
  it('is answered of any agent: who said so, when, and why it did', () => {
    const ask = ran(gameProject({ director }));
    const { statement, since, cause } = ask(80);
    expect(statement).toBe('the run ended: lost. Too late.');
    expect(since).toBe(31);
    expect(cause.map((each) => each.statement)).toEqual([
      'the director did “end”',
      'Director is in Over',
    ]);
    expect(JSON.stringify(cause[1])).toContain('its time was over');
    expect(ask(20)).toMatchObject({ holds: false });
  });

  it('is that the schedule was over, where no one said so', () => {
    const ask = ran(
      gameProject({
        ground: { schedule: { modes: [{ mode: 'day', for: 0.5 }], afterwards: 'end' } },
      }),
    );
    expect(ask(80).cause.map((each) => each.statement)).toEqual([
      'the last mode of the schedule was over',
    ]);
  });
});

it('a director never sleeps, and is not said to', () => {
  const run = createRun(programOf(gameProject({ director })), 1);
  for (let i = 0; i < 20; i++) advance(run);
  expect(JSON.stringify(why({ run, agent: 'director', tick: 15 }))).not.toContain('sleep');
});
