import { firstFrom } from '../engine/first-from.ts';
import { asleepUntil, goesOnAt } from '../engine/lane-times.ts';
import type { Band, Lane, Sleep } from '../engine/lanes.ts';
import type { Frame } from '../engine/protocol.ts';
import type { Tokens } from '../theme/tokens.ts';
import { xOf, type Window } from './time-window.ts';

/** What a lane shows as bands: states, picks, moves, actions, sleep. */

/** Seconds for which what was active is an ember. */
const LATELY_SECONDS = 3;

/** Where the run is shown, and how far it has come. */
export type Playhead = Pick<Frame, 'tick' | 'head'>;

/** Seconds before the playhead in which what is active now begins to glow. */
const GLOW_SECONDS = 4;

/** A band that is active now, or was lately: night at its beginning, lamp (or ember) where it is youngest. */
function litFill(
  context: CanvasRenderingContext2D,
  left: number,
  end: number,
  glow: number,
  colors: readonly string[],
): CanvasGradient {
  const fill = context.createLinearGradient(Math.max(left, end - glow) - 0.01, 0, end, 0);
  colors.forEach((color, i) => fill.addColorStop(i / (colors.length - 1), color));
  return fill;
}

/** A band lower than that, in pixels, holds no words. */
const LOWEST_WITH_WORDS = 10;

const BAND_FONT = `11px 'Atkinson Hyperlegible Next Variable', sans-serif`;

/** Pixels from the middle of a band down to the line its words stand on, and from there up to the top of a capital. */
export const WORDS_BELOW_MIDDLE = 4;
export const CAPITAL = 8;

/** Opacity of what comes after the playhead. */
const FUTURE = 0.45;

function drawBand(
  context: CanvasRenderingContext2D,
  left: number,
  right: number,
  y: number,
  height: number,
): void {
  context.beginPath();
  context.roundRect(left, y, right - left, height, 4);
  context.fill();
}

export function drawBands(
  context: CanvasRenderingContext2D,
  bands: readonly Band[],
  y: number,
  height: number,
  window: Window,
  frame: Playhead,
  perSecond: number,
  titles: Map<string, string>,
  tokens: Tokens,
): void {
  context.font = BAND_FONT;
  context.textAlign = 'left';
  const glow = (GLOW_SECONDS * perSecond * window.width) / (window.to - window.from);
  const first = firstFrom(bands, ({ to }) => to >= 0 && to < window.from);
  for (let i = first; i < bands.length && bands[i].from <= window.to; i++) {
    const { state, from, to, endedAt } = bands[i];
    const end = to < 0 ? frame.head : to;
    const left = Math.max(0, xOf(window, from));
    const right = Math.max(left + 2, Math.min(window.width, xOf(window, end)) - 1);
    const now = goesOnAt(bands[i], frame.tick);
    const lately = !now && end <= frame.tick && frame.tick - end < LATELY_SECONDS * perSecond;
    // What comes after the playhead is there, but not yet so.
    const playhead = Math.min(right, Math.max(left, xOf(window, frame.tick)));
    context.globalAlpha = FUTURE;
    context.fillStyle = tokens.line;
    if (playhead < right) drawBand(context, playhead, right, y, height);
    context.globalAlpha = 1;
    if (now) {
      context.fillStyle = litFill(context, left, playhead, glow, [
        tokens.line,
        tokens.ember,
        tokens.lamp,
      ]);
    } else if (lately) {
      context.fillStyle = litFill(context, left, right, glow, [
        tokens.line,
        tokens.line,
        tokens.ember,
      ]);
    }
    if (left < playhead) drawBand(context, left, playhead, y, height);
    const ended = endedAt === undefined ? Infinity : Math.max(left, xOf(window, endedAt));
    if (ended < playhead) {
      // The lower half goes dark: it is still there, and does nothing.
      context.globalAlpha = 0.6;
      context.fillStyle = tokens.night;
      context.fillRect(ended, y + height / 2, playhead - ended, height / 2);
    }
    context.globalAlpha = from > frame.tick ? FUTURE : 1;
    const title = titles.get(state) ?? state;
    if (right - left > 18 && height >= LOWEST_WITH_WORDS) {
      context.save();
      context.beginPath();
      context.rect(left, y, right - left - 2, height);
      context.clip();
      if (now || lately) {
        // Light words would be lost on a band that glows.
        context.strokeStyle = tokens.night;
        context.lineWidth = 2.5;
        context.strokeText(title, left + 6, y + height / 2 + WORDS_BELOW_MIDDLE);
      }
      context.fillStyle = tokens.bone;
      context.fillText(title, left + 6, y + height / 2 + WORDS_BELOW_MIDDLE);
      context.restore();
    }
    context.globalAlpha = 1;
  }
}

/** When it slept: from the start until it was woken or died, for who begins asleep, and while every player was far. */
export function sleepOf(lane: Lane | undefined, beginsAsleep: boolean): readonly Sleep[] {
  const far = lane?.sleeps ?? [];
  return beginsAsleep ? [{ from: 0, to: asleepUntil(lane) }, ...far] : far;
}

export function drawSleep(
  context: CanvasRenderingContext2D,
  { from, to, inState }: Sleep,
  y: number,
  height: number,
  window: Window,
  frame: Playhead,
  tokens: Tokens,
): void {
  const end = to < 0 ? frame.head : Math.min(frame.head, to);
  const left = Math.max(0, xOf(window, from));
  const right = Math.min(window.width, xOf(window, end)) - 1;
  if (right - left < 2) return;
  context.strokeStyle = tokens.line2;
  context.lineWidth = 1;
  context.setLineDash([2, 3]);
  context.beginPath();
  context.roundRect(left + 0.5, y + 0.5, right - left - 1, height - 1, 4);
  context.stroke();
  context.setLineDash([]);
  // Over a state its own words stand.
  if (inState || right - left < 50) return;
  context.fillStyle = tokens.mute;
  context.font = BAND_FONT;
  context.textAlign = 'left';
  context.fillText('asleep', left + 6, y + height / 2 + WORDS_BELOW_MIDDLE);
}
