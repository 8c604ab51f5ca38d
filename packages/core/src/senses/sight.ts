import { atan2, cos, wrapAngle } from '../numeric/trigonometry.ts';
import type { Ground } from '../ground/ground.ts';

/**
 * Sight of other bodies, and the awareness that builds from it. Per second awareness of a target in
 * sight rises by gain × clear share × light × posture × (1 − (distance / range)²), with the gain and
 * range of the best cone that covers it, and fades at its own rate once it has been out of sight for
 * the grace time.
 */

export interface SightKind {
  cones: { range: number; halfAngle: number; gain: number }[];
  /** The longest range of all cones. */
  reach: number;
  /** By cone: the cosine of its half angle. */
  edges: number[];
  /** Per second. */
  fade: number;
  graceTicks: number;
  curious: number;
  certain: number;
  forgetTicks: number;
  /** How many of {@link BODY_POINTS} must be in plain view. */
  points: number;
}

/** Feet, chest and head, as shares of the body's height. */
export const BODY_POINTS = [0.05, 0.7, 0.95] as const;
/** Where the eyes are, as a share of the body's height. */
export const EYE_SHARE = 0.92;

/** What is looked at. */
export interface SightTarget {
  x: number;
  y: number;
  /** Of the body as it holds itself now, in metres. */
  height: number;
  /** How much its posture gives away, 0 to 1. */
  posture: number;
}

/** Sight with what follows from its cones. */
export function sightKind(sight: Omit<SightKind, 'reach' | 'edges'>): SightKind {
  return {
    ...sight,
    reach: Math.max(...sight.cones.map(({ range }) => range)),
    edges: sight.cones.map(({ halfAngle }) => cos(halfAngle)),
  };
}

export type SightChange = 'curious' | 'certain' | 'unsure' | 'lost';

type Cone = SightKind['cones'][number];

function gainIn(cone: Cone, distance: number): number {
  const share = distance / cone.range;
  return cone.gain * (1 - share * share);
}

function covers(cone: Cone, angle: number): boolean {
  return Math.abs(angle) <= cone.halfAngle;
}

/** The gain of the best cone that covers a target at this distance and angle from the heading (radians); 0 for none. Gain already includes the fall-off with distance. */
export function coneGain(kind: Pick<SightKind, 'cones'>, distance: number, angle: number): number {
  let best = 0;
  for (const cone of kind.cones) {
    if (distance >= cone.range || !covers(cone, angle)) continue;
    best = Math.max(best, gainIn(cone, distance));
  }
  return best;
}

/** More than a cosine worked out in another way can differ. */
const SLACK = 1e-9;
/** Metres below which products lose their last digits: there the angle decides. */
const TOO_NEAR = 1e-290;

/** {@link coneGain} of a target at (dx, dy) from the looker. The angle itself, which takes long, is worked out only for a target at the very edge of a cone. */
export function coneGainAt(
  { cones, edges }: SightKind,
  { heading, faceX, faceY }: Looker,
  dx: number,
  dy: number,
  distance: number,
): number {
  const slack = SLACK * Math.max(distance, TOO_NEAR);
  let best = 0;
  for (let i = 0; i < cones.length; i++) {
    const cone = cones[i];
    if (distance >= cone.range) continue;
    const inside = dx * faceX + dy * faceY - edges[i] * distance;
    if (Math.abs(inside) > slack) {
      if (inside < 0) continue;
    } else if (!covers(cone, wrapAngle(atan2(dy, dx) - heading))) continue;
    best = Math.max(best, gainIn(cone, distance));
  }
  return best;
}

/**
 * Seconds until awareness of an agent that stands still in plain view has risen from 0 to
 * `threshold`; Infinity where it never does.
 *
 * @param distance metres; @param angle from the heading, radians
 * @param exposure light × posture, 0 to 1
 */
export function secondsToNotice(
  kind: Pick<SightKind, 'cones'>,
  distance: number,
  angle: number,
  exposure: number,
  threshold: number,
): number {
  const strength = coneGain(kind, distance, angle) * exposure;
  return strength > 0 ? threshold / strength : Infinity;
}

/** Where an agent looks from. */
export interface Eyes {
  x: number;
  y: number;
  /** Metres above the ground. */
  eye: number;
}

export interface Looker extends Eyes {
  /** Radians, and as a vector of length 1. */
  heading: number;
  faceX: number;
  faceY: number;
}

const pointHeights = [0, 0, 0];

/** Share of the target's points that no wall hides, 0 to 1; 0 where fewer than `needed` are clear. */
export function clearShare(
  ground: Ground,
  eyes: Eyes,
  { x, y, height }: SightTarget,
  needed: number,
): number {
  for (let i = 0; i < BODY_POINTS.length; i++) pointHeights[i] = height * BODY_POINTS[i];
  const clear = ground.clearPoints(eyes.x, eyes.y, eyes.eye, x, y, pointHeights);
  const count = (clear & 1) + ((clear >> 1) & 1) + ((clear >> 2) & 1);
  return count >= needed ? count / BODY_POINTS.length : 0;
}

/**
 * Strength with which the looker would see the target in full light: awareness per second, 0 for
 * unseen. Light comes last, since it takes longest to know.
 */
export function sightStrength(
  kind: SightKind,
  ground: Ground,
  looker: Looker,
  target: SightTarget,
): number {
  const dx = target.x - looker.x;
  const dy = target.y - looker.y;
  const distance = Math.sqrt(dx * dx + dy * dy);
  if (distance >= kind.reach) return 0;
  const gain = coneGainAt(kind, looker, dx, dy, distance);
  if (gain === 0 || target.posture === 0) return 0;
  return gain * target.posture * clearShare(ground, looker, target, kind.points);
}

/** Threshold crossed between two values of awareness, or null. */
export function crossing(kind: SightKind, before: number, after: number): SightChange | null {
  if (before < kind.certain && after >= kind.certain) return 'certain';
  if (before < kind.curious && after >= kind.curious) return 'curious';
  if (before >= kind.curious && after < kind.curious) return 'lost';
  if (before >= kind.certain && after < kind.certain) return 'unsure';
  return null;
}
