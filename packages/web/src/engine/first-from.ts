/**
 * Place of the first of a list from which on `isBefore` holds no longer, found by halving: the list is in the
 * order of ticks, and those before come first. Its length where all are before.
 */
export function firstFrom<T>(list: readonly T[], isBefore: (entry: T) => boolean): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (isBefore(list[middle])) low = middle + 1;
    else high = middle;
  }
  return low;
}
