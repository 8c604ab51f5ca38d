import { atan2, wrapAngle } from '../numeric/trigonometry.ts';
import { castRay, type Walls } from '../space/walls.ts';

/**
 * Sight of other bodies, and the awareness that builds from it. Per second awareness of a target in
 * sight rises by gain × (1 − (distance / range)²) of the best cone that covers it, and fades at its own
 * rate once it has been out of sight for the grace time.
 */

export interface SightKind {
  cones: { range: number; halfAngle: number; gain: number }[];
  /** The longest range of all cones. */
  reach: number;
  /** Per second. */
  fade: number;
  graceTicks: number;
  curious: number;
  certain: number;
  forgetTicks: number;
}

/** What one agent knows of another by sight. */
export interface Track {
  of: number;
  awareness: number;
  /** Awareness gained per second in this tick; 0 while out of sight. */
  strength: number;
  /** In sight this tick. */
  visible: boolean;
  seenAt: number;
  x: number;
  y: number;
}

export type SightChange = 'curious' | 'certain' | 'unsure' | 'lost';

/** The gain of the best cone that covers a target at this distance and angle from the heading (radians); 0 for none. Gain already includes the fall-off with distance. */
export function coneGain(kind: SightKind, distance: number, angle: number): number {
  let best = 0;
  for (const cone of kind.cones) {
    if (distance >= cone.range || Math.abs(angle) > cone.halfAngle) continue;
    const share = distance / cone.range;
    best = Math.max(best, cone.gain * (1 - share * share));
  }
  return best;
}

/** Whether a straight line between two places meets no wall. */
export function lineOfSight(walls: Walls, x0: number, y0: number, x1: number, y1: number): boolean {
  return castRay(walls, x0, y0, x1, y1) >= 1;
}

interface Looker {
  x: number;
  y: number;
  heading: number;
}

/** Strength with which the looker sees the place now: awareness per second, 0 for unseen. */
export function sightStrength(
  kind: SightKind,
  walls: Walls,
  looker: Looker,
  x: number,
  y: number,
): number {
  const dx = x - looker.x;
  const dy = y - looker.y;
  const distance = Math.sqrt(dx * dx + dy * dy);
  if (distance >= kind.reach) return 0;
  const gain = coneGain(kind, distance, wrapAngle(atan2(dy, dx) - looker.heading));
  return gain > 0 && lineOfSight(walls, looker.x, looker.y, x, y) ? gain : 0;
}

/** Threshold crossed between two values of awareness, or null. */
export function crossing(kind: SightKind, before: number, after: number): SightChange | null {
  if (before < kind.certain && after >= kind.certain) return 'certain';
  if (before < kind.curious && after >= kind.curious) return 'curious';
  if (before >= kind.curious && after < kind.curious) return 'lost';
  if (before >= kind.certain && after < kind.certain) return 'unsure';
  return null;
}

/** Brings a track up to this tick from its `strength`; (x, y) is where its target is. */
export function updateTrack(
  track: Track,
  kind: SightKind,
  x: number,
  y: number,
  tick: number,
  dt: number,
): void {
  track.visible = track.strength > 0;
  if (track.visible) {
    track.seenAt = tick;
    track.x = x;
    track.y = y;
    track.awareness = Math.min(1, track.awareness + track.strength * dt);
  } else if (tick - track.seenAt > kind.graceTicks) {
    track.awareness = Math.max(0, track.awareness - kind.fade * dt);
  }
}

/** Whether nothing is left worth keeping: unaware, and the last known place is too old. */
export function isForgotten(track: Track, kind: SightKind, tick: number): boolean {
  return track.awareness === 0 && tick - track.seenAt > kind.forgetTicks;
}

function isPreferred(track: Track, rival: Track): boolean {
  return track.seenAt === rival.seenAt ? track.of < rival.of : track.seenAt > rival.seenAt;
}

/** Place of the track attention falls on: the most aware, on equal terms the latest seen, then the lower agent; −1 for none. */
export function attendedTrack(tracks: readonly Track[]): number {
  let best = -1;
  for (let i = 0; i < tracks.length; i++) {
    const track = tracks[i];
    if (track.awareness <= 0) continue;
    const rival = best < 0 ? null : tracks[best];
    if (
      rival === null ||
      track.awareness > rival.awareness ||
      (track.awareness === rival.awareness && isPreferred(track, rival))
    )
      best = i;
  }
  return best;
}
