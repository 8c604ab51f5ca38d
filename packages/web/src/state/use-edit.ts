import type { DocumentPath } from '@crooked-lantern/core';
import { useCallback, useMemo, useState } from 'react';
import { perform } from './perform.ts';
import { useAppDispatch } from './store.ts';

type Command = Parameters<typeof perform>[0];

export interface Editing {
  /** Changes the document; true where it could be done. Why it could not is in `trouble`. */
  run: (command: Command) => boolean;
  /** The same; gives why it could not be done, or null. */
  attempt: (command: Command) => string | null;
  /** Sets a part, or with undefined removes it. */
  put: (path: DocumentPath, value: unknown) => boolean;
  trouble: string | null;
}

/** Changing the open document from a form, with what could not be done. */
export function useEdit(): Editing {
  const dispatch = useAppDispatch();
  const [trouble, setTrouble] = useState<string | null>(null);
  const attempt = useCallback<Editing['attempt']>(
    (command) => {
      const message = dispatch(perform(command));
      setTrouble(message);
      return message;
    },
    [dispatch],
  );
  const run = useCallback<Editing['run']>((command) => attempt(command) === null, [attempt]);
  const put = useCallback<Editing['put']>(
    (path, value) =>
      run(
        value === undefined
          ? { command: 'put', how: 'remove', path }
          : { command: 'put', how: 'set', path, value },
      ),
    [run],
  );
  return useMemo(() => ({ run, attempt, put, trouble }), [run, attempt, put, trouble]);
}
