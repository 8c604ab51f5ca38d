import type { Name, ProjectDocument } from '../../model/documents.ts';
import { CommandError, type DocumentCommand } from '../commands/commands.ts';
import { findState } from './change-machine.ts';

/** Where actions stand in a state: done as it is entered, or left. */
export interface ActionPlace {
  state: Name;
  list: 'entry' | 'exit';
}

/**
 * The command that moves one of a state's actions to the end of another list, of the same state or another, or
 * copies it there. Throws a {@link CommandError} where one of them is not there.
 */
export function sendAction(
  document: ProjectDocument,
  mind: Name,
  from: ActionPlace & { index: number },
  to: ActionPlace,
  keep: boolean,
): DocumentCommand {
  const states = document.minds[mind]?.machine?.states ?? [];
  const [source, target] = [from, to].map(({ state }) => findState(states, state));
  const action = source?.[from.list]?.[from.index];
  if (!source || !target || !action)
    throw new CommandError('The action, or the state it should go to, is not there any more.');
  const left = source[from.list]!.filter((_, i) => keep || i !== from.index);
  const isSameList = from.state === to.state && from.list === to.list;
  const grown = [...((isSameList ? left : target[to.list]) ?? []), action];
  const without = { [from.list]: left.length > 0 ? left : undefined };
  const change = (state: Name, fields: object): DocumentCommand => ({
    command: 'changeState',
    mind,
    state,
    change: fields,
  });
  if (from.state === to.state)
    return change(to.state, { ...(keep || isSameList ? {} : without), [to.list]: grown });
  return {
    command: 'several',
    what: `action of ${target.title ?? target.id}`,
    commands: [
      ...(keep ? [] : [change(from.state, without)]),
      change(to.state, { [to.list]: grown }),
    ],
  };
}
