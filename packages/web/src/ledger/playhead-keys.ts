import type { KeyboardEvent } from 'react';

/** How many ticks a key moves a playhead by, back or onward; undefined for other keys. `second` is one in ticks. */
export function ticksOfKey({ key, shiftKey }: KeyboardEvent, second: number): number | undefined {
  const step = shiftKey ? second : 1;
  const ways: Record<string, number | undefined> = {
    ArrowLeft: -step,
    ArrowRight: step,
    PageUp: -5 * second,
    PageDown: 5 * second,
  };
  return ways[key];
}
