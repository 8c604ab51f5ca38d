import type { PlacedLine } from './plan-layout.ts';

function arrowHead(points: readonly [number, number][]): string {
  const [x, y] = points[points.length - 1];
  const [px, py] = points[points.length - 2] ?? [x - 1, y];
  const length = Math.hypot(x - px, y - py) || 1;
  const ux = (x - px) / length;
  const uy = (y - py) / length;
  return `${x},${y} ${x - 7 * ux - 3.5 * uy},${y - 7 * uy + 3.5 * ux} ${x - 7 * ux + 3.5 * uy},${y - 7 * uy - 3.5 * ux}`;
}

/** `never`: no agent has ever taken it, and that is to be shown. */
export function Line({ line, taken, never }: { line: PlacedLine; taken: boolean; never: boolean }) {
  if (line.points.length < 2) return null;
  const tone = `${taken ? ' taken' : ''}${never ? ' never' : ''}`;
  return (
    <g>
      <polyline
        className={`line${tone}`}
        points={line.points.map(([x, y]) => `${x},${y}`).join(' ')}
      />
      <polygon className={`head${tone}`} points={arrowHead(line.points)} />
    </g>
  );
}
