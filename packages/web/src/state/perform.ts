import {
  applyCommand,
  CommandError,
  findState,
  oneChange,
  wordOfField,
  wordsOfPath,
  type DocumentCommand,
  type DocumentPath,
  type ProjectDocument,
  type RowEdit,
} from '@crooked-lantern/core';
import type { AppThunk } from './store.ts';
import { changed } from './project-slice.ts';

function stateTitle(document: ProjectDocument, mind: string, state: string): string {
  const found = findState(document.minds[mind]?.machine?.states ?? [], state);
  return found?.title ?? state;
}

function titleInCast(entry: { title?: string } | null | undefined): string | undefined {
  return entry?.title;
}

const PUT_WORDS = { set: '', insert: 'new ', remove: 'removal of ' } as const;

/** What a command is called in undo and redo. */
function describeCommand(document: ProjectDocument, command: DocumentCommand): string {
  switch (command.command) {
    case 'retitleProject':
      return 'title of the project';
    case 'insertState':
      return `new state ${command.state.title ?? command.state.id}`;
    case 'moveState':
      return `place of ${stateTitle(document, command.mind, command.state)}`;
    case 'wrapState':
      return `new state ${command.title} around ${stateTitle(document, command.mind, command.state)}`;
    case 'setInitial':
      return `first state ${stateTitle(document, command.mind, command.initial)}`;
    case 'changeState':
      return `${Object.keys(command.change).map(wordOfField).join(', ')} of ${stateTitle(document, command.mind, command.state)}`;
    case 'removeState':
      return `removal of ${stateTitle(document, command.mind, command.state)}`;
    case 'addTransition':
      return `new transition of ${stateTitle(document, command.mind, command.state)}`;
    case 'changeTransition':
      return `transition ${command.index + 1} of ${stateTitle(document, command.mind, command.state)}`;
    case 'moveTransition':
      return `order of transitions of ${stateTitle(document, command.mind, command.state)}`;
    case 'removeTransition':
      return `removal of transition ${command.index + 1} of ${stateTitle(document, command.mind, command.state)}`;
    case 'changeParts':
      return command.what;
    case 'setInCast':
      return `${command.value === null ? 'removal of ' : ''}${titleInCast(command.value) ?? titleInCast(document[command.part]?.[command.name]) ?? command.name}`;
    case 'setStance':
      return `stance of ${command.of} toward ${command.toward}`;
    case 'changeStart':
      return 'how it begins';
    case 'changeGround':
      return 'the ground itself';
    case 'removeKey':
      return `removal of the key ${command.key}`;
    case 'removeTree':
      return `removal of the tree ${command.tree}`;
    case 'removeRules':
      return `removal of the rules ${command.rules}`;
    case 'removeChoice':
      return `removal of the choice ${command.choice}`;
    case 'renameInMind':
    case 'renameParameter':
    case 'rename':
      return `name of ${command.to}`;
    case 'several':
      return command.what;
    case 'put':
      return `${PUT_WORDS[command.how]}${wordsOfPath(document, command.path)}`;
  }
}

type Making = DocumentCommand | ((document: ProjectDocument) => DocumentCommand);

/** What a command, or one that is made from the document, would make of it; or why it can’t be done. */
export function attempt(
  before: ProjectDocument,
  command: Making,
): { document: ProjectDocument; made: DocumentCommand } | { refused: string } {
  try {
    const made = typeof command === 'function' ? command(before) : command;
    return { document: applyCommand(before, made), made };
  } catch (error) {
    if (error instanceof CommandError) return { refused: error.message };
    throw error;
  }
}

/** Changes the open document, by a command or by one that is made from the document as it is then. Returns why it could not be done; null means done. */
export function perform(command: Making): AppThunk<string | null> {
  return (dispatch, getState) => {
    const { project } = getState();
    if (project.status !== 'open') return 'No project is open.';
    const outcome = attempt(project.document, command);
    if ('refused' in outcome) return outcome.refused;
    const { document, made } = outcome;
    const label = oneChange(project.document, document) ?? describeCommand(project.document, made);
    dispatch(changed({ document, label }));
    return null;
  };
}

/** The same for a change of rows. Returns the row to go on with, or why it can't be done. */
export function performRowEdit(
  work: (document: ProjectDocument) => RowEdit,
): AppThunk<{ focus: DocumentPath } | { refused: string }> {
  return (dispatch) => {
    let focus: DocumentPath = [];
    const refused = dispatch(
      perform((document) => {
        const edit = work(document);
        focus = edit.focus;
        return edit.command;
      }),
    );
    return refused === null ? { focus } : { refused };
  };
}
