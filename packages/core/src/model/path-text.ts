/** Where a part of a document is, as people read it: `minds.warden.trees.comb.root.sequence[0]`. */

/** A path with one more step: a name, or the number of an entry from 0. */
export function pathOnto(path: string, step: string | number): string {
  if (typeof step === 'number') return `${path}[${step}]`;
  return path === '' ? step : `${path}.${step}`;
}

export function pathText(path: readonly (string | number)[]): string {
  return path.reduce<string>(pathOnto, '');
}
