import type * as yup from 'yup';
import type { ProjectDocument } from '../documents.ts';
import { projectSchema } from '../schema/project.ts';
import { metaOf, type AnySchema, type Fields } from '../schema/shapes.ts';

/**
 * Canonical text: the fields of each object in the order the schema lists them, names as keys in
 * alphabetical order, `x-` fields last. The same document always gives the same bytes, whatever
 * order its keys were made in, so that differences between two files are real.
 */

const byCodeUnit = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

function ordered(value: unknown, schema: AnySchema | undefined): unknown {
  const meta = metaOf(schema);
  if (meta.part) return ordered(value, meta.part.build());
  if (Array.isArray(value)) {
    const inner = (schema as { innerType?: AnySchema } | undefined)?.innerType;
    return value.map((entry) => ordered(entry, inner));
  }
  if (typeof value !== 'object' || value === null) return value;
  const object = value as Record<string, unknown>;
  const fields = meta.shape?.() ?? variantFields(object, schema);
  const known = fields ? Object.keys(fields).filter((key) => key in object) : [];
  const rest = Object.keys(object)
    .filter((key) => !known.includes(key))
    .sort((a, b) => Number(a.startsWith('x-')) - Number(b.startsWith('x-')) || byCodeUnit(a, b));
  const result: Record<string, unknown> = {};
  for (const key of [...known, ...rest]) {
    if (object[key] === undefined) continue;
    result[key] = key.startsWith('x-')
      ? ordered(object[key], undefined)
      : ordered(object[key], fields?.[key] ?? meta.record?.value);
  }
  return result;
}

/** The forms among the variants of a form, and among theirs. */
function shapesOf(schema: AnySchema | undefined): { shape: Fields; tag: string }[] {
  const { variants, shape, tag, part } = metaOf(schema);
  if (part) return shapesOf(part.build());
  if (shape) return tag === undefined ? [] : [{ shape: shape(), tag }];
  return (variants ?? []).flatMap(shapesOf);
}

/** The fields of the variant an object is, told by its tag, and among actions by which one it names. */
function variantFields(
  object: Record<string, unknown>,
  schema: AnySchema | undefined,
): Fields | undefined {
  const found = shapesOf(schema).find(({ shape, tag }) => {
    if (!(tag in object)) return false;
    if (tag !== 'do') return true;
    return (shape.do as unknown as yup.StringSchema).describe().oneOf.includes(object.do as string);
  });
  return found?.shape;
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
