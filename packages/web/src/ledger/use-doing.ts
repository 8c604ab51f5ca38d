import type { Program } from '@crooked-lantern/core';
import { useMemo } from 'react';
import { shallowEqual } from 'react-redux';
import { doingAt } from '../engine/lane-times.ts';
import { useEngine } from '../engine/use-engine.tsx';
import { useProject } from '../state/store.ts';
import { choicesOf, laneTitles } from './lane-titles.ts';
import { nestingsOf } from './stacked-bands.ts';

/** By agent, what its states, options, moves and actions are called, as the open project has it. */
export function useLaneTitles(program: Program | null): Map<string, Map<string, string>> {
  const choices = useProject(({ document }) => choicesOf(document.minds), shallowEqual);
  return useMemo(() => laneTitles(program, choices), [program, choices]);
}

/** Returns what an agent does at a tick, in titles, outermost first; nothing where it has no mind. */
export type Doing = (agent: string, tick: number) => string[];

export function useDoing(program: Program | null): Doing {
  const engine = useEngine();
  const titles = useLaneTitles(program);
  return useMemo(() => {
    const nestings = nestingsOf(program);
    return (agent, tick) => {
      const lane = engine.lanes.byAgent.get(agent);
      const nesting = nestings.get(agent);
      if (!lane || !nesting) return [];
      return doingAt(lane, nesting.hasStates, tick).map(
        ({ state }) => titles.get(agent)?.get(state) ?? state,
      );
    };
  }, [engine, program, titles]);
}
