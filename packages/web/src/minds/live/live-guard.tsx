import type { LeaveReadout, MindReadout } from '@crooked-lantern/core';
import { useRef } from 'react';
import styled from 'styled-components';
import { transitionKey } from '../../engine/lanes.ts';
import { useDrawing } from '../../engine/use-engine.tsx';
import { writeAttribute, writeText } from '../../ui/timing/write-live.ts';

const Live = styled.span`
  padding: 3px 2px 0 0;
  overflow-wrap: anywhere;
  text-align: right;
  font-family: var(--mono);
  color: var(--mute);
  &[data-holds='true'] {
    color: var(--done);
  }
  &[data-holds='wait'] {
    color: var(--lampText);
  }
  &[data-holds='false'] b {
    color: var(--refuse);
  }
  b {
    font-weight: 400;
  }
  /* Values change all the time: they never take more room than this. */
  span {
    display: -webkit-inline-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    overflow: hidden;
    vertical-align: bottom;
  }
  mark {
    background: none;
    color: var(--refuse);
    text-decoration: underline 2px;
    text-underline-offset: 2px;
  }
  em {
    display: block;
    color: var(--mute);
    font: 0.92em var(--text);
  }
  small {
    display: block;
    color: var(--mute);
    font-size: 0.92em;
  }
`;

/** Writes a text with parts of it marked, unless it is shown already. */
function writeMarked(box: Element, text: string, marked: LeaveReadout['failing'] = []): void {
  const key = `${text}\n${marked.join(' ')}`;
  if (box.getAttribute('data-text') === key) return;
  box.setAttribute('data-text', key);
  const parts: (string | Node)[] = [];
  let from = 0;
  for (const [start, end] of marked) {
    const mark = document.createElement('mark');
    mark.textContent = text.slice(start, end);
    parts.push(text.slice(from, start), mark);
    from = end;
  }
  box.replaceChildren(...parts, text.slice(from));
}

/** Writes what a way out is worth now; nothing where it is not read. */
function write(box: HTMLElement, leave: LeaveReadout | undefined, active: boolean): void {
  const [verdict, guard, lack] = box.children;
  if (!leave) {
    writeAttribute(box, 'data-holds', '');
    writeText(verdict, '');
    writeMarked(guard, '');
    writeAttribute(guard, 'title', '');
    writeText(lack, '');
    return;
  }
  const waiting = leave.wait && leave.holds && active;
  writeAttribute(box, 'data-holds', waiting ? 'wait' : String(leave.holds));
  // While its time runs the time is what one waits for; before that the values are.
  const running = leave.wait && active && (leave.wait.what === 'after' || leave.wait.done > 0);
  writeText(verdict, leave.text === '' || running ? '' : `${leave.holds}`);
  if (running)
    writeMarked(guard, `${leave.wait!.done.toFixed(1)} / ${Number(leave.wait!.of.toFixed(2))} s`);
  else writeMarked(guard, leave.text, leave.failing);
  // Of a long guard only two lines are in sight.
  writeAttribute(guard, 'title', running ? '' : leave.text);
  writeText(lack, running ? '' : leave.lacks.join(', '));
}

/** How often, and how long ago, the followed agent took it. */
function takenText(ticks: readonly number[], now: number, perSecond: number): string {
  const last = ticks.findLastIndex((tick) => tick <= now);
  if (last < 0) return '';
  const ago = (now - ticks[last]) / perSecond;
  return `${last + 1}× · ${ago < 10 ? ago.toFixed(1) : Math.round(ago)} s ago`;
}

type LiveState = NonNullable<MindReadout['state']>;

/** The worth of a way out now, written straight to the page: it may change every frame. `read` finds it in what is read of the watched state. */
export function LiveGuard({
  agent,
  state,
  order,
  read,
}: {
  agent: string | null;
  state: string;
  /** From 1. */
  order: number;
  read: (state: LiveState) => { leave: LeaveReadout | undefined; active: boolean };
}) {
  const box = useRef<HTMLSpanElement>(null);
  useDrawing(({ frame, lanes, program }) => {
    if (!box.current) return;
    const watched = frame?.readout?.state;
    const { leave, active } = watched ? read(watched) : { leave: undefined, active: false };
    write(box.current, leave, active);
    const lane = agent === null ? undefined : lanes.byAgent.get(agent);
    const ticks = lane?.taken.get(transitionKey(state, order)) ?? [];
    box.current.lastElementChild!.textContent =
      frame && program ? takenText(ticks, frame.tick, program.ticksPerSecond) : '';
  });
  return (
    <Live ref={box} aria-live="off" data-testid={`live-${state}-${order}`}>
      <b /> <span />
      <em />
      <small />
    </Live>
  );
}
