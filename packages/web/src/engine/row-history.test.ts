import {
  advance,
  checkProject,
  createRun,
  readProject,
  seek,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { expect, it } from 'vitest';
import { newProject } from '../home/new-project.ts';
import { createRowHistory, HISTORY_TICKS, keepRowHistory, ROW_CODES } from './row-history.ts';

/** A keeper that turns to and fro, by a tree that is all its mind. */
function turning(): ProjectDocument {
  const document = structuredClone(newProject('To and fro'));
  const [mind] = Object.keys(document.minds);
  document.minds[mind] = {
    title: 'To and fro',
    activity: { tree: 'both' },
    trees: {
      both: {
        root: {
          sequence: [
            { do: 'wait', seconds: 0.1 },
            { do: 'wait', seconds: 0.2 },
          ],
        },
      },
    },
  };
  return document;
}

it('is the same whether the run went on tick by tick or was gone back into', () => {
  const form = readProject(turning());
  const { program } = checkProject((form as { document: ProjectDocument }).document);
  const run = createRun(program!, 1);
  const agent = program!.agents.find(({ archetype }) => program!.archetypes[archetype].stack >= 0)!;
  const watched = { agent: agent.name, mind: null, state: 'always' };
  const live = createRowHistory();
  for (let i = 0; i < 120; i++) {
    advance(run);
    keepRowHistory(live, run, watched);
  }
  expect(live.results).toHaveLength(HISTORY_TICKS);
  // A wait of 6 ticks, one of 12, and it starts again in the tick after.
  expect(live.results.slice(-19).map(([root]) => ROW_CODES[root])).toContain('success');
  const again = createRowHistory();
  keepRowHistory(again, run, watched);
  expect(again.results).toEqual(live.results);
  seek(run, 60);
  keepRowHistory(live, run, watched);
  expect(live.results).toHaveLength(HISTORY_TICKS);
  expect(run.world.tick).toBe(60);
  seek(run, 10);
  keepRowHistory(live, run, watched);
  // The tick before the first has nothing to show.
  expect(live.results).toHaveLength(11);
});
