import { distance } from '../numeric/distance.ts';
import { cos, sin } from '../numeric/trigonometry.ts';
import type { Ground } from '../ground/ground.ts';

/** Places to search around the last known position of an agent: which there are, and which member takes which. */

/** How far off a place may be moved to be on walkable ground, in metres. */
const OFF = 0.5;

function ringPlaces(x: number, y: number, from: number, radius: number, spacing: number): number[] {
  const places: number[] = from === 0 ? [x, y] : [];
  const first = (Math.floor(from / spacing) + 1) * spacing;
  for (let r = first; r <= radius + 1e-9; r += spacing) {
    const count = Math.max(4, Math.round((2 * Math.PI * r) / (spacing * 1.3)));
    for (let i = 0; i < count; i++) {
      const angle = (2 * Math.PI * i) / count;
      places.push(x + cos(angle) * r, y + sin(angle) * r);
    }
  }
  return places;
}

function gridPlaces(x: number, y: number, from: number, radius: number, spacing: number): number[] {
  const places: number[] = [];
  const steps = Math.floor(radius / spacing);
  for (let r = -steps; r <= steps; r++) {
    for (let c = -steps; c <= steps; c++) {
      const square = (r * r + c * c) * spacing * spacing;
      if (square > radius * radius || (from > 0 && square <= from * from)) continue;
      places.push(x + c * spacing, y + r * spacing);
    }
  }
  return places;
}

/** How far from the last known position the search may begin, in metres. */
const CENTRE_OFF = 2;

const place = new Float64Array(2);

/**
 * Places to search within `radius` metres of (x, y), farther than `from`, about `spacing` apart, as x, y
 * pairs: only those that a body of this kind can get to from (x, y), each on its own.
 */
export function searchPlaces(
  ground: Ground,
  kind: number,
  x: number,
  y: number,
  from: number,
  radius: number,
  spacing: number,
  grid: boolean,
): number[] {
  const reachable = ground.reachableFrom(kind, x, y, CENTRE_OFF);
  if (reachable === null) return [];
  const wanted = (grid ? gridPlaces : ringPlaces)(x, y, from, radius, spacing);
  const taken = new Set<number>();
  const places: number[] = [];
  for (let i = 0; i < wanted.length; i += 2) {
    const spot = reachable.nearest(wanted[i], wanted[i + 1], OFF, place);
    if (spot < 0 || taken.has(spot)) continue;
    taken.add(spot);
    places.push(place[0], place[1]);
  }
  return places;
}

export const PLACE_FREE = -1;
export const PLACE_DONE = -2;

/**
 * The free place that suits a searcher at (x, y) best: near to it, and away from those the others are
 * on their way to, so that they spread. −1 where none is free.
 */
export function choosePlace(
  places: readonly number[],
  by: readonly number[],
  x: number,
  y: number,
): number {
  let best = -1;
  let bestScore = Infinity;
  for (let i = 0; i < by.length; i++) {
    if (by[i] !== PLACE_FREE) continue;
    let apart = 6;
    for (let j = 0; j < by.length; j++) {
      if (by[j] < 0) continue;
      const between = distance(places[2 * j], places[2 * j + 1], places[2 * i], places[2 * i + 1]);
      apart = Math.min(apart, between);
    }
    const score = distance(places[2 * i], places[2 * i + 1], x, y) - 0.5 * apart;
    if (score < bestScore) {
      best = i;
      bestScore = score;
    }
  }
  return best;
}
