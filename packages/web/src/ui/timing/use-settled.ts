import { useEffect, useState } from 'react';

/** Milliseconds without a change. */
const PAUSE = 200;

/**
 * A value as it is once it has not changed for a moment: for what takes long to work out and may be said a
 * little late. Where it is of something else, which `key` tells, it is taken at once.
 */
export function useSettled<T>(value: T, key: string): T {
  const [settled, setSettled] = useState({ value, key });
  useEffect(() => {
    const timer = setTimeout(() => setSettled({ value, key }), PAUSE);
    return () => clearTimeout(timer);
  }, [value, key]);
  if (settled.key === key) return settled.value;
  setSettled({ value, key });
  return value;
}
