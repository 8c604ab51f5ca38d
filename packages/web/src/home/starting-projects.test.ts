import { advance, checkProject, createRun, type LedgerEntry } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { newProject } from './new-project.ts';
import { STARTING_PROJECTS } from './starting-projects.ts';

/** What happens in half a minute. */
function kindsIn(make: () => ReturnType<typeof newProject>): Set<LedgerEntry['kind']> {
  const run = createRun(checkProject(make()).program!, 1, 3);
  for (let i = 0; i < 1800; i++) advance(run);
  return new Set(run.entries.map(({ kind }) => kind));
}

describe('a project to begin from', () => {
  const all = [{ title: 'An empty one', make: () => newProject('Empty') }, ...STARTING_PROJECTS];

  it.each(all)('$title has no finding', ({ make }) => {
    expect(checkProject(make()).findings.map(({ message }) => message)).toEqual([]);
  });

  it('does what it says', () => {
    const [guard, duel, waves] = STARTING_PROJECTS.map(({ make }) => kindsIn(make));
    expect(guard).toContain('begin');
    expect(duel).toContain('move');
    expect(waves).toContain('came');
    expect(waves).toContain('hit');
  });
});
