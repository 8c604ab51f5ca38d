import {
  advance,
  checkProject,
  createRun,
  seek,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { expect, it } from 'vitest';
import { newProject } from '../home/new-project.ts';
import { BINS, choicePastOf, createChoiceHistory, keepChoiceHistory } from './choice-history.ts';

/** A keeper whose first option grows with time, and whose second rests after each turn. */
function weighing(): ProjectDocument {
  const document = structuredClone(newProject('To and fro'));
  const [mind] = Object.keys(document.minds);
  document.minds[mind] = {
    title: 'To and fro',
    activity: { choice: 'whatNow' },
    choices: {
      whatNow: {
        options: [
          {
            id: 'grow',
            considerations: [{ input: 'time', from: 0, to: 4 }],
            does: { do: 'wait', seconds: 9 },
          },
          {
            id: 'turn',
            weight: 2,
            cooldown: 0.5,
            considerations: [{ input: '0.5' }, { input: '1' }],
            does: { do: 'wait', seconds: 0.2 },
          },
        ],
      },
    },
  };
  return document;
}

it('is the same whether the run went on tick by tick or was gone back into', () => {
  const { program } = checkProject(weighing());
  const run = createRun(program!, 1);
  const agent = program!.agents.find(({ archetype }) => program!.archetypes[archetype].stack >= 0)!;
  const mind = Object.keys(weighing().minds)[0];
  const watched = { agent: agent.name, mind, choice: 'whatNow' };
  const live = createChoiceHistory();
  for (let i = 0; i < 120; i++) {
    advance(run);
    keepChoiceHistory(live, run, watched);
  }
  const past = choicePastOf(live);
  expect(past).toMatchObject({ tick: 120, options: ['grow', 'turn'] });
  // “turn” runs for 12 ticks, rests for 30, and takes over again.
  expect([...past.running].filter((place) => place === 1).length).toBeGreaterThan(24);
  expect(past.scores[119 * 2]).toBeCloseTo(0.5, 2);
  const [grow] = past.bins[0];
  expect(grow).toHaveLength(BINS);
  // Half of the range in two seconds: about twelve ticks in each of the lower parts.
  expect(grow.slice(0, 10).every((count) => count >= 11 && count <= 13)).toBe(true);
  expect(past.bins[1]).toHaveLength(2);
  const again = createChoiceHistory();
  keepChoiceHistory(again, run, watched);
  const rerun = choicePastOf(again);
  expect([...rerun.running]).toEqual(Array.from(past.running.slice(-rerun.running.length)));
  seek(run, 60);
  keepChoiceHistory(live, run, watched);
  expect(live.tick).toBe(60);
  expect(run.world.tick).toBe(60);
  keepChoiceHistory(live, run, null);
  expect(choicePastOf(live).options).toEqual([]);
});
