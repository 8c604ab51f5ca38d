import { faded, type Painter } from './view.ts';

/** Outlines that run together need no more detail than at half the scale. */
const COARSE = 2;

/** Fills all outlines that `outline` adds to the path in one shade, however often they lie over each other; it is given the scale that is fine enough for them. */
export function drawShade(
  { context, view }: Painter,
  color: string,
  opacity: number,
  outline: (scale: number) => void,
): void {
  context.beginPath();
  outline(view.scale / COARSE);
  context.fillStyle = faded(color, opacity);
  context.fill();
}
