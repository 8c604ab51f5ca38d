import {
  memo,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type CSSProperties,
  type KeyboardEvent,
  type PointerEvent,
  type RefObject,
} from 'react';
import styled from 'styled-components';
import type { Band } from '../engine/lanes.ts';
import { useDrawing, useEngine, useEngineValue } from '../engine/use-engine.tsx';
import { useTokens } from '../theme/use-tokens.ts';
import { QuietButton } from '../ui/button.tsx';
import { sharpCanvas } from '../ui/canvas.ts';
import { Menu } from '../ui/menu.tsx';
import { NARROW } from '../ui/place.ts';
import { clockText } from '../ui/time.ts';
import { useProject } from '../state/store.ts';
import { drawLanes, laneHeight, RULER, tickAt, windowFor, xOf, type Window } from './draw-lanes.ts';
import { laneAgents, laneTitles } from './lane-titles.ts';
import { dotOf } from './mark-words.ts';
import { Playhead } from './playhead.tsx';
import { Transport } from './transport.tsx';

const Panel = styled.section`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  background: var(--panel);
  @media ${NARROW} {
    display: contents;
  }
`;

/** In one column with the rest, however many lanes there are, only so much of the window shows them. */
const SHOWN_HEIGHT = 'max(24vh, 150px)';

/** The height of an element, followed as it changes; 0 before it is on the page. */
function useHeight(element: RefObject<HTMLElement | null>): number {
  const [height, setHeight] = useState(0);
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([{ contentRect }]) => setHeight(contentRect.height));
    observer.observe(element.current!);
    return () => observer.disconnect();
  }, [element]);
  return height;
}

const Body = styled.div`
  display: grid;
  grid-template-columns: 120px minmax(0, 1fr);
  overflow-y: auto;
  scrollbar-gutter: stable;
  @media ${NARROW} {
    max-height: ${SHOWN_HEIGHT};
    min-height: 150px;
    background: var(--panel);
  }
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
    height: var(--lane);
    padding: 0 8px 0 14px;
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
    height: 100%;
    max-height: var(--shown);
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

/** The ledger under every place: transport, one lane an agent, and a playhead to drag. */
export const LedgerPanel = memo(function LedgerPanel({
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
  const minds = useProject((project) => project.document.minds);
  const titles = useMemo(() => laneTitles(program, minds), [program, minds]);
  const further = useEngineValue(({ lanes }) => lanes.furtherRows);
  const tokens = useTokens();
  const watchedLane = useRef<HTMLButtonElement>(null);
  const body = useRef<HTMLDivElement>(null);
  const shownHeight = useHeight(body);
  const lane = laneHeight(shownHeight, agents.length, further);
  const height = RULER + agents.length * lane;
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
      { top: scrolled.current, height: full, lane },
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

  /** What there is at a tick, in words: a mark within reach of it, else the state it is in. */
  const wordsAt = (row: { name: string; title: string }, tick: number): string => {
    const { lanes } = engine;
    const isNear = (other: { tick: number }) =>
      Math.abs(xOf(window.current, other.tick) - xOf(window.current, tick)) < 5;
    const of = lanes.byAgent.get(row.name);
    const dot = of?.dots.filter(isNear).at(-1);
    const edit = lanes.edits.filter(isNear).at(-1);
    const named = (name: string) => titles.get(row.name)?.get(name) ?? name;
    const at = (bands: readonly Band[] = []) => {
      const found = bands.find(({ from, to }) => from <= tick && (to < 0 || tick < to));
      return found ? named(found.state) : null;
    };
    const state = [at(of?.bands) ?? 'no state', at(of?.picks), at(of?.moves)]
      .filter((each) => each !== null)
      .join(' · ');
    const mark = edit && `edit ${edit.edit} comes into force`;
    const words = (dot && dotOf(dot.entry, tokens)?.words) ?? mark ?? state;
    return `${clockText(tick, program!.ticksPerSecond, 1)} ${row.title}: ${words}`;
  };

  const readOut = (event: PointerEvent) => {
    const { frame } = engine;
    if (!frame || !program) return;
    const { x, y } = place(event);
    const tick = Math.round(tickAt(window.current, x));
    const row = agents[Math.floor((y - RULER + scrolled.current) / lane)];
    if (!row || y < RULER || tick < 0 || tick > frame.head) return setHover(null);
    setHover({ x, text: wordsAt(row, tick) });
  };

  /** The same for whoever goes by keys: what the watched agent has at the playhead. */
  const tellAt = (tick: number) => {
    const row = agents.find(({ name }) => name === agent) ?? agents[0];
    if (row) setHover({ x: xOf(window.current, tick), text: wordsAt(row, tick) });
  };

  /** Ticks of the watched agent's marks, and of edits. */
  const marks = () => {
    const { lanes } = engine;
    const dots = (agent && lanes.byAgent.get(agent)?.dots) || [];
    return [...dots, ...lanes.edits].map(({ tick }) => tick);
  };

  const onKeyDown = (event: KeyboardEvent) => {
    const { frame } = engine;
    if (!frame || !program) return;
    const second = program.ticksPerSecond;
    const steps: Record<string, number | undefined> = {
      ArrowLeft: event.shiftKey ? -second : -1,
      ArrowRight: event.shiftKey ? second : 1,
      PageUp: -5 * second,
      PageDown: 5 * second,
    };
    const jumps: Record<string, number | undefined> = {
      Home: frame.keptFrom,
      End: frame.head,
      ArrowUp: Math.max(frame.keptFrom, ...marks().filter((tick) => tick < frame.tick)),
      ArrowDown: Math.min(frame.head, ...marks().filter((tick) => tick > frame.tick)),
    };
    const step = steps[event.key];
    const to = step === undefined ? jumps[event.key] : frame.tick + step;
    if (to === undefined) return;
    event.preventDefault();
    // Steps add up, however fast they come.
    if (step === undefined) engine.seek(to);
    else engine.nudge(step);
    tellAt(Math.max(frame.keptFrom, Math.min(frame.head, to)));
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
        <Names style={{ '--lane': `${lane}px` } as CSSProperties}>
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
        <Track style={{ minHeight: height, '--shown': `${shownHeight}px` } as CSSProperties}>
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
          <Playhead
            onKeyDown={onKeyDown}
            onFocus={() => engine.frame && program && tellAt(engine.frame.tick)}
            onBlur={() => setHover(null)}
            words={hover?.text ?? null}
          >
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
});
