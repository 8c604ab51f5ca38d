import type { CoverageItem, CoveredPart } from '@crooked-lantern/core';
import { useEffect, useMemo, useState } from 'react';
import { useAppSelector } from '../state/store.ts';
import { useEngine, useEngineValue } from './use-engine.tsx';
import { runInBackground } from '../state/failures.ts';

export interface Coverage {
  items: CoverageItem[];
  /** How many runs are kept, this one among them. */
  runs: number;
}

/** What of the minds was ever done, in this run or in all that are kept; null before it is known, and while it is not wanted. */
export function useCoverage(over: boolean, wanted = true): Coverage | null {
  const engine = useEngine();
  const [coverage, setCoverage] = useState<Coverage | null>(null);
  // While the run goes on, once a second will do; where it rests, as it is there.
  const at = useEngineValue(({ frame, program, branches }) => {
    if (!wanted) return '';
    const second = Math.floor((frame?.head ?? 0) / (program?.ticksPerSecond ?? 60));
    return `${branches[0]?.id} ${branches.length} ${frame?.playing ? second : frame?.head} ${frame?.edit}`;
  });
  useEffect(() => {
    if (!wanted) return undefined;
    let isCurrent = true;
    runInBackground(
      engine.coverage(over).then((given) => {
        if (isCurrent) setCoverage(given);
      }),
    );
    return () => {
      isCurrent = false;
    };
  }, [engine, over, wanted, at]);
  return wanted ? coverage : null;
}

/** Whether a part of a mind was never done, as far as that is to be shown where it is edited. */
export type IsNever = (part: CoveredPart, key: string) => boolean;

const NOT_SHOWN: IsNever = () => false;

/** The parts of a mind that no agent has ever run. */
export function useNever(mind: string): IsNever {
  const { shown, over } = useAppSelector(({ view }) => view.coverage);
  const coverage = useCoverage(over, shown);
  return useMemo(() => {
    if (!coverage) return NOT_SHOWN;
    const never = new Set(
      coverage.items
        .filter((item) => item.mind === mind && item.times === 0)
        .map(({ part, key }) => `${part} ${key}`),
    );
    return (part, key) => never.has(`${part} ${key}`);
  }, [coverage, mind]);
}
