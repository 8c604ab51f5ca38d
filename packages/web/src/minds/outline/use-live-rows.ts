import {
  reasonText,
  firstMind,
  readRow,
  type OutlineRow,
  type Program,
  type RowResult,
} from '@crooked-lantern/core';
import { useMemo, useRef, type RefObject } from 'react';
import type { IsNever } from '../../engine/use-coverage.ts';
import type { EngineClient } from '../../engine/engine-client.ts';
import { tallyAt, type Tally } from '../../engine/row-tallies.ts';
import { useDrawing } from '../../engine/use-engine.tsx';
import { useTokens } from '../../theme/use-tokens.ts';
import { drawStrip } from './draw-strip.ts';
import type { KnownRow } from './visible-rows.ts';
import { writeAttribute, writeText } from '../../ui/timing/write-live.ts';

const RESULTS: Record<RowResult, string> = {
  running: '▸ runs',
  success: '✓ success',
  failure: '✕ failure',
  stopped: '◼ stopped',
};

/** Frames of a run that goes on for which a strip stays as it is. */
const FRAMES_A_STRIP = 4;

/** Seconds for which a row still shows that another row took its channel. */
const OVERRULED_SHOWN = 0.5;

/** All that is shown of a row besides what it says. */
interface LiveRow {
  /** What came of it in this tick; null where it was not reached. */
  result: RowResult | null;
  /** When it was reached last in this run, and what came of it then; null before the first time. */
  last: { tick: number; result: RowResult } | null;
  tally: Tally | null;
}

interface Clock {
  tick: number;
  ticksPerSecond: number;
}

/** Whether it was ever reached in this run. Rules note their actions as stopped before they begin any. */
function wasReached({ last, tally }: LiveRow): boolean {
  return (last !== null && last.result !== 'stopped') || (tally?.times ?? 0) > 0;
}

function isOverruled({ result, tally }: LiveRow, { tick, ticksPerSecond }: Clock): boolean {
  return (
    (result === null || result === 'stopped') &&
    tally !== null &&
    tally.overruled !== null &&
    tick - tally.overruled.tick <= OVERRULED_SHOWN * ticksPerSecond
  );
}

/** “12× 34 %”: how often it began, and its share of the time of the run. */
function tallyWords(tally: Tally | null, { tick }: Clock): string {
  if (!tally || tally.times === 0) return '';
  const share = tick > 0 ? Math.round((100 * tally.ticks) / tick) : 0;
  return `${tally.times}× ${share < 1 ? '<1' : share} %`;
}

function ago(tick: number, clock: Clock): string {
  return `${((clock.tick - tick) / clock.ticksPerSecond).toFixed(1)} s ago`;
}

/** What there is to say of one row, in a sentence. `numberOf` gives the number people know another row by. */
function detailWords(live: LiveRow, clock: Clock, numberOf: (row: number) => number): string {
  const { last, tally } = live;
  if (!wasReached(live) && !tally?.overruled) return 'Not reached in this run.';
  const said: string[] = [];
  if (last && last.result !== 'stopped') said.push(`reached ${ago(last.tick, clock)}`);
  if (tally && tally.times > 0)
    said.push(
      `begun ${tally.times} ${tally.times === 1 ? 'time' : 'times'}`,
      `ran ${(tally.ticks / clock.ticksPerSecond).toFixed(1)} s in all`,
    );
  if (tally?.failure)
    said.push(`failed ${ago(tally.failure.tick, clock)}: ${reasonText(tally.failure.reason)}`);
  if (tally?.overruled)
    said.push(
      `overruled by row ${numberOf(tally.overruled.by)} ${ago(tally.overruled.tick, clock)}`,
    );
  const words = said.join(' · ');
  return `${words[0].toUpperCase()}${words.slice(1)}`;
}

/** How the ledger names a mind of an agent: not at all where it is the first. */
function mindInLedger(program: Program, agent: string, mind: string): string {
  const placed = program.agents.find(({ name }) => name === agent);
  return placed && firstMind(program, placed.archetype)?.name === mind ? '' : mind;
}

/** Reads the rows of the watched state from the engine: by its number in the running activity, or where it is written. */
function liveReader(engine: EngineClient, mind: string, counted: number) {
  const { frame, tallies, program, rowPaths } = engine;
  const { state, agent } = frame?.readout ?? {};
  const cells = frame?.rows.cells;
  // Where they are rows of another activity they go by where they are written.
  const byPath =
    rowPaths.length === counted ? null : new Map(rowPaths.map((path, i) => [path, i] as const));
  const inLedger = program && agent !== undefined ? mindInLedger(program, agent, mind) : mind;
  return {
    count: cells?.length ?? 0,
    indexOf: (row: number | null, path: string) =>
      row === null ? -1 : byPath ? (byPath.get(path) ?? -1) : row,
    at(index: number): LiveRow {
      const last = index >= 0 && cells && index < cells.length ? readRow(cells[index]) : null;
      return {
        result: last?.tick === frame?.tick ? (last?.result ?? null) : null,
        last,
        tally:
          state && agent !== undefined && frame && index >= 0
            ? tallyAt(tallies, { agent, mind: inLedger, state: state.id, row: index }, frame.tick)
            : null,
      };
    },
  };
}

/** Writes what each shown row came to, at the display's pace; `detail` says more of the current one. */
export function useLiveRows({
  grid,
  detail,
  mind,
  all,
  outline,
  current,
  isNever,
}: {
  grid: RefObject<HTMLElement | null>;
  detail: RefObject<HTMLElement | null>;
  mind: string;
  all: readonly KnownRow[];
  /** The same rows, with the numbers they have in the running activity. */
  outline: readonly OutlineRow[];
  current: string | undefined;
  isNever: IsNever;
}): void {
  const tokens = useTokens();
  const counted = useMemo(() => outline.filter(({ row }) => row !== null).length, [outline]);
  const placeOf = useMemo(() => new Map(all.map(({ id }, i) => [id, i])), [all]);
  const drawings = useRef(0);
  useDrawing((engine) => {
    if (!grid.current) return;
    const { frame, program } = engine;
    // What goes by is read no better at every frame, and each strip is a canvas of its own.
    const withStrips = frame?.playing !== true || drawings.current++ % FRAMES_A_STRIP === 0;
    const read = liveReader(engine, mind, counted);
    const clock = { tick: frame?.tick ?? 0, ticksPerSecond: program?.ticksPerSecond ?? 60 };
    const indexAt = (place: number) => read.indexOf(outline[place].row, all[place].pathText);
    const numberOf = (row: number) => 1 + all.findIndex((_, place) => indexAt(place) === row);
    for (const item of grid.current.children) {
      const { id } = (item as HTMLElement).dataset;
      const place = id === undefined ? undefined : placeOf.get(id);
      if (place === undefined) continue;
      const index = indexAt(place);
      const live = read.at(index);
      const { result, tally } = live;
      writeAttribute(item, 'data-result', result ?? '');
      writeAttribute(item, 'data-unreached', String(index >= 0 && !wasReached(live)));
      const overruled = isOverruled(live, clock);
      writeText(
        item.querySelector('[data-result-text]'),
        overruled
          ? `⊘ by row ${numberOf(tally!.overruled!.by)}`
          : result === null
            ? ''
            : RESULTS[result],
      );
      const never = isNever('row', all[place].pathText);
      writeAttribute(item, 'data-never', String(never));
      writeText(item.querySelector('[data-tally]'), never ? 'never' : tallyWords(tally, clock));
      const canvas = item.querySelector('canvas');
      if (canvas && withStrips) drawStrip(canvas, frame?.rows.past, read.count, index, tokens);
      if (id === current)
        writeText(detail.current, index >= 0 ? detailWords(live, clock, numberOf) : '');
    }
  });
}
