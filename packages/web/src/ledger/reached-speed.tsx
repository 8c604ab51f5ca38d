import { useEffect, useState } from 'react';
import { useEngine } from '../engine/use-engine.tsx';

/** A moment of a run that goes on: when it was looked at, in ms, and the tick it had come to. */
export interface Sample {
  time: number;
  tick: number;
}

/** Milliseconds over which the speed is measured. */
const MEASURED = 1000;
/** Of the speed that was chosen less than this share counts as missed. */
const ENOUGH = 0.9;

/** How fast a run went between two samples, in seconds of the run a second; null where it keeps up with `wanted`. */
export function missedSpeed(
  from: Sample,
  to: Sample,
  wanted: number,
  ticksPerSecond: number,
): number | null {
  const seconds = (to.time - from.time) / 1000;
  const reached = (to.tick - from.tick) / ticksPerSecond / seconds;
  // A run that was taken back in between says nothing.
  return seconds <= 0 || reached < 0 || reached >= wanted * ENOUGH ? null : reached;
}

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
