/** When a page has long been usable, in milliseconds. */
const WELL_AFTER_OPENING = 3000;

/** Prepares what will be needed later, once a page that has just opened has nothing more urgent to do; returns a cancel function. */
export function wellAfterOpening(prepare: () => void): () => void {
  const waiting = setTimeout(prepare, WELL_AFTER_OPENING);
  return () => clearTimeout(waiting);
}
