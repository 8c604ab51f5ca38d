import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useRef,
  useSyncExternalStore,
} from 'react';
import { onCanvasSize } from '../ui/canvas.ts';
import type { EngineClient } from './engine-client.ts';

const EngineContext = createContext<EngineClient | null>(null);
export const EngineProvider = EngineContext.Provider;

export function useEngine(): EngineClient {
  const engine = useContext(EngineContext);
  if (!engine) throw new Error('There is no engine around this component.');
  return engine;
}

/**
 * A value read from the engine; renders only when it changes. `read` must give something that compares
 * with `===`: a number, a text, or the same object while nothing has changed.
 */
export function useEngineValue<T>(read: (engine: EngineClient) => T): T {
  const engine = useEngine();
  const subscribe = useCallback((listener: () => void) => engine.onFrame(listener), [engine]);
  return useSyncExternalStore(subscribe, () => read(engine));
}

/** The tick the run rests at; null while it goes on, so that nothing is rendered for each frame. */
export function useRestingTick(): number | null {
  return useEngineValue(({ frame }) => (frame?.playing === false ? frame.tick : null));
}

/** Calls `draw` after each frame and each render, at most once a display frame; what it gives asks for one more. */
export function useDrawing(draw: (engine: EngineClient) => void): () => void {
  const engine = useEngine();
  const latest = useRef(draw);
  const redraw = useRef(() => {});
  latest.current = draw;
  useEffect(() => {
    let request = 0;
    const run = () => {
      request = 0;
      latest.current(engine);
    };
    const schedule = () => {
      if (request === 0) request = requestAnimationFrame(run);
    };
    redraw.current = schedule;
    const unsubscribe = engine.onFrame(schedule);
    const forgetSize = onCanvasSize(schedule);
    return () => {
      unsubscribe();
      forgetSize();
      cancelAnimationFrame(request);
    };
  }, [engine]);
  // A render may have changed what is drawn, and a resting run sends no frame to draw it with.
  useEffect(() => redraw.current());
  return useCallback(() => redraw.current(), []);
}
