/** Between two places. The square root is exact to the last bit in every engine; a hypotenuse function need not be. */
export function distance(x0: number, y0: number, x1: number, y1: number): number {
  const dx = x1 - x0;
  const dy = y1 - y0;
  return Math.sqrt(dx * dx + dy * dy);
}
