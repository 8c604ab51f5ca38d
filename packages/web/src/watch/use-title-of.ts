import { useCallback } from 'react';
import { useEngineValue } from '../engine/use-engine.tsx';

/** What an agent is called; its name where it is not there under the edit that runs. */
export function useTitleOf(): (agent: string) => string {
  const program = useEngineValue((engine) => engine.program);
  return useCallback(
    (agent) => program?.agents.find(({ name }) => name === agent)?.title ?? agent,
    [program],
  );
}
