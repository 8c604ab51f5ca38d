import {
  useCallback,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  type PointerEvent,
} from 'react';
import { fittingScale, READABLE_SCALE } from './plan-layout.ts';

const LARGEST_SCALE = 1.4;
const STEP = 1.25;
const MOST_ZOOM = 4;
const LEAST_ZOOM = 0.25;

export interface PlanView {
  /** Pixels of the page for one of the plan. */
  scale: number;
  /** How much larger than fitted; 1 is fitted. */
  zoom: number;
  zoomBy: (steps: number) => void;
  fit: () => void;
  /** Moves the plan with the pointer; for the ground of the plan. */
  pan: (event: PointerEvent<HTMLElement>) => void;
}

/**
 * How large a plan is drawn in a box that scrolls: fitted to begin with, larger and smaller by wheel with
 * Ctrl, pinch, keys and buttons. What is under the pointer, or in the middle, stays where it is.
 */
export function useZoom(
  box: HTMLElement | null,
  room: { width: number; height: number },
  plan: { width: number; height: number } | null,
): PlanView {
  const [zoom, setZoom] = useState(1);
  /** The point of the plan that is to stay, as parts of its size, and where in the box it is. */
  const kept = useRef<{ part: [number, number]; at: [number, number] } | null>(null);
  const fitted = plan
    ? // What does not fit is scrolled: it is never drawn too small to be read.
      Math.max(READABLE_SCALE, Math.min(LARGEST_SCALE, fittingScale(plan, room)))
    : 1;
  const scale = fitted * zoom;

  const change = useCallback(
    (by: number, at?: [number, number]) => {
      if (box) {
        const [x, y] = at ?? [box.clientWidth / 2, box.clientHeight / 2];
        kept.current = {
          part: [(box.scrollLeft + x) / box.scrollWidth, (box.scrollTop + y) / box.scrollHeight],
          at: [x, y],
        };
      }
      setZoom((last) => Math.max(LEAST_ZOOM, Math.min(MOST_ZOOM, last * by)));
    },
    [box],
  );
  useLayoutEffect(() => {
    const { current } = kept;
    kept.current = null;
    if (!box || !current) return;
    box.scrollTo({
      left: current.part[0] * box.scrollWidth - current.at[0],
      top: current.part[1] * box.scrollHeight - current.at[1],
    });
  }, [box, scale]);

  // A wheel with Ctrl would zoom the whole page: only a listener that is not passive can keep it from that.
  useEffect(() => {
    if (!box) return undefined;
    const onWheel = (event: WheelEvent) => {
      if (!event.ctrlKey) return;
      event.preventDefault();
      const { left, top } = box.getBoundingClientRect();
      change(Math.exp(-event.deltaY / 300), [event.clientX - left, event.clientY - top]);
    };
    box.addEventListener('wheel', onWheel, { passive: false });
    return () => box.removeEventListener('wheel', onWheel);
  }, [box, change]);

  return {
    scale,
    zoom,
    zoomBy: useCallback((steps) => change(STEP ** steps), [change]),
    fit: useCallback(() => setZoom(1), []),
    pan: useCallback(
      (event) => {
        if (!box || event.button !== 0) return;
        const start = [event.clientX + box.scrollLeft, event.clientY + box.scrollTop];
        const move = (moved: globalThis.PointerEvent) => {
          box.scrollTo({ left: start[0] - moved.clientX, top: start[1] - moved.clientY });
        };
        const end = () => window.removeEventListener('pointermove', move);
        window.addEventListener('pointermove', move);
        window.addEventListener('pointerup', end, { once: true });
      },
      [box],
    ),
  };
}
