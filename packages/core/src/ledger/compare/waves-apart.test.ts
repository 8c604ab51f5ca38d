import { describe, expect, it } from 'vitest';
import { gameProject } from '../../testing/director.fixture.ts';
import { programOf } from '../../testing/orchard.fixture.ts';
import type { ProjectDocument } from '../../model/documents.ts';
import { withTransition } from '../moved-transition.fixture.ts';
import { advance, createRun, type Run } from '../run.ts';
import { findParting, firstUnlikeDecision, givenApart, type TwoRuns } from './parting.ts';
import { runFigures } from './run-figures.ts';

function ran(document: ProjectDocument, edit: number, ticks: number): Run {
  const run = createRun(programOf(document), edit, 7);
  for (let i = 0; i < ticks; i++) advance(run);
  return run;
}

function partingOf(runs: TwoRuns) {
  const looking = findParting(runs);
  for (;;) {
    const { value, done } = looking.next();
    if (done) return value;
  }
}

/** Two runs, each from its beginning, of which the second has one more in a wave that comes half a second apart. */
const waves = (count: number) => gameProject({ wave: { count, gap: 0.5 } });

describe('two runs with waves', () => {
  const runs: TwoRuns = [ran(waves(3), 1, 240), ran(waves(5), 2, 240)];

  it('do not part for those who are there in neither', () => {
    expect(partingOf([ran(waves(3), 1, 240), ran(waves(3), 1, 240)])).toBeNull();
  });

  it('part in the tick in which the change acts, with the edits as what was given', () => {
    const parting = partingOf(runs)!;
    // The fourth comes at 1.5 s, in one of them only.
    expect(parting).toMatchObject({ tick: 91, agent: 'beetles.4' });
    expect(parting.apart).toBeNaN();
    expect(givenApart(runs, parting.tick)).toMatchObject({ edits: [1, 2], beginnings: false });
  });

  it('have figures that are numbers, also of those who were away', () => {
    for (const run of runs)
      for (const { walked, noticing, taken } of runFigures(run).values())
        expect([walked, noticing, taken].every(Number.isFinite)).toBe(true);
    expect(runFigures(runs[1]).get('beetles.5')!.walked).toBeGreaterThanOrEqual(0);
  });
});

it('a transition that was moved up decides nothing else', () => {
  const runs: TwoRuns = [ran(withTransition(false), 1, 200), ran(withTransition(true), 2, 200)];
  expect(firstUnlikeDecision(runs)).toBeNull();
  expect(partingOf(runs)).toBeNull();
});
