import type { ProjectDocument } from '@crooked-lantern/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../state/store.ts';
import { timeShares } from '../engine/lanes.ts';
import { useEngineValue } from '../engine/use-engine.tsx';
import { listStates, titleOf } from './document-names.ts';
import { keepLayouts, readLayouts } from './kept-layouts.ts';
import {
  fittest,
  LAYOUT_VERSION,
  LABEL_LINE,
  layoutPlans,
  type PlacedLine,
  type PlanLayout,
} from './plan-layout.ts';
import { insideOf, PlanState, shareOf } from './plan-state.tsx';
import type { Selection } from './use-selection.ts';

const Frame = styled.section`
  position: relative;
  overflow: auto;
  scrollbar-gutter: stable;
  border-bottom: 1px solid var(--line);
  svg {
    display: block;
  }
`;

const Svg = styled.svg`
  .room {
    fill: color-mix(in srgb, var(--panel) 55%, transparent);
    stroke: var(--line2);
  }
  .room.parallel {
    stroke-dasharray: 5 4;
  }
  .room.lit {
    stroke: var(--ember);
  }
  .leaf {
    fill: var(--raised);
    stroke: var(--line2);
  }
  .leaf.lately {
    fill: color-mix(in srgb, var(--ember) 22%, var(--raised));
    stroke: var(--ember);
  }
  .lit.leaf {
    fill: color-mix(in srgb, var(--lamp) 20%, var(--raised));
    stroke: var(--lamp);
    stroke-width: 2;
  }
  .chosen {
    stroke: var(--sight);
    stroke-width: 2;
  }
  .line {
    fill: none;
    stroke: var(--dim);
    stroke-width: 1.3;
  }
  .line.taken {
    stroke: var(--lamp);
    stroke-width: 2;
  }
  .head {
    fill: var(--dim);
  }
  .head.taken {
    fill: var(--lamp);
  }
  text {
    fill: var(--bone);
    font-size: 13.5px;
  }
  .title-room {
    fill: var(--mute);
    font-size: 12.5px;
  }
  .title-room.lit {
    fill: var(--lampText);
  }
  .title-leaf.lit {
    fill: var(--lampText);
    font-weight: 700;
  }
  .share {
    fill: var(--mute);
    font-size: 10.5px;
  }
  .label {
    pointer-events: auto;
    fill: var(--mute);
    font-size: 11.5px;
    paint-order: stroke;
    stroke: var(--night);
    stroke-width: 3px;
  }
  .label.taken {
    fill: var(--lampText);
  }
  .state {
    cursor: pointer;
    outline: none;
  }
  .state:focus-visible .focus {
    stroke: var(--sight);
    stroke-width: 2;
  }
  .focus {
    fill: none;
    stroke: none;
  }
`;

const Waiting = styled.p`
  padding: 12px 14px;
  color: var(--mute);
`;

/** States left within this many seconds are embers. */
const LATELY_SECONDS = 3;

/** The rooms around a state, and itself. */
function roomsAround(document: ProjectDocument, mind: string, state: string | null): string {
  const listed = listStates(document, mind).find((entry) => entry.state.id === state);
  return listed ? [...listed.around, listed.state.id].join(' ') : '';
}

function useLayout(
  mind: string,
  chosen: string | null,
  room: { width: number; height: number },
): PlanLayout | null {
  const open = useProject((project) => roomsAround(project.document, mind, chosen));
  const states = useProject((project) => project.document.minds[mind]?.machine?.states);
  // Only what is drawn makes a new layout: numbers change all the time while one works.
  const drawn = useMemo(
    () =>
      JSON.stringify(states ?? [], (key, value: unknown) =>
        ['entry', 'exit', 'activity', 'do'].includes(key) ? undefined : value,
      ),
    [states],
  );
  const key = `${LAYOUT_VERSION}\n${open}\n${drawn}`;
  // While another is being made the one before stays, so that nothing flashes.
  const [last, setLast] = useState<PlanLayout[] | null>(null);
  const kept = useMemo(() => readLayouts(key), [key]);
  useEffect(() => {
    let current = true;
    if (kept) {
      setLast(kept);
      return undefined;
    }
    void layoutPlans(JSON.parse(drawn), new Set(open.split(' '))).then((plans) => {
      keepLayouts(key, plans);
      if (current) setLast(plans);
    });
    return () => {
      current = false;
    };
  }, [kept, key, drawn, open]);
  const plans = kept ?? last;
  return useMemo(() => (plans ? fittest(plans, room) : null), [plans, room]);
}

/** The share of its time an agent has spent in each state, renewed once a second of the run and when it changes state. */
function useShares(agent: string | null, active: string): Map<string, number> {
  const known = useRef({ key: '', shares: new Map<string, number>() });
  return useEngineValue(({ frame, lanes, program }) => {
    const lane = agent === null ? undefined : lanes.byAgent.get(agent);
    const second = frame && program ? Math.floor(frame.tick / program.ticksPerSecond) : 0;
    const key = `${agent} ${active} ${second}`;
    if (known.current.key !== key)
      known.current = {
        key,
        shares: lane && frame ? timeShares(lane, frame.tick) : new Map<string, number>(),
      };
    return known.current.shares;
  });
}

/** Live facts as texts, so that the plan renders only when one of them changes. */
function useLivePlan(agent: string | null): {
  active: Set<string>;
  lately: Set<string>;
  taken: string;
  shares: Map<string, number>;
} {
  const active = useEngineValue(({ frame }) => frame?.readout?.active.join(' ') ?? '');
  const taken = useEngineValue(({ frame }) => {
    const by = frame?.readout?.enteredBy;
    return by ? `${by.from} ${by.order}` : '';
  });
  const lately = useEngineValue(({ frame, lanes, program }) => {
    if (!frame || !program || agent === null) return '';
    const since = frame.tick - LATELY_SECONDS * program.ticksPerSecond;
    const bands = lanes.byAgent.get(agent)?.bands ?? [];
    return bands
      .filter(({ from, to }) => to >= since && to <= frame.tick && from < frame.tick)
      .map(({ state }) => state)
      .join(' ');
  });
  const shares = useShares(agent, active);
  return useMemo(
    () => ({
      active: new Set(active.split(' ')),
      lately: new Set(lately.split(' ')),
      taken,
      shares,
    }),
    [active, lately, taken, shares],
  );
}

function arrowHead(points: readonly [number, number][]): string {
  const [x, y] = points[points.length - 1];
  const [px, py] = points[points.length - 2] ?? [x - 1, y];
  const length = Math.hypot(x - px, y - py) || 1;
  const ux = (x - px) / length;
  const uy = (y - py) / length;
  return `${x},${y} ${x - 7 * ux - 3.5 * uy},${y - 7 * uy + 3.5 * ux} ${x - 7 * ux + 3.5 * uy},${y - 7 * uy - 3.5 * ux}`;
}

function Line({ line, taken }: { line: PlacedLine; taken: boolean }) {
  if (line.points.length < 2) return null;
  const tone = taken ? ' taken' : '';
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

/** Pixels around what is brought into sight. */
const ROUND_ABOUT = 20;

/** Scrolls the box, and nothing around it, by as little as it takes. */
function bringIntoSight(box: Element, drawn: Element): void {
  const [frame, at] = [box.getBoundingClientRect(), drawn.getBoundingClientRect()];
  const by = (from: number, to: number, start: number, end: number) => {
    if (from - ROUND_ABOUT < start) return from - ROUND_ABOUT - start;
    return Math.max(0, to + ROUND_ABOUT - end);
  };
  box.scrollLeft += by(at.left, at.right, frame.left, frame.right);
  box.scrollTop += by(at.top, at.bottom, frame.top, frame.bottom);
}

/** Smaller than this nothing can be read, so that the plan scrolls. */
const SMALLEST_SCALE = 0.5;
const LARGEST_SCALE = 1.4;

/** The state machine, laid out by itself; what is lit is running in the chosen agent. */
export function StatePlan({
  selection,
  shown,
  onSelect,
}: {
  selection: Selection;
  shown: string | null;
  onSelect: (state: string) => void;
}) {
  const [box, setBox] = useState<HTMLElement | null>(null);
  const [room, setRoom] = useState({ width: 640, height: 240 });
  useEffect(() => {
    if (!box) return undefined;
    const observer = new ResizeObserver(() => {
      // Without what a scrollbar takes below: the plan's size, which brings it up, must not follow from it.
      const [width, height] = [box.clientWidth, box.offsetHeight];
      setRoom((last) =>
        last.width === width && last.height === height ? last : { width, height },
      );
    });
    observer.observe(box);
    return () => observer.disconnect();
  }, [box]);
  const layout = useLayout(selection.mind, selection.state, room);
  const live = useLivePlan(selection.agent);
  const scale = layout
    ? Math.max(
        SMALLEST_SCALE,
        Math.min(LARGEST_SCALE, room.width / layout.width, room.height / layout.height),
      )
    : 1;
  // What is chosen, else what is active, comes into sight, wherever on the plan it lies.
  useEffect(() => {
    if (!box || !layout || shown === null) return;
    const placed =
      layout.states.find(({ id }) => id === shown) ??
      layout.states.findLast(({ inside }) => inside.includes(shown));
    const drawn = placed && box.querySelector(`[data-state="${placed.id}"]`);
    if (drawn) bringIntoSight(box, drawn);
  }, [box, layout, shown]);
  const depthFirst = layout?.states ?? [];
  const document = useProject((project) => project.document);
  const titles = useMemo(
    () =>
      new Map(listStates(document, selection.mind).map(({ state }) => [state.id, titleOf(state)])),
    [document, selection.mind],
  );
  return (
    <Frame ref={setBox} aria-label="State plan" aria-busy={layout === null}>
      {layout === null && <Waiting role="status">Laying out the states …</Waiting>}
      {layout && (
        <Svg
          width={Math.max(room.width - 1, layout.width * scale)}
          height={Math.max(room.height - 4, layout.height * scale)}
          viewBox={`${-Math.max(0, (room.width / scale - layout.width) / 2)} ${-Math.max(0, (room.height / scale - layout.height) / 2)} ${Math.max(room.width / scale, layout.width)} ${Math.max(room.height / scale, layout.height)}`}
        >
          {depthFirst.map((placed) => (
            <PlanState
              key={placed.id}
              placed={placed}
              lit={live.active.has(placed.id)}
              lately={live.lately.has(placed.id)}
              chosen={shown === placed.id && selection.state !== null}
              share={shareOf(placed, live.shares)}
              inside={insideOf(placed, live.active, titles)}
              onChoose={() => onSelect(placed.id)}
            />
          ))}
          <g pointerEvents="none">
            {layout.lines.map((line) => (
              <Line
                key={`${line.from} ${line.order}`}
                line={line}
                taken={live.taken === `${line.from} ${line.order}`}
              />
            ))}
            {layout.lines.map(
              (line) =>
                line.label && (
                  <text
                    key={`${line.from} ${line.order}`}
                    className={`label${live.taken === `${line.from} ${line.order}` ? ' taken' : ''}`}
                    x={line.label.x}
                    y={line.label.y + 10}
                  >
                    <title>{line.words}</title>
                    {line.label.lines.map((words, i) => (
                      <tspan key={words} x={line.label!.x} dy={i === 0 ? 0 : LABEL_LINE}>
                        {words}
                      </tspan>
                    ))}
                  </text>
                ),
            )}
          </g>
        </Svg>
      )}
    </Frame>
  );
}
