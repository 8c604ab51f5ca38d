/** Stretches of time that the lanes show. */

export interface Span {
  id: string;
  name: string;
  seconds: number;
}

export const SPANS: readonly Span[] = [
  { id: '15', name: 'last 15 s', seconds: 15 },
  { id: '40', name: 'last 40 s', seconds: 40 },
  { id: '180', name: 'last 3 min', seconds: 180 },
  { id: 'all', name: 'whole run', seconds: Infinity },
];

/** At the start of a run so much stands on screen. */
export const SHORTEST_RUN_SECONDS = 10;

export const ZOOM = 1.25;
const SHORTEST_SECONDS = 1;
const LONGEST_SECONDS = 3600;

/** A stretch of so many seconds. */
export function spanOf(seconds: number): Span {
  const held = Math.max(SHORTEST_SECONDS, Math.min(LONGEST_SECONDS, seconds));
  const name =
    held < 90 ? `last ${Number(held.toPrecision(2))} s` : `last ${(held / 60).toFixed(1)} min`;
  return { id: `${held}`, name, seconds: held };
}
