import type { UnitName } from '../model/documents.ts';

/** Exponents of metre, second and degree; null for a bare number, which fits any unit. */
export type Unit = readonly [metre: number, second: number, degree: number] | null;

const NAMED: Record<UnitName, Unit> = {
  m: [1, 0, 0],
  s: [0, 1, 0],
  'm/s': [1, -1, 0],
  deg: [0, 0, 1],
};

export const PLAIN: Unit = [0, 0, 0];

export function unitNamed(name: UnitName | undefined): Unit {
  return name === undefined ? null : NAMED[name];
}

export function sameUnit(a: Unit, b: Unit): boolean {
  return a === null || b === null || (a[0] === b[0] && a[1] === b[1] && a[2] === b[2]);
}

/** Unit of a product (`sign` 1) or a quotient (`sign` −1). */
export function combinedUnit(a: Unit, b: Unit, sign: 1 | -1): Unit {
  if (a === null && b === null) return null;
  const left = a ?? [0, 0, 0];
  const right = b ?? [0, 0, 0];
  return [left[0] + sign * right[0], left[1] + sign * right[1], left[2] + sign * right[2]];
}

/** Such as `m/s`, `m²` or `no unit`. */
export function unitText(unit: Unit): string {
  if (unit === null) return 'no unit';
  const part = (name: string, power: number) =>
    power === 1 ? name : `${name}${power === 2 ? '²' : `^${power}`}`;
  const names = ['m', 's', '°'];
  const above = names.flatMap((name, i) => (unit[i] > 0 ? [part(name, unit[i])] : []));
  const below = names.flatMap((name, i) => (unit[i] < 0 ? [part(name, -unit[i])] : []));
  if (above.length === 0 && below.length === 0) return 'no unit';
  return `${above.join('·') || '1'}${below.length > 0 ? `/${below.join('/')}` : ''}`;
}
