import { editWords } from '../engine/edit-words.ts';
import { firstFrom } from '../engine/first-from.ts';
import type { Band, Lane, Lanes } from '../engine/lanes.ts';
import { clockText } from '../ui/words/time.ts';
import { FONT_MONO, type Tokens } from '../theme/tokens.ts';
import {
  CAPITAL,
  drawBands,
  drawSleep,
  sleepOf,
  WORDS_BELOW_MIDDLE,
  type Playhead,
} from './draw-bands.ts';
import { drawFoot, drawScores, type Foot } from './draw-lines.ts';
import { tintOf } from './mark-words.ts';
import { rowsOfLane, rowsWanted, SCORE_ROW, type Nesting } from './stacked-bands.ts';
import { xOf, type Window } from './time-window.ts';

export const RULER = 20;
const TALLEST_LANE = 36;
const LOWEST_LANE = 24;

/** What is picked and which moves are made stand below the states, where there is room for them. */
const FURTHER_ROW = 15;

/**
 * How high each of `count` lanes is, in pixels, so that as many as can be read stand in `room` pixels; with
 * `further` rows below the states where they fit.
 */
export function laneHeight(room: number, count: number, further = 0): number {
  const fitting = Math.floor((room - RULER) / Math.max(1, count));
  return Math.max(LOWEST_LANE, Math.min(TALLEST_LANE + further * FURTHER_ROW, fitting));
}

/** How many further rows a lane shows. */
function furtherRows(laneHeight: number, further: number): number {
  return Math.max(0, Math.min(further, Math.floor((laneHeight - TALLEST_LANE) / FURTHER_ROW)));
}

/** In low lanes the line of awareness runs over the foot of the band; in others it has room below. */
function isLow(laneHeight: number): boolean {
  return laneHeight < 28;
}

/** Where the lines of a lane stand. */
function footOf(y: number, laneHeight: number): Foot {
  const low = isLow(laneHeight);
  return { bottom: y + laneHeight - (low ? 4 : 5), height: low ? 6 : 9 };
}

/** The height of a lane's band. */
function bandHeight(laneHeight: number): number {
  return laneHeight - (isLow(laneHeight) ? 6 : 16);
}

/** From the top of a lane, where the words of its band begin. */
export function topOfWords(laneHeight: number): number {
  return bandHeight(laneHeight) / 2 + WORDS_BELOW_MIDDLE - CAPITAL;
}

const EDIT_FONT = `11px 'Atkinson Hyperlegible Next Variable', sans-serif`;

const NO_NAMES = new Map<string, string>();

/** Where the dots of a lane stand, from its top: at the upper edge, where they leave the words of the band readable. */
export function dotPlace(laneHeight: number): { middle: number; radius: number } {
  const hasRoom = topOfWords(laneHeight) >= 5.5;
  return hasRoom ? { middle: 2, radius: 3.5 } : { middle: -0.5, radius: 2.5 };
}

/** Pixels from a dot to the next of its colour. */
const NEXT_DOT = 2;

function drawDots(
  context: CanvasRenderingContext2D,
  lane: Lane,
  y: number,
  radius: number,
  window: Window,
  tokens: Tokens,
): void {
  context.strokeStyle = tokens.panel;
  context.lineWidth = 1.5;
  let [lastX, lastColor] = [-Infinity, ''];
  const first = firstFrom(lane.dots, ({ tick }) => tick < window.from);
  for (let i = first; i < lane.dots.length && lane.dots[i].tick <= window.to; i++) {
    const { tick, entry } = lane.dots[i];
    if (entry.kind === 'say') continue;
    const color = tintOf(entry, tokens);
    const x = xOf(window, tick);
    // One that the dot before all but covers adds nothing.
    if (color === undefined || (color === lastColor && x - lastX < NEXT_DOT)) continue;
    [lastX, lastColor] = [x, color];
    context.beginPath();
    context.arc(x, y, radius, 0, 2 * Math.PI);
    context.fillStyle = color;
    context.fill();
    context.stroke();
  }
}

/** Room on the ruler, in pixels. */
interface Box {
  left: number;
  right: number;
}

interface PlacedEdit {
  x: number;
  /** None where that of a later edit stands in its place. */
  label: (Box & { text: string }) | null;
}

/**
 * Where the edits in a window stand, and their labels on the ruler: right of the edit, or left of it at the right end,
 * and never over each other. The latest come first.
 */
export function placeEdits(
  edits: Lanes['edits'],
  window: Window,
  covered: number,
  measure: (text: string) => number,
): PlacedEdit[] {
  const taken: Box[] = [];
  return edits
    .map(({ tick, edit }) => ({ x: xOf(window, tick), text: editWords(edit) }))
    .filter(({ x }) => x >= 0 && x <= window.width)
    .toReversed()
    .map(({ x, text }) => {
      const width = measure(text);
      const isAtEnd = x + 4 + width > window.width - covered;
      const left = isAtEnd ? Math.min(x, window.width - covered) - 4 - width : x + 4;
      const box = { left, right: left + width };
      const isFree = !taken.some(
        (other) => box.left < other.right + 4 && other.left < box.right + 4,
      );
      if (isFree) taken.push(box);
      return { x, label: isFree ? { ...box, text } : null };
    });
}

function drawRuler(
  context: CanvasRenderingContext2D,
  window: Window,
  height: number,
  perSecond: number,
  taken: readonly Box[],
  tokens: Tokens,
): void {
  const steps = [0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600];
  const seconds = (window.to - window.from) / perSecond;
  const step = steps.find((candidate) => (candidate / seconds) * window.width >= 70) ?? 1200;
  context.font = `11px ${FONT_MONO}`;
  context.textAlign = 'left';
  for (
    let t = Math.ceil(window.from / perSecond / step) * step;
    t * perSecond <= window.to;
    t += step
  ) {
    const x = xOf(window, t * perSecond);
    context.fillStyle = tokens.line;
    context.fillRect(Math.round(x), RULER - 4, 1, height - RULER + 4);
    context.fillStyle = tokens.mute;
    const text = t < 60 ? `${t}s` : clockText(t * perSecond, perSecond, 0);
    const [left, right] = [x + 3, x + 3 + context.measureText(text).width];
    if (!taken.some((box) => left < box.right && box.left < right))
      context.fillText(text, left, 12);
  }
}

/** The first and the last of `count` rows that can be seen at all; the last lies before the first where none can. */
export function rowsIn({ top, height, lane }: Shown, count: number): [first: number, last: number] {
  const first = Math.max(0, Math.floor(top / lane));
  return [first, Math.min(count, Math.ceil((top + height - RULER) / lane)) - 1];
}

/** What is in sight, in pixels: `top` are scrolled away, and each lane is `lane` high. */
export interface Shown {
  top: number;
  height: number;
  lane: number;
}

export interface LanesPicture {
  lanes: Lanes;
  frame: Playhead;
  ticksPerSecond: number;
  agents: string[];
  /** Of lanes that are folded squads: whose states stand in them, each as a strip. */
  folded?: ReadonlyMap<string, readonly string[]>;
  /** By agent, what its states, options and moves are called. */
  titles: Map<string, Map<string, string>>;
  /** By agent, how its states lie in each other; left out, only innermost ones are shown. */
  nestings?: ReadonlyMap<string, Nesting>;
  /** Who begins asleep. */
  sleepers?: ReadonlySet<string>;
  tokens: Tokens;
  /** Pixels of the ruler, at its right end, that something stands over. */
  covered?: number;
}

/** Which of `count` strips of a folded lane stands `within` pixels below the top of the lane. */
export function stripAt(within: number, count: number, lane: number): number {
  const strip = bandHeight(lane) / count;
  return Math.max(0, Math.min(count - 1, Math.floor((within - 2) / strip)));
}

/** The lanes that are in sight; the ruler stays. */
export function drawLanes(
  context: CanvasRenderingContext2D,
  picture: LanesPicture,
  window: Window,
  shown: Shown,
): void {
  const {
    lanes,
    frame,
    ticksPerSecond,
    agents,
    folded,
    titles,
    nestings,
    sleepers,
    tokens,
    covered = 0,
  } = picture;
  const { top, height, lane: tall } = shown;
  context.clearRect(0, 0, window.width, height);
  context.font = EDIT_FONT;
  const edits = placeEdits(lanes.edits, window, covered, (text) => context.measureText(text).width);
  const taken = edits.flatMap(({ label }) => label ?? []);
  const end = { left: window.width - covered, right: Infinity };
  drawRuler(context, window, height, ticksPerSecond, [...taken, end], tokens);
  context.save();
  context.beginPath();
  context.rect(0, RULER, window.width, height - RULER);
  context.clip();
  const [first, last] = rowsIn(shown, agents.length);
  for (let row = first; row <= last; row++) {
    const agent = agents[row];
    const lane = lanes.byAgent.get(agent);
    const y = RULER + row * tall + 2 - top;
    const members = folded?.get(agent) ?? [];
    members.forEach((member, i) => {
      const strip = bandHeight(tall) / members.length;
      // A gap between strips that are high enough for one.
      const height = strip > 3 ? strip - 1 : strip;
      const bands = lanes.byAgent.get(member)?.bands ?? [];
      const at = y + i * strip;
      drawBands(context, bands, at, height, window, frame, ticksPerSecond, NO_NAMES, tokens);
    });
    const sleep = sleepOf(lane, sleepers?.has(agent) ?? false);
    if (!lane) {
      for (const each of sleep)
        drawSleep(context, each, y, bandHeight(tall), window, frame, tokens);
      continue;
    }
    const nesting = nestings?.get(agent);
    const further = furtherRows(tall, rowsWanted(lane, nesting));
    const rows = rowsOfLane(lane, nesting, further);
    const high = tall - further * FURTHER_ROW;
    const names = titles.get(agent) ?? new Map<string, string>();
    const draw = (bands: readonly Band[], at: number, height: number) =>
      drawBands(context, bands, at, height, window, frame, ticksPerSecond, names, tokens);
    for (const bands of rows.main) draw(bands, y, bandHeight(high));
    // Over the state it is in all the while.
    for (const each of sleep) drawSleep(context, each, y, bandHeight(high), window, frame, tokens);
    rows.further.forEach((bands, i) => {
      const at = y + bandHeight(high) + 2 + i * FURTHER_ROW;
      const height = FURTHER_ROW - 2;
      if (bands === SCORE_ROW)
        drawScores(context, lane, { bottom: at + height, height }, window, frame, tokens);
      else draw(bands, at, height);
    });
    drawFoot(context, lane, footOf(y + further * FURTHER_ROW, high), window, frame, tokens);
    const { middle, radius } = dotPlace(high);
    drawDots(context, lane, y + middle, radius, window, tokens);
  }
  context.restore();
  for (const { x, label } of edits) {
    dashedLine(context, x, height, tokens.found);
    if (!label) continue;
    context.fillStyle = tokens.found;
    context.font = EDIT_FONT;
    context.textAlign = 'left';
    context.fillText(label.text, label.left, 12);
  }
  const x = Math.round(xOf(window, frame.tick)) + 0.5;
  context.strokeStyle = tokens.bone;
  context.lineWidth = 1.5;
  context.beginPath();
  context.moveTo(x, 8);
  context.lineTo(x, height);
  context.stroke();
  context.fillStyle = tokens.bone;
  context.beginPath();
  context.arc(x, 7, 4.5, 0, 2 * Math.PI);
  context.fill();
}

/** A dashed line from the ruler down to the foot of the lanes. */
export function dashedLine(
  context: CanvasRenderingContext2D,
  x: number,
  height: number,
  color: string,
): void {
  context.strokeStyle = color;
  context.setLineDash([2, 3]);
  context.beginPath();
  context.moveTo(x, RULER - 4);
  context.lineTo(x, height);
  context.stroke();
  context.setLineDash([]);
}

/** Marks on the ruler at some ticks: where something that is looked for stands. */
export function markTicks(
  context: CanvasRenderingContext2D,
  ticks: readonly number[],
  window: Window,
  tokens: Tokens,
): void {
  context.fillStyle = tokens.sight;
  let last = -2;
  for (const tick of ticks) {
    const x = Math.round(xOf(window, tick));
    // Those that would fall on each other are one.
    if (x < last + 2 || x > window.width) continue;
    last = x;
    context.fillRect(x - 1, RULER - 6, 2, 6);
  }
}
