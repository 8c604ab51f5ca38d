import { useCallback, useState, type PointerEvent } from 'react';

/** Pixels after which pressing and moving is dragging. */
const THRESHOLD = 6;

/** Dragging a state onto another; `onDrop` gets the state under the pointer, or null for none. */
export function useStateDrag(onDrop: (state: string, onto: string | null) => void): {
  /** The state that would take it. */
  target: string | null;
  begin: (state: string, event: PointerEvent<SVGElement>) => void;
} {
  const [target, setTarget] = useState<string | null>(null);
  const begin = useCallback(
    (state: string, event: PointerEvent<SVGElement>) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      const plan = event.currentTarget.closest('svg');
      const [x, y] = [event.clientX, event.clientY];
      let dragging = false;
      const under = (at: globalThis.PointerEvent) => {
        const element = document.elementFromPoint(at.clientX, at.clientY);
        if (!element || !plan?.contains(element)) return undefined;
        return element.closest('[data-state]')?.getAttribute('data-state') ?? null;
      };
      const move = (at: globalThis.PointerEvent) => {
        dragging ||= Math.hypot(at.clientX - x, at.clientY - y) > THRESHOLD;
        const onto = under(at);
        setTarget(dragging && onto !== state ? (onto ?? null) : null);
      };
      const stop = () => {
        window.removeEventListener('pointermove', move);
        window.removeEventListener('pointerup', up);
        window.removeEventListener('keydown', cancel, true);
        setTarget(null);
      };
      const up = (at: globalThis.PointerEvent) => {
        stop();
        const onto = under(at);
        if (!dragging || onto === undefined || onto === state) return;
        // The click that follows would choose what is under the pointer.
        window.addEventListener('click', (click) => click.stopPropagation(), {
          capture: true,
          once: true,
        });
        onDrop(state, onto);
      };
      const cancel = (key: KeyboardEvent) => {
        if (key.key === 'Escape') stop();
      };
      window.addEventListener('pointermove', move);
      window.addEventListener('pointerup', up);
      window.addEventListener('keydown', cancel, true);
    },
    [onDrop],
  );
  return { target, begin };
}
