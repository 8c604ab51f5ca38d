import { useEffect, useState } from 'react';
import type { EngineAnswer } from '../engine/protocol.ts';
import { useEngine, useEngineValue } from '../engine/use-engine.tsx';

/** Milliseconds the playhead must stay where it is before a question is asked there: a drag asks only at its end. */
const SETTLED_MS = 120;

/** The answer to a question about the tick that is shown, while the run rests; null until it is here. */
export function useAnswer(agent: string | null, not: string | null): EngineAnswer | null {
  const engine = useEngine();
  const tick = useEngineValue(({ frame }) => frame?.tick ?? 0);
  const edit = useEngineValue(({ frame }) => frame?.edit ?? 0);
  const isPlaying = useEngineValue(({ frame }) => frame?.playing ?? true);
  const [answer, setAnswer] = useState<EngineAnswer | null>(null);
  useEffect(() => {
    setAnswer(null);
    if (isPlaying || agent === null) return;
    let isCurrent = true;
    const timer = setTimeout(() => {
      void engine.ask({ agent, not }).then((given) => {
        if (isCurrent) setAnswer(given);
      });
    }, SETTLED_MS);
    return () => {
      isCurrent = false;
      clearTimeout(timer);
    };
  }, [engine, isPlaying, agent, not, tick, edit]);
  return answer;
}
