import type { Asking } from '@crooked-lantern/core';
import { useCallback, useEffect, useMemo } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { useEngine, useEngineValue } from '../engine/use-engine.tsx';
import type { Option } from '../ui/fields/fields.tsx';
import { putQuestion, questionOf } from '../engine/asking-address.ts';
import type { WatchQuestion } from '../shell/use-ask.ts';
import { runInBackground } from '../state/failures.ts';

export interface Watching {
  /** The agents that can be asked about, in the order of the document. */
  thinkers: readonly Option[];
  /** By name; null where no agent has a mind. */
  agent: string | null;
  asking: Asking;
  /** The mind that is asked about, where it is not the agent’s first. */
  mind: string | undefined;
  select: (change: Partial<WatchQuestion>) => void;
}

interface Thinker extends Option {
  /** Not on the ground at the start. */
  isAway: boolean;
}

/** The agents that decide something. */
function useThinkers(): readonly Thinker[] {
  const program = useEngineValue((engine) => engine.program);
  return useMemo(
    () =>
      (program?.agents ?? []).flatMap(({ name, title, archetype, asleep, away }) =>
        program!.archetypes[archetype].stack >= 0
          ? [{ id: name, title, asleep, isAway: away }]
          : [],
      ),
    [program],
  );
}

/** The agent that the Watch place follows and what is asked of it; both stand in the address, so that a link asks the same. */
export function useWatching(): Watching {
  const engine = useEngine();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const thinkers = useThinkers();
  const wanted = search.get('agent');
  // Unless an agent is asked for, follows one that is on the ground from the start.
  const usual = thinkers.find(({ isAway }) => !isAway) ?? thinkers[0];
  const agent = (thinkers.find(({ id }) => id === wanted) ?? usual)?.id ?? null;
  const asked = search.get('ask');
  const { asking, mind } = useMemo(() => questionOf(asked), [asked]);
  useEffect(() => engine.watch(agent, null, null), [engine, agent]);
  const select = useCallback(
    (change: Partial<WatchQuestion>) => {
      // The address is read at the time of the call: the transport writes its tick there too.
      const after = new URLSearchParams(window.location.search);
      // Another agent has other states: what was asked of the one before says nothing of it.
      if (change.agent !== undefined) after.delete('ask');
      if (change.agent) after.set('agent', change.agent);
      const { asking: next, mind: of } = change;
      if (next) putQuestion(after, { asking: next, mind: of });
      runInBackground(navigate({ search: after.toString() }, { replace: true }));
    },
    [navigate],
  );
  return useMemo(
    () => ({ thinkers, agent, asking, mind, select }),
    [thinkers, agent, asking, mind, select],
  );
}
