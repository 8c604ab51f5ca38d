import { firstMind, type Program } from '@crooked-lantern/core';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import { useDrawing, useEngine, useEngineValue } from '../engine/use-engine.tsx';
import { useTokens } from '../theme/use-tokens.ts';
import { QuietButton } from '../ui/button.tsx';
import { sharpCanvas } from '../ui/canvas.ts';
import { Menu } from '../ui/menu.tsx';
import { clockText } from '../ui/time.ts';
import {
  dotOf,
  drawLanes,
  LANE,
  RULER,
  tickAt,
  windowFor,
  xOf,
  type Window,
} from './draw-lanes.ts';
import { Transport } from './transport.tsx';

const Panel = styled.section`
  border-top: 1px solid var(--line);
  background: var(--panel);
`;

/** However many lanes there are, only so much of them is in sight, and drawn. */
const SHOWN_HEIGHT = 'max(21vh, 130px)';

const Body = styled.div`
  display: grid;
  grid-template-columns: 120px minmax(0, 1fr);
  max-height: ${SHOWN_HEIGHT};
  min-height: 130px;
  overflow-y: auto;
  scrollbar-gutter: stable;
`;

const Names = styled.div`
  &::before {
    content: '';
    position: sticky;
    top: 0;
    z-index: 1;
    display: block;
    height: ${RULER}px;
    background: var(--panel);
  }
  button {
    display: block;
    width: 100%;
    height: ${LANE}px;
    padding: 0 8px 10px 14px;
    border: 0;
    background: none;
    color: var(--mute);
    text-align: left;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    &:focus-visible {
      outline-offset: -2px;
    }
    &:hover {
      color: var(--bone);
    }
    &[aria-pressed='true'] {
      color: var(--bone);
      font-weight: 600;
    }
  }
`;

const Track = styled.div`
  position: relative;
  touch-action: none;
  cursor: col-resize;
  &:focus-visible {
    outline-offset: -2px;
  }
  canvas {
    position: sticky;
    top: 0;
    display: block;
    width: 100%;
    height: min(100%, ${SHOWN_HEIGHT});
  }
`;

const Readout = styled.div`
  position: absolute;
  z-index: 2;
  max-width: 34ch;
  padding: 2px 8px;
  border: 1px solid var(--line2);
  border-radius: 6px;
  background: var(--raised);
  pointer-events: none;
`;

const Foot = styled.div`
  position: sticky;
  top: 0;
  z-index: 1;
  display: flex;
  justify-content: flex-end;
  height: 0;
  padding-right: 6px;
  button {
    height: 20px;
    min-height: 20px;
    background: var(--panel);
    font-size: 0.9em;
  }
`;

const SPANS = [
  { id: '15', name: 'last 15 s', seconds: 15 },
  { id: '40', name: 'last 40 s', seconds: 40 },
  { id: '180', name: 'last 3 min', seconds: 180 },
  { id: 'all', name: 'whole run', seconds: Infinity },
];

/** Agents that have something to show: those with a mind or senses, and the one that is played. */
function laneAgents(program: Program | null): { name: string; title: string }[] {
  return (program?.agents ?? []).flatMap(({ name, title, archetype }, index) => {
    const { stack, sight } = program!.archetypes[archetype];
    if (index === program!.play) return [{ name, title: `${title} (you)` }];
    return stack >= 0 || sight !== null ? [{ name, title }] : [];
  });
}

function stateTitles(program: Program | null): Map<string, Map<string, string>> {
  return new Map(
    (program?.agents ?? []).map((agent) => {
      const states = firstMind(program!, agent.archetype)?.machine.states ?? [];
      return [agent.name, new Map(states.map(({ id, title }) => [id, title]))];
    }),
  );
}

/** The ledger under every place: transport, one lane an agent, and a playhead to drag. */
export function LedgerPanel({
  agent,
  onSelectAgent,
}: {
  agent: string | null;
  onSelectAgent: (agent: string) => void;
}) {
  const engine = useEngine();
  const program = useEngineValue((client) => client.program);
  const [span, setSpan] = useState(SPANS[1]);
  const [hover, setHover] = useState<{ x: number; text: string } | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const window = useRef<Window>({ from: 0, to: 1, width: 1 });
  const dragging = useRef(false);
  const agents = useMemo(() => laneAgents(program), [program]);
  const titles = useMemo(() => stateTitles(program), [program]);
  const height = RULER + agents.length * LANE + 8;
  const tokens = useTokens();
  const watchedLane = useRef<HTMLButtonElement>(null);
  const body = useRef<HTMLDivElement>(null);
  // Asking the element in each frame would have the page laid out each time.
  const scrolled = useRef(0);
  // Whoever is watched is in sight, however many lanes there are; the page itself stays where it is.
  useEffect(() => {
    const [lane, frame] = [watchedLane.current, body.current];
    if (!lane || !frame) return;
    const top = lane.offsetTop - frame.offsetTop;
    const bottom = top + lane.offsetHeight;
    if (top - RULER < frame.scrollTop) frame.scrollTop = top - RULER;
    else if (bottom > frame.scrollTop + frame.clientHeight)
      frame.scrollTop = bottom - frame.clientHeight;
  }, [agent, agents]);

  const redraw = useDrawing(({ frame, lanes, program: running }) => {
    const surface = sharpCanvas(canvas.current);
    if (!surface || !frame || !running) return;
    const { context, width, height: full } = surface;
    // Under a drag the picture must hold still.
    if (!dragging.current)
      window.current = windowFor(frame, span.seconds * running.ticksPerSecond, width);
    window.current.width = width;
    drawLanes(
      context,
      { lanes, frame, program: running, agents: agents.map(({ name }) => name), titles, tokens },
      window.current,
      { top: scrolled.current, height: full },
    );
  });
  const place = (event: PointerEvent) => {
    const box = canvas.current!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };

  const seekTo = (event: PointerEvent) => {
    const { frame } = engine;
    if (frame)
      engine.seek(
        Math.max(
          frame.keptFrom,
          Math.min(frame.head, Math.round(tickAt(window.current, place(event).x))),
        ),
      );
  };

  const readOut = (event: PointerEvent) => {
    const { frame, lanes } = engine;
    if (!frame || !program) return;
    const { x, y } = place(event);
    const tick = Math.round(tickAt(window.current, x));
    const row = agents[Math.floor((y - RULER + scrolled.current) / LANE)];
    if (!row || y < RULER || tick < 0 || tick > frame.head) return setHover(null);
    const lane = lanes.byAgent.get(row.name);
    const dot = lane?.dots
      .filter((candidate) => Math.abs(xOf(window.current, candidate.tick) - x) < 5)
      .at(-1);
    const band = lane?.bands.find(({ from, to }) => from <= tick && (to < 0 || tick < to));
    const words = dot && dotOf(dot.entry, tokens)?.words;
    const state = band ? (titles.get(row.name)?.get(band.state) ?? band.state) : 'no state';
    setHover({
      x,
      text: `${clockText(tick, program.ticksPerSecond, 1)} ${row.title}: ${words ?? state}`,
    });
  };

  const onKeyDown = (event: KeyboardEvent) => {
    const { frame } = engine;
    if (!frame || !program) return;
    const second = program.ticksPerSecond;
    const steps: Record<string, number> = {
      ArrowLeft: event.shiftKey ? -second : -1,
      ArrowRight: event.shiftKey ? second : 1,
      PageUp: -5 * second,
      PageDown: 5 * second,
    };
    const ends: Record<string, number> = { Home: frame.keptFrom, End: frame.head };
    if (event.key in steps) engine.nudge(steps[event.key]);
    else if (event.key in ends) engine.seek(ends[event.key]);
    else return;
    event.preventDefault();
  };

  return (
    <Panel aria-label="Ledger">
      <Transport />
      <Body
        ref={body}
        onScroll={(event) => {
          scrolled.current = event.currentTarget.scrollTop;
          redraw();
        }}
      >
        <Names>
          {agents.map(({ name, title }) => (
            <button
              key={name}
              type="button"
              ref={name === agent ? watchedLane : undefined}
              aria-pressed={name === agent}
              onClick={() => onSelectAgent(name)}
            >
              {title}
            </button>
          ))}
        </Names>
        <Track style={{ minHeight: height }}>
          <Foot>
            <Menu
              label="Stretch of time shown"
              entries={SPANS.map((option) => ({
                id: option.id,
                text: option.name,
                label: option.name,
                onAction: () => setSpan(option),
              }))}
            >
              <QuietButton aria-label={`Shows the ${span.name}. Choose`}>{span.name}</QuietButton>
            </Menu>
          </Foot>
          <Playhead onKeyDown={onKeyDown}>
            <canvas
              ref={canvas}
              aria-hidden
              data-testid="lanes"
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                dragging.current = true;
                setHover(null);
                seekTo(event);
              }}
              onPointerMove={(event) => (dragging.current ? seekTo(event) : readOut(event))}
              onPointerUp={() => {
                dragging.current = false;
              }}
              onPointerLeave={() => setHover(null)}
            />
          </Playhead>
          {hover && (
            <Readout
              style={{
                top: scrolled.current + RULER + 2,
                left: Math.max(0, Math.min(hover.x + 10, window.current.width - 220)),
              }}
            >
              {hover.text}
            </Readout>
          )}
        </Track>
      </Body>
    </Panel>
  );
}

const Slider = styled.div`
  position: absolute;
  inset: 0;
  &:focus-visible {
    outline: 2px solid var(--sight);
    outline-offset: -2px;
  }
`;

/** The playhead as a slider: arrows go by ticks, with Shift by seconds. */
function Playhead({
  onKeyDown,
  children,
}: {
  onKeyDown: (event: KeyboardEvent) => void;
  children: React.ReactNode;
}) {
  // For readers a value a second is plenty; while it rests the tick is exact.
  const text = useEngineValue(({ frame, program }) => {
    if (!frame || !program) return '0';
    const tick = frame.playing
      ? Math.floor(frame.tick / program.ticksPerSecond) * program.ticksPerSecond
      : frame.tick;
    return `${tick} ${frame.keptFrom} ${frame.playing ? tick : frame.head} ${clockText(tick, program.ticksPerSecond, 1)}`;
  });
  const [now, least, most, clock] = text.split(' ');
  return (
    <Slider
      role="slider"
      tabIndex={0}
      aria-label="Playhead"
      aria-valuenow={Number(now)}
      aria-valuemin={Number(least ?? 0)}
      aria-valuemax={Number(most ?? 0)}
      aria-valuetext={clock}
      onKeyDown={onKeyDown}
    >
      {children}
    </Slider>
  );
}
