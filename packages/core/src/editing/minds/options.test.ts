import { describe, expect, it } from 'vitest';
import { applyCommand } from '../apply-command.ts';
import { cornerProject } from '../../testing/orchard.fixture.ts';
import type { DocumentCommand } from '../commands/commands.ts';
import type { ProjectDocument } from '../../model/documents.ts';
import { readProject } from '../../model/file/read-project.ts';
import {
  addConsideration,
  addOption,
  copyColumn,
  duplicateOption,
  moveOption,
  removeColumn,
  removeOption,
  renameOption,
} from './options.ts';
import { mentionsOf } from './mentions.ts';

const place = { mind: 'keeper', choice: 'whatNow' };

function project(): ProjectDocument {
  const document = cornerProject({ memory: { fear: { type: 'number' }, foe: { type: 'agent' } } });
  document.minds.keeper.activity = { choice: 'whatNow' };
  document.bands = {
    nerve: { input: 'fear', bands: [{ name: 'calm', fullTo: 0.5 }] },
  };
  document.minds.keeper.choices = {
    whatNow: {
      inputs: { nerves: { value: '1 - fear' } },
      options: [
        {
          id: 'stand',
          considerations: [{ title: 'Nerve', input: 'fear', from: 1, to: 0 }, { input: 'nerves' }],
          does: { do: 'wait', seconds: 1 },
        },
        {
          id: 'flee',
          when: 'fear > 0.5',
          each: { as: 'foe', agents: 'hostile' },
          considerations: [{ input: 'fear * distance(foe)' }],
          does: { do: 'flee', from: 'foe' },
        },
      ],
    },
  };
  return document;
}

/** Applies a change, holds the outcome against the form, and gives the options. */
function after(command: DocumentCommand, document = project()) {
  const changed = applyCommand(document, command);
  expect(readProject(changed).ok).toBe(true);
  return changed.minds.keeper.choices!.whatNow.options;
}

describe('options', () => {
  it('are called otherwise, in breakpoints too', () => {
    const document = project();
    document.breakpoints = {
      fled: { on: 'picked', of: 'whatNow:flee' },
      stood: { on: 'picked', of: 'whatNow:stand' },
    };
    const changed = applyCommand(document, renameOption(document, place, 1, 'run'));
    expect(changed.minds.keeper.choices!.whatNow.options.map(({ id }) => id)).toEqual([
      'stand',
      'run',
    ]);
    expect(changed.breakpoints).toMatchObject({
      fled: { of: 'whatNow:run' },
      stood: { of: 'whatNow:stand' },
    });
  });

  it('are added, copied, moved and removed', () => {
    const added = addOption(project(), place, 'Step aside');
    expect([added.id, after(added.command).map(({ id }) => id)]).toEqual([
      'stepAside',
      ['stand', 'flee', 'stepAside'],
    ]);
    const copied = duplicateOption(project(), place, 0);
    expect(after(copied.command).map(({ id }) => id)).toEqual(['stand', copied.id, 'flee']);
    expect(after(moveOption(project(), place, 0, 1)).map(({ id }) => id)).toEqual([
      'flee',
      'stand',
    ]);
    expect(after(removeOption(project(), place, 0)).map(({ id }) => id)).toEqual(['flee']);
    expect(() => removeOption(project(), place, 7)).toThrow('This option is gone.');
    expect(() => addOption(project(), { ...place, choice: 'other' }, 'x')).toThrow(
      'no choice “other”',
    );
  });

  it('share considerations by their column', () => {
    const [, flee] = after(copyColumn(project(), place, 0, 0));
    expect(flee.considerations!.at(-1)).toEqual({ title: 'Nerve', input: 'fear', from: 1, to: 0 });
    expect(() => copyColumn(project(), place, 0, 5)).toThrow('This consideration is gone.');
    const [stand] = after(removeColumn(project(), place, 'Nerve'));
    expect(stand.considerations).toEqual([{ input: 'nerves' }]);
    const [, first] = after(
      addConsideration(
        applyCommand(project(), removeColumn(project(), place, 'fear * distance(foe)')),
        place,
        [1],
        { input: '1' },
      ),
      applyCommand(project(), removeColumn(project(), place, 'fear * distance(foe)')),
    );
    expect(first.considerations).toEqual([{ input: '1' }]);
  });
});

describe('names in a choice', () => {
  it('follow a key that is renamed, in bands too; what an option is weighed for hides a key of its name', () => {
    const changed = applyCommand(project(), {
      command: 'renameInMind',
      mind: 'keeper',
      part: 'memory',
      name: 'fear',
      to: 'dread',
    });
    const { inputs, options } = changed.minds.keeper.choices!.whatNow;
    expect(inputs).toEqual({ nerves: { value: '1 - dread' } });
    expect(options[0].considerations!.map(({ input }) => input)).toEqual(['dread', 'nerves']);
    expect(options[1]).toMatchObject({
      when: 'dread > 0.5',
      considerations: [{ input: 'dread * distance(foe)' }],
    });
    expect(changed.bands!.nerve.input).toBe('dread');
    expect(mentionsOf(project(), 'keeper', 'memory', 'foe')).toEqual([]);
    expect(mentionsOf(project(), 'keeper', 'choices', 'whatNow')).toHaveLength(1);
  });
});
