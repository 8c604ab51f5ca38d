import {
  namesOf,
  outlineOf,
  type ActivityDocument,
  type ChoiceDocument,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { useCallback, useEffect, useMemo } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { useEngine } from '../engine/use-engine.tsx';
import { listStates } from '../minds/document-names.ts';
import { useAgentsWith } from '../minds/use-selection.ts';
import { useProject } from '../state/store.ts';
import { runInBackground } from '../state/failures.ts';

/** What the page is about; it stands in the address, so that a link opens the same. */
export interface Weighing {
  mind: string;
  choice: string;
  document: ChoiceDocument | null;
  /** Place of the option that is chosen; −1 for none. */
  option: number;
  /** Place of the chosen one among its considerations; −1 for none. */
  cell: number;
  /** Name of the band set that is opened; null for none. */
  bands: string | null;
  /** Whether the tiers are opened: the path of a number that is to differ, or `all`; null where they are not. */
  tiers: string | null;
  /** Whether the figures of fights are opened. */
  figures: boolean;
  /** Whose choice is shown live; null where no agent has the mind. */
  agent: string | null;
  select: (change: WeighingChange) => void;
}

interface WeighingChange {
  mind?: string;
  choice?: string;
  /** By id; null for the choice as a whole. */
  option?: string | null;
  cell?: number | null;
  bands?: string | null;
  tiers?: boolean;
  figures?: boolean;
  agent?: string;
}

/** The first mind that has a choice, with its first; else the first mind. */
function usualChoice({ minds }: ProjectDocument): { mind: string; choice: string } {
  const names = namesOf(minds);
  const mind = names.find((name) => namesOf(minds[name].choices ?? {}).length > 0) ?? names[0];
  return { mind, choice: namesOf(minds[mind]?.choices ?? {})[0] ?? '' };
}

/** The state whose activity is the choice, or calls it; null for none. */
function stateThatWeighs(document: ProjectDocument, name: string, choice: string): string | null {
  const mind = document.minds[name];
  if (!mind) return null;
  const weighs = (activity: ActivityDocument | undefined) =>
    activity !== undefined &&
    (('choice' in activity && activity.choice === choice) ||
      outlineOf('', mind, activity).some(
        ({ path }) => path[2] === 'choices' && path[3] === choice,
      ));
  if (weighs(mind.activity)) return 'always';
  return listStates(document, name).find(({ state }) => weighs(state.activity))?.state.id ?? null;
}

export function useWeighing(): Weighing {
  const { id = '', mind: namedMind, choice: namedChoice } = useParams();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const engine = useEngine();
  const project = useProject(({ document }) => document);
  const usual = usualChoice(project);
  const isMind = namedMind !== undefined && Object.hasOwn(project.minds, namedMind);
  const mind = isMind ? namedMind : usual.mind;
  const choices = project.minds[mind]?.choices ?? {};
  const choice =
    namedChoice !== undefined && Object.hasOwn(choices, namedChoice)
      ? namedChoice
      : (namesOf(choices)[0] ?? '');
  const document = choices[choice] ?? null;
  const agents = useAgentsWith(mind);
  const wanted = search.get('agent');
  const agent =
    agents.find(({ name }) => name === wanted)?.name ??
    (agents.find(({ asleep }) => !asleep) ?? agents[0])?.name ??
    null;
  const option = document?.options.findIndex((each) => each.id === search.get('option')) ?? -1;
  const cellText = search.get('cell');
  const cellCount = document?.options[option]?.considerations?.length ?? 0;
  const cell = cellText !== null && Number(cellText) < cellCount ? Number(cellText) : -1;
  const bandsText = search.get('bands');
  const bands =
    bandsText !== null && Object.hasOwn(project.bands ?? {}, bandsText) ? bandsText : null;

  const tiers = search.get('tiers');
  const figures = search.get('figures') !== null;

  const select = useCallback(
    (change: WeighingChange) => {
      const params = new URLSearchParams(window.location.search);
      const put = (key: string, value: string | null) => {
        if (value === null) params.delete(key);
        else params.set(key, value);
      };
      const isOther = change.mind !== undefined || change.choice !== undefined;
      const opened = ['option', 'cell', 'bands', 'tiers', 'figures'];
      if (isOther) for (const key of [...opened, 'agent']) params.delete(key);
      if (change.agent !== undefined) put('agent', change.agent);
      if (change.option !== undefined) {
        for (const key of opened) params.delete(key);
        put('option', change.option);
      }
      if (change.cell !== undefined) put('cell', change.cell === null ? null : String(change.cell));
      const { bands: set, tiers: all, figures: fought } = change;
      if (set !== undefined || all !== undefined || fought !== undefined) {
        for (const key of opened) params.delete(key);
        put('bands', set ?? null);
        put('tiers', all ? 'all' : null);
        put('figures', fought ? 'all' : null);
      }
      const nextMind = change.mind ?? mind;
      const nextChoice = change.choice ?? (change.mind === undefined ? choice : '');
      runInBackground(
        navigate(
          {
            pathname: `/projects/${id}/weigh/${nextMind}${nextChoice && `/${nextChoice}`}`,
            search: params.toString(),
          },
          { replace: true },
        ),
      );
    },
    [id, mind, choice, navigate],
  );
  const state = stateThatWeighs(project, mind, choice);
  useEffect(() => {
    engine.watch(agent, mind, state);
    engine.weigh(agent !== null && choice ? { agent, mind, choice } : null);
    return () => engine.weigh(null);
  }, [engine, agent, mind, choice, state]);
  return useMemo(
    () => ({ mind, choice, document, option, cell, bands, tiers, figures, agent, select }),
    [mind, choice, document, option, cell, bands, tiers, figures, agent, select],
  );
}
