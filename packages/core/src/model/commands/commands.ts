import type { ActionDocument, ActivityDocument, Name, TransitionDocument } from '../documents.ts';

/** Every change a document can undergo. Undo, the edit log and the tests all speak these words. */
export type DocumentCommand =
  | { command: 'retitleProject'; title: string }
  | ({ command: 'addState'; parent: Name | null; id: Name; title: string } & InMind)
  | ({ command: 'retitleState'; title: string } & InState)
  | ({ command: 'removeState' } & InState)
  | ({ command: 'setInitial'; initial: Name; parent: Name | null } & InMind)
  | ({ command: 'addTransition'; transition: TransitionDocument } & InState)
  /** Fields that are undefined are removed. */
  | ({ command: 'changeTransition'; index: number; change: Partial<TransitionDocument> } & InState)
  | ({ command: 'moveTransition'; from: number; to: number } & InState)
  | ({ command: 'removeTransition'; index: number } & InState)
  | ({ command: 'setActivity'; action: ActivityDocument | null } & InState)
  | ({ command: 'removeKey'; key: Name } & InMind)
  | ({ command: 'removeTree'; tree: Name } & InMind)
  | ({ command: 'removeRules'; rules: Name } & InMind)
  | ({ command: 'addAction'; list: ActionList; action: ActionDocument } & InState)
  | ({ command: 'setAction'; list: ActionList; index: number; action: ActionDocument } & InState)
  | ({ command: 'removeAction'; list: ActionList; index: number } & InState);

export type ActionList = 'entry' | 'exit';

interface InMind {
  mind: Name;
}

interface InState extends InMind {
  state: Name;
}

/** A command that does not fit the document; the message says why. */
export class CommandError extends Error {}
