import { useEffect, useState } from 'react';
import { useEngine } from '../engine/use-engine.tsx';
import { missedSpeed, type Sample } from './missed-speed.ts';

/** Milliseconds over which the speed is measured. */
const MEASURED = 1000;
/** Says how fast the run goes where that is slower than was chosen. */
export function ReachedSpeed() {
  const engine = useEngine();
  const [missed, setMissed] = useState<number | null>(null);
  useEffect(() => {
    let from: Sample | null = null;
    return engine.onFrame(() => {
      const { frame, program } = engine;
      if (!frame?.playing || !program) {
        from = null;
        setMissed(null);
        return;
      }
      const now = { time: performance.now(), tick: frame.tick };
      from ??= now;
      if (now.time - from.time < MEASURED) return;
      const next = missedSpeed(from, now, frame.speed, program.ticksPerSecond);
      setMissed(next === null ? null : Number(next.toPrecision(2)));
      from = now;
    });
  }, [engine]);
  if (missed === null) return null;
  return <span style={{ color: 'var(--mute)' }}>reaches {missed}×</span>;
}
