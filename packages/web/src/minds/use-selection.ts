import { archetypeOf, mindsOf, namesOf } from '@crooked-lantern/core';
import { compareNames } from '../ui/compare-names.ts';
import { usualMind } from './document-names.ts';
import { useCallback, useMemo, useRef } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { useEngineValue } from '../engine/use-engine.tsx';
import { useProject } from '../state/store.ts';
import { awarenessAt, mostStirred } from './most-stirred.ts';

/** Of several agents the one in whom something happens: it changes only for one who has noticed clearly more. */
function useStirred(names: readonly string[], first: string | null): string | null {
  const watched = useRef(first);
  return useEngineValue(({ frame, lanes }) => {
    if (watched.current === null || !names.includes(watched.current)) watched.current = first;
    if (frame && watched.current !== null)
      watched.current = mostStirred(names, watched.current, (name) =>
        awarenessAt(lanes.byAgent.get(name), frame.tick),
      );
    return watched.current;
  });
}

/** What the page is about; it stands in the address, so that a link opens the same. */
export interface Selection {
  mind: string;
  /** The agent whose mind is shown live; null where no agent has this mind. */
  agent: string | null;
  /** The state chosen; null to follow the agent. */
  state: string | null;
  /** What is opened besides the states: `mind`, `memory`, `trees.` or `rules.` with a name; null for the states. */
  sheet: string | null;
}

/** Agents of the started ground that have a mind, by name. */
export function useAgentsWith(mind: string): { name: string; title: string; asleep: boolean }[] {
  const agents = useProject(({ document }) => document.grounds[document.start.ground]?.agents);
  const archetypes = useProject(({ document }) => document.archetypes);
  return useMemo(() => {
    if (!agents) return [];
    return namesOf(agents)
      .toSorted(compareNames)
      .flatMap((name) => {
        const kind = archetypeOf({ archetypes }, agents[name]);
        const runs = kind && mindsOf(kind).includes(mind);
        const { title = name, asleep = false } = agents[name];
        return runs ? [{ name, title, asleep }] : [];
      });
  }, [agents, archetypes, mind]);
}

export function useSelection(): Selection & { select: (change: Partial<Selection>) => void } {
  const { id = '', mind: named } = useParams();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const mind = useProject(({ document }) =>
    named !== undefined && Object.hasOwn(document.minds, named) ? named : usualMind(document),
  );
  const agents = useAgentsWith(mind);
  const wanted = search.get('agent');
  // Without a wish it is whoever something happens to, at first one whose mind runs: who sleeps decides nothing.
  const names = useMemo(() => agents.map(({ name }) => name), [agents]);
  const first = (agents.find(({ asleep }) => !asleep) ?? agents[0])?.name ?? null;
  const stirred = useStirred(names, first);
  const agent =
    agents.find(({ name }) => name === wanted) ?? agents.find(({ name }) => name === stirred);
  const state = search.get('state');
  const sheet = search.get('sheet');

  const select = useCallback(
    (change: Partial<Selection>) => {
      // The address is read at the time of the call: it may have changed since this was rendered.
      const params = new URLSearchParams(window.location.search);
      const nextMind = change.mind ?? mind;
      // A row belongs to what was shown.
      if ('state' in change || 'sheet' in change) params.delete('row');
      for (const key of ['agent', 'state', 'sheet'] as const) {
        if (!(key in change)) continue;
        if (change[key]) params.set(key, change[key]);
        else params.delete(key);
      }
      if (nextMind !== mind) {
        params.delete('state');
        if (!change.sheet) params.delete('sheet');
        if (!change.agent) params.delete('agent');
      }
      void navigate(
        { pathname: `/projects/${id}/minds/${nextMind}`, search: params.toString() },
        { replace: true },
      );
    },
    [id, mind, navigate],
  );
  const shown = agent?.name ?? null;
  return useMemo(
    () => ({ mind, agent: shown, state, sheet, select }),
    [mind, shown, state, sheet, select],
  );
}
