import {
  addConsideration,
  addOption,
  copyColumn,
  duplicateOption,
  moveOption,
  removeColumn,
  removeOption,
  type ChoiceDocument,
  doneNow,
} from '@crooked-lantern/core';
import type { ReactNode } from 'react';
import { useEngine } from '../../engine/use-engine.tsx';
import type { Editing } from '../../state/use-edit.ts';
import { useBreakpoints } from '../../state/use-breakpoints.ts';
import { useAsk } from '../../shell/use-ask.ts';
import { useAskText } from '../../ui/fields/ask-text.tsx';
import { checkTitle } from '../../ui/fields/fields.tsx';
import type { MenuEntry } from '../../ui/overlays/menu.tsx';
import { useNewConsideration } from './new-consideration.tsx';
import type { Column } from './columns.ts';
import type { Weighing } from '../use-weighing.ts';

/** What can be done with options and considerations, from the menus of the board. */
export interface BoardMenus {
  newOption: () => void;
  /** A new consideration for these options. */
  newColumn: (to: number[]) => void;
  optionEntries: (at: number) => MenuEntry[];
  columnEntries: (column: Column) => MenuEntry[];
  dialog: ReactNode;
}

export function useBoardMenus(
  { mind, choice, agent, select }: Weighing,
  document: ChoiceDocument,
  editing: Editing,
): BoardMenus {
  const { run } = editing;
  const engine = useEngine();
  const askWhy = useAsk();
  const breakpoints = useBreakpoints();
  const pickOf = (id: string) => ({ on: 'picked', of: `${choice}:${id}` }) as const;
  const place = { mind, choice };
  const { ask, dialog } = useAskText();
  const consideration = useNewConsideration(mind);

  const newOption = () =>
    ask({
      title: 'A new option',
      label: 'Title',
      verb: 'Add it',
      value: 'New option',
      check: checkTitle,
      onGive: (title) => {
        let id = '';
        const refused = editing.attempt((project) => {
          const added = addOption(project, place, title);
          id = added.id;
          return added.command;
        });
        if (refused === null) select({ option: id });
        return refused;
      },
    });
  const newColumn = (to: number[]) =>
    consideration.ask((input) => {
      const refused = editing.attempt((project) =>
        addConsideration(project, place, to, { input: input.trim() }),
      );
      if (refused === null)
        select({
          option: document.options[to[0]].id,
          cell: document.options[to[0]].considerations?.length ?? 0,
        });
      return refused;
    });

  const optionEntries = (at: number): MenuEntry[] => {
    const { id, off } = document.options[at];
    const entry = (key: string, text: string, onAction: () => void): MenuEntry => ({
      id: key,
      text,
      label: text,
      onAction,
    });
    return [
      entry('why', 'Why this, or why not', () => {
        const isPicked = doneNow(engine.frame?.choice ?? null) === id;
        const target = { kind: 'option', choice, option: id } as const;
        askWhy({
          agent,
          asking: isPicked ? { ask: 'why' } : { ask: 'whyNot', target },
          mind,
        });
      }),
      entry(
        'stop',
        breakpoints.isSet(pickOf(id))
          ? 'Stop no longer when it is picked'
          : 'Stop when it is picked',
        () => breakpoints.toggle(pickOf(id)),
      ),
      entry('duplicate', 'Duplicate', () => {
        let copy = id;
        const done = run((project) => {
          const made = duplicateOption(project, place, at);
          copy = made.id;
          return made.command;
        });
        if (done) select({ option: copy });
      }),
      ...(at > 0
        ? [entry('up', 'Move up', () => run((project) => moveOption(project, place, at, at - 1)))]
        : []),
      ...(at < document.options.length - 1
        ? [
            entry('down', 'Move down', () =>
              run((project) => moveOption(project, place, at, at + 1)),
            ),
          ]
        : []),
      entry('off', off ? 'Switch on' : 'Switch off', () =>
        editing.put(
          ['minds', mind, 'choices', choice, 'options', at, 'off'],
          off ? undefined : true,
        ),
      ),
      entry('consider', 'Add a consideration …', () => newColumn([at])),
      entry('remove', 'Remove', () => {
        if (run((project) => removeOption(project, place, at))) select({ option: null });
      }),
    ];
  };

  const columnEntries = (column: Column): MenuEntry[] => {
    const from = column.cells.findIndex((cell) => cell !== null);
    const lacking = column.cells.some((cell) => cell === null);
    return [
      ...(lacking
        ? [
            {
              id: 'copy',
              text: 'Copy to all other options',
              label: 'Copy to all other options',
              onAction: () =>
                run((project) => copyColumn(project, place, from, column.cells[from]!)),
            },
          ]
        : []),
      {
        id: 'remove',
        text: 'Remove from all options',
        label: 'Remove from all options',
        onAction: () => {
          if (run((project) => removeColumn(project, place, column.name))) select({ cell: null });
        },
      },
    ];
  };

  return {
    newOption,
    newColumn,
    optionEntries,
    columnEntries,
    dialog: dialog ?? consideration.dialog,
  };
}
