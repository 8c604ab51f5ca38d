import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { expectPinned, jsonLine, playedDemo } from '../testing/pinned.fixture.ts';
import { firstUnlikeDecision, findParting, givenApart, type TwoRuns } from './compare/parting.ts';
import { runFigures } from './compare/run-figures.ts';
import { coverageOf } from './coverage.ts';
import { finished } from './explain/statement.ts';
import { recordingAs, RECORDING_FORMATS, type RecordingFormat } from './exports.ts';
import { fightFigures } from './figures.ts';
import type { Run } from './run.ts';

/** What runs of the demos are summed up as comes out as it came out before. */

const DEMOS = ['keepers-duel', 'windfall', 'night-watch'] as const;

function* sums(run: Run): Generator<string> {
  for (const [agent, figures] of runFigures(run)) yield `${agent} did ${jsonLine(figures)}`;
  for (const [agent, figures] of runFigures(run, 210))
    yield `${agent} did by tick 210 ${jsonLine(figures)}`;
  for (const [agent, figures] of fightFigures(run.entries, { from: 100, to: 300 }))
    yield `${agent} fought ${jsonLine(figures)}`;
  for (const item of coverageOf(run)) yield `covered ${jsonLine(item)}`;
}

function* compared(runs: TwoRuns): Generator<string> {
  const parting = finished(findParting(runs));
  yield `they part: ${jsonLine(parting)}`;
  yield `they decide otherwise: ${jsonLine(firstUnlikeDecision(runs))}`;
  for (const until of [50, 200, 400])
    yield `given apart until ${until}: ${jsonLine(givenApart(runs, until))}`;
}

describe('a run', () => {
  it.each(DEMOS)('of %s is summed up as it was', (name) => {
    expectPinned(`sums/${name}`, [sums(playedDemo(name, 400))]);
  });

  it.each(DEMOS)('of %s parts from others where it did', (name) => {
    const one = playedDemo(name, 400);
    const others = [playedDemo(name, 360, 2), playedDemo(name, 400, 1, 200)];
    expectPinned(
      `partings/${name}`,
      others.map((other) => compared([one, other])),
    );
  });

  it.each(DEMOS)('of %s is written to files as it was', (name) => {
    const run = playedDemo(name, 300);
    const lines = (Object.keys(RECORDING_FORMATS) as RecordingFormat[]).flatMap((format) => {
      const file = recordingAs(format, run, 'A run');
      const hash = createHash('sha256').update(file).digest('hex').slice(0, 10);
      return [`${format}: ${file.length} characters, ${hash}`, ...file.split(/\r?\n/).slice(0, 3)];
    });
    expectPinned(`files/${name}`, [lines.map((line) => line.slice(0, 400))]);
    expect(recordingAs('lines', run, 'A run').trimEnd().split('\n')).toHaveLength(
      run.entries.length + 1,
    );
  });
});
