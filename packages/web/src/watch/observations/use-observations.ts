import { useEffect, useState } from 'react';
import type { NoticedObservations } from '../../engine/protocol.ts';
import { useEngine, useEngineValue } from '../../engine/use-engine.tsx';
import { runInBackground } from '../../state/failures.ts';

/** What was noticed in the run that goes on; asked for again when something more is. Null until it is here. */
export function useObservations(): NoticedObservations | null {
  const engine = useEngine();
  const noticed = useEngineValue(({ frame }) => frame?.noticed ?? 0);
  const branch = useEngineValue(({ branches }) => branches[0]?.id ?? 0);
  const [observations, setObservations] = useState<NoticedObservations | null>(null);
  useEffect(() => {
    let isCurrent = true;
    runInBackground(
      engine.observations().then((given) => {
        if (isCurrent) setObservations(given);
      }),
    );
    return () => {
      isCurrent = false;
    };
  }, [engine, noticed, branch]);
  return observations;
}
