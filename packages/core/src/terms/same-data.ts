/**
 * Whether two pieces of plain data say the same, in whatever order their fields stand. A field that is undefined is as
 * one that is absent. It ends at the first difference, where comparing their texts would write out both.
 */
export function sameData(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null)
    return Number.isNaN(a) && Number.isNaN(b);
  if (Array.isArray(a) || Array.isArray(b)) {
    if (!Array.isArray(a) || !Array.isArray(b) || a.length !== b.length) return false;
    for (let i = 0; i < a.length; i++) if (!sameData(a[i], b[i])) return false;
    return true;
  }
  const [one, other] = [a as Record<string, unknown>, b as Record<string, unknown>];
  for (const key of Object.keys(one)) if (!sameData(one[key], other[key])) return false;
  for (const key of Object.keys(other))
    if (other[key] !== undefined && !Object.hasOwn(one, key)) return false;
  return true;
}
