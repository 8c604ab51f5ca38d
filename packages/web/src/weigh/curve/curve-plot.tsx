import { STRAIGHT, type CurveDocument } from '@crooked-lantern/core';
import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import { useDrawing } from '../../engine/use-engine.tsx';
import { curvePath, handlesOf, type Handle } from './curve-path.ts';
import { shortNumber } from '../words.ts';
import { writeAttribute, writeText } from '../../ui/timing/write-live.ts';

const Plot = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  overflow: visible;
  touch-action: none;
  text {
    fill: var(--mute);
    font: 11px var(--mono);
  }
  path {
    fill: none;
  }
  .grid {
    stroke: var(--line);
    stroke-dasharray: 2 4;
  }
  .axis {
    stroke: var(--line2);
  }
  .curve {
    stroke: var(--lamp);
    stroke-width: 2;
  }
  .bin {
    fill: var(--done);
    opacity: 0.45;
  }
  .now {
    stroke: var(--bone);
    stroke-dasharray: 3 3;
    opacity: 0.7;
  }
  .dot {
    fill: var(--bone);
  }
  .handle {
    fill: var(--night);
    stroke: var(--lamp);
    stroke-width: 2;
    cursor: grab;
  }
  .handle:focus-visible {
    outline: none;
    stroke: var(--sight);
    stroke-width: 3;
  }
`;

const WIDTH = 320;
const HEIGHT = 150;
const LEFT = 22;
const TOP = 14;
/** How far an arrow key moves a handle. */
const STEP = 0.01;

/** A number on the axis: as short as it can be. */
function axisText(value: number): string {
  return String(Number(value.toPrecision(3)));
}

/** One curve, large: dragged by its points, with where the input is now and what was asked of it. */
export function CurvePlot({
  curve = STRAIGHT,
  from,
  to,
  bins,
  read,
  label,
  onChange,
}: {
  curve?: CurveDocument;
  /** What becomes 0 and 1. */
  from: number;
  to: number;
  bins: readonly number[] | null;
  /** Where the input is now, as a share of its range, and what that is worth. */
  read: (frame: NonNullable<Parameters<Parameters<typeof useDrawing>[0]>[0]['frame']>) => {
    value: number;
    x: number;
    y: number;
  } | null;
  label: string;
  onChange: (curve: CurveDocument) => void;
}) {
  /** The curve while it is dragged; it becomes an edit when it is let go. */
  const [draft, setDraft] = useState<CurveDocument | null>(null);
  const shown = draft ?? curve;
  const svg = useRef<SVGSVGElement>(null);
  const now = useRef<SVGGElement>(null);
  const dragged = useRef<string | null>(null);
  const path = useMemo(() => curvePath(shown, WIDTH, HEIGHT, 96), [shown]);
  const handles = handlesOf(shown);
  const most = Math.max(1, ...(bins ?? []));

  useDrawing(({ frame }) => {
    const group = now.current;
    if (!group) return;
    const at = frame && read(frame);
    group.style.display = at ? '' : 'none';
    if (!at) return;
    const [px, py] = [at.x * WIDTH, (1 - at.y) * HEIGHT];
    const [across, down, dot, text] = group.children;
    writeAttribute(across, 'd', `M0 ${py}H${px}`);
    writeAttribute(down, 'd', `M${px} ${py}V${HEIGHT}`);
    writeAttribute(dot, 'cx', String(px));
    writeAttribute(dot, 'cy', String(py));
    const isRight = px > WIDTH * 0.6;
    writeAttribute(text, 'x', String(isRight ? px - 6 : px + 6));
    writeAttribute(text, 'text-anchor', isRight ? 'end' : 'start');
    writeAttribute(text, 'y', String(Math.max(10, py - 6)));
    writeText(text, `${axisText(at.value)} → ${shortNumber(at.y)}`);
  });

  const pointed = (event: PointerEvent): [number, number] => {
    const box = svg.current!.getBoundingClientRect();
    const scale = (WIDTH + LEFT + 12) / box.width;
    const x = ((event.clientX - box.left) * scale - LEFT) / WIDTH;
    const y = 1 - ((event.clientY - box.top) * scale - TOP) / HEIGHT;
    return [Math.min(1, Math.max(0, x)), Math.min(1, Math.max(0, y))];
  };
  const drag = (handle: Handle, event: PointerEvent<SVGCircleElement>) => {
    if (dragged.current !== handle.id) return;
    setDraft(handle.move(...pointed(event)));
  };
  const drop = () => {
    dragged.current = null;
    if (draft) onChange(draft);
    setDraft(null);
  };
  const nudge = (handle: Handle, event: KeyboardEvent) => {
    const by = event.shiftKey ? STEP * 10 : STEP;
    const steps: Record<string, [number, number]> = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, by],
      ArrowDown: [0, -by],
    };
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    const held = (value: number) => Math.min(1, Math.max(0, value));
    onChange(handle.move(held(handle.x + step[0]), held(handle.y + step[1])));
  };

  return (
    <Plot
      ref={svg}
      viewBox={`0 0 ${WIDTH + LEFT + 12} ${HEIGHT + TOP + 20}`}
      role="group"
      aria-label={label}
    >
      <g transform={`translate(${LEFT} ${TOP})`}>
        {[0.25, 0.5, 0.75].map((share) => (
          <path key={share} className="grid" d={`M${share * WIDTH} 0V${HEIGHT}`} />
        ))}
        <path className="grid" d={`M0 ${HEIGHT / 2}H${WIDTH}`} />
        <path className="axis" d={`M0 0V${HEIGHT}H${WIDTH}`} />
        <text x={-6} y={4} textAnchor="end">
          1
        </text>
        <text x={-6} y={HEIGHT + 4} textAnchor="end">
          0
        </text>
        {[0, 0.25, 0.5, 0.75, 1].map((share) => (
          <text
            key={share}
            x={share * WIDTH}
            y={HEIGHT + 16}
            textAnchor={share === 0 ? 'start' : share === 1 ? 'end' : 'middle'}
          >
            {axisText(from + share * (to - from))}
          </text>
        ))}
        {bins?.map((count, i) => {
          const height = (count / most) * HEIGHT * 0.45;
          return (
            <rect
              key={i}
              className="bin"
              x={(i / bins.length) * WIDTH + 2}
              width={WIDTH / bins.length - 4}
              y={HEIGHT - height}
              height={height}
            />
          );
        })}
        <path className="curve" d={path} />
        <g ref={now} style={{ display: 'none' }} aria-hidden="true">
          <path className="now" />
          <path className="now" />
          <circle className="dot" r="5" />
          <text />
        </g>
        {handles.map((handle) => (
          <circle
            key={handle.id}
            className="handle"
            r="6"
            cx={handle.x * WIDTH}
            cy={(1 - handle.y) * HEIGHT}
            tabIndex={0}
            role="button"
            aria-label={`${handle.name}: ${axisText(from + handle.x * (to - from))}, worth ${shortNumber(handle.y)}. Arrows move it`}
            onPointerDown={(event) => {
              dragged.current = handle.id;
              event.currentTarget.setPointerCapture(event.pointerId);
            }}
            onPointerMove={(event) => drag(handle, event)}
            onPointerUp={drop}
            onPointerCancel={() => {
              dragged.current = null;
              setDraft(null);
            }}
            onKeyDown={(event) => nudge(handle, event)}
          />
        ))}
      </g>
    </Plot>
  );
}
