import { describe, expect, it } from 'vitest';
import { checkDocument } from '../../findings/check-project.ts';
import type { MindDocument, ProjectDocument } from '../../model/documents.ts';
import { readProject } from '../../model/file/read-project.ts';
import { compiled } from '../../testing/demo.fixture.ts';
import { cornerProject, KEEN_SIGHT } from '../../testing/orchard.fixture.ts';
import { readMind } from '../../world/readout/readout.ts';
import { tick } from '../../world/phases/tick.ts';
import { createWorld } from '../../world/world.ts';
import { contentsOf, PATTERNS, type Pattern } from './patterns.ts';

const made = (
  { parameters, make }: Pattern,
  change: (value: number) => number = (value) => value,
) => make(Object.fromEntries(parameters.map(({ name, value }) => [name, change(value)])));

/** A keeper with this mind, whose gleaner stands in its sight. */
function withMind(mind: MindDocument): ProjectDocument {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    ground: {
      routes: {
        round: {
          points: [
            [2, 5],
            [4, 5],
          ],
        },
      },
    },
  });
  document.minds.keeper = mind;
  const { agents } = document.grounds[document.start.ground];
  agents.keeper.route = 'round';
  agents.keeper.squad = 'night';
  document.squads = { night: { title: 'Night' } };
  return document;
}

describe('a pattern', () => {
  it.each(PATTERNS.map((pattern) => [pattern.title, pattern] as const))(
    '%s is made of parts that the checker passes, whatever its numbers',
    (_, pattern) => {
      for (const change of [(value: number) => value, (value: number) => value * 2]) {
        const document = withMind(made(pattern, change));
        const form = readProject(document);
        expect(form.ok ? [] : form.faults).toEqual([]);
        const errors = checkDocument(document).findings.filter(
          ({ severity, path }) => severity === 'error' || path.startsWith('minds.'),
        );
        expect(errors.map(({ path, message }) => `${path}: ${message}`)).toEqual([]);
      }
    },
  );

  it.each([
    ['patrol', 'chase'],
    ['curious', 'look'],
    ['flee', 'wait'],
    ['follow', 'follow'],
    ['turn', 'stare'],
    ['call', 'call'],
  ])('%s comes to what it is for, when somebody is seen: %s', (id, state) => {
    const pattern = PATTERNS.find((each) => each.id === id)!;
    const document = withMind(made(pattern, (value) => value));
    // Near enough for all of them.
    const { agents } = document.grounds[document.start.ground];
    agents.gleaner.at = [5, 5];
    const world = createWorld(compiled(document), 1);
    const entered = new Set<string>();
    for (let i = 0; i < 900; i++) {
      tick(world, []);
      for (const active of readMind(world, 'keeper', null)!.active) entered.add(active);
    }
    expect([...entered]).toContain(state);
  });

  it('says what it would add before it does', () => {
    const [patrol] = PATTERNS;
    expect(contentsOf(made(patrol))).toEqual(['states: Rounds, Chase, Comb', 'keys: quarry, spot']);
  });
});
