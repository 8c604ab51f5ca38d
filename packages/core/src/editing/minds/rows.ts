import type { ProjectDocument } from '../../model/documents.ts';
import { kindOfNode } from '../../model/documents.ts';
import { CommandError, type DocumentPath, type PutCommand } from '../commands/commands.ts';
import { partAt, putUnchecked } from '../commands/put.ts';
import { isNothingYet, NOTHING_YET, slotOf } from './fresh.ts';
import {
  type RowEdit,
  type RowForm,
  formOf,
  type RowValue,
  set,
  insert,
  remove,
  several,
  placeOf,
  nodeAt,
  rowAround,
  called,
  isRule,
  after,
  ruleAround,
  outermost,
  backwards,
} from './row-places.ts';

/**
 * Rows of trees and rules put in, taken away and moved. Each change gives its command and the row to go on
 * with, and throws a {@link CommandError} where it can't be made.
 */

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
  if (path[2] !== 'rules' && isRule(value))
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
  if (!placeOf(path)) throw new CommandError('This row is required.');
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
