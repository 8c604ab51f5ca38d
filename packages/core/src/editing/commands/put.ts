import type { ProjectDocument } from '../../model/documents.ts';
import { readProject } from '../../model/file/read-project.ts';
import { pathText } from '../../model/names/path-text.ts';
import { CommandError, type DocumentPath, type PutCommand } from './commands.ts';

/**
 * Any part of the document set, inserted or removed at its path. It reaches what has no command of its own:
 * trees, rules, memory, minds. What it comes to is held against the schema, so that a document that was of
 * the right form stays so.
 */

type Container = Record<string, unknown> | unknown[];

function isContainer(value: unknown): value is Container {
  return typeof value === 'object' && value !== null;
}

/** The part at a path; undefined where there is none. */
export function partAt(document: unknown, path: DocumentPath): unknown {
  let part: unknown = document;
  for (const step of path) {
    if (!isContainer(part) || !Object.hasOwn(part, step)) return undefined;
    part = (part as Record<string | number, unknown>)[step];
  }
  return part;
}

function expectStep(container: Container, step: string | number, path: DocumentPath): void {
  if (Array.isArray(container) === (typeof step === 'number')) return;
  throw new CommandError(
    `${pathText(path)} goes by ${typeof step === 'number' ? 'a number' : 'a name'}, but there is ${Array.isArray(container) ? 'a list' : 'no list'}.`,
  );
}

/** The container with what is at `path` below it changed; records on the way that are missing are made. */
function changeAt(
  container: Container,
  path: DocumentPath,
  change: (container: Container, step: string | number) => Container,
  whole: DocumentPath = path,
): Container {
  const [step, ...rest] = path;
  expectStep(container, step, whole);
  if (rest.length === 0) return change(container, step);
  const inner = (container as Record<string | number, unknown>)[step];
  if (inner !== undefined && !isContainer(inner))
    throw new CommandError(`${pathText(whole)} leads through a value that has no parts.`);
  if (inner === undefined && typeof step === 'number')
    throw new CommandError(`There is no entry ${step + 1} in ${pathText(whole)}.`);
  // A list is begun by what is put in first.
  const missing = typeof rest[0] === 'number' ? [] : {};
  const changed = changeAt(inner ?? missing, rest, change, whole);
  return withPart(container, step, changed);
}

function withPart(container: Container, step: string | number, value: unknown): Container {
  if (!Array.isArray(container)) return { ...container, [step]: value };
  return container.map((entry: unknown, i) => (i === step ? value : entry));
}

function without(container: Container, step: string | number): Container {
  if (Array.isArray(container)) return container.filter((_, i) => i !== step);
  return Object.fromEntries(Object.entries(container).filter(([key]) => key !== step));
}

function setPart({ path, value }: PutCommand, container: Container, step: string | number) {
  if (Array.isArray(container) && !((step as number) < container.length))
    throw new CommandError(`There is no ${pathText(path)}; the list has ${container.length}.`);
  return withPart(container, step, value);
}

function insertPart({ path, value }: PutCommand, container: Container, step: string | number) {
  if (!Array.isArray(container))
    throw new CommandError(`${pathText(path)} is in no list, so nothing can be inserted there.`);
  const at = step as number;
  if (at > container.length)
    throw new CommandError(`There is no ${pathText(path)}; the list has ${container.length}.`);
  return [...container.slice(0, at), value, ...container.slice(at)];
}

function removePart({ path }: PutCommand, container: Container, step: string | number) {
  if (!Object.hasOwn(container, step))
    throw new CommandError(`There is no ${pathText(path)} to remove.`);
  return without(container, step);
}

/** Takes containers away that a removal has left empty, where the schema lets them be missing. */
function pruned(document: ProjectDocument, path: DocumentPath): ProjectDocument {
  const above = path.slice(0, -1);
  const left = partAt(document, above);
  if (above.length === 0 || !isContainer(left) || Object.keys(left).length > 0) return document;
  // Entries of a record or a list are things of their own, however little is in them.
  if (typeof above.at(-1) === 'number') return document;
  const smaller = changeAt(document as unknown as Container, above, without) as never;
  return readProject(smaller).ok ? pruned(smaller, above) : document;
}

/** Throws a {@link CommandError} where there is no such path, or where the document would no longer be of the right form. */
export function put(document: ProjectDocument, command: PutCommand): ProjectDocument {
  return expectForm(putUnchecked(document, command));
}

export function expectForm(document: ProjectDocument): ProjectDocument {
  const read = readProject(document);
  if (read.ok) return document;
  const [{ path, message }] = read.faults;
  throw new CommandError(`${path} ${message}`);
}

/** For several in a row, of which only what comes of all of them must be of the right form. */
export function putUnchecked(document: ProjectDocument, command: PutCommand): ProjectDocument {
  const { path, how } = command;
  if (path.length === 0) throw new CommandError('A path has at least one step.');
  if (path.some((step) => typeof step === 'number' && !(Number.isInteger(step) && step >= 0)))
    throw new CommandError(`Entries of lists go by whole numbers from 0: ${pathText(path)}.`);
  const work = { set: setPart, insert: insertPart, remove: removePart }[how];
  const changed = changeAt(document as unknown as Container, path, (container, step) =>
    work(command, container, step),
  ) as unknown as ProjectDocument;
  return how === 'remove' ? pruned(changed, path) : changed;
}

/** The command that takes a document back from what `command` made of it. */
export function inverseOfPut(document: ProjectDocument, command: PutCommand): PutCommand {
  const { path, how } = command;
  if (how === 'remove') {
    const whole = firstGone(document, put(document, command), path);
    const inList = whole.length === path.length && typeof whole.at(-1) === 'number';
    const value = partAt(document, whole);
    return { command: 'put', how: inList ? 'insert' : 'set', path: whole, value };
  }
  const made = firstMissing(document, path);
  if (made.length < path.length) return { command: 'put', how: 'remove', path: made };
  if (how === 'insert') return { command: 'put', how: 'remove', path };
  const before = partAt(document, path);
  return before === undefined
    ? { command: 'put', how: 'remove', path }
    : { command: 'put', how: 'set', path, value: before };
}

/** The path up to the first step that leads nowhere; the whole path where only its end may be missing. */
function firstMissing(document: ProjectDocument, path: DocumentPath): DocumentPath {
  for (let length = 1; length < path.length; length++)
    if (partAt(document, path.slice(0, length)) === undefined) return path.slice(0, length);
  return path;
}

/** The path up to the first part that was there before and is gone after. */
function firstGone(
  before: ProjectDocument,
  after: ProjectDocument,
  path: DocumentPath,
): DocumentPath {
  const gone = firstMissing(after, path);
  return partAt(before, gone) === undefined ? path : gone;
}
