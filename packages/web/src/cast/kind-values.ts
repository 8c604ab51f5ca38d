import { sameData, type ArchetypeDocument, type OverridesDocument } from '@crooked-lantern/core';

/** Fields of an archetype by their path, for the archetype itself and for agents that differ from it. */

/** `['reaction']`, or `['sight', 'fade']`. */
export type FieldPath = readonly [string] | readonly [string, string];

type Fields = Record<string, unknown>;

export function valueAt(of: object | undefined, [field, inner]: FieldPath): unknown {
  const value = (of as Fields | undefined)?.[field];
  return inner === undefined ? value : (value as Fields | undefined)?.[inner];
}

/** With `undefined` the field goes, and a part that is then empty with it. */
function withValue(of: object, path: FieldPath, value: unknown): Fields {
  const [field, inner] = path;
  const after: Fields = { ...(of as Fields) };
  if (inner === undefined) after[field] = value;
  else after[field] = { ...(after[field] as Fields | undefined), [inner]: value };
  if (inner !== undefined && value === undefined) {
    const { [inner]: _, ...rest } = after[field] as Fields;
    after[field] = Object.keys(rest).length > 0 ? rest : undefined;
  }
  if (after[field] === undefined) delete after[field];
  return after;
}

export function withField(
  archetype: ArchetypeDocument,
  path: FieldPath,
  value: unknown,
): ArchetypeDocument {
  return withValue(archetype, path, value) as unknown as ArchetypeDocument;
}

/** Where an agent differs, with one field more; what is as the archetype has it is left out. Undefined where nothing is left. */
export function withOverride(
  overrides: OverridesDocument | undefined,
  archetype: ArchetypeDocument,
  path: FieldPath,
  value: unknown,
): OverridesDocument | undefined {
  const differs = !sameData(value, valueAt(archetype, path));
  const after = withValue(overrides ?? {}, path, differs ? value : undefined);
  return Object.keys(after).length > 0 ? (after as OverridesDocument) : undefined;
}

/** Paths of all in which an agent differs, parts by their fields. */
export function overridden(overrides: OverridesDocument | undefined): string[] {
  return Object.entries(overrides ?? {}).flatMap(([field, value]) =>
    typeof value === 'object' && value !== null && !Array.isArray(value)
      ? Object.keys(value).map((inner) => `${field}.${inner}`)
      : [field],
  );
}
