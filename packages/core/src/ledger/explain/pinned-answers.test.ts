import { describe, it } from 'vitest';
import { namesOf } from '../../model/names.ts';
import { demoDocument } from '../../testing/demo.fixture.ts';
import { expectPinned, playedDemo } from '../../testing/pinned.fixture.ts';
import { readRows } from '../../world/readout/rows.ts';
import type { Run } from '../run.ts';
import { whatEverLedTo, whoTold, whyRemembered } from './ever.ts';
import { whyItMoves } from './moving.ts';
import { howItNotices } from './noticing.ts';
import { explanationLines, QuestionError, type Question, type Statement } from './statement.ts';
import { whyNobody } from './waves.ts';
import { whyNot } from './why-not.ts';
import { why } from './why.ts';

/** All that can be asked of some ticks of the demos is answered in the same words as before. */

type Asking = (question: Question) => Statement;

/** What can be asked of whoever has a mind. */
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
  return [
    ['why', why],
    ...[...states, ...options, ...new Set(rows)].map((what): [string, Asking] => [
      `why not ${what}`,
      (question) => whyNot(question, what),
    ]),
    ...states
      .slice(0, 3)
      .map((state): [string, Asking] => [
        `what ever led to ${state}`,
        (question) => whatEverLedTo(question, state),
      ]),
    ['who told it', whoTold],
    ...agent
      .stack!.program.keys.filter(({ name: key }) => !key.includes('.'))
      .slice(0, 4)
      .map(({ name: key }): [string, Asking] => [
        `why it remembers ${key}`,
        (question) => whyRemembered(question, key),
      ]),
    ['why it moves as it does', whyItMoves],
    ...others.map(({ name: other }): [string, Asking] => [
      `how it notices ${other}`,
      (question) => howItNotices(question, other),
    ]),
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
        ['warden1', 330],
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
      ...explanationLines(whyNobody({ run, agent: 'director', tick: 250 }, name), 60),
    ]);
    expectPinned('answers/harvest-night', [lines]);
  });
});
