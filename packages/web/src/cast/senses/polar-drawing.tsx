import { sameData, type ConeDocument, type SightDocument } from '@crooked-lantern/core';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import {
  conePath,
  fitPolar,
  gridRings,
  heardWithin,
  toPixels,
  toPlace,
  type PolarPlace,
} from './polar.ts';

const Stage = styled.div`
  position: relative;
  min-height: 0;
  touch-action: none;
  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
  text {
    fill: var(--mute);
    font: 11px var(--mono);
    paint-order: stroke;
    stroke: var(--night);
    stroke-width: 3px;
  }
  .handle {
    fill: var(--night);
    stroke: var(--sight);
    stroke-width: 2;
    cursor: grab;
  }
  .handle.ear {
    stroke: var(--sound);
  }
  .handle:focus-visible {
    outline: 2px solid var(--sight);
    outline-offset: 2px;
  }
`;

/** A noise that is drawn as the ring within which it is heard. */
export interface Heard {
  title: string;
  /** Metres. */
  reach: number;
}

type Handle = { cone: number; what: 'range' | 'halfAngle' } | { ear: true };

const LIMITS = { range: [0.1, 500], halfAngle: [1, 180] } as const;

function within(value: number, [least, most]: readonly [number, number], step: number): number {
  const stepped = Math.round(value / step) * step;
  return Number(Math.min(most, Math.max(least, stepped)).toFixed(3));
}

/** Pixels of radius below which a ring of hearing has no room for its words. */
const SMALLEST_LABELLED = 26;

/** Where the handle of hearing sits on its ring: behind on the right, out of the way of cones. */
const EAR_ANGLE = 135;

function useSize() {
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    const observer = new ResizeObserver(([{ contentRect }]) =>
      setSize({ width: contentRect.width, height: contentRect.height }),
    );
    observer.observe(box.current!);
    return () => observer.disconnect();
  }, []);
  return { box, ...size };
}

/**
 * What an agent sees and hears around it, seen from above with ahead up. Every number that has a place
 * in the drawing has a handle there: drag it, or focus it and press the arrow keys (with Shift in tens).
 */
export function PolarDrawing({
  of,
  sight,
  threshold,
  noises,
  tint,
  onCones,
  onThreshold,
  onHover,
}: {
  of: string;
  sight: SightDocument | undefined;
  /** Of hearing; undefined for deaf. */
  threshold: number | undefined;
  noises: readonly Heard[];
  tint: string;
  onCones: (cones: ConeDocument[]) => void;
  onThreshold: (threshold: number) => void;
  /** The place under the pointer, for a readout; null where there is none. */
  onHover: (place: PolarPlace | null) => void;
}) {
  const { box, width, height } = useSize();
  const [held, setHeld] = useState<Handle | null>(null);
  // While a handle is dragged its figures show at once; the document changes when it is let go.
  const [draft, setDraft] = useState<{ cones?: ConeDocument[]; threshold?: number }>({});
  const given = sight?.cones ?? [];
  const cones = draft.cones ?? given;
  const ear = draft.threshold ?? threshold;
  const loudest = noises.reduce<Heard | null>(
    (best, noise) => (best === null || noise.reach > best.reach ? noise : best),
    null,
  );
  const rings =
    threshold === undefined ? [] : noises.map(({ reach }) => heardWithin(reach, threshold));
  // The frame holds still under a drag.
  const polar = fitPolar(given, rings, Math.max(width, 60), Math.max(height, 60));
  const reach = Math.max(0, ...cones.map(({ range }) => range), ...rings);

  const placeOf = (event: PointerEvent): PolarPlace => {
    const frame = box.current!.getBoundingClientRect();
    return toPlace(polar, event.clientX - frame.left, event.clientY - frame.top);
  };
  const withCone = (index: number, change: Partial<ConeDocument>) =>
    cones.map((cone, i) => (i === index ? { ...cone, ...change } : cone));
  const moved = (handle: Handle, place: PolarPlace) => {
    if ('ear' in handle) {
      if (!loudest) return {};
      return { threshold: within(1 - place.distance / loudest.reach, [0, 1], 0.01) };
    }
    const change =
      handle.what === 'range'
        ? { range: within(place.distance, LIMITS.range, 0.1) }
        : { halfAngle: within(Math.abs(place.angle), LIMITS.halfAngle, 1) };
    return { cones: withCone(handle.cone, change) };
  };
  const commit = (change: { cones?: ConeDocument[]; threshold?: number }) => {
    if (change.cones && !sameData(change.cones, given)) onCones(change.cones);
    if (change.threshold !== undefined && change.threshold !== threshold)
      onThreshold(change.threshold);
  };

  const grab = (handle: Handle) => (event: PointerEvent<SVGElement>) => {
    event.preventDefault();
    event.currentTarget.focus();
    box.current!.setPointerCapture(event.pointerId);
    setHeld(handle);
    onHover(null);
  };
  const drag = (event: PointerEvent) => {
    if (held) return setDraft(moved(held, placeOf(event)));
    const place = placeOf(event);
    onHover(place.distance <= reach ? place : null);
  };
  const letGo = () => {
    if (!held) return;
    setHeld(null);
    setDraft({});
    commit(draft);
  };
  const byKey = (handle: Handle) => (event: KeyboardEvent) => {
    const way =
      event.key === 'ArrowUp' || event.key === 'ArrowRight'
        ? 1
        : event.key === 'ArrowDown' || event.key === 'ArrowLeft'
          ? -1
          : 0;
    if (event.key === 'Escape') {
      setHeld(null);
      setDraft({});
    }
    if (way === 0) return;
    event.preventDefault();
    event.stopPropagation();
    const steps = way * (event.shiftKey ? 10 : 1);
    if ('ear' in handle) {
      if (ear !== undefined) commit({ threshold: within(ear + steps * 0.01, [0, 1], 0.01) });
      return;
    }
    const cone = cones[handle.cone];
    const step = handle.what === 'range' ? 0.1 : 1;
    const value = within(cone[handle.what] + steps * step, LIMITS[handle.what], step);
    commit({ cones: withCone(handle.cone, { [handle.what]: value }) });
  };
  const slider = (handle: Handle, label: string, now: number, most: number, text: string) => ({
    className: 'ear' in handle ? 'handle ear' : 'handle',
    r: 5.5,
    tabIndex: 0,
    role: 'slider',
    'aria-label': `${label} of ${of}`,
    'aria-valuenow': now,
    'aria-valuemin': 0,
    'aria-valuemax': most,
    'aria-valuetext': text,
    onPointerDown: grab(handle),
    onKeyDown: byKey(handle),
  });

  return (
    <Stage
      ref={box}
      role="group"
      aria-label={`Senses of ${of}, from above`}
      onPointerMove={drag}
      onPointerUp={letGo}
      onPointerCancel={letGo}
      onPointerLeave={() => onHover(null)}
    >
      <svg>
        {gridRings(reach).map((distance) => {
          const { x, y } = toPixels(polar, { distance, angle: -150 });
          return (
            <g key={distance}>
              <circle
                cx={polar.x}
                cy={polar.y}
                r={distance * polar.scale}
                fill="none"
                stroke="var(--line)"
              />
              <text x={x} y={y} textAnchor="end">
                {distance}
              </text>
            </g>
          );
        })}
        {cones.map((cone, i) => (
          <path
            key={i}
            d={conePath(polar, cone)}
            fill="var(--sight)"
            fillOpacity={0.06 + 0.05 * Math.min(2, cone.gain)}
            stroke="var(--sight)"
            strokeOpacity={0.7}
          />
        ))}
        {ear !== undefined &&
          noises.map(({ title, reach: far }) => {
            const distance = heardWithin(far, ear);
            const { x, y } = toPixels(polar, { distance, angle: 160 });
            return (
              <g key={title}>
                <circle
                  cx={polar.x}
                  cy={polar.y}
                  r={Math.max(0, distance * polar.scale)}
                  fill="none"
                  stroke="var(--sound)"
                  strokeDasharray="4 4"
                />
                {distance * polar.scale >= SMALLEST_LABELLED && (
                  <text x={x + 4} y={y + 4} style={{ fill: 'var(--sound)' }}>
                    {title} {distance.toFixed(1)} m
                  </text>
                )}
              </g>
            );
          })}
        <path
          d="M0 -12C3 -6 6 -4 6 1C6 8 -6 8 -6 1C-6 -4 -3 -6 0 -12Z"
          transform={`translate(${polar.x} ${polar.y})`}
          fill={tint}
        />
        {cones.map((cone, i) => {
          const tip = toPixels(polar, { distance: cone.range, angle: 0 });
          const edge = toPixels(polar, { distance: cone.range, angle: cone.halfAngle });
          return (
            <g key={i}>
              <text x={tip.x - 9} y={tip.y + 12} textAnchor="end">
                {cone.range} m
              </text>
              <circle
                cx={tip.x}
                cy={tip.y}
                {...slider(
                  { cone: i, what: 'range' },
                  `Range of cone ${i + 1}`,
                  cone.range,
                  500,
                  `${cone.range} metres`,
                )}
              />
              <text x={edge.x + 9} y={edge.y + 4}>
                {cone.halfAngle}°
              </text>
              <circle
                cx={edge.x}
                cy={edge.y}
                {...slider(
                  { cone: i, what: 'halfAngle' },
                  `Half-angle of cone ${i + 1}`,
                  cone.halfAngle,
                  180,
                  `${cone.halfAngle} degrees`,
                )}
              />
            </g>
          );
        })}
        {ear !== undefined && loudest && (
          <circle
            cx={toPixels(polar, { distance: heardWithin(loudest.reach, ear), angle: EAR_ANGLE }).x}
            cy={toPixels(polar, { distance: heardWithin(loudest.reach, ear), angle: EAR_ANGLE }).y}
            {...slider({ ear: true }, 'Hearing threshold', ear, 1, `loudness ${ear}`)}
          />
        )}
      </svg>
    </Stage>
  );
}
