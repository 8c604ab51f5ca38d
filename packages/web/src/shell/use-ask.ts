import type { Asking } from '@crooked-lantern/core';
import { useCallback } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useEngine } from '../engine/use-engine.tsx';
import { askingText } from '../engine/asking-address.ts';
import { runInBackground } from '../state/failures.ts';

/** What is asked about the tick that is shown. */
export interface WatchQuestion {
  /** By name; null for the agent that has noticed most. */
  agent: string | null;
  asking: Asking;
}

/** Opens the Watch place with a question, and has the run rest there. */
export function useAsk(): (question: WatchQuestion) => void {
  const engine = useEngine();
  const navigate = useNavigate();
  const { id = '' } = useParams();
  return useCallback(
    ({ agent, asking }) => {
      engine.pause();
      const search = new URLSearchParams();
      const who = agent ?? engine.watched.agent;
      if (who !== null) search.set('agent', who);
      if (asking.ask !== 'why') search.set('ask', askingText(asking));
      runInBackground(navigate({ pathname: `/projects/${id}/watch`, search: search.toString() }));
    },
    [engine, id, navigate],
  );
}
