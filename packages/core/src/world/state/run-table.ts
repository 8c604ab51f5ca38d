/** What happens to one field of a run's state where the run changes hands. */
export interface RunField<V, Owner, Change> {
  /** The value again, sharing nothing with it that may change. */
  copy(value: V, owner: Owner): V;
  /** What it is under an edited program. Fields are carried in the order of the table. */
  carry(value: V, change: Change): V;
  /** How its owner takes a value that nothing else holds; left out: it is assigned. */
  put?(owner: Owner, value: V): void;
}

/** All fields of a part of a run's state: one that is missing does not compile. */
export type RunTable<Run, Owner, Change> = {
  readonly [K in keyof Run]: RunField<Run[K], Owner, Change>;
};

/** Whether a value may stand where another does: of lists whether they are lists, of numbers side by side also how many. */
function isAlike(held: unknown, kept: unknown): boolean {
  if (ArrayBuffer.isView(held))
    return (
      ArrayBuffer.isView(kept) &&
      kept.constructor === held.constructor &&
      kept.byteLength === held.byteLength
    );
  if (Array.isArray(held)) return Array.isArray(kept);
  if (held === null || typeof held === 'object')
    return typeof kept === 'object' && !ArrayBuffer.isView(kept);
  return typeof kept === typeof held;
}

/** What keeps, puts back and carries over follows from a table: no field can be forgotten in one of them. */
export function handoverBy<
  Run extends object,
  Owner extends Run,
  Change extends { from: Owner; to: Owner },
>(table: RunTable<Run, Owner, Change>) {
  const fields = Object.keys(table) as (keyof Run)[];

  function put<K extends keyof Run>(owner: Owner, field: K, value: Run[K]): void {
    const { put: own } = table[field];
    if (own) own(owner, value);
    else (owner as Run)[field] = value;
  }

  return {
    fields,
    put,
    /** Every field, for keeping. */
    copy(owner: Owner): Run {
      const entries = fields.map((field) => [field, table[field].copy(owner[field], owner)]);
      return Object.fromEntries(entries) as Run;
    },
    /** The first field that was not kept, or not as its owner holds it; null where all were. */
    unlike(owner: Owner, kept: Partial<Run>): keyof Run | null {
      return fields.find((field) => !isAlike(owner[field], kept[field])) ?? null;
    },
    /** Puts every field back as it was kept. */
    restore(owner: Owner, kept: Run): void {
      for (const field of fields) put(owner, field, table[field].copy(kept[field], owner));
    },
    /** Carries every field over to an edited program. */
    carry(change: Change): void {
      for (const field of fields)
        put(change.to, field, table[field].carry(change.from[field], change));
    },
  };
}
