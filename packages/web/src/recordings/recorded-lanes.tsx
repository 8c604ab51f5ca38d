import type { RecordingHead } from '@crooked-lantern/core';
import { useEffect, useMemo, useRef, type KeyboardEvent } from 'react';
import styled from 'styled-components';
import type { Lanes } from '../engine/lanes.ts';
import { drawLanes, RULER } from '../ledger/draw-lanes.ts';
import { tickAt, type Window } from '../ledger/time-window.ts';
import { ticksOfKey } from '../ledger/playhead-keys.ts';
import { useTokens } from '../theme/use-tokens.ts';
import { onCanvasSize, sharpCanvas } from '../ui/canvas.ts';
import { clockText } from '../ui/words/time.ts';

const LANE = 22;

const Grid = styled.div`
  display: grid;
  grid-template-columns: 120px minmax(0, 1fr);
  max-height: 45vh;
  overflow-y: auto;
  scrollbar-gutter: stable;
  canvas {
    width: 100%;
    cursor: col-resize;
  }
  ul {
    padding-top: ${RULER}px;
  }
  li {
    height: ${LANE}px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  [role='slider']:focus-visible {
    outline: 2px solid var(--sight);
    outline-offset: -2px;
  }
`;

/** The lanes of a recording from its first tick to its last, with a playhead. */
export function RecordedLanes({
  head,
  lanes,
  agents,
  tick,
  onGo,
}: {
  head: RecordingHead;
  lanes: Lanes;
  agents: readonly { name: string; title: string }[];
  tick: number;
  onGo: (tick: number) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const window = useRef<Window>({ from: 0, to: 1, width: 1 });
  const tokens = useTokens();
  const sleepers = useMemo(
    () => new Set(head.agents.flatMap(({ name, asleep }) => (asleep ? name : []))),
    [head],
  );
  const height = RULER + agents.length * LANE;
  useEffect(() => {
    const draw = () => {
      const surface = sharpCanvas(canvas.current);
      if (!surface) return;
      const { from, to, ticksPerSecond } = head;
      window.current = { from, to: Math.max(to, from + 1), width: surface.width };
      drawLanes(
        surface.context,
        {
          lanes,
          frame: { tick, head: to },
          ticksPerSecond,
          agents: agents.map(({ name }) => name),
          titles: new Map(),
          sleepers,
          tokens,
        },
        window.current,
        { top: 0, height, lane: LANE },
      );
    };
    draw();
    return onCanvasSize(draw);
  }, [head, lanes, agents, sleepers, tick, tokens, height]);
  const go = (to: number) => onGo(Math.max(head.from, Math.min(head.to, Math.round(to))));
  const at = (event: { clientX: number }) =>
    tickAt(window.current, event.clientX - canvas.current!.getBoundingClientRect().left);
  const onKeyDown = (event: KeyboardEvent) => {
    const step = ticksOfKey(event, head.ticksPerSecond);
    const to = step === undefined ? { Home: head.from, End: head.to }[event.key] : tick + step;
    if (to === undefined) return;
    event.preventDefault();
    go(to);
  };
  return (
    <Grid>
      <ul>
        {agents.map(({ name, title }) => (
          <li key={name}>{title}</li>
        ))}
      </ul>
      <div
        role="slider"
        tabIndex={0}
        aria-label="Playhead"
        aria-valuemin={head.from}
        aria-valuemax={head.to}
        aria-valuenow={tick}
        aria-valuetext={clockText(tick, head.ticksPerSecond, 2)}
        onKeyDown={onKeyDown}
      >
        <canvas
          ref={canvas}
          aria-hidden
          style={{ height }}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            go(at(event));
          }}
          onPointerMove={(event) => event.buttons > 0 && go(at(event))}
        />
      </div>
    </Grid>
  );
}
