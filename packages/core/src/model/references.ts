import type { BreakpointDocument, ProjectDocument } from './documents.ts';
import { projectSchema } from './documents/project.ts';
import { BREAKPOINT_KINDS } from './documents/run.ts';
import type { NamedPart } from './names/named-parts.ts';
import { isForeign, namesOf } from './names/names.ts';
import { pathText, stepsOfPath, type DocumentPath } from './names/path-text.ts';
import { isObject, type Schema } from './schema/schema.ts';

/** One way through all names of a document’s parts, where they are given and where they are used, as its schema says. */

export interface NamesVisitor {
  /** What is to stand in place of a name. `parts` are the kinds it can be of; `isKey`: the path ends with it. */
  name(name: string, parts: readonly NamedPart[], path: DocumentPath, isKey: boolean): string;
  expression(source: string, path: DocumentPath): string;
  event(event: string, path: DocumentPath): string;
}

/** What a schema comes to for a value; null where the value does not fit. */
function resolved(schema: Schema, value: unknown): Schema | null {
  if (schema.kind === 'named') return resolved(schema.schema(), value);
  if (schema.kind !== 'either') return schema;
  const picked = schema.pick(value);
  return 'refused' in picked ? null : resolved(picked, value);
}

/** The schema of a step from a value on, and the parts that the step is the name of. */
function stepInto(schema: Schema, value: unknown, step: string | number) {
  const here = resolved(schema, value);
  const names = here?.kind === 'record' ? here.names : undefined;
  const inner =
    here?.kind === 'list' || here?.kind === 'record'
      ? here.of
      : here?.kind === 'part'
        ? here.fields[step]
        : undefined;
  return { inner, names };
}

/** A path within the document as a text, such as those of tiers. */
function mapPath(text: string, document: unknown, visit: NamesVisitor): string {
  const steps = stepsOfPath(text);
  if (!steps) return text;
  let schema: Schema | undefined = projectSchema;
  let value: unknown = document;
  const after = steps.map((step, i) => {
    if (!schema || isForeign(String(step))) return step;
    const { inner, names }: ReturnType<typeof stepInto> = stepInto(schema, value, step);
    schema = inner;
    value = (value as Record<string, unknown> | undefined)?.[step];
    return names ? visit.name(String(step), names, steps.slice(0, i + 1), true) : step;
  });
  return after.some((step, i) => step !== steps[i]) ? pathText(after) : text;
}

function map(
  schema: Schema,
  value: unknown,
  path: DocumentPath,
  document: unknown,
  visit: NamesVisitor,
): unknown {
  const here = resolved(schema, value);
  if (here?.kind === 'text' && typeof value === 'string') {
    if (here.names) return visit.name(value, here.names, path, false);
    switch (here.language) {
      case 'expression':
        return visit.expression(value, path);
      case 'event':
        return visit.event(value, path);
      case 'path':
        return mapPath(value, document, visit);
      case undefined:
        return value;
    }
  }
  const into = (inner: Schema, step: string | number, part: unknown) =>
    map(inner, part, [...path, step], document, visit);
  if (here?.kind === 'list' && Array.isArray(value)) {
    const after = value.map((entry, i) => into(here.of, i, entry));
    return after.some((entry, i) => entry !== value[i]) ? after : value;
  }
  if ((here?.kind !== 'record' && here?.kind !== 'part') || !isObject(value)) return value;
  let isSame = true;
  const after = Object.entries(value).map(([key, part]): [string, unknown] => {
    const { inner, names } = stepInto(here, value, key);
    if (isForeign(key) || !inner) return [key, part];
    const name = names ? visit.name(key, names, [...path, key], true) : key;
    const mapped = into(inner, key, part);
    isSame &&= name === key && mapped === part;
    return [name, mapped];
  });
  return isSame ? value : Object.fromEntries(after);
}

/** The parts that a word of what a breakpoint is about can name; none for words that mean something else. */
const NAMED_BY_BREAKPOINTS: Partial<Record<string, readonly NamedPart[]>> = {
  move: ['moves', 'guards'],
  agent: ['agents'],
};

/** A breakpoint with the names within what it is about: words with colons between them, by its kind. */
function mapBreakpoint(breakpoint: BreakpointDocument, path: DocumentPath, visit: NamesVisitor) {
  const { on, of: before } = breakpoint;
  const kinds: readonly string[] = BREAKPOINT_KINDS[on].of;
  const of = before
    ?.split(':')
    .map((word, i) => {
      const parts = NAMED_BY_BREAKPOINTS[kinds[i]];
      return parts ? visit.name(word, parts, path, false) : word;
    })
    .join(':');
  return of === before ? breakpoint : { ...breakpoint, of };
}

/** The document with every name as the visitor gives it. Parts in which nothing changes are the same as before. */
export function mapNames(document: ProjectDocument, visit: NamesVisitor): ProjectDocument {
  const after = map(projectSchema, document, [], document, visit) as ProjectDocument;
  const { breakpoints } = after;
  if (!breakpoints) return after;
  const mapped = namesOf(breakpoints).flatMap((id): [string, BreakpointDocument][] => {
    const now = mapBreakpoint(breakpoints[id], ['breakpoints', id, 'of'], visit);
    return now === breakpoints[id] ? [] : [[id, now]];
  });
  if (mapped.length === 0) return after;
  return { ...after, breakpoints: { ...breakpoints, ...Object.fromEntries(mapped) } };
}
