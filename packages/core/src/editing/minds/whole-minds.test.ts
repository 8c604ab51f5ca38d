import { describe, expect, it } from 'vitest';
import { checkDocument } from '../../findings/check-project.ts';
import type { ProjectDocument } from '../../model/documents.ts';
import { serialiseProject } from '../../model/file/serialise.ts';
import { nightWatch } from '../../testing/demo.fixture.ts';
import { applyCommand } from '../apply-command.ts';
import { CommandError } from '../commands/commands.ts';
import { addMind, duplicateMind, emptyMind, removeMind, type MindForm } from './whole-minds.ts';

const errorsOf = (document: ProjectDocument) =>
  checkDocument(document).findings.filter(({ severity }) => severity === 'error');

describe('a mind as a whole', () => {
  it.each<MindForm>(['machine', 'tree', 'rules'])(
    'begins as %s, under a name from its title',
    (form) => {
      const before = nightWatch();
      const { name, command } = addMind(before, emptyMind('Night heron 2', form));
      // Digits are part of a title, and stay in the name.
      expect(name).toBe('nightHeron2');
      const after = applyCommand(before, command);
      expect(after.minds[name].title).toBe('Night heron 2');
      const { name: next } = addMind(after, emptyMind('Night heron', form));
      expect(next).toBe('nightHeron');
      expect(addMind(after, emptyMind('…', form)).name).toBe('mind');
    },
  );

  it('is copied under another name and title, and the copy means the same', () => {
    const before = nightWatch();
    const { name, command } = duplicateMind(before, 'warden');
    const after = applyCommand(before, command);
    expect({ ...after.minds[name], title: '' }).toEqual({ ...before.minds.warden, title: '' });
    expect(errorsOf(after)).toEqual([]);
    expect(() => duplicateMind(before, 'nobody')).toThrow(CommandError);
  });

  it('is taken from all who have it, when it goes; another of theirs comes first then', () => {
    const copy = duplicateMind(nightWatch(), 'warden');
    const before = applyCommand(nightWatch(), copy.command);
    const [first] = Object.keys(before.archetypes).filter(
      (archetype) => before.archetypes[archetype].mind === 'warden',
    );
    before.archetypes[first].minds = [copy.name];
    const after = applyCommand(before, removeMind(before, 'warden'));
    expect(after.minds).not.toHaveProperty('warden');
    expect(after.archetypes[first]).toMatchObject({ mind: copy.name });
    expect(after.archetypes[first]).not.toHaveProperty('minds');
    expect(serialiseProject(after)).not.toContain('"mind": "warden"');
    expect(errorsOf(after).filter(({ code }) => code === 'unknownName')).toEqual([]);
  });

  it('stays where it is the only one', () => {
    const before = nightWatch();
    const { warden } = before.minds;
    expect(() => removeMind({ ...before, minds: { warden } }, 'warden')).toThrow(/at least one/);
  });
});
