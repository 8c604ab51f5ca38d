import { childrenOfNode, pathText, type OutlineRow } from '@crooked-lantern/core';

/** A row with what tells it from the others: its path, and which of the calls of one tree it is in. */
export interface KnownRow {
  id: string;
  /** But for its number in the running activity, which may have changed since. */
  row: Readonly<OutlineRow>;
  pathText: string;
  /** Id of the row it stands in; null at the top. */
  around: string | null;
  /** It is a child of a random, which draws it by its weight. */
  weighed: boolean;
}

/** The part of the document a row speaks of, which is another where it or a row inside it was changed. */
export function partOf(row: OutlineRow): unknown {
  switch (row.kind) {
    case 'rule':
      return row.rule;
    case 'else':
      return null;
    case 'set':
      return row.rules;
    case 'options':
      return row.choice;
    default:
      return row.node;
  }
}

/** Whether two rows say the same; rows inside them speak for themselves. */
function isSamePart(a: OutlineRow, b: OutlineRow): boolean {
  const [before, after] = [partOf(a), partOf(b)];
  if (before === after) return true;
  if (!('node' in a) || !('node' in b) || childrenOfNode(a.node).length === 0) return false;
  const [was, is] = [a.node, b.node] as unknown as Record<string, unknown>[];
  const fields = new Set([...Object.keys(was), ...Object.keys(is)]);
  fields.delete(a.kind);
  return [...fields].every((field) => was[field] === is[field]);
}

function isSame(a: KnownRow, b: KnownRow): boolean {
  return (
    a.around === b.around &&
    a.weighed === b.weighed &&
    a.row.kind === b.row.kind &&
    a.row.depth === b.row.depth &&
    a.row.below === b.row.below &&
    a.row.option === b.row.option &&
    (a.row.row === null) === (b.row.row === null) &&
    isSamePart(a.row, b.row)
  );
}

/** Rows with what tells them apart. Those that are as they were `before` are the same objects, so that they need not be drawn again. */
export function knownRows(
  rows: readonly OutlineRow[],
  before: readonly KnownRow[] = [],
): KnownRow[] {
  const earlier = new Map(before.map((known) => [known.id, known]));
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
    const same = earlier.get(known.id);
    const kept = same && isSame(same, known) ? same : known;
    open[row.depth] = kept;
    return kept;
  });
}

/** The row that is written at a path, and those inside it, as an outline of their own. */
export function rowsUnder(rows: readonly OutlineRow[], path: string): OutlineRow[] {
  const at = rows.findIndex((row) => pathText(row.path) === path);
  if (at < 0) return [];
  const { depth, below } = rows[at];
  return rows
    .slice(at, at + below + 1)
    .map((row) => ({ ...row, depth: row.depth - depth, option: undefined }));
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
