import {
  outlineOf,
  type ActivityDocument,
  type OutlineRow,
  type RowReadout,
} from '@crooked-lantern/core';
import { useMemo, useRef } from 'react';
import styled from 'styled-components';
import { useProject } from '../state/store.ts';
import { HISTORY_TICKS } from '../engine/row-history.ts';
import { useDrawing } from '../engine/use-engine.tsx';
import type { Tokens } from '../theme/tokens.ts';
import { useTokens } from '../theme/use-tokens.ts';
import { sharpCanvas } from '../ui/canvas.ts';
import { Explained } from '../ui/tooltip.tsx';

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

/** One tick a column, the last at the right: tall for running and success, short for failure, a hairline where it was not reached. */
function drawStrip(
  canvas: HTMLCanvasElement,
  results: readonly RowReadout['result'][],
  tokens: Tokens,
): void {
  const sharp = sharpCanvas(canvas);
  if (!sharp) return;
  const { context, width, height } = sharp;
  context.clearRect(0, 0, width, height);
  const step = width / HISTORY_TICKS;
  const colours = { running: tokens.ember, success: tokens.done, failure: tokens.refuse };
  results.forEach((result, i) => {
    const x = (HISTORY_TICKS - results.length + i) * step;
    if (result === null || result === 'stopped') {
      context.fillStyle = tokens.line2;
      context.fillRect(x, height - 1, step, 1);
      return;
    }
    const now = i === results.length - 1;
    context.fillStyle = now && result === 'running' ? tokens.lamp : colours[result];
    const size = result === 'failure' ? (height - 2) * 0.4 : height - 2;
    context.fillRect(x, height - size, Math.max(1, step - 0.5), size);
  });
}

function RowText({ row }: { row: OutlineRow }) {
  return (
    <What style={{ paddingLeft: `${6 + row.depth * 14}px` }}>
      <Explained text={row.note}>
        {row.title === undefined ? (
          <>
            <b>{row.name}</b> <code>{row.details}</code>
          </>
        ) : (
          <>
            <b>{row.title}</b>{' '}
            <small>
              {row.name.toLowerCase()} <code>{row.details}</code>
            </small>
          </>
        )}
        {row.guard && (
          <small>
            {' '}
            if <code>{row.guard.when}</code>
            {row.guard.modes && ` (${row.guard.modes})`}
          </small>
        )}
      </Explained>
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
  useDrawing(({ frame }) => {
    if (!list.current) return;
    const now = frame?.readout?.state?.rows;
    const past = (frame?.rows ?? []).filter((results) => results.length === rows.length);
    [...list.current.children].forEach((item, i) => {
      const result = now?.length === rows.length ? now[i].result : null;
      (item as HTMLElement).dataset.result = result ?? '';
      item.lastElementChild!.textContent = result === null ? '' : RESULTS[result];
      const canvas = item.querySelector('canvas');
      if (canvas)
        drawStrip(
          canvas,
          past.map((results) => results[i]),
          tokens,
        );
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
