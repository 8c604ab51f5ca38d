import type { Painter } from './view.ts';

/** What stands still behind the bodies, drawn once and kept for as long as nothing of it changes. */
export interface Backdrop {
  /** What the frame before was drawn from. */
  key: readonly unknown[];
  picture: OffscreenCanvas | null;
}

export function createBackdrop(): Backdrop {
  return { key: [], picture: null };
}

/** Draws with `draw`, or what it drew before: `parts` are all that its drawing depends on besides the view. */
export function drawBackdrop(
  kept: Backdrop,
  painter: Painter,
  parts: readonly unknown[],
  draw: (painter: Painter) => void,
): void {
  const { context, view, tokens, width, height } = painter;
  const { canvas } = context;
  const key = [...parts, tokens, view.scale, view.left, view.top, canvas.width, canvas.height];
  const isSame = key.length === kept.key.length && key.every((part, i) => part === kept.key[i]);
  kept.key = key;
  if (!isSame) {
    // A view that moves is drawn as it goes; only one that rests is worth keeping.
    kept.picture = null;
    draw(painter);
    return;
  }
  if (!kept.picture) {
    kept.picture = new OffscreenCanvas(canvas.width, canvas.height);
    const behind = kept.picture.getContext('2d')!;
    behind.setTransform(canvas.width / width, 0, 0, canvas.height / height, 0, 0);
    draw({ ...painter, context: behind });
  }
  context.drawImage(kept.picture, 0, 0, width, height);
}
