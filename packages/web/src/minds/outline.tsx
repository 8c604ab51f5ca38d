import {
  outlineOf,
  type ActivityDocument,
  type MindReadout,
  type OutlineRow,
  type RowReadout,
} from '@crooked-lantern/core';
import { useMemo, useRef } from 'react';
import styled from 'styled-components';
import { useProject } from '../app/store.ts';
import { useDrawing } from '../engine/use-engine.tsx';
import type { Tokens } from '../theme/tokens.ts';
import { useTokens } from '../theme/use-tokens.ts';
import { sharpCanvas } from '../ui/canvas.ts';

const List = styled.ol`
  margin: 2px 0 4px;
  padding: 0;
  list-style: none;
`;

const Row = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 98px 74px;
  align-items: center;
  gap: 8px;
  min-height: 22px;
  border-left: 2px solid transparent;
  &[data-result='running'] {
    border-left-color: var(--lamp);
    background: color-mix(in srgb, var(--lamp) 9%, transparent);
  }
  &:nth-child(even):not([data-result='running']) {
    background: color-mix(in srgb, var(--raised) 28%, transparent);
  }
  canvas {
    width: 96px;
    height: 14px;
  }
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr) 74px;
    canvas {
      display: none;
    }
  }
`;

const What = styled.span`
  overflow-wrap: anywhere;
  code {
    font-family: var(--mono);
    color: var(--mute);
  }
  b {
    font-weight: 600;
  }
  small {
    color: var(--mute);
    font-size: 1em;
  }
`;

const Result = styled.span`
  font-family: var(--mono);
  color: var(--mute);
  white-space: nowrap;
  [data-result='running'] > & {
    color: var(--lampText);
  }
  [data-result='success'] > & {
    color: var(--done);
  }
  [data-result='failure'] > & {
    color: var(--refuse);
  }
`;

const RESULTS: Record<NonNullable<RowReadout['result']>, string> = {
  running: '▸ runs',
  success: '✓ success',
  failure: '✕ failure',
  stopped: '◼ stopped',
};

/** Ticks a history strip holds, one a column. */
const COLUMNS = 48;

/** What each row came to in the ticks just seen; begins anew where the run does not go straight on. */
interface History {
  key: string;
  lastTick: number;
  /** By row, by tick modulo {@link COLUMNS}. */
  rows: RowReadout['result'][][];
}

function remember(history: History, readout: MindReadout, tick: number): void {
  const rows = readout.state?.rows ?? [];
  const key = `${readout.agent} ${readout.state?.id} ${rows.length}`;
  if (history.key !== key || tick < history.lastTick) {
    history.key = key;
    history.rows = rows.map(() => []);
  } else {
    // Ticks no frame was sent for are not known, and stay empty.
    for (let t = Math.max(history.lastTick + 1, tick - COLUMNS + 1); t < tick; t++)
      for (const row of history.rows) row[t % COLUMNS] = null;
  }
  history.lastTick = tick;
  rows.forEach(({ result }, i) => (history.rows[i][tick % COLUMNS] = result));
}

function drawStrip(
  canvas: HTMLCanvasElement,
  results: RowReadout['result'][],
  tick: number,
  tokens: Tokens,
): void {
  const sharp = sharpCanvas(canvas);
  if (!sharp) return;
  const { context, width, height } = sharp;
  context.clearRect(0, 0, width, height);
  const step = width / COLUMNS;
  for (let i = 0; i < COLUMNS; i++) {
    const at = tick - COLUMNS + 1 + i;
    const result = at < 0 ? null : (results[at % COLUMNS] ?? null);
    const now = at === tick;
    if (result === null || result === 'stopped') {
      context.fillStyle = tokens.line2;
      context.fillRect(i * step, height - 1, step, 1);
      continue;
    }
    const tall = result !== 'failure';
    context.fillStyle =
      result === 'running'
        ? now
          ? tokens.lamp
          : tokens.ember
        : result === 'success'
          ? tokens.done
          : tokens.refuse;
    const size = tall ? height - 2 : (height - 2) * 0.4;
    context.fillRect(i * step, height - size, Math.max(1, step - 0.5), size);
  }
}

function RowText({ row }: { row: OutlineRow }) {
  const [kind, ...rest] = row.text.split(' ');
  return (
    <What style={{ paddingLeft: `${6 + row.depth * 14}px` }} title={row.note}>
      {row.title === undefined ? (
        <>
          <b>{kind}</b> <code>{rest.join(' ')}</code>
        </>
      ) : (
        <>
          <b>{row.title}</b> <small>{row.text}</small>
        </>
      )}
      {row.guard && (
        <small>
          {' '}
          if <code>{row.guard.when}</code>
          {row.guard.modes && ` (${row.guard.modes})`}
        </small>
      )}
    </What>
  );
}

/**
 * A tree or rules from top to bottom: what each row is, what it came to lately, one tick a column, and
 * what it comes to now.
 */
export function Outline({
  mind,
  activity,
  label,
}: {
  mind: string;
  activity: ActivityDocument;
  label: string;
}) {
  const document = useProject((project) => project.document.minds[mind]);
  const rows = useMemo(() => (document ? outlineOf(document, activity) : []), [document, activity]);
  const tokens = useTokens();
  const list = useRef<HTMLOListElement>(null);
  const history = useRef<History>({ key: '', lastTick: -1, rows: [] });
  useDrawing(({ frame }) => {
    if (!list.current) return;
    const readout = frame?.readout;
    if (frame && readout) remember(history.current, readout, frame.tick);
    const now = readout?.state?.rows;
    [...list.current.children].forEach((item, i) => {
      const result = now?.length === rows.length ? now[i].result : null;
      (item as HTMLElement).dataset.result = result ?? '';
      item.lastElementChild!.textContent = result === null ? '' : RESULTS[result];
      const canvas = item.querySelector('canvas');
      if (canvas && frame) drawStrip(canvas, history.current.rows[i] ?? [], frame.tick, tokens);
    });
  });
  return (
    <List ref={list} aria-label={label}>
      {rows.map((row, i) => (
        // Rows have no names; their place is what tells them apart.
        <Row key={i}>
          <RowText row={row} />
          <canvas aria-hidden="true" />
          <Result aria-live="off" />
        </Row>
      ))}
    </List>
  );
}
