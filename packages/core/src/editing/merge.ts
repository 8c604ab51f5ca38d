import type { ProjectDocument } from '../model/documents.ts';
import { isObject } from '../model/schema/schema.ts';
import { pathText } from '../model/names/path-text.ts';
import type { DocumentPath } from './commands/commands.ts';
import { wordsOfPath } from './commands/path-words.ts';
import { identityOf, isListOfParts, isNamed, isSameKind, same, textOf } from './difference.ts';

/** Two documents that were made from one, put together part by part. */

export type Side = 'mine' | 'theirs';

/** A part that is not the same in both. */
export interface MergePart {
  /** Its path as text, by which it is chosen. */
  key: string;
  /** In words: `guard of transition 2 of Chase of Warden`. */
  what: string;
  /** Who changed it since the two parted. */
  by: Side | 'both';
  /** Short texts of what is there; undefined where it is not there. */
  base: string | undefined;
  mine: string | undefined;
  theirs: string | undefined;
}

export interface Merged {
  document: ProjectDocument;
  parts: MergePart[];
}

type Value = unknown;

class Merger {
  readonly parts: MergePart[] = [];
  private readonly mine: ProjectDocument;
  private readonly theirs: ProjectDocument;
  private readonly chosen: Readonly<Record<string, Side>>;

  constructor(
    mine: ProjectDocument,
    theirs: ProjectDocument,
    chosen: Readonly<Record<string, Side>>,
  ) {
    this.mine = mine;
    this.theirs = theirs;
    this.chosen = chosen;
  }

  /** The one or the other as a whole: as chosen, else the side that changed it, and mine where both did. */
  private decide(base: Value, mine: Value, theirs: Value, path: DocumentPath): Value {
    const by = same(base, mine) ? 'theirs' : same(base, theirs) ? 'mine' : 'both';
    const key = pathText(path);
    this.parts.push({
      key,
      what: wordsOfPath(theirs === undefined ? this.mine : this.theirs, path),
      by,
      base: base === undefined ? undefined : textOf(base),
      mine: mine === undefined ? undefined : textOf(mine),
      theirs: theirs === undefined ? undefined : textOf(theirs),
    });
    const side = this.chosen[key] ?? (by === 'theirs' ? 'theirs' : 'mine');
    return side === 'mine' ? mine : theirs;
  }

  merge(base: Value, mine: Value, theirs: Value, path: DocumentPath): Value {
    if (same(mine, theirs)) return theirs;
    if (isObject(mine) && isObject(theirs) && isSameKind(mine, theirs)) {
      const before = isObject(base) ? base : {};
      const merged: Record<string, Value> = {};
      for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
        const value = this.merge(before[key], mine[key], theirs[key], [...path, key]);
        if (value !== undefined) merged[key] = value;
      }
      return merged;
    }
    if (Array.isArray(mine) && Array.isArray(theirs)) {
      const before: Value[] = Array.isArray(base) ? base : [];
      if (isNamed([...mine, ...theirs]))
        return this.mergeNamed(isNamed(before) ? before : [], mine, theirs, path);
      // Nothing was put in or taken out: entry by entry.
      const isAsLong = before.length === mine.length && before.length === theirs.length;
      if (isAsLong && isListOfParts([...before, ...mine, ...theirs]))
        return theirs.map((entry, i) => this.merge(before[i], mine[i], entry, [...path, i]));
    }
    return this.decide(base, mine, theirs, path);
  }

  /** Entries go by their ids. Their order is the other’s where mine is as it was, else mine; the rest follow what they followed. */
  private mergeNamed(base: Value[], mine: Value[], theirs: Value[], path: DocumentPath): Value[] {
    const ids = (list: Value[]) => list.map((entry) => identityOf(entry)!);
    const [old, my, their] = [base, mine, theirs].map(ids);
    const [first, second] = same(old, my) ? [their, my] : [my, their];
    const order = [...first];
    second.forEach((id, i) => {
      if (order.includes(id)) return;
      // After the nearest before it that is there; at the beginning where there is none.
      const before = second.slice(0, i).findLast((other) => order.includes(other));
      order.splice(before === undefined ? 0 : order.indexOf(before) + 1, 0, id);
    });
    return order.flatMap((id) => {
      const [was, own, other] = [
        base[old.indexOf(id)],
        mine[my.indexOf(id)],
        theirs[their.indexOf(id)],
      ];
      const at = other === undefined ? my.indexOf(id) : their.indexOf(id);
      const value = this.merge(was, own, other, [...path, at]);
      return value === undefined ? [] : [value];
    });
  }
}

/**
 * What both come to, where `base` is what the two were made from. `chosen` gives, by the key of a part, whose
 * is taken. Whether the parts go together is not looked at: that is for the form and the checks to say.
 */
export function mergeDocuments(
  base: ProjectDocument,
  mine: ProjectDocument,
  theirs: ProjectDocument,
  chosen: Readonly<Record<string, Side>> = {},
): Merged {
  const merger = new Merger(mine, theirs, chosen);
  const document = merger.merge(base, mine, theirs, []) as ProjectDocument;
  return { document, parts: merger.parts };
}
