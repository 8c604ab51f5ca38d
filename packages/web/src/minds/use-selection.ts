import { archetypeOf, AWAY, mindsOf, namesOf, sameData } from '@crooked-lantern/core';
import { compareNames } from '../ui/words/compare-names.ts';
import { usualMind } from './document-names.ts';
import { useCallback, useMemo, useRef } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { useEngineValue } from '../engine/use-engine.tsx';
import { bodyAt } from '../ground/drawing/bodies.ts';
import { useProject } from '../state/store.ts';
import { awarenessAt, mostStirred } from './live/most-stirred.ts';
import { runInBackground } from '../state/failures.ts';

/**
 * Of several agents the one that has noticed most: it changes only for one that has noticed clearly more, and
 * where the former one is absent, or not there yet.
 */
function useStirred(names: readonly string[], first: string | null): string | null {
  const watched = useRef(first);
  const program = useEngineValue((engine) => engine.program);
  const indexes = useMemo(
    () => new Map((program?.agents ?? []).map(({ name }, index) => [name, index])),
    [program],
  );
  return useEngineValue(({ frame, lanes }) => {
    if (watched.current === null || !names.includes(watched.current)) watched.current = first;
    if (!frame || watched.current === null) return watched.current;
    const isThere = (name: string) => {
      const index = indexes.get(name);
      return index !== undefined && bodyAt(frame, index).posture !== AWAY;
    };
    if (!isThere(watched.current)) watched.current = names.find(isThere) ?? watched.current;
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

/** An agent that has a mind. */
export interface AgentWith {
  name: string;
  title: string;
  /** It decides nothing when the run begins. */
  asleep: boolean;
}

/** Agents that have a mind: those on the started ground, by name; then its director, and those that come while it runs. */
export function useAgentsWith(mind: string): readonly AgentWith[] {
  const agents = useProject(({ document }) => document.grounds[document.start.ground]?.agents);
  const archetypes = useProject(({ document }) => document.archetypes);
  const program = useEngineValue((engine) => engine.program);
  // An edit makes another program, and mostly of the same agents: what lists them is not drawn again for it.
  const last = useRef<readonly AgentWith[]>([]);
  return useMemo(() => {
    const placed = namesOf(agents ?? {})
      .toSorted(compareNames)
      .flatMap((name) => {
        const kind = archetypeOf({ archetypes }, agents[name]);
        const runs = kind && mindsOf(kind).includes(mind);
        const { title = name, asleep = false } = agents[name];
        return runs ? [{ name, title, asleep }] : [];
      });
    const others = (program?.agents ?? []).flatMap(({ name, title, away, archetype }) => {
      const stack = program!.stacks[program!.archetypes[archetype].stack];
      const runs = away && stack?.minds.some((each) => each.name === mind);
      return runs ? [{ name, title, asleep: true }] : [];
    });
    const all = [...placed, ...others.toSorted((a, b) => compareNames(a.name, b.name))];
    if (!sameData(all, last.current)) last.current = all;
    return last.current;
  }, [agents, archetypes, mind, program]);
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
  // Without a wish it is the agent that has noticed most, at first one whose mind runs: a sleeping agent decides nothing.
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
      runInBackground(
        navigate(
          { pathname: `/projects/${id}/minds/${nextMind}`, search: params.toString() },
          { replace: true },
        ),
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
