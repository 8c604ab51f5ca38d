import type { Tokens } from '../../theme/tokens.ts';

/** How metres become pixels: a scale and where the ground's corner lies. */
export interface View {
  scale: number;
  left: number;
  top: number;
}

export interface Painter {
  context: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;
  view: View;
  tokens: Tokens;
  width: number;
  height: number;
}

/** Below this scale, in pixels a metre, a ground is a map: figures and edges too small to read are left out. */
const MAP_SCALE = 6;

export function isMap({ scale }: View): boolean {
  return scale < MAP_SCALE;
}

/** Whether a circle around a place, in metres, can be seen at all. */
export function isInSight(
  { view, width, height }: Painter,
  x: number,
  y: number,
  radius: number,
): boolean {
  const [left, top, around] = [toX(view, x), toY(view, y), radius * view.scale];
  return left + around > 0 && left - around < width && top + around > 0 && top - around < height;
}

export const MARGIN = 12;

/** The whole ground, as large as it fits, below `head` pixels kept for the bar. */
export function fitView(
  groundWidth: number,
  groundHeight: number,
  width: number,
  height: number,
  head: number,
): View {
  const scale = Math.max(
    2,
    Math.min((width - 2 * MARGIN) / groundWidth, (height - head - 2 * MARGIN) / groundHeight),
  );
  return {
    scale,
    left: (width - groundWidth * scale) / 2,
    top: head + (height - head - groundHeight * scale) / 2,
  };
}

/** A closer view around a place, kept on the ground. */
export function closeView(
  x: number,
  y: number,
  scale: number,
  groundWidth: number,
  groundHeight: number,
  width: number,
  height: number,
  head: number,
): View {
  const hold = (value: number, low: number, high: number) =>
    low > high ? (low + high) / 2 : Math.min(high, Math.max(low, value));
  return {
    scale,
    left: hold(width / 2 - x * scale, width - groundWidth * scale - MARGIN, MARGIN),
    top: hold(
      head + (height - head) / 2 - y * scale,
      height - groundHeight * scale - MARGIN,
      head + MARGIN,
    ),
  };
}

export function toX(view: View, x: number): number {
  return view.left + x * view.scale;
}

export function toY(view: View, y: number): number {
  return view.top + y * view.scale;
}

/** Pixels back to metres. */
export function toMetresX(view: View, x: number): number {
  return (x - view.left) / view.scale;
}

export function toMetresY(view: View, y: number): number {
  return (y - view.top) / view.scale;
}

/** `color` (#rrggbb) with an opacity from 0 to 1. */
export function faded(color: string, opacity: number): string {
  return `${color}${Math.round(opacity * 255)
    .toString(16)
    .padStart(2, '0')}`;
}
