import type { ProjectDocument } from '../model/documents.ts';
import { isNode, NODE_KINDS } from '../model/documents.ts';
import { isObject } from '../model/schema/schema.ts';
import { nodeText } from '../model/node-text.ts';
import type { DocumentPath } from './commands/commands.ts';
import { wordsOfPath } from './commands/path-words.ts';

/** What has changed from one document to another, part by part, in words. */

export interface Difference {
  /** Where, in the document in which it is: the latter, or for what is gone the former. */
  path: DocumentPath;
  /** The part in words: `guard of transition 2 of Chase of Warden`. */
  what: string;
  how: 'added' | 'removed' | 'changed' | 'moved';
  /** Short texts of what was there and what is there. */
  from?: string;
  to?: string;
}

type Value = unknown;

export const same = (a: Value, b: Value) => a === b || JSON.stringify(a) === JSON.stringify(b);

const LONGEST = 80;

/** A value as people read it, cut where it is long. */
export function textOf(value: Value): string {
  const text = wholeText(value);
  return text.length > LONGEST ? `${text.slice(0, LONGEST - 1)}…` : text;
}

function wholeText(value: Value): string {
  if (!isObject(value)) return Array.isArray(value) ? listText(value) : String(value);
  const { title, id, when, to } = value;
  if (typeof title === 'string') return title;
  if (typeof id === 'string') return id;
  if (Array.isArray(value.do)) return `rule ${String(when)}`;
  if (isNode(value)) return nodeText(value);
  if (typeof to === 'string') return `to ${to}${when === undefined ? '' : ` when ${String(when)}`}`;
  return JSON.stringify(value);
}

function listText(list: readonly Value[]): string {
  return list.every((entry) => typeof entry !== 'object')
    ? list.join(', ')
    : `${list.length} ${list.length === 1 ? 'entry' : 'entries'}`;
}

/** What tells an entry of a list from the others, where something does. */
export function identityOf(entry: Value): string | undefined {
  return isObject(entry) && typeof entry.id === 'string' ? entry.id : undefined;
}

/** Whether all entries of a list can be told apart by an id. */
export function isNamed(list: readonly Value[]): boolean {
  return list.every((entry) => identityOf(entry) !== undefined);
}

class Comparer {
  readonly found: Difference[] = [];
  private readonly before: ProjectDocument;
  private readonly after: ProjectDocument;

  constructor(before: ProjectDocument, after: ProjectDocument) {
    this.before = before;
    this.after = after;
  }

  private note(how: Difference['how'], path: DocumentPath, from?: Value, to?: Value): void {
    this.found.push({
      path,
      what: wordsOfPath(how === 'removed' ? this.before : this.after, path),
      how,
      ...(from !== undefined && { from: textOf(from) }),
      ...(to !== undefined && { to: textOf(to) }),
    });
  }

  /** Versions of a document share what is the same in them: only what is not shared is looked into. */
  compare(from: Value, to: Value, path: DocumentPath): void {
    if (from === to) return;
    if (from === undefined) return this.note('added', path, undefined, to);
    if (to === undefined) return this.note('removed', path, from);
    if (isObject(from) && isObject(to) && isSameKind(from, to)) {
      for (const key of new Set([...Object.keys(from), ...Object.keys(to)]))
        this.compare(from[key], to[key], [...path, key]);
      return;
    }
    if (Array.isArray(from) && Array.isArray(to) && isListOfParts([...from, ...to]))
      return this.compareLists(from, to, path);
    if (!same(from, to)) this.note('changed', path, from, to);
  }

  /** Entries that go by an id by that; others by what stayed the same before and after them. */
  private compareLists(from: Value[], to: Value[], path: DocumentPath): void {
    if (isNamed([...from, ...to])) {
      const old = new Map(from.map((entry, i) => [identityOf(entry)!, i]));
      const ids = new Set(to.map((entry) => identityOf(entry)!));
      const kept = [...ids].filter((id) => old.has(id));
      const order = [...old.keys()].filter((id) => ids.has(id));
      to.forEach((entry, i) => {
        const at = old.get(identityOf(entry)!);
        this.compare(at === undefined ? undefined : from[at], entry, [...path, i]);
      });
      from.forEach((entry, i) => {
        if (!ids.has(identityOf(entry)!)) this.note('removed', [...path, i], entry);
      });
      if (!same(kept, order)) this.note('moved', path);
      return;
    }
    let start = 0;
    while (start < Math.min(from.length, to.length) && same(from[start], to[start])) start++;
    let end = 0;
    while (
      end < Math.min(from.length, to.length) - start &&
      same(from[from.length - 1 - end], to[to.length - 1 - end])
    )
      end++;
    const gone = from.slice(start, from.length - end);
    const come = to.slice(start, to.length - end);
    if (gone.length === 0 && come.length === 0) return;
    if (gone.length === come.length && same(sorted(gone), sorted(come)))
      return this.note('moved', path);
    for (let i = 0; i < Math.max(gone.length, come.length); i++) {
      const at = [...path, start + i];
      // One in place of another is compared part by part; what is more has been added or removed.
      if (i < gone.length && i < come.length) this.compare(gone[i], come[i], at);
      else if (i < come.length) this.note('added', at, undefined, come[i]);
      else this.note('removed', at, gone[i]);
    }
  }
}

function sorted(list: readonly Value[]): string[] {
  return list.map((entry) => JSON.stringify(entry)).sort();
}

/** Nodes of two kinds, and actions of two names, are one in place of the other. */
export function isSameKind(from: Record<string, Value>, to: Record<string, Value>): boolean {
  const kind = (value: Record<string, Value>) => {
    if (typeof value.do === 'string') return value.do;
    return isNode(value) ? NODE_KINDS.find((name) => name in value) : undefined;
  };
  return kind(from) === kind(to);
}

/** Lists of numbers, such as places, are compared as one. */
export function isListOfParts(list: readonly Value[]): boolean {
  return list.every((entry) => typeof entry === 'object' && entry !== null);
}

export function differenceOf(before: ProjectDocument, after: ProjectDocument): Difference[] {
  const comparer = new Comparer(before, after);
  comparer.compare(before, after, []);
  return comparer.found;
}
