import { DEFAULT_BODY_HEIGHT, GUARD_FIELDS, MOVE_FIELDS, numberOf } from '@crooked-lantern/core';
import type { GuardDocument, MoveDocument } from '@crooked-lantern/core';
import styled from 'styled-components';

/** Pictures of moves and guards: when they are what, and what they cover from above and from the side. */

const Bar = styled.svg`
  display: block;
  width: 100%;
  height: 20px;
  overflow: hidden;
  rect {
    rx: 2px;
  }
  text {
    fill: var(--mute);
    font: 9px var(--mono);
  }
  .windUp {
    fill: var(--line2);
  }
  .active {
    fill: var(--lamp);
  }
  .recovery {
    fill: var(--raised);
    stroke: var(--line2);
  }
  .cooldown {
    fill: none;
    stroke: var(--line2);
    stroke-dasharray: 2 3;
  }
  .covers {
    fill: none;
    stroke: var(--done);
    stroke-width: 2;
  }
`;

const LENGTH = 300;

/** Seconds from a move’s beginning to its end. */
export function lengthOf({ windUp = 0, active, recovery = 0 }: MoveDocument): number {
  return windUp + active + recovery;
}

/**
 * A move as a bar over time. With `against`, a guard raised just in time for the impact is laid over it: where
 * it begins, and how long it covers.
 */
export function TimeBar({
  move,
  seconds,
  against,
}: {
  move: MoveDocument;
  /** What the whole width stands for. */
  seconds: number;
  against?: GuardDocument;
}) {
  const { windUp = 0, active, recovery = 0, cooldown = 0 } = move;
  const x = (time: number) => (time / seconds) * LENGTH;
  const parts = [
    ['windUp', 0, windUp],
    ['active', windUp, active],
    ['recovery', windUp + active, recovery],
    ['cooldown', windUp + active + recovery, cooldown],
  ] as const;
  const words = parts
    .filter(([, , length]) => length > 0)
    .map(([part, , length]) => `${MOVE_FIELDS[part].label.toLowerCase()} ${length} s`)
    .join(', ');
  const raise = against ? numberOf(against, 'raise', GUARD_FIELDS.raise) : 0;
  const begin = windUp - raise;
  return (
    <Bar
      viewBox={`0 0 ${LENGTH} 20`}
      preserveAspectRatio="none"
      role="img"
      aria-label={
        against
          ? `${words}; a guard that takes ${raise} s to raise must be begun ${Math.max(0, begin).toFixed(2)} s after it begins${begin < 0 ? ', which is too late' : ''}`
          : words
      }
    >
      {parts.map(([part, from, length]) => (
        <rect key={part} className={part} x={x(from)} y={4} width={x(length)} height={9} />
      ))}
      {against && (
        <path
          className="covers"
          d={`M${x(Math.max(0, begin))} 17H${x(windUp)}M${x(windUp)} 2V17H${x(windUp + active)}V2`}
        />
      )}
    </Bar>
  );
}

const Picture = styled.svg`
  height: 84px;
  overflow: visible;
  .body {
    fill: var(--raised);
    stroke: var(--line2);
  }
  .reach {
    fill: color-mix(in srgb, var(--harm) 22%, transparent);
    stroke: var(--harm);
  }
  .guard {
    fill: color-mix(in srgb, var(--done) 22%, transparent);
    stroke: var(--done);
  }
  line {
    stroke: var(--line);
  }
`;

/** Pixels a metre takes. */
const SCALE = 26;

interface Covered {
  reach: number;
  arc: number;
  from: number;
  to: number;
}

function coveredBy(move: MoveDocument): Covered {
  const number = (field: 'reach' | 'arc' | 'from' | 'to') =>
    numberOf(move, field, MOVE_FIELDS[field]);
  const isSector = (move.kind ?? 'strike') === 'strike';
  return {
    reach: Math.min(4, number('reach')),
    arc: isSector ? number('arc') : 3,
    from: number('from'),
    to: number('to'),
  };
}

/** What a move or a guard covers: the sector from above, the heights from the side, beside a body of this size. */
export function Coverage({
  radius,
  height = DEFAULT_BODY_HEIGHT,
  move,
  guard,
}: {
  radius: number;
  height?: number;
  move?: MoveDocument;
  guard?: GuardDocument;
}) {
  const covered: Covered = move
    ? coveredBy(move)
    : {
        reach: 0.25,
        arc: numberOf(guard!, 'arc', GUARD_FIELDS.arc),
        from: numberOf(guard!, 'from', GUARD_FIELDS.from),
        to: numberOf(guard!, 'to', GUARD_FIELDS.to),
      };
  const className = move ? 'reach' : 'guard';
  const [r, far] = [radius * SCALE, (radius + covered.reach) * SCALE];
  const half = (covered.arc * Math.PI) / 180;
  const [dx, dy] = [Math.cos(half) * far, Math.sin(half) * far];
  const wide = half >= Math.PI / 2 ? 1 : 0;
  const side = far * 2 + 40;
  const ground = 80;
  const y = (metres: number) => ground - metres * SCALE;
  return (
    <Picture
      viewBox={`${-far - 4} 0 ${side + far + 70} 84`}
      role="img"
      aria-label={`Covers ${covered.arc * 2}° and heights from ${covered.from} to ${covered.to} m${move ? `, ${covered.reach} m far` : ''}`}
    >
      <g transform="translate(0 42)">
        <path
          className={className}
          d={`M0 0L${dx} ${-dy}A${far} ${far} 0 ${wide} 1 ${dx} ${dy}Z`}
        />
        <circle className="body" r={r} />
      </g>
      <g transform={`translate(${far + 40} 0)`}>
        <line x1={-14} x2={far + 14} y1={ground} y2={ground} />
        <rect
          className="body"
          x={-r}
          width={r * 2}
          y={y(height)}
          height={height * SCALE}
          rx={r / 2}
        />
        <rect
          className={className}
          x={r}
          width={covered.reach * SCALE}
          y={y(covered.to)}
          height={Math.max(1, (covered.to - covered.from) * SCALE)}
        />
      </g>
    </Picture>
  );
}
