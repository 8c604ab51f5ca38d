/** A name that is not taken yet: `warden`, then `warden2` and so on; `wave2` where that is free. */
export function freshName(stem: string, isTaken: (name: string) => boolean): string {
  if (!isTaken(stem)) return stem;
  const base = stem.replace(/\d+$/, '');
  if (!isTaken(base)) return base;
  for (let i = 2; ; i++) if (!isTaken(`${base}${i}`)) return `${base}${i}`;
}

/** The same among the names of a record. */
export function freshIn(record: object | undefined, stem: string): string {
  return freshName(stem, (name) => Object.hasOwn(record ?? {}, name));
}
