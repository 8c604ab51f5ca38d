import { useEffect, useState } from 'react';
import type { NoticedFindings } from '../../engine/protocol.ts';
import { useEngine, useEngineValue } from '../../engine/use-engine.tsx';
import { runInBackground } from '../../state/failures.ts';

/** What was noticed in the run that goes on; asked for again when something more is. Null until it is here. */
export function useRunFindings(): NoticedFindings | null {
  const engine = useEngine();
  const noticed = useEngineValue(({ frame }) => frame?.noticed ?? 0);
  const branch = useEngineValue(({ branches }) => branches[0]?.id ?? 0);
  const [findings, setFindings] = useState<NoticedFindings | null>(null);
  useEffect(() => {
    let isCurrent = true;
    runInBackground(
      engine.findings().then((given) => {
        if (isCurrent) setFindings(given);
      }),
    );
    return () => {
      isCurrent = false;
    };
  }, [engine, noticed, branch]);
  return findings;
}
