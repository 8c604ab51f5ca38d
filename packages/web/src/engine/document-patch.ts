import { isObject } from '@crooked-lantern/core';

/**
 * What turns one version of a document into the next. Versions share all that an edit did not change, so that the
 * patch is as small as the edit; and so do the versions that are made of it, in whatever thread that is.
 */
export type Patch =
  /** All of it is other than before. */
  | { whole: unknown }
  /** An object with these fields, in this order: those without a patch are as before. */
  | { keys: readonly string[]; fields: ReadonlyMap<string, Patch> }
  /** A list of items of the one before, each by its index there, and of others: patches of the item at the same place. */
  | { items: readonly (number | Patch)[] };

/** What is the same object in both is taken to be the same; nothing else is compared. */
export function patchOf(before: unknown, after: unknown): Patch {
  if (isObject(before) && isObject(after)) {
    const keys = Object.keys(after);
    const fields = new Map<string, Patch>();
    for (const key of keys) {
      if (!Object.hasOwn(before, key)) fields.set(key, { whole: after[key] });
      else if (before[key] !== after[key]) fields.set(key, patchOf(before[key], after[key]));
    }
    return { keys, fields };
  }
  if (Array.isArray(before) && Array.isArray(after)) {
    const indexes = new Map(before.map((item, index) => [item as unknown, index]));
    return {
      items: after.map(
        (item: unknown, index) => indexes.get(item) ?? patchOf(before[index] as unknown, item),
      ),
    };
  }
  return { whole: after };
}

/** Applies a patch to the version it was made from, which stays as it is. */
export function patched(before: unknown, patch: Patch): unknown {
  if ('whole' in patch) return patch.whole;
  if ('items' in patch) {
    const items = before as readonly unknown[];
    return patch.items.map((item, index) =>
      typeof item === 'number' ? items[item] : patched(items[index], item),
    );
  }
  const fields = before as Readonly<Record<string, unknown>>;
  return Object.fromEntries(
    patch.keys.map((key) => {
      const field = patch.fields.get(key);
      return [key, field ? patched(fields[key], field) : fields[key]];
    }),
  );
}
