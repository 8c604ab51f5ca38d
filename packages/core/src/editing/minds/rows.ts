import { kindOfNode, type NodeKindName } from '../../model/nodes.ts';
import { nodeText } from '../../model/node-text.ts';
import type {
  ActionDocument,
  NodeDocument,
  NodeFields,
  ProjectDocument,
  RuleDocument,
} from '../../model/documents.ts';
import {
  CommandError,
  type DocumentCommand,
  type DocumentPath,
  type PutCommand,
} from '../commands/commands.ts';
import { wordOfField } from '../commands/path-words.ts';
import { partAt, putUnchecked } from '../commands/put.ts';
import { freshNode, isNothingYet, NOTHING_YET, slotOf } from './fresh.ts';

/**
 * Changes of trees and rules row by row. Each gives the command that makes the change and the row to go on
 * with, and throws a {@link CommandError} where it can't be made.
 */

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

type RowValue = NodeDocument | RuleDocument | ActionDocument;

const set = (path: DocumentPath, value: unknown): PutCommand => ({
  command: 'put',
  how: 'set',
  path,
  value,
});
const insert = (path: DocumentPath, value: unknown): PutCommand => ({
  command: 'put',
  how: 'insert',
  path,
  value,
});
const remove = (path: DocumentPath): PutCommand => ({ command: 'put', how: 'remove', path });

function several(what: string, ...commands: PutCommand[]): DocumentCommand {
  return { command: 'several', what, commands };
}

/** Place in a list: the list's path and the index; null for a part that is in none. */
function placeOf(path: DocumentPath): { list: DocumentPath; index: number } | null {
  const index = path.at(-1);
  return typeof index === 'number' ? { list: path.slice(0, -1), index } : null;
}

function nodeAt(document: ProjectDocument, path: DocumentPath): NodeDocument {
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
  if (formOf(path) === 'else') return path.slice(0, -1);
  // minds · warden · rules · duty · rows · 0
  const around = path.slice(0, -2);
  if (around.length <= 4) return null;
  return formOf(path) === 'action' && path.at(-2) === 'else' ? path.slice(0, -1) : around;
}

/** What a row is called in undo and in reports. */
function called(value: unknown): string {
  if (Array.isArray(value)) return 'else';
  if (typeof value !== 'object' || value === null) return 'row';
  const { title } = value as { title?: string };
  if (title !== undefined) return title;
  if (isRule(value)) return `rule ${value.when}`;
  return 'rows' in value ? 'rules' : nodeText(value as NodeDocument);
}

function isRule(value: object): value is RuleDocument {
  return 'when' in value && (!('do' in value) || Array.isArray(value.do));
}

/** Puts a row directly beneath another: as the first inside of what holds rows, else after it. */
export function insertBelow(
  document: ProjectDocument,
  path: DocumentPath,
  value: RowValue,
): RowEdit {
  const target = spotBelow(document, path, value);
  const command = several(`new ${called(value)}`, ...target.puts);
  return { command, focus: target.focus };
}

/** Puts several rows one after the other: after a row that has siblings of their form, else directly beneath it. */
export function pasteRows(
  document: ProjectDocument,
  path: DocumentPath,
  values: readonly RowValue[],
): RowEdit {
  if (values.length === 0) throw new CommandError('There is no row to put in.');
  const puts: PutCommand[] = [];
  let focus = path;
  values.forEach((value, i) => {
    expectFits(path, value);
    const beside = placeOf(path) && (formOf(path) === 'rule') === isRule(value);
    const spot = i === 0 && !beside ? spotBelow(document, path, value) : after(focus);
    if ('puts' in spot) puts.push(...spot.puts);
    else puts.push(insert(spot, value));
    focus = 'puts' in spot ? spot.focus : spot;
  });
  return {
    command: several(values.length === 1 ? `new ${called(values[0])}` : 'new rows', ...puts),
    focus,
  };
}

/** Rules hold rules and actions, trees hold nodes. */
function expectFits(path: DocumentPath, value: RowValue): void {
  if (path[2] === 'trees' && isRule(value))
    throw new CommandError(
      'A rule can’t stand in a tree: put the rules in with a row of their own.',
    );
  if (path[2] === 'rules' && !isRule(value) && !('do' in value && typeof value.do === 'string'))
    throw new CommandError('Under a rule stand actions only.');
}

interface Spot {
  puts: PutCommand[];
  focus: DocumentPath;
}

function spotBelow(document: ProjectDocument, path: DocumentPath, value: RowValue): Spot {
  const at = (spot: DocumentPath): Spot => ({ puts: [insert(spot, value)], focus: spot });
  const form = formOf(path);
  if (path[2] === 'rules') {
    const rule = isRule(value);
    if (form === 'set') {
      if (!rule) throw new CommandError('An action stands under a rule: put in a rule first.');
      return at([...path, 'rows', 0]);
    }
    if (form === 'else') return rule ? at(after(path.slice(0, -1))) : at([...path, 0]);
    if (form === 'rule') return at(rule ? after(path) : [...path, 'do', 0]);
    return at(after(rule ? ruleAround(path) : path));
  }
  const node = nodeAt(document, path);
  const kind = kindOfNode(node);
  const slot = slotOf(kind);
  if (slot === 'nodes') return at([...path, kind, 0]);
  if (slot === 'node') {
    const inside = [...path, kind];
    const child = nodeAt(document, inside);
    if (isNothingYet(child)) return { puts: [set(inside, value)], focus: inside };
    if (slotOf(kindOfNode(child)) === 'nodes') return at([...inside, kindOfNode(child), 0]);
    return {
      puts: [set(inside, { sequence: [value, child] })],
      focus: [...inside, 'sequence', 0],
    };
  }
  if (placeOf(path)) return at(after(path));
  return { puts: [set(path, { sequence: [node, value] })], focus: [...path, 'sequence', 1] };
}

function after(path: DocumentPath): DocumentPath {
  const place = placeOf(path);
  if (!place) throw new CommandError('Nothing can stand after this row.');
  return [...place.list, place.index + 1];
}

/** Of an action in rules. */
function ruleAround(path: DocumentPath): DocumentPath {
  return path.slice(0, -2);
}

function once(paths: readonly DocumentPath[]): DocumentPath[] {
  return [...new Map(paths.map((path) => [JSON.stringify(path), path])).values()];
}

/** Without those that stand inside another of them, from the last to the first, so that indices stay right. */
function outermost(paths: readonly DocumentPath[]): DocumentPath[] {
  const starts = (path: DocumentPath, with_: DocumentPath) =>
    with_.length < path.length && with_.every((step, i) => step === path[i]);
  const all = once(paths);
  return all.filter((path) => !all.some((other) => starts(path, other))).sort(backwards);
}

function backwards(a: DocumentPath, b: DocumentPath): number {
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    if (a[i] === b[i]) continue;
    if (typeof a[i] === 'number' && typeof b[i] === 'number') return Number(b[i]) - Number(a[i]);
    return String(a[i]) < String(b[i]) ? 1 : -1;
  }
  return b.length - a.length;
}

/** A row, the one before it, and those it stands in, innermost first. */
function* nearestTo(path: DocumentPath): Generator<DocumentPath> {
  yield path;
  const place = placeOf(path);
  if (place && place.index > 0) yield [...place.list, place.index - 1];
  for (let around = rowAround(path); around; around = rowAround(around)) yield around;
  yield path.slice(0, path[2] === 'trees' ? 5 : 4);
}

/** Takes rows away, with all inside them. Where a node can't be missing, room for another stays. */
export function removeRows(document: ProjectDocument, paths: readonly DocumentPath[]): RowEdit {
  const gone = outermost(paths);
  for (const path of gone) nodeAt(document, path);
  const puts = gone.map((path) =>
    placeOf(path) || formOf(path) === 'else' ? remove(path) : set(path, NOTHING_YET),
  );
  const first = gone.at(-1)!;
  const left = puts.reduce(putUnchecked, document);
  const focus = [...nearestTo(first)].find((path) => partAt(left, path) !== undefined)!;
  const what =
    gone.length === 1 ? `removal of ${called(partAt(document, first))}` : 'removal of rows';
  return { command: several(what, ...puts), focus };
}

/** The rows as they stand, each with all inside, for copying; in document order. */
export function rowsAt(document: ProjectDocument, paths: readonly DocumentPath[]): RowValue[] {
  return outermost(paths)
    .reverse()
    .map((path) => partAt(document, path) as RowValue);
}

export function duplicateRow(document: ProjectDocument, path: DocumentPath): RowEdit {
  const value = nodeAt(document, path);
  const what = `copy of ${called(value)}`;
  if (formOf(path) === 'else') throw new CommandError('A rule has one else only.');
  if (!placeOf(path))
    return {
      command: several(what, set(path, { sequence: [value, value] })),
      focus: [...path, 'sequence', 1],
    };
  const spot = after(path);
  return { command: several(what, insert(spot, value)), focus: spot };
}

/** Up or down among its siblings. */
export function moveRow(document: ProjectDocument, path: DocumentPath, by: 1 | -1): RowEdit {
  const place = placeOf(path);
  if (!place)
    throw new CommandError('This row stands alone where it is: there is nothing to pass.');
  const siblings = partAt(document, place.list) as RowValue[];
  const to = place.index + by;
  if (to < 0 || to >= siblings.length)
    throw new CommandError(`This is the ${by < 0 ? 'first' : 'last'} row here.`);
  const moved = [...siblings];
  [moved[place.index], moved[to]] = [moved[to], moved[place.index]];
  return {
    command: several(`place of ${called(siblings[place.index])}`, set(place.list, moved)),
    focus: [...place.list, to],
  };
}

/** Into the row above, as its last. */
export function nestRow(document: ProjectDocument, path: DocumentPath): RowEdit {
  const place = placeOf(path);
  if (!place || place.index === 0 || formOf(path) === 'action')
    throw new CommandError('There is no row above that this one could go into.');
  const above = [...place.list, place.index - 1];
  const list = formOf(path) === 'rule' ? [...above, 'rows'] : listInside(document, above);
  if (!list)
    throw new CommandError(
      `“${called(partAt(document, above))}” holds no rows. Wrap it first, in a sequence for example.`,
    );
  const value = nodeAt(document, path);
  const spot = [...list, (partAt(document, list) as unknown[] | undefined)?.length ?? 0];
  return {
    command: several(`place of ${called(value)}`, remove(path), insert(spot, value)),
    focus: spot,
  };
}

/** The list of rows a node holds, its own or that of the composite it wraps. */
function listInside(document: ProjectDocument, path: DocumentPath): DocumentPath | null {
  const kind = kindOfNode(nodeAt(document, path));
  const slot = slotOf(kind);
  if (slot === 'nodes') return [...path, kind];
  return slot === 'node' ? listInside(document, [...path, kind]) : null;
}

/** Out of the row it stands in, to right after that. */
export function unnestRow(document: ProjectDocument, path: DocumentPath): RowEdit {
  const around = formOf(path) === 'action' ? null : rowAround(path);
  if (!placeOf(path) || !around || !placeOf(around))
    throw new CommandError('This row stands as far out as it can.');
  const value = nodeAt(document, path);
  const spot = after(around);
  return {
    command: several(`place of ${called(value)}`, insert(spot, value), remove(path)),
    focus: spot,
  };
}

/** The list in which rows of a form go that are put inside another row; null where they can't. */
function listFor(document: ProjectDocument, form: RowForm, to: DocumentPath): DocumentPath | null {
  const into = formOf(to);
  if (form === 'node') return into === 'node' ? listInside(document, to) : null;
  if (form === 'rule') return into === 'rule' || into === 'set' ? [...to, 'rows'] : null;
  if (into === 'else') return to;
  return into === 'rule' ? [...to, 'do'] : null;
}

/** To another place among rows of the same form: before the row at `to`, or inside it as the last. */
export function dropRow(
  document: ProjectDocument,
  path: DocumentPath,
  to: DocumentPath,
  where: 'before' | 'after' | 'inside',
): RowEdit {
  if (path.every((step, i) => to[i] === step))
    throw new CommandError('A row can’t be moved into itself.');
  const value = nodeAt(document, path);
  if (!placeOf(path)) throw new CommandError('This row can’t be missing where it stands.');
  const form = formOf(path);
  if (path[2] !== to[2]) throw new CommandError('Rows of trees and of rules are not the same.');
  let spot: DocumentPath;
  if (where === 'inside') {
    const list = listFor(document, form, to);
    if (!list) throw new CommandError(`“${called(partAt(document, to))}” holds no rows.`);
    spot = [...list, (partAt(document, list) as unknown[] | undefined)?.length ?? 0];
  } else {
    if (form !== formOf(to) || !placeOf(to)) throw new CommandError('A row can’t stand there.');
    spot = where === 'after' ? after(to) : to;
  }
  // The later of the two places is worked on first, so that neither moves the other.
  const puts =
    backwards(path, spot) < 0
      ? [remove(path), insert(spot, value)]
      : [insert(spot, value), remove(path)];
  return {
    command: several(`place of ${called(value)}`, ...puts),
    focus: withoutBefore(spot, path),
  };
}

/** Where a path leads once what stood at `gone` is not there. */
function withoutBefore(path: DocumentPath, gone: DocumentPath): DocumentPath {
  const place = placeOf(gone)!;
  const at = place.list.length;
  const step = path[at];
  const same = place.list.every((each, i) => path[i] === each);
  if (!same || typeof step !== 'number' || step <= place.index) return path;
  return [...path.slice(0, at), step - 1, ...path.slice(at + 1)];
}

/** Puts neighbouring nodes into a new one. */
export function wrapRows(
  document: ProjectDocument,
  paths: readonly DocumentPath[],
  kind: Exclude<NodeKindName, 'tree' | 'rules' | 'condition'>,
): RowEdit {
  const ordered = outermost(paths).reverse();
  const [first] = ordered;
  if (ordered.some((path) => formOf(path) !== 'node'))
    throw new CommandError('Only rows of a tree can be wrapped.');
  const place = placeOf(first);
  const inside = ordered.map((path) => nodeAt(document, path));
  const next = ordered.every(
    (path, i) =>
      path.slice(0, -1).join() === first.slice(0, -1).join() &&
      (!place || path.at(-1) === place.index + i),
  );
  if (!next) throw new CommandError('Only rows that stand next to each other can be wrapped.');
  // What says when a row is reached among its siblings is then said of the row around it.
  const [outer, ...inner] = inside.length === 1 ? splitFields(inside[0]) : [{}, ...inside];
  const wrapped = { ...freshNode(kind, inner as NodeDocument[]), ...outer };
  const puts = place
    ? [...[...ordered].reverse().map(remove), insert(first, wrapped)]
    : [set(first, wrapped)];
  return { command: several(`${kind} around ${called(inside[0])}`, ...puts), focus: first };
}

/** What a selector or a random asks of its child, and the rest. */
function splitFields(node: NodeDocument): [Partial<NodeFields>, NodeDocument] {
  const { preempts, weight, ...rest } = node;
  if (preempts) {
    const { when, holds, ...plain } = rest;
    return [
      { when, preempts, ...(holds && { holds }), ...(weight !== undefined && { weight }) },
      plain as NodeDocument,
    ];
  }
  return [weight === undefined ? {} : { weight }, rest as NodeDocument];
}

/** What any node may carry. */
const FIELDS = ['title', 'note', 'when', 'holds', 'preempts', 'weight', 'off'] as const;

export function fieldsOfNode(node: NodeDocument): NodeFields {
  return Object.fromEntries(
    FIELDS.flatMap((field) => (node[field] === undefined ? [] : [[field, node[field]]])),
  );
}

/** Takes a node away and leaves what is inside it in its place. */
export function unwrapRow(document: ProjectDocument, path: DocumentPath): RowEdit {
  const node = nodeAt(document, path);
  const kind = kindOfNode(node);
  const slot = formOf(path) === 'node' ? slotOf(kind) : null;
  if (!slot) throw new CommandError('There is nothing inside this row.');
  const below = (node as unknown as Record<string, NodeDocument | NodeDocument[]>)[kind];
  const children = Array.isArray(below) ? below : [below];
  const place = placeOf(path);
  if (!place && children.length !== 1)
    throw new CommandError('Here stands one row only: what is inside can’t come out.');
  const puts = place
    ? [remove(path), ...[...children].reverse().map((child) => insert(path, child))]
    : [set(path, children[0])];
  return { command: several(`removal of ${called(node)} around its rows`, ...puts), focus: path };
}

/** Another kind in its place. What is inside stays, as does what any row carries. */
export function changeKind(
  document: ProjectDocument,
  path: DocumentPath,
  to: NodeDocument,
): RowEdit {
  const node = nodeAt(document, path);
  const form = formOf(path);
  if (form !== 'node' && !(form === 'action' && kindOfNode(to) === 'do'))
    throw new CommandError('Under a rule stand actions only.');
  const [from, kind] = [kindOfNode(node), kindOfNode(to)];
  const slot = slotOf(from);
  const below = slot
    ? (node as unknown as Record<string, NodeDocument | NodeDocument[]>)[from]
    : [];
  const all = Array.isArray(below) ? below : [below];
  const inside = all.filter((child) => !isNothingYet(child));
  const takes = slotOf(kind);
  if (!takes && inside.length > 0)
    throw new CommandError(
      `There is no room for what is inside “${called(node)}”. Take it out first, or choose what holds rows.`,
    );
  const content = takes ? { ...to, ...freshInside(to, kind as NodeKindName, inside) } : to;
  return {
    command: several(`kind of ${called(node)}`, set(path, { ...content, ...fieldsOfNode(node) })),
    focus: path,
  };
}

function freshInside(to: NodeDocument, kind: NodeKindName, inside: readonly NodeDocument[]) {
  const made = freshNode(kind as Exclude<NodeKindName, 'tree' | 'rules'>, inside);
  return { [kind]: (made as unknown as Record<string, unknown>)[kind] } as Partial<typeof to>;
}

/** Fields of a row given another value; those that are undefined are removed. */
export function changeRow(
  document: ProjectDocument,
  path: DocumentPath,
  change: Readonly<Record<string, unknown>>,
): RowEdit {
  const row = nodeAt(document, path) as unknown as Record<string, unknown>;
  const puts = Object.entries(change).flatMap(([field, value]) => {
    if (value !== undefined) return [set([...path, field], value)];
    return row[field] === undefined ? [] : [remove([...path, field])];
  });
  const what = `${Object.keys(change).map(wordOfField).join(', ')} of ${called(row)}`;
  return { command: several(what, ...puts), focus: path };
}

/** Switches rows off, or on where all of them are off. */
export function switchRows(document: ProjectDocument, paths: readonly DocumentPath[]): RowEdit {
  const rows = once(paths).filter((path) => ['node', 'rule'].includes(formOf(path)));
  if (rows.length === 0)
    throw new CommandError('Only rows of trees, and rules, can be switched off.');
  const allOff = rows.every((path) => nodeAt(document, path).off);
  const puts = rows.flatMap((path) => {
    const isOff = nodeAt(document, path).off === true;
    if (allOff) return [remove([...path, 'off'])];
    return isOff ? [] : [set([...path, 'off'], true)];
  });
  const what = `${called(partAt(document, rows[0]))} switched ${allOff ? 'on' : 'off'}`;
  return { command: several(what, ...puts), focus: paths[0] };
}
