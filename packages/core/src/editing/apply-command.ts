import type {
  MachineDocument,
  MindDocument,
  ProjectDocument,
  StateDocument,
  TransitionDocument,
} from '../model/documents.ts';
import { withoutUndefined } from '../terms/without-undefined.ts';
import { setInCast, setStance } from './change-cast.ts';
import { changeGround, changeParts } from './change-ground.ts';
import {
  changeIn,
  expectState,
  insertState,
  moveState,
  removeState,
  setInitial,
  wrapState,
} from './minds/change-machine.ts';
import { CommandError, type DocumentCommand } from './commands/commands.ts';
import { renameInMind, renameParameter } from './minds/rename.ts';
import { renamePart } from './rename-part.ts';
import { expectForm, put, putUnchecked } from './commands/put.ts';

/** The document after a command; the one before is left as it is. Throws a {@link CommandError} where the command does not fit. */
export function applyCommand(document: ProjectDocument, command: DocumentCommand): ProjectDocument {
  switch (command.command) {
    case 'retitleProject':
      return { ...document, title: command.title };
    case 'insertState':
      return changeMachine(document, command.mind, (machine) =>
        insertState(machine, command.parent, command.state, command.at),
      );
    case 'moveState':
      return changeMachine(document, command.mind, (machine) =>
        moveState(machine, command.state, command.parent, command.at),
      );
    case 'wrapState':
      return changeMachine(document, command.mind, (machine) =>
        wrapState(machine, command.state, { id: command.id, title: command.title }),
      );
    case 'removeState':
      return changeMachine(document, command.mind, (machine) =>
        removeState(machine, command.state),
      );
    case 'setInitial':
      return changeMachine(document, command.mind, (machine) =>
        setInitial(machine, command.parent, command.initial),
      );
    case 'changeState':
      return changeState(document, command, (state) =>
        withoutUndefined({ ...state, ...command.change }),
      );
    case 'addTransition':
      return changeLeaves(document, command, (transitions) => [...transitions, command.transition]);
    case 'changeTransition':
      return changeLeaves(document, command, (transitions) =>
        replaceAt(transitions, command.index, (leave) =>
          withoutUndefined({ ...leave, ...command.change }),
        ),
      );
    case 'moveTransition':
      return changeLeaves(document, command, (transitions) =>
        moveEntry(transitions, command.from, command.to),
      );
    case 'removeTransition':
      return changeLeaves(document, command, (transitions) => removeAt(transitions, command.index));
    case 'removeKey':
      return removeNamed(document, command.mind, 'memory', command.key);
    case 'removeTree':
      return removeNamed(document, command.mind, 'trees', command.tree);
    case 'removeRules':
      return removeNamed(document, command.mind, 'rules', command.rules);
    case 'removeChoice':
      return removeNamed(document, command.mind, 'choices', command.choice);
    case 'changeParts':
      return changeParts(document, command.ground, command.changes);
    case 'setInCast':
      return setInCast(document, command);
    case 'setStance':
      return setStance(document, command.of, command.toward, command.stance);
    case 'changeStart':
      return { ...document, start: withoutUndefined({ ...document.start, ...command.change }) };
    case 'changeGround':
      return changeGround(document, command.ground, command.change);
    case 'renameInMind':
      return renameInMind(document, command);
    case 'renameParameter':
      return renameParameter(document, command);
    case 'rename':
      return renamePart(document, command);
    case 'put':
      return put(document, command);
    case 'several':
      return expectForm(
        command.commands.reduce(
          (now, each) =>
            each.command === 'put' ? putUnchecked(now, each) : applyCommand(now, each),
          document,
        ),
      );
  }
}

function expectIndex(list: readonly unknown[], index: number): void {
  if (!Number.isInteger(index) || index < 0 || index >= list.length) {
    throw new CommandError(`There is no entry ${index + 1}; the list has ${list.length}.`);
  }
}

function replaceAt<T>(list: readonly T[], index: number, change: (entry: T) => T): T[] {
  expectIndex(list, index);
  return list.map((entry, i) => (i === index ? change(entry) : entry));
}

function removeAt<T>(list: readonly T[], index: number): T[] {
  expectIndex(list, index);
  return list.filter((_, i) => i !== index);
}

function moveEntry<T>(list: readonly T[], from: number, to: number): T[] {
  expectIndex(list, from);
  expectIndex(list, to);
  const rest = removeAt(list, from);
  return [...rest.slice(0, to), list[from], ...rest.slice(to)];
}

function changeMind(
  document: ProjectDocument,
  name: string,
  change: (mind: MindDocument) => MindDocument,
): ProjectDocument {
  if (!Object.hasOwn(document.minds, name)) throw new CommandError(`There is no mind “${name}”.`);
  return { ...document, minds: { ...document.minds, [name]: change(document.minds[name]) } };
}

function changeMachine(
  document: ProjectDocument,
  mind: string,
  change: (machine: MachineDocument) => MachineDocument,
): ProjectDocument {
  return changeMind(document, mind, (before) => {
    if (!before.machine)
      throw new CommandError(`“${before.title}” is one activity and has no states.`);
    return { ...before, machine: change(before.machine) };
  });
}

/** Takes one entry out of a mind's memory, trees, rules or choices. */
function removeNamed(
  document: ProjectDocument,
  mind: string,
  part: 'memory' | 'trees' | 'rules' | 'choices',
  name: string,
): ProjectDocument {
  return changeMind(document, mind, (before) => {
    const { [name]: gone, ...rest } = before[part] ?? {};
    if (gone === undefined) throw new CommandError(`This mind has no “${name}” in its ${part}.`);
    const left = Object.keys(rest).length > 0 ? rest : undefined;
    return withoutUndefined({ ...before, [part]: left });
  });
}

function changeState(
  document: ProjectDocument,
  where: { mind: string; state: string },
  change: (state: StateDocument) => StateDocument,
): ProjectDocument {
  return changeMachine(document, where.mind, (machine) => {
    expectState(machine, where.state);
    return { ...machine, states: changeIn(machine.states, where.state, change) };
  });
}

type List<T> = (list: readonly T[]) => T[];

function emptyAsUndefined<T>(list: T[]): T[] | undefined {
  return list.length > 0 ? list : undefined;
}

function changeLeaves(
  document: ProjectDocument,
  where: { mind: string; state: string },
  change: List<TransitionDocument>,
): ProjectDocument {
  return changeState(document, where, (state) =>
    withoutUndefined({ ...state, transitions: emptyAsUndefined(change(state.transitions ?? [])) }),
  );
}
