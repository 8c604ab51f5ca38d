/**
 * Everything an agent's minds keep between decisions is numbers in one array, laid out once for all
 * agents of a kind: quick to read, and a snapshot is one copy.
 */
export interface CellLayout {
  /** What each cell holds before the first decision. */
  initial: number[];
}

export function createLayout(): CellLayout {
  return { initial: [] };
}

/** Sets `count` cells aside and gives the index of the first. */
export function reserve(layout: CellLayout, count: number, value = 0): number {
  const at = layout.initial.length;
  for (let i = 0; i < count; i++) layout.initial.push(value);
  return at;
}
