import { useMemo, useRef } from 'react';
import styled from 'styled-components';
import { createLanes, type Lane } from '../../engine/lanes.ts';
import type { Comparison } from '../../engine/protocol.ts';
import { useDrawing, useEngine, useEngineValue } from '../../engine/use-engine.tsx';
import { dashedLine, drawLanes, RULER } from '../../ledger/draw-lanes.ts';
import { tickAt, xOf, type Window } from '../../ledger/time-window.ts';
import { nestingsOf } from '../../ledger/stacked-bands.ts';
import { choicesOf, laneTitles } from '../../ledger/lane-titles.ts';
import { useProject } from '../../state/store.ts';
import { useTokens } from '../../theme/use-tokens.ts';
import { sharpCanvas } from '../../ui/canvas.ts';
import { clockText } from '../../ui/words/time.ts';
import { useTitleOf } from '../use-title-of.ts';

const LANE = 24;
/** Seconds that are shown before the runs part, and after. */
const BEFORE_SECONDS = 4;
const AFTER_SECONDS = 16;
const Grid = styled.div`
  display: grid;
  grid-template-columns: minmax(90px, auto) minmax(0, 1fr);
  margin-top: 12px;
  canvas {
    width: 100%;
    height: 100%;
    cursor: pointer;
  }
`;

const Names = styled.ul`
  padding-top: ${RULER}px;
  li {
    height: ${LANE}px;
    padding: 2px 8px 0 0;
    border-right: 3px solid var(--sight);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  li:nth-child(even) {
    border-color: var(--found);
    color: var(--mute);
  }
`;

/** What both runs' lanes show of agents that part and of the followed one, one above the other. */
export function ComparedLanes({
  comparison,
  titles,
  agent,
}: {
  comparison: Comparison;
  titles: readonly [string, string];
  agent: string | null;
}) {
  const engine = useEngine();
  const program = useEngineValue((client) => client.program);
  const minds = useProject((project) => project.document.minds);
  const tokens = useTokens();
  const titleOf = useTitleOf();
  const canvas = useRef<HTMLCanvasElement>(null);
  const window = useRef<Window>({ from: 0, to: 1, width: 1 });
  const { parting, decision, until, lanes } = comparison;
  const shown = useMemo(
    () => [
      ...new Set(
        [decision?.agent, parting?.agent, agent].filter((name) => typeof name === 'string'),
      ),
    ],
    [decision, parting, agent],
  );
  const rows = shown.flatMap((name) => titles.map((of, side) => ({ name, of, side })));
  const [words, nestings] = useMemo(() => {
    const ofBoth = <T,>(own: ReadonlyMap<string, T>) =>
      new Map(
        shown.flatMap((name) => {
          const value = own.get(name);
          return value === undefined
            ? []
            : [0, 1].map((side) => [`${name} ${side}`, value] as const);
        }),
      );
    return [ofBoth(laneTitles(program, choicesOf(minds))), ofBoth(nestingsOf(program))];
  }, [program, minds, shown]);
  useDrawing(({ frame, lanes: here, program: running }) => {
    const surface = sharpCanvas(canvas.current);
    if (!surface || !frame || !running) return;
    const { context, width, height } = surface;
    const second = running.ticksPerSecond;
    const middle = parting?.tick ?? 0;
    const from = Math.max(0, middle - BEFORE_SECONDS * second);
    window.current = { from, to: from + (BEFORE_SECONDS + AFTER_SECONDS) * second, width };
    const byAgent = new Map<string, Lane>();
    for (const name of shown)
      [here, lanes].forEach((all, side) => {
        const lane = all.byAgent.get(name);
        if (lane) byAgent.set(`${name} ${side}`, lane);
      });
    drawLanes(
      context,
      {
        lanes: { ...createLanes(), byAgent },
        frame: { ...frame, head: until },
        ticksPerSecond: running.ticksPerSecond,
        agents: [...words.keys()],
        titles: words,
        nestings,
        tokens,
      },
      window.current,
      { top: 0, height, lane: LANE },
    );
    if (parting) {
      const x = Math.round(xOf(window.current, parting.tick)) + 0.5;
      dashedLine(context, x, height, tokens.refuse);
    }
  });
  if (rows.length === 0) return null;
  const where = parting
    ? `dashed: where they part, ${clockText(parting.tick, program?.ticksPerSecond ?? 60, 2)}`
    : '';
  return (
    <Grid>
      <Names>
        {rows.map(({ name, of, side }) => (
          <li key={`${name} ${side}`} title={`${titleOf(name)}, ${of}`}>
            {side === 0 ? titleOf(name) : of}
          </li>
        ))}
      </Names>
      <canvas
        ref={canvas}
        role="img"
        aria-label={`Lanes of both runs, ${where}`}
        title={where}
        style={{ height: RULER + rows.length * LANE }}
        onClick={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          engine.seek(Math.round(tickAt(window.current, event.clientX - box.left)));
        }}
      />
    </Grid>
  );
}
