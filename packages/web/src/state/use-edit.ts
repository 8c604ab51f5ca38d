import type { DocumentCommand, DocumentPath } from '@crooked-lantern/core';
import { CommandError } from '@crooked-lantern/core';
import { useCallback, useState } from 'react';
import { perform } from './perform.ts';
import { useAppDispatch } from './store.ts';

export interface Editing {
  /** Changes the document; true where it could be done. What can't is told in `trouble`. A function may make the command, and throw a `CommandError`. */
  run: (command: DocumentCommand | (() => DocumentCommand)) => boolean;
  /** Sets a part, or with undefined removes it. */
  put: (path: DocumentPath, value: unknown) => boolean;
  trouble: string | null;
}

/** Changing the open document from a form, with what could not be done. */
export function useEdit(): Editing {
  const dispatch = useAppDispatch();
  const [trouble, setTrouble] = useState<string | null>(null);
  const run = useCallback<Editing['run']>(
    (command) => {
      let message: string | null;
      try {
        message = dispatch(perform(typeof command === 'function' ? command() : command));
      } catch (error) {
        if (!(error instanceof CommandError)) throw error;
        message = error.message;
      }
      setTrouble(message);
      return message === null;
    },
    [dispatch],
  );
  const put = useCallback<Editing['put']>(
    (path, value) =>
      run(
        value === undefined
          ? { command: 'put', how: 'remove', path }
          : { command: 'put', how: 'set', path, value },
      ),
    [run],
  );
  return { run, put, trouble };
}
