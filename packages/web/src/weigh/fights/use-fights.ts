import {
  fightFigures,
  type FighterFigures,
  type LedgerEntry,
  type Stretch,
} from '@crooked-lantern/core';
import { useMemo } from 'react';
import { useEngineValue } from '../../engine/use-engine.tsx';
import { clockText } from '../../ui/words/time.ts';

/** A part of the run in which nothing was edited, or all of it. */
export interface FightStretch extends Stretch {
  id: string;
  title: string;
}

/** What the ledger says of fights up to the playhead; looked at once a second while the run goes on. */
export function useFights(): { entries: readonly LedgerEntry[]; until: number; perSecond: number } {
  const perSecond = useEngineValue(({ program }) => program?.ticksPerSecond ?? 60);
  const isPlaying = useEngineValue(({ frame }) => frame?.playing ?? false);
  const until = useEngineValue(({ frame }) => {
    const tick = frame?.tick ?? 0;
    return isPlaying ? Math.floor(tick / perSecond) * perSecond : tick;
  });
  // The list grows in place; another run begins with another.
  const known = useEngineValue(({ fights }) => fights);
  const count = useEngineValue(
    ({ fights }) => fights.findLastIndex(({ tick }) => tick <= until) + 1,
  );
  return useMemo(
    () => ({ entries: known.slice(0, count), until, perSecond }),
    [known, count, until, perSecond],
  );
}

/** The whole run, and what of it ran under each edit. */
export function useStretches(until: number, perSecond: number): FightStretch[] {
  const edits = useEngineValue(({ lanes }) => lanes.edits);
  const count = useEngineValue(({ lanes }) => lanes.edits.length);
  return useMemo(() => {
    const made = edits.slice(0, count).filter(({ tick }) => tick > 0 && tick <= until);
    const at = (tick: number) => clockText(tick, perSecond, 0);
    const begins = [{ tick: 0, title: 'Before the first edit' }].concat(
      made.map(({ tick, edit }) => ({ tick, title: `From edit ${edit}, ${at(tick)}` })),
    );
    const parts = begins.map(({ tick, title }, i) => ({
      id: `${i}`,
      title,
      from: tick,
      to: (begins[i + 1]?.tick ?? Infinity) - 1,
    }));
    const whole = { id: 'all', title: 'The whole run', from: 0, to: Infinity };
    return made.length === 0 ? [whole] : [whole, ...parts];
  }, [edits, count, until, perSecond]);
}

export function useFigures(
  entries: readonly LedgerEntry[],
  stretch: FightStretch | undefined,
): Map<string, FighterFigures> {
  return useMemo(
    () => (stretch ? fightFigures(entries, stretch) : new Map<string, FighterFigures>()),
    [entries, stretch],
  );
}

/** What agents and their moves are called. */
export function useFightTitles(): (agent: string, move?: string) => string {
  const program = useEngineValue((engine) => engine.program);
  return useMemo(() => {
    const agents = new Map(program?.agents.map((agent) => [agent.name, agent]));
    return (name, move) => {
      const agent = agents.get(name);
      if (move === undefined || !agent) return agent?.title ?? move ?? name;
      const { moves } = program!.archetypes[agent.archetype];
      return moves.find((each) => each.name === move)?.title ?? move;
    };
  }, [program]);
}
