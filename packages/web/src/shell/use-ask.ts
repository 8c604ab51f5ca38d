import { useCallback } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useEngine } from '../engine/use-engine.tsx';
import { questionText, type MindQuestion } from '../engine/asking-address.ts';
import { runInBackground } from '../state/failures.ts';

/** What is asked about the tick that is shown. */
export interface WatchQuestion extends MindQuestion {
  /** By name; null for the agent that has noticed most. */
  agent: string | null;
}

/** Opens the Watch place with a question, and has the run rest there. */
export function useAsk(): (question: WatchQuestion) => void {
  const engine = useEngine();
  const navigate = useNavigate();
  const { id = '' } = useParams();
  return useCallback(
    ({ agent, asking, mind }) => {
      engine.pause();
      const search = new URLSearchParams();
      const who = agent ?? engine.watched.agent;
      if (who !== null) search.set('agent', who);
      if (asking.ask !== 'why' || mind !== undefined)
        search.set('ask', questionText({ asking, mind }));
      runInBackground(navigate({ pathname: `/projects/${id}/watch`, search: search.toString() }));
    },
    [engine, id, navigate],
  );
}
