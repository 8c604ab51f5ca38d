import { nodeText } from '../../model/node-text.ts';
import type {
  ActionDocument,
  NodeDocument,
  ProjectDocument,
  RuleDocument,
} from '../../model/documents.ts';
import {
  CommandError,
  type DocumentCommand,
  type DocumentPath,
  type PutCommand,
} from '../commands/commands.ts';
import { partAt } from '../commands/put.ts';

/** Where rows of trees and rules stand, and the small steps that changes of them are made of. */

export interface RowEdit {
  command: DocumentCommand;
  /** Path of the row that has been made, moved, or is next. */
  focus: DocumentPath;
}

/** What a row is, by where it stands. */
export type RowForm = 'node' | 'rule' | 'action' | 'else' | 'set';

export function formOf(path: DocumentPath): RowForm {
  if (path[2] !== 'rules') return 'node';
  if (path.length === 4) return 'set';
  if (path.at(-1) === 'else') return 'else';
  return path.at(-2) === 'rows' ? 'rule' : 'action';
}

export type RowValue = NodeDocument | RuleDocument | ActionDocument;

export const set = (path: DocumentPath, value: unknown): PutCommand => ({
  command: 'put',
  how: 'set',
  path,
  value,
});

export const insert = (path: DocumentPath, value: unknown): PutCommand => ({
  command: 'put',
  how: 'insert',
  path,
  value,
});

export const remove = (path: DocumentPath): PutCommand => ({ command: 'put', how: 'remove', path });

export function several(what: string, ...commands: PutCommand[]): DocumentCommand {
  return { command: 'several', what, commands };
}

/** Place in a list: the list's path and the index; null for a part that is in none. */
export function placeOf(path: DocumentPath): { list: DocumentPath; index: number } | null {
  const index = path.at(-1);
  return typeof index === 'number' ? { list: path.slice(0, -1), index } : null;
}

export function nodeAt(document: ProjectDocument, path: DocumentPath): NodeDocument {
  if (formOf(path) === 'set')
    throw new CommandError('The rules as a whole stay: change what is in them.');
  const node = partAt(document, path);
  if (node === undefined) throw new CommandError('This row is gone.');
  return node as NodeDocument;
}

/** The row that a node, a rule or an action stands under; null at the top. */
export function rowAround(path: DocumentPath): DocumentPath | null {
  const [, , part] = path;
  const steps = typeof path.at(-1) === 'number' ? 2 : 1;
  if (part === 'trees') return path.length <= 5 ? null : path.slice(0, path.length - steps);
  // minds · keeper · choices · whatNow · options · 0 · does
  if (part === 'choices') return path.length <= 7 ? null : path.slice(0, path.length - steps);
  if (formOf(path) === 'else') return path.slice(0, -1);
  // minds · warden · rules · duty · rows · 0
  const around = path.slice(0, -2);
  if (around.length <= 4) return null;
  return formOf(path) === 'action' && path.at(-2) === 'else' ? path.slice(0, -1) : around;
}

/** What a row is called in undo and in reports. */
export function called(value: unknown): string {
  if (Array.isArray(value)) return 'else';
  if (typeof value !== 'object' || value === null) return 'row';
  const { title } = value as { title?: string };
  if (title !== undefined) return title;
  if (isRule(value)) return `rule ${value.when}`;
  return 'rows' in value ? 'rules' : nodeText(value as NodeDocument);
}

export function isRule(value: object): value is RuleDocument {
  return 'when' in value && (!('do' in value) || Array.isArray(value.do));
}

export function after(path: DocumentPath): DocumentPath {
  const place = placeOf(path);
  if (!place) throw new CommandError('Nothing can stand after this row.');
  return [...place.list, place.index + 1];
}

/** Of an action in rules. */
export function ruleAround(path: DocumentPath): DocumentPath {
  return path.slice(0, -2);
}

export function once(paths: readonly DocumentPath[]): DocumentPath[] {
  return [...new Map(paths.map((path) => [JSON.stringify(path), path])).values()];
}

/** Without those that stand inside another of them, from the last to the first, so that indices stay right. */
export function outermost(paths: readonly DocumentPath[]): DocumentPath[] {
  const starts = (path: DocumentPath, with_: DocumentPath) =>
    with_.length < path.length && with_.every((step, i) => step === path[i]);
  const all = once(paths);
  return all.filter((path) => !all.some((other) => starts(path, other))).sort(backwards);
}

export function backwards(a: DocumentPath, b: DocumentPath): number {
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    if (a[i] === b[i]) continue;
    if (typeof a[i] === 'number' && typeof b[i] === 'number') return Number(b[i]) - Number(a[i]);
    return String(a[i]) < String(b[i]) ? 1 : -1;
  }
  return b.length - a.length;
}
