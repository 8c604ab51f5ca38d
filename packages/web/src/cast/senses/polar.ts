import type { ConeDocument } from '@crooked-lantern/core';

/** The drawing of what an agent senses around it: ahead is up, a metre is `scale` pixels, angles turn clockwise. */

export interface Polar {
  scale: number;
  /** Pixels from the left top corner to where the agent stands. */
  x: number;
  y: number;
}

export interface PolarPlace {
  /** Metres from the agent. */
  distance: number;
  /** Degrees off the heading, −180 to 180, clockwise positive. */
  angle: number;
}

const MARGIN = 16;

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** The place and size at which all cones and rings just fit. */
export function fitPolar(
  cones: readonly ConeDocument[],
  rings: readonly number[],
  width: number,
  height: number,
): Polar {
  const ring = Math.max(0.5, ...rings);
  let [ahead, behind, aside] = [ring, ring, ring];
  for (const { range, halfAngle } of cones) {
    ahead = Math.max(ahead, range);
    aside = Math.max(aside, halfAngle >= 90 ? range : range * Math.sin(radians(halfAngle)));
    behind = Math.max(behind, -range * Math.cos(radians(halfAngle)));
  }
  const scale = Math.min(
    (width - 2 * MARGIN) / (2 * aside),
    (height - 2 * MARGIN) / (ahead + behind),
  );
  return { scale, x: width / 2, y: (height - (behind - ahead) * scale) / 2 };
}

export function toPixels({ scale, x, y }: Polar, { distance, angle }: PolarPlace) {
  return {
    x: x + scale * distance * Math.sin(radians(angle)),
    y: y - scale * distance * Math.cos(radians(angle)),
  };
}

export function toPlace({ scale, x, y }: Polar, left: number, top: number): PolarPlace {
  const [dx, dy] = [(left - x) / scale, (y - top) / scale];
  return {
    distance: Math.hypot(dx, dy),
    angle: (Math.atan2(dx, dy) * 180) / Math.PI,
  };
}

/** The outline of a cone, as an SVG path. */
export function conePath(polar: Polar, { range, halfAngle }: ConeDocument): string {
  const radius = range * polar.scale;
  if (halfAngle >= 180) {
    const { x, y } = polar;
    return `M${x} ${y - radius}A${radius} ${radius} 0 1 1 ${x} ${y + radius}A${radius} ${radius} 0 1 1 ${x} ${y - radius}Z`;
  }
  const from = toPixels(polar, { distance: range, angle: -halfAngle });
  const to = toPixels(polar, { distance: range, angle: halfAngle });
  const large = halfAngle > 90 ? 1 : 0;
  return `M${polar.x} ${polar.y}L${from.x} ${from.y}A${radius} ${radius} 0 ${large} 1 ${to.x} ${to.y}Z`;
}

const STEPS = [0.5, 1, 2, 5, 10, 20, 50, 100];

/** Distances of the rings behind the drawing, three to six of them. */
export function gridRings(reach: number): number[] {
  const step = STEPS.find((candidate) => reach / candidate <= 6) ?? STEPS[STEPS.length - 1];
  return Array.from({ length: Math.floor(reach / step) }, (_, i) => (i + 1) * step);
}

/** How far off a noise with this reach is heard in the open. */
export function heardWithin(reach: number, threshold: number): number {
  return reach * (1 - threshold);
}
