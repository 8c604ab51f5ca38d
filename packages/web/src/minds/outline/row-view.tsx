import { actionSpec, type OutlineRow } from '@crooked-lantern/core';
import { ChevronDown, ChevronRight, Ellipsis, GripVertical } from 'lucide-react';
import { memo, useCallback, type DragEvent, type KeyboardEvent } from 'react';
import styled from 'styled-components';
import { InlineText } from '../../ui/fields/inline-text.tsx';
import { RowFindings } from '../../findings/row-findings.tsx';
import { RowFields } from './row-fields.tsx';
import { ROW_COMMANDS, type RowCommand } from './row-keys.ts';
import { rowSentence } from './row-words.ts';
import type { KnownRow } from './visible-rows.ts';

const Row = styled.div`
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 98px 78px 66px 26px;
  align-items: start;
  gap: 6px;
  min-height: 24px;
  padding: 1px 0;
  border-left: 2px solid transparent;
  border-bottom: 1px solid color-mix(in srgb, var(--line) 55%, transparent);
  &[data-result='running'] {
    border-left-color: var(--lamp);
    background: color-mix(in srgb, var(--lamp) 9%, transparent);
  }
  &[aria-selected='true'] {
    background: color-mix(in srgb, var(--sight) 14%, transparent);
  }
  &[data-off='true'] {
    opacity: 0.75;
    text-decoration: line-through;
    text-decoration-color: var(--mute);
  }
  &[data-unreached='true'] [data-words] * {
    color: var(--mute);
  }
  &[data-never='true'] {
    border-left: 2px dotted var(--refuse);
  }
  &:focus-visible {
    outline: 2px solid var(--sight);
    outline-offset: -2px;
  }
  &[data-drop='before']::before,
  &[data-drop='after']::after {
    content: '';
    position: absolute;
    inset: -1px 0 auto;
    border-top: 2px solid var(--sight);
  }
  &[data-drop='after']::after {
    inset: auto 0 -1px;
  }
  &[data-drop='inside'] {
    outline: 2px dashed var(--sight);
    outline-offset: -2px;
  }
  canvas {
    width: 96px;
    height: 14px;
    margin-top: 5px;
  }
  /* Handles that are needed now and then only. */
  .handle {
    opacity: 0;
  }
  &:hover .handle,
  &:focus-within .handle {
    opacity: 1;
  }
  /* Where words are short of room the strip becomes a line beneath them. */
  @container (max-width: 760px) {
    grid-template-columns: minmax(0, 1fr) 78px 66px 26px;
    padding-bottom: 6px;
    border-bottom-color: transparent;
    /* It lies over the row, whose handles and numbers are pressed all the same. */
    > [data-strip] {
      position: absolute;
      inset: auto 0 0 0;
      pointer-events: none;
    }
    > [data-strip] canvas {
      display: block;
      width: 100%;
      height: 5px;
      margin-top: 0;
    }
  }
  @container (max-width: 520px) {
    grid-template-columns: minmax(0, 1fr) 78px 26px;
    > [data-times] {
      display: none;
    }
  }
`;

const What = styled.div`
  display: flex;
  align-items: baseline;
  min-width: 0;
  > .words {
    flex: 1;
    min-width: 0;
  }
`;

const Fold = styled.button`
  flex: none;
  width: 16px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--mute);
  align-self: start;
  line-height: 22px;
  svg {
    vertical-align: -2px;
  }
`;

const MoreButton = styled.button`
  padding: 3px 5px;
  border: 0;
  border-radius: 6px;
  background: none;
  color: var(--mute);
  &:hover {
    background: var(--raised);
    color: var(--bone);
  }
  svg {
    display: block;
  }
`;

const Grip = styled.span`
  flex: none;
  align-self: start;
  width: 12px;
  color: var(--mute);
  line-height: 22px;
  cursor: grab;
  svg {
    vertical-align: -2px;
  }
`;

const Result = styled.span`
  padding-top: 2px;
  font-family: var(--mono);
  color: var(--mute);
  white-space: nowrap;
  [data-result='running'] > * > & {
    color: var(--lampText);
  }
  [data-result='success'] > * > & {
    color: var(--done);
  }
  [data-result='failure'] > * > & {
    color: var(--refuse);
  }
`;

const Tally = styled.span`
  color: var(--mute);
  font-family: var(--mono);
  font-size: 0.92em;
  white-space: nowrap;
`;

const Note = styled.div`
  color: var(--mute);
`;

const INDENT = 15;

function noteOf(row: OutlineRow): string | undefined {
  if (row.kind === 'rule') return row.rule.note;
  return 'node' in row ? row.node.note : undefined;
}

/** The page of the reference on a row. */
function referenceId(row: OutlineRow): string {
  if (row.kind === 'options') return 'choice';
  if (!('node' in row)) return 'rules';
  return 'do' in row.node ? `do ${String(row.node.do)}` : row.kind;
}

/** Whether it is an action that goes on over several ticks. */
function takesTime(row: OutlineRow): boolean {
  return 'node' in row && 'do' in row.node && (actionSpec(String(row.node.do))?.lasts ?? false);
}

/** Which commands make sense for a row. */
export function commandsOf({ row }: KnownRow): RowCommand[] {
  const all = (Object.keys(ROW_COMMANDS) as RowCommand[]).filter(
    (id) =>
      (id !== 'uninterrupted' || takesTime(row)) &&
      // What is switched off runs nowhere.
      (id !== 'why' || row.row !== null),
  );
  const without = (...gone: RowCommand[]) => all.filter((id) => !gone.includes(id));
  const ofTrees = [
    'wrap',
    'unwrap',
    'kind',
    'guard',
    'restart',
    'extract',
    'inline',
    'open',
  ] as const;
  if (row.kind === 'set') return ['insert', 'find', 'link'];
  if (row.kind === 'options') return ['find', 'link'];
  if (row.kind === 'else') return ['insert', 'remove', 'why', 'find', 'link'];
  if (row.kind === 'rule') return without(...ofTrees);
  const inRules = row.path[2] === 'rules';
  if (inRules)
    return without(
      ...ofTrees.filter((id) => id !== 'kind'),
      'title',
      'note',
      'off',
      'otherwise',
      'nest',
      'unnest',
    );
  const calls = row.kind === 'tree' || row.kind === 'rules' || row.kind === 'choice';
  return without(
    'otherwise',
    ...(calls ? [] : (['open'] as const)),
    ...(row.kind === 'tree' ? [] : (['inline'] as const)),
    ...(row.kind === 'sequence' || row.kind === 'selector' ? [] : (['restart'] as const)),
    ...(row.below > 0 && !calls ? [] : (['unwrap'] as const)),
  );
}

export interface RowActs {
  set(known: KnownRow, change: Record<string, unknown>): void;
  command(command: RowCommand, known: KnownRow): void;
  /** Opens the menu of a row under an element. */
  more(known: KnownRow, at: Element): void;
  key(event: KeyboardEvent<HTMLElement>, known: KnownRow): void;
  focus(known: KnownRow): void;
  choose(known: KnownRow, extend: boolean): void;
  fold(known: KnownRow): void;
  drag(event: DragEvent<HTMLElement>, known: KnownRow): void;
  over(event: DragEvent<HTMLElement>, known: KnownRow): void;
  drop(event: DragEvent<HTMLElement>, known: KnownRow): void;
}

/** One row of an outline; what changes with each frame is written to it from outside. */
export const RowView = memo(function RowView({
  known,
  mind,
  number,
  place,
  isCurrent,
  isChosen,
  isFolded,
  start,
  acts,
  measure,
}: {
  known: KnownRow;
  mind: string;
  /** From 1. */
  number: number;
  /** What it is in: “Comb the place”. */
  place: string;
  isCurrent: boolean;
  isChosen: boolean;
  isFolded: boolean;
  /** Pixels from the top of the outline. */
  start: number;
  acts: RowActs;
  measure: (element: HTMLElement | null) => void;
}) {
  const { row, pathText } = known;
  const where = `in row ${number} of ${place}`;
  const onSet = useCallback(
    (change: Record<string, unknown>) => acts.set(known, change),
    [acts, known],
  );
  const note = noteOf(row);
  return (
    <Row
      ref={measure}
      role="row"
      tabIndex={isCurrent ? 0 : -1}
      aria-level={row.depth + 1}
      aria-expanded={row.below > 0 ? !isFolded : undefined}
      aria-selected={isChosen}
      aria-label={rowSentence(row)}
      data-index={number - 1}
      data-id={known.id}
      data-path={pathText}
      data-reference={referenceId(row)}
      data-off={row.row === null}
      style={{ transform: `translateY(${start}px)` }}
      onKeyDown={(event) => acts.key(event, known)}
      onFocus={() => acts.focus(known)}
      onClick={(event) => acts.choose(known, event.shiftKey)}
      onDragOver={(event) => acts.over(event, known)}
      onDragLeave={(event) => delete event.currentTarget.dataset.drop}
      onDrop={(event) => acts.drop(event, known)}
    >
      <What role="gridcell" style={{ paddingLeft: row.depth * INDENT }}>
        <Grip
          className="handle"
          draggable
          aria-hidden="true"
          onDragStart={(event) => acts.drag(event, known)}
        >
          <GripVertical size={12} />
        </Grip>
        {row.below > 0 ? (
          <Fold
            type="button"
            tabIndex={-1}
            aria-label={`${isFolded ? 'Unfold' : 'Fold'} row ${number} of ${place}`}
            onClick={() => acts.fold(known)}
          >
            {isFolded ? <ChevronRight size={13} /> : <ChevronDown size={13} />}
          </Fold>
        ) : (
          <span style={{ width: 16, flex: 'none' }} />
        )}
        <div className="words" data-words>
          <RowFields
            row={row}
            mind={mind}
            pathText={pathText}
            where={where}
            weighed={known.weighed}
            onSet={onSet}
          />
          {note !== undefined && (
            <Note data-field="note">
              <InlineText
                label={`note ${where}`}
                value={note}
                onCommit={(text) => onSet({ note: text.trim() || undefined })}
              />
            </Note>
          )}
          <RowFindings path={pathText} own />
        </div>
      </What>
      <div role="gridcell" data-strip>
        <canvas aria-hidden="true" />
      </div>
      <div role="gridcell">
        <Result aria-live="off" data-result-text />
      </div>
      <div role="gridcell" data-times>
        <Tally title="How often it began, and its share of the run’s time" data-tally />
      </div>
      <div role="gridcell" className="handle">
        <MoreButton
          type="button"
          tabIndex={-1}
          aria-haspopup="menu"
          aria-label={`More for row ${number} of ${place}`}
          onClick={(event) => acts.more(known, event.currentTarget)}
        >
          <Ellipsis size={14} aria-hidden />
        </MoreButton>
      </div>
    </Row>
  );
});
