import { useCallback, useEffect, useState } from 'react';
import { useEngine, useRestingTick } from './use-engine.tsx';

/** Going back to where a breakpoint was met last, and why it could not be, until the run has moved. */
export function useGoBack(): { goBack: () => Promise<void>; refused: string | null } {
  const engine = useEngine();
  const tick = useRestingTick();
  const [refused, setRefused] = useState<string | null>(null);
  useEffect(() => setRefused(null), [tick]);
  const goBack = useCallback(async () => setRefused(await engine.goBack()), [engine]);
  return { goBack, refused };
}
