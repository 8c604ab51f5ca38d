/**
 * Where to aim at a target at (x, y) with velocity (vx, vy), from the origin, with something of that speed:
 * where the two meet first; where they are now if they never do.
 */
export function leadAim(
  x: number,
  y: number,
  vx: number,
  vy: number,
  speed: number,
): [number, number] {
  const a = vx * vx + vy * vy - speed * speed;
  const b = 2 * (x * vx + y * vy);
  const c = x * x + y * y;
  let t = NaN;
  if (Math.abs(a) < 1e-9) t = b < 0 ? -c / b : NaN;
  else {
    const root = b * b - 4 * a * c;
    if (root >= 0) {
      const q = Math.sqrt(root);
      const times = [(-b - q) / (2 * a), (-b + q) / (2 * a)].filter((time) => time > 0);
      t = times.length > 0 ? Math.min(...times) : NaN;
    }
  }
  return t === t ? [x + vx * t, y + vy * t] : [x, y];
}
