import {
  advance,
  applyEdit,
  checkProject,
  createRun,
  readProject,
  ROW_CODES,
  seek,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { expect, it } from 'vitest';
import { newProject } from '../home/new-project.ts';
import { HISTORY_TICKS } from '../engine/protocol.ts';
import { createRowHistory, keepRowHistory } from './row-history.ts';

/** A keeper that waits, by a tree that is all its mind, with so many waits. */
function turning(waits = 2): ProjectDocument {
  const document = structuredClone(newProject('To and fro'));
  const [mind] = Object.keys(document.minds);
  document.minds[mind] = {
    title: 'To and fro',
    activity: { tree: 'both' },
    trees: {
      both: {
        root: {
          sequence: Array.from({ length: waits }, (_, i) => ({
            do: 'wait',
            seconds: (i + 1) / 10,
          })),
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

it('says where the rows are written under the edit that was in force at the tick', () => {
  const [{ program: two }, { program: three }] = [turning(2), turning(3)].map((document) =>
    checkProject(document),
  );
  const run = createRun(two!, 1);
  const agent = two!.agents.find(({ archetype }) => two!.archetypes[archetype].stack >= 0)!;
  const watched = { agent: agent.name, mind: null, state: 'always' };
  const history = createRowHistory();
  const keep = () => {
    keepRowHistory(history, run, watched);
    return [history.paths.length, history.cells.length];
  };
  for (let i = 0; i < 60; i++) advance(run);
  applyEdit(run, three!, 2);
  for (let i = 0; i < 60; i++) advance(run);
  expect(keep()).toEqual([4, 4]);
  seek(run, 30);
  expect(keep()).toEqual([3, 3]);
  seek(run, 119);
  expect(keep()).toEqual([4, 4]);
});
