import type { KeptOutlines } from './outlines.ts';
import { faded, type Painter } from './view.ts';

/** What is kept from frame to frame of what many see, or light. */
export interface Reaches {
  outlines: KeptOutlines;
  /** All of them in one shade, as it was drawn last. */
  shade: {
    picture: OffscreenCanvas | null;
    /** What it was drawn for. */
    key: readonly unknown[];
    /** How many frames have shown it. */
    shown: number;
  };
}

export function createReaches(): Reaches {
  return { outlines: new Map(), shade: { picture: null, key: [], shown: 0 } };
}

/** Pixels of the screen to one of a shade, whose rims are lost among others: in motion, and at rest. */
const COARSE = 4;
const COARSE_AT_REST = 2;
/** Frames of a run that goes on for which a shade stays as it is: its rim moves by less than a pixel in each. */
const FRAMES_A_SHADE = 3;

/**
 * Fills all outlines that `outline` adds to the path in one shade, however often they lie over each other; it
 * is given where to add them, and the scale (pixels a metre) that is fine enough for them. Where the run `goesOn`, the shade is
 * that of one frame for the next two.
 */
export function drawShade(
  painter: Painter,
  { shade }: Reaches,
  { color, opacity, goesOn }: { color: string; opacity: number; goesOn: boolean },
  outline: (behind: Painter, scale: number) => void,
): void {
  const { context, view, width, height } = painter;
  const key = [color, view.scale, view.left, view.top, width, height];
  const isSame = key.every((part, i) => part === shade.key[i]);
  if (!isSame || !goesOn || !shade.picture || ++shade.shown >= FRAMES_A_SHADE) {
    const coarse = goesOn ? COARSE : COARSE_AT_REST;
    const [across, down] = [Math.ceil(width / coarse), Math.ceil(height / coarse)];
    if (shade.picture?.width !== across || shade.picture.height !== down)
      shade.picture = new OffscreenCanvas(across, down);
    const behind = shade.picture.getContext('2d')!;
    behind.setTransform(1, 0, 0, 1, 0, 0);
    behind.clearRect(0, 0, across, down);
    behind.scale(across / width, down / height);
    behind.beginPath();
    outline({ ...painter, context: behind }, view.scale / coarse);
    behind.fillStyle = faded(color, opacity);
    behind.fill();
    shade.key = key;
    shade.shown = 0;
  }
  context.drawImage(shade.picture, 0, 0, width, height);
}
