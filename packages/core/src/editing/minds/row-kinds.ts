import type { NodeDocument, NodeFields, ProjectDocument } from '../../model/documents.ts';
import { kindOfNode, type NodeKindName } from '../../model/documents.ts';
import { CommandError, type DocumentPath } from '../commands/commands.ts';
import { wordOfField } from '../commands/path-words.ts';
import { partAt } from '../commands/put.ts';
import { freshNode, isNothingYet, slotOf, type FreshKind } from './fresh.ts';
import {
  type RowEdit,
  formOf,
  set,
  insert,
  remove,
  several,
  placeOf,
  nodeAt,
  called,
  once,
  outermost,
} from './row-places.ts';

/** What rows are, changed where they stand: wrapped, of another kind, with other fields, switched off. */

/** Puts neighbouring nodes into a new one. */
export function wrapRows(
  document: ProjectDocument,
  paths: readonly DocumentPath[],
  kind: Exclude<FreshKind, 'condition'>,
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
    const { when, holds, conduct, ...plain } = rest;
    return [
      {
        when,
        preempts,
        ...(holds && { holds }),
        ...(conduct && { conduct }),
        ...(weight !== undefined && { weight }),
      },
      plain as NodeDocument,
    ];
  }
  return [weight === undefined ? {} : { weight }, rest as NodeDocument];
}

/** What any node may carry. */
const FIELDS = ['title', 'note', 'when', 'holds', 'preempts', 'conduct', 'weight', 'off'] as const;

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
  const below = slot
    ? (node as unknown as Record<string, NodeDocument | NodeDocument[]>)[kind]
    : [];
  const children = Array.isArray(below) ? below : [below];
  if (children.length === 0) throw new CommandError('There is nothing inside this row.');
  const place = placeOf(path);
  if (!place && children.length !== 1)
    throw new CommandError('Only one row fits here: what is inside can’t come out.');
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
  const made = freshNode(kind as FreshKind, inside);
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
