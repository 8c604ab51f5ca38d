import { useCallback, useEffect, useState } from 'react';
import { api, ApiError, type EditSummary } from '../api/client.ts';

/** The edits of a project that say a text, as far back as was asked for. */
export interface Edits {
  /** Latest first; null until they have been read. */
  list: readonly EditSummary[] | null;
  /** How many there are further back. */
  more: number;
  trouble: string | null;
  readMore: () => Promise<void>;
  /** Names an edit; null removes its name. */
  name: (number: number, given: string | null) => Promise<void>;
}

/** @param version what changes when there are other edits; null while none are wanted */
export function useEdits(id: string, find: string, version: string | null): Edits {
  const [list, setList] = useState<readonly EditSummary[] | null>(null);
  const [more, setMore] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  const attempt = useCallback(async (before: string, work: () => Promise<void>) => {
    try {
      await work();
      setTrouble(null);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      setTrouble(before + error.message);
    }
  }, []);
  useEffect(() => {
    if (version === null) return undefined;
    let current = true;
    api.edits(id, { find }).then(
      (page) => {
        if (!current) return;
        setList(page.edits);
        setMore(page.more);
        setTrouble(null);
      },
      (error: unknown) => {
        if (!(error instanceof ApiError)) throw error;
        if (current) setTrouble(error.message);
      },
    );
    return () => {
      current = false;
    };
  }, [id, find, version]);
  const last = list?.at(-1)?.number;
  const readMore = useCallback(
    () =>
      attempt('', async () => {
        const page = await api.edits(id, { find, before: last });
        setList((known) => [...(known ?? []), ...page.edits]);
        setMore(page.more);
      }),
    [attempt, id, find, last],
  );
  const name = useCallback(
    (number: number, given: string | null) =>
      attempt('The name was not kept: ', async () => {
        await api.nameEdit(id, number, given);
        setList(
          (known) =>
            known?.map((each) =>
              each.number === number ? { ...each, name: given ?? undefined } : each,
            ) ?? null,
        );
      }),
    [attempt, id],
  );
  return { list, more, trouble, readMore, name };
}
