import { describe, expect, it } from 'vitest';
import { checkProject } from '../../findings/check-project.ts';
import type { ProjectDocument } from '../../model/documents.ts';
import { cornerProject } from '../../testing/orchard.fixture.ts';
import { applyCommand } from '../apply-command.ts';
import { addPattern, lackedBy, moveFor } from './pattern-needs.ts';
import type { Pattern, PatternNeed } from './pattern-parts.ts';
import { PATTERNS } from './patterns.ts';

/** A keeper with a body and nothing else, and a route that no agent follows. */
function bare(): ProjectDocument {
  const document = cornerProject({
    machine: { initial: 'stand', states: [{ id: 'stand' }] },
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
  const { keeper } = document.archetypes;
  delete keeper.sight;
  delete keeper.hearing;
  delete keeper.mind;
  return document;
}

function added(document: ProjectDocument, pattern: Pattern, give: readonly PatternNeed[]) {
  const values = Object.fromEntries(pattern.parameters.map(({ name, value }) => [name, value]));
  const use = { archetype: 'keeper', give };
  const { name, command } = addPattern(document, pattern, values, moveFor(document, use), use);
  const after = applyCommand(document, command);
  expect(after.archetypes.keeper.mind).toBe(name);
  return { after, path: `minds.${name}` };
}

const found = (document: ProjectDocument, path: string) =>
  checkProject(document)
    .findings.filter((each) => each.severity === 'error' || each.path.startsWith(path))
    .map(({ message }) => message);

describe('what a pattern needs', () => {
  it.each(PATTERNS.map((pattern) => [pattern.title, pattern] as const))(
    '%s: is lacked by a bare body, and given with the mind leaves nothing to find',
    (_, pattern) => {
      const document = bare();
      const lacks = lackedBy(document, 'keeper', pattern);
      expect([...lacks].sort()).toEqual([...pattern.needs].sort());
      const { after, path } = added(document, pattern, lacks);
      expect(lackedBy(after, 'keeper', pattern)).toEqual([]);
      expect(found(after, path)).toEqual([]);
      const without = added(document, pattern, []);
      expect(lackedBy(without.after, 'keeper', pattern)).toEqual(lacks);
    },
  );

  it('strikes with a move that the body has, and needs none then', () => {
    const document = bare();
    document.archetypes.keeper.moves = {
      hop: { kind: 'dodge', windUp: 0.1, active: 0.1, recovery: 0.1 },
      jab: { windUp: 0.1, active: 0.1, recovery: 0.1, reach: 1 },
    } as never;
    const hesitate = PATTERNS.find(({ id }) => id === 'hesitate')!;
    expect(lackedBy(document, 'keeper', hesitate)).toEqual(['sight']);
    expect(moveFor(document, { archetype: 'keeper', give: [] })).toBe('jab');
    expect(moveFor(document, null)).toBe('strike');
  });
});
