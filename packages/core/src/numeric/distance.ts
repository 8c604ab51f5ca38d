/** Of a vector. The square root is exact to the last bit in every engine; a hypotenuse function need not be. */
export function length(x: number, y: number): number {
  return Math.sqrt(x * x + y * y);
}

/** Between two places. */
export function distance(x0: number, y0: number, x1: number, y1: number): number {
  return length(x1 - x0, y1 - y0);
}

/** Which of several places, given as x, y pairs, is nearest to (x, y), from 0; of equals the first. */
export function nearestPlace(places: ArrayLike<number>, x: number, y: number): number {
  let best = 0;
  let bestSquare = Infinity;
  for (let i = 0; i < places.length; i += 2) {
    const dx = places[i] - x;
    const dy = places[i + 1] - y;
    const square = dx * dx + dy * dy;
    if (square < bestSquare) {
      best = i / 2;
      bestSquare = square;
    }
  }
  return best;
}
