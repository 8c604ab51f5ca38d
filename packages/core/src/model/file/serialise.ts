import { projectSchema, type ProjectDocument } from '../documents.ts';
import { isForeign } from '../names/names.ts';
import { isObject, type Schema } from '../schema/schema.ts';

/**
 * Canonical text: the fields of each object in the order its schema states them, names as keys in
 * alphabetical order, `x-` fields last. The same document always gives the same bytes, whatever
 * order its keys were made in, so that differences between two files are real.
 */

const byCodeUnit = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

function ordered(value: unknown, schema: Schema | undefined): unknown {
  if (schema?.kind === 'named') return ordered(value, schema.schema());
  if (schema?.kind === 'either') {
    const picked = schema.pick(value);
    return ordered(value, 'refused' in picked ? undefined : picked);
  }
  if (Array.isArray(value)) {
    return value.map((entry) => ordered(entry, schema?.kind === 'list' ? schema.of : undefined));
  }
  if (!isObject(value)) return value;
  const fields = schema?.kind === 'part' ? schema.fields : {};
  const known = Object.keys(fields).filter((key) => key in value);
  const rest = Object.keys(value)
    .filter((key) => !known.includes(key))
    .sort((a, b) => Number(isForeign(a)) - Number(isForeign(b)) || byCodeUnit(a, b));
  const result: Record<string, unknown> = {};
  for (const key of [...known, ...rest]) {
    if (value[key] === undefined) continue;
    const of = fields[key] ?? (schema?.kind === 'record' ? schema.of : undefined);
    result[key] = ordered(value[key], isForeign(key) ? undefined : of);
  }
  return result;
}

/** Short lists of numbers and small objects stay on one line, so that a file can be read and diffed. */
function print(value: unknown, indent: string): string {
  if (typeof value !== 'object' || value === null) return JSON.stringify(value);
  const inline = oneLine(value);
  if (indent.length + inline.length <= 100) return inline;
  const deeper = `${indent}  `;
  if (Array.isArray(value)) {
    return `[\n${value.map((entry) => deeper + print(entry, deeper)).join(',\n')}\n${indent}]`;
  }
  const lines = Object.entries(value).map(
    ([key, entry]) => `${deeper}${JSON.stringify(key)}: ${print(entry, deeper)}`,
  );
  return `{\n${lines.join(',\n')}\n${indent}}`;
}

function oneLine(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(oneLine).join(', ')}]`;
  if (typeof value === 'object' && value !== null) {
    const entries = Object.entries(value);
    if (entries.length === 0) return '{}';
    return `{ ${entries.map(([key, entry]) => `${JSON.stringify(key)}: ${oneLine(entry)}`).join(', ')} }`;
  }
  return JSON.stringify(value);
}

/** The text of an open file, ending in a line break. */
export function serialiseProject(document: ProjectDocument): string {
  return `${print(ordered(document, projectSchema), '')}\n`;
}
