import { agentNamed, type ProjectDocument } from '@crooked-lantern/core';
import { useCallback } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useEngine } from '../engine/use-engine.tsx';
import { putQuestion, type MindQuestion } from '../engine/asking-address.ts';
import { useDocumentNow } from '../state/store.ts';
import { runInBackground } from '../state/failures.ts';

/** What is asked about the tick that is shown. */
export interface WatchQuestion extends MindQuestion {
  /** By name; null for the agent that has noticed most. */
  agent: string | null;
}

/** A mind as addresses name it: undefined where it is the agent’s first, which is asked unless another is named. */
function furtherMind(document: ProjectDocument, agent: string | null, mind: string) {
  const minds = agent === null ? [] : (agentNamed(document, agent)?.minds ?? []);
  return minds.indexOf(mind) > 0 ? mind : undefined;
}

/** Opens the Watch place with a question, and has the run rest there. */
export function useAsk(): (question: WatchQuestion) => void {
  const engine = useEngine();
  const navigate = useNavigate();
  const documentNow = useDocumentNow();
  const { id = '' } = useParams();
  return useCallback(
    ({ agent, asking, mind }) => {
      engine.pause();
      const search = new URLSearchParams();
      const who = agent ?? engine.watched.agent;
      if (who !== null) search.set('agent', who);
      putQuestion(search, { asking, mind: mind && furtherMind(documentNow(), who, mind) });
      runInBackground(navigate({ pathname: `/projects/${id}/watch`, search: search.toString() }));
    },
    [engine, id, navigate, documentNow],
  );
}
