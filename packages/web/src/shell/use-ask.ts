import { useCallback } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useEngine } from '../engine/use-engine.tsx';
import { runInBackground } from '../state/failures.ts';

/** What is asked: why an agent does what it does, or why not something else, at the tick that is shown. */
export interface WatchQuestion {
  /** By name; null for whom something happens to. */
  agent: string | null;
  /** A state, option or row that is not; null for why what is, is. */
  not: string | null;
}

/** Opens the Watch place with a question, and has the run rest there. */
export function useAsk(): (question: WatchQuestion) => void {
  const engine = useEngine();
  const navigate = useNavigate();
  const { id = '' } = useParams();
  return useCallback(
    ({ agent, not }) => {
      engine.pause();
      const search = new URLSearchParams();
      const who = agent ?? engine.watched.agent;
      if (who !== null) search.set('agent', who);
      if (not !== null) search.set('not', not);
      runInBackground(navigate({ pathname: `/projects/${id}/watch`, search: search.toString() }));
    },
    [engine, id, navigate],
  );
}
