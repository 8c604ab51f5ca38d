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

/** A name that is free in a record, from words: “Comb the place” gives `combThePlace`; `other` where the words give none. */
export function nameFromWords(words: string, record: object | undefined, other: string): string {
  const [first = '', ...rest] = words.toLowerCase().match(/[a-z0-9]+/g) ?? [];
  const stem = first + rest.map((word) => word[0].toUpperCase() + word.slice(1)).join('');
  return freshIn(record, /^[a-z]/.test(stem) ? stem.slice(0, 38) : other);
}
