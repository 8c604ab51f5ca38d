import { describe, it } from 'vitest';
import { namesOf } from '../../model/names/names.ts';
import { demoDocument } from '../../testing/demo.fixture.ts';
import { expectPinned, playedDemo } from '../../testing/pinned.fixture.ts';
import { readRows } from '../../world/readout/rows.ts';
import type { Run } from '../run.ts';
import { whatEverLedTo, whoTold, whyRemembered } from './ever.ts';
import { whyItMoves } from './moving.ts';
import { howItNotices } from './noticing.ts';
import { explanationLines, QuestionError, type Question, type Statement } from './statement.ts';
import { whyNoAgent } from './waves.ts';
import { whyNotNamed } from './why-not.ts';
import { why } from './why.ts';

/** All that can be asked of some ticks of the demos is answered in the same words as before. */

type Asking = (question: Question) => Statement;

/** What can be asked of an agent with a mind. */
function questionsOf({ world }: Run, name: string): [string, Asking][] {
  const agent = world.agents.find((each) => each.name === name)!;
  const others = world.agents.filter((other) => other !== agent && !other.away).slice(0, 2);
  const states = agent.minds[0].program.machine.states
    .filter(({ kind }) => !kind.toLowerCase().endsWith('history'))
    .map(({ id }) => id);
  const options = agent.minds[0].machine.states.flatMap(({ activity }) =>
    [...(activity?.choices.values() ?? [])].flatMap(({ program }) =>
      program.options.map(({ id }) => `${program.name}:${id}`),
    ),
  );
  const rows = agent.minds[0].program.machine.states.flatMap(({ activity }, state) =>
    readRows(agent, agent.minds[0], state)
      .slice(0, 6)
      .map((_, row) => `${activity!.name}:${row + 1}`),
  );
  const keys = agent
    .stack!.program.keys.map(({ name: key }) => key)
    .filter((key) => !key.includes('.'));
  const each = <T>(
    list: readonly T[],
    words: string,
    ask: (question: Question, of: T) => Statement,
  ) =>
    list.map((of): [string, Asking] => [`${words} ${String(of)}`, (question) => ask(question, of)]);
  return [
    ['why', why],
    ...each([...states, ...options, ...new Set(rows)], 'why not', whyNotNamed),
    ...each(states.slice(0, 3), 'what ever led to', whatEverLedTo),
    ['who told it', whoTold],
    ...each(keys.slice(0, 4), 'why it remembers', whyRemembered),
    ['why it moves as it does', whyItMoves],
    ...each(
      others.map(({ name: other }) => other),
      'how it notices',
      howItNotices,
    ),
  ];
}

function* answers(run: Run, agent: string, tick: number): Generator<string> {
  for (const [asked, ask] of questionsOf(run, agent)) {
    yield `# ${agent}, tick ${tick}: ${asked}`;
    try {
      yield* explanationLines(ask({ run, agent, tick }), 60);
    } catch (error) {
      if (!(error instanceof QuestionError)) throw error;
      yield `can’t be asked: ${error.message}`;
    }
  }
}

describe('answers', () => {
  it.each<[string, [agent: string, tick: number][]]>([
    [
      'windfall',
      [
        ['magpie', 200],
        ['director', 260],
      ],
    ],
    ['hive-day', [['keeper1', 150]]],
    ['bell-hours', [['bee6', 530]]],
    ['keepers-duel', [['keeper', 330]]],
    [
      'night-watch',
      [
        ['warden3', 160],
        ['hound', 240],
      ],
    ],
  ])('of %s', (name, asked) => {
    const run = playedDemo(name, Math.max(...asked.map(([, tick]) => tick)));
    expectPinned(
      `answers/${name}`,
      asked.map(([agent, tick]) => answers(run, agent, tick)),
    );
  });

  it('of who comes with the waves of harvest-night', () => {
    const run = playedDemo('harvest-night', 300);
    const { grounds, start } = demoDocument('harvest-night');
    const lines = namesOf(grounds[start.ground].waves!).flatMap((name) => [
      `# ${name}`,
      ...explanationLines(whyNoAgent({ run, agent: 'director', tick: 250 }, name), 60),
    ]);
    expectPinned('answers/harvest-night', [lines]);
  });
});
