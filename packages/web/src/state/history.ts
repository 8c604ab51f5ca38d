import type { EditSummary } from '../api/client.ts';

/** Numbers of the server's edits that undo and redo lead to, each the nearest last. */
export interface History {
  past: number[];
  future: number[];
}

/**
 * What undo and redo lead to after edits of earlier visits. An undo is an edit too, whose document is that of the
 * edit before; so the way back and forth is found by comparing documents. Edits in the order they were made.
 */
export function historyOf(edits: readonly Pick<EditSummary, 'number' | 'digest'>[]): History {
  let line: Pick<EditSummary, 'number' | 'digest'>[] = [];
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
  const numbers = line.map(({ number }) => number);
  return { past: numbers.slice(0, Math.max(0, at)), future: numbers.slice(at + 1).reverse() };
}
