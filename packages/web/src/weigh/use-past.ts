import { useEffect, useState } from 'react';
import type { ChoicePast } from '../engine/protocol.ts';
import { useEngine } from '../engine/use-engine.tsx';
import { runInBackground } from '../state/failures.ts';

/** Milliseconds from one asking to the next, while the run goes on. */
const EVERY = 400;

/** What the watched choice came to in the last seconds, renewed while the run moves. */
export function useChoicePast(of: string): ChoicePast | null {
  const engine = useEngine();
  const [past, setPast] = useState<ChoicePast | null>(null);
  useEffect(() => {
    let current = true;
    let asking = false;
    let lastTick = -1;
    let lastTime = -Infinity;
    const ask = () => {
      const tick = engine.frame?.tick ?? -1;
      const now = performance.now();
      if (asking || tick === lastTick || (engine.frame?.playing && now - lastTime < EVERY)) return;
      asking = true;
      lastTime = now;
      lastTick = tick;
      runInBackground(
        engine.choicePast().then((next) => {
          asking = false;
          if (current) setPast(next);
        }),
      );
    };
    ask();
    const unsubscribe = engine.onFrame(ask);
    return () => {
      current = false;
      unsubscribe();
    };
  }, [engine, of]);
  return past;
}
