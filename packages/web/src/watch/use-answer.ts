import type { Asking } from '@crooked-lantern/core';
import { useEffect, useState } from 'react';
import type { EngineAnswer } from '../engine/protocol.ts';
import { useEngine, useEngineValue, useRestingTick } from '../engine/use-engine.tsx';
import { runInBackground } from '../state/failures.ts';

/** Milliseconds the playhead must stay where it is before a question is asked there: a drag asks only at its end. */
const SETTLED_MS = 120;

/** The answer to a question about the tick that is shown, while the run rests; null until it is here. */
export function useAnswer(
  agent: string | null,
  asking: Asking,
  mind?: string,
): { answer: EngineAnswer | null; farBack: FarBack } {
  const engine = useEngine();
  const tick = useRestingTick();
  const edit = useEngineValue(({ frame }) => frame?.edit ?? 0);
  const [answer, setAnswer] = useState<EngineAnswer | null>(null);
  useEffect(() => {
    setAnswer(null);
    if (tick === null || agent === null) return;
    let isCurrent = true;
    const timer = setTimeout(() => {
      runInBackground(
        engine.ask({ agent, mind, asking }).then((given) => {
          if (isCurrent) setAnswer(given);
        }),
      );
    }, SETTLED_MS);
    return () => {
      isCurrent = false;
      clearTimeout(timer);
    };
  }, [engine, agent, asking, mind, tick, edit]);
  const [share, setShare] = useState<number | null>(null);
  const look = async () => {
    if (agent === null || asking.ask !== 'whyNot') return;
    setShare(0);
    const given = await engine.askFarBack({ agent, mind, target: asking.target }, setShare);
    setShare(null);
    if ('answer' in given) setAnswer(given);
  };
  // What is looked for belongs to this question, and ends with it.
  useEffect(() => () => engine.stopLooking(), [engine, agent, asking, mind, tick]);
  return { answer, farBack: { share, look: () => runInBackground(look()) } };
}

/** Looking through all that is kept of the run, which may take a while. */
export interface FarBack {
  /** How far it is; null where nothing is looked for. */
  share: number | null;
  look: () => void;
}
