import { pathText, type OutlineRow } from '@crooked-lantern/core';

/** A row with what tells it from the others: its path, and which of the calls of one tree it is in. */
export interface KnownRow {
  id: string;
  row: OutlineRow;
  pathText: string;
  /** Id of the row it stands in; null at the top. */
  around: string | null;
  /** It is a child of a random, which draws it by its weight. */
  weighed: boolean;
}

export function knownRows(rows: readonly OutlineRow[]): KnownRow[] {
  const times = new Map<string, number>();
  const open: KnownRow[] = [];
  return rows.map((row) => {
    const text = pathText(row.path);
    const time = times.get(text) ?? 0;
    times.set(text, time + 1);
    open.length = row.depth;
    const known: KnownRow = {
      id: time === 0 ? text : `${text} ${time + 1}`,
      row,
      pathText: text,
      around: open[row.depth - 1]?.id ?? null,
      weighed: open[row.depth - 1]?.row.kind === 'random',
    };
    open[row.depth] = known;
    return known;
  });
}

/** Without those inside folded rows. */
export function visibleRows(rows: readonly KnownRow[], folded: ReadonlySet<string>): KnownRow[] {
  const visible: KnownRow[] = [];
  for (let i = 0; i < rows.length; i++) {
    visible.push(rows[i]);
    if (folded.has(rows[i].id)) i += rows[i].row.below;
  }
  return visible;
}

/** Ids from one row to another, both among them. */
export function idsBetween(rows: readonly KnownRow[], from: string, to: string): Set<string> {
  const [a, b] = [from, to].map((id) => rows.findIndex((row) => row.id === id));
  const [first, last] = [Math.min(a, b), Math.max(a, b)];
  return new Set(rows.slice(Math.max(0, first), last + 1).map(({ id }) => id));
}

/** What is folded, without what hides a row. */
export function unfoldedFor(
  rows: readonly KnownRow[],
  folded: ReadonlySet<string>,
  id: string,
): ReadonlySet<string> {
  const next = new Set(folded);
  const aroundOf = new Map(rows.map((row) => [row.id, row.around]));
  for (let at = aroundOf.get(id) ?? null; at !== null; at = aroundOf.get(at) ?? null)
    next.delete(at);
  return next.size === folded.size ? folded : next;
}
