import type { EditSummary } from '../api/client.ts';

/** An edit of the server that undo or redo leads to. */
export interface EarlierStep {
  number: number;
  /** What leads from the document before to the one after: “guard of Chase”. */
  label: string;
}

/** What undo and redo lead to, each the nearest last. */
export interface History {
  past: EarlierStep[];
  future: EarlierStep[];
}

type KeptEdit = Pick<EditSummary, 'number' | 'digest' | 'what'>;

/**
 * What undo and redo lead to after edits of earlier visits. An undo is an edit too, whose document is that of the
 * edit before; so the way back and forth is found by comparing documents. Edits in the order they were made.
 */
export function historyOf(edits: readonly KeptEdit[]): History {
  let line: KeptEdit[] = [];
  let at = -1;
  for (const edit of edits) {
    if (edit.digest === line[at]?.digest) continue;
    if (edit.digest === line[at - 1]?.digest) at--;
    else if (edit.digest === line[at + 1]?.digest) at++;
    else {
      line = [...line.slice(0, at + 1), edit];
      at++;
    }
  }
  const called = ({ number, what }: KeptEdit) => what ?? `edit ${number}`;
  const past = line.slice(0, Math.max(0, at));
  const future = line.slice(at + 1).reverse();
  return {
    // Undo takes back the edit after the one it leads to; redo makes the one it leads to.
    past: past.map(({ number }, i) => ({ number, label: called(line[i + 1]) })),
    future: future.map((edit) => ({ number: edit.number, label: called(edit) })),
  };
}
