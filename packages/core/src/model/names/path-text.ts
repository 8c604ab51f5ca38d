/** Where a part of a document is, as people read it: `minds.warden.trees.comb.root.sequence[0]`. */

/** Steps from the document down to one of its parts: names, and numbers of entries from 0. */
export type DocumentPath = readonly (string | number)[];

/** A path with one more step: a name, or the number of an entry from 0. */
export function pathOnto(path: string, step: string | number): string {
  if (typeof step === 'number') return `${path}[${step}]`;
  return path === '' ? step : `${path}.${step}`;
}

export function pathText(path: DocumentPath): string {
  return path.reduce<string>(pathOnto, '');
}

/** Steps of a path such as `minds.keeper.choices.whatNow.options[0].weight`; null where it is none. */
export function stepsOfPath(path: string): (string | number)[] | null {
  if (!/^[a-zA-Z]\w*((\.[a-zA-Z]\w*)|(\[\d+\]))*$/.test(path)) return null;
  return [...path.matchAll(/([a-zA-Z]\w*)|\[(\d+)\]/g)].map(([, name, index]) =>
    name === undefined ? Number(index) : name,
  );
}
