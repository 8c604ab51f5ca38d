/**
 * How far a number lies in a part of its line, 0 to 1: a trapezoid that rises from `from` to `fullFrom` and
 * falls from `fullTo` to `to`. Open ends are infinite. A number that is nothing lies nowhere.
 */
export function membershipOf(
  value: number,
  from: number,
  fullFrom: number,
  fullTo: number,
  to: number,
): number {
  if (value !== value || value < from || value > to) return 0;
  if (value < fullFrom) return (value - from) / (fullFrom - from);
  return value > fullTo ? (to - value) / (to - fullTo) : 1;
}
