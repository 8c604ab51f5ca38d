interface Size {
  width: number;
  height: number;
}

const sizes = new WeakMap<Element, Size>();
const watcher = new ResizeObserver((entries) => {
  for (const { target } of entries)
    sizes.set(target, { width: target.clientWidth, height: target.clientHeight });
  for (const listener of listeners) listener();
});

const listeners = new Set<() => void>();

/** Calls back when a canvas has another size, which has to be drawn though nothing else has changed. Returns a function that stops it. */
export function onCanvasSize(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Size of an element in CSS pixels, known without asking for a layout each frame. */
function sizeOf(element: Element): Size {
  const known = sizes.get(element);
  if (known) return known;
  const size = { width: element.clientWidth, height: element.clientHeight };
  sizes.set(element, size);
  watcher.observe(element);
  return size;
}

/** A canvas made as sharp as the screen, with its drawing units in CSS pixels; null while it is not on the page, or has no room there. */
export function sharpCanvas(
  canvas: HTMLCanvasElement | null,
): { context: CanvasRenderingContext2D; width: number; height: number } | null {
  const context = canvas?.getContext('2d');
  if (!canvas || !context) return null;
  const ratio = globalThis.devicePixelRatio || 1;
  const { width, height } = sizeOf(canvas);
  const [fineWidth, fineHeight] = [Math.round(width * ratio), Math.round(height * ratio)];
  if (fineWidth === 0 || fineHeight === 0) return null;
  // Setting a size clears the canvas, so only when it differs.
  if (canvas.width !== fineWidth || canvas.height !== fineHeight) {
    canvas.width = fineWidth;
    canvas.height = fineHeight;
  }
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  return { context, width, height };
}
