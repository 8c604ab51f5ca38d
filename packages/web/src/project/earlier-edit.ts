import { api } from '../api/client.ts';
import type { EngineClient } from '../engine/engine-client.ts';

/** So many different documents are looked back through. */
const MOST_TRIED = 30;

/**
 * Puts the latest of the edits before `edit` in force that has no errors. What was submitted last is then an edit of
 * earlier: the caller submits its document again.
 *
 * @param isWanted whether an earlier edit is still to be put in force
 * @returns the edit that runs; null where no earlier edit does, or it is no longer wanted
 * @throws {ApiError} the server does not answer
 */
export async function runEarlierEdit(
  engine: Pick<EngineClient, 'submit'>,
  id: string,
  edit: number,
  isWanted: () => boolean,
): Promise<number | null> {
  const { edits } = await api.edits(id, { before: edit + 1 });
  const tried = new Set(edits.filter(({ number }) => number === edit).map(({ digest }) => digest));
  for (const { number, digest } of edits) {
    if (number >= edit || tried.has(digest)) continue;
    if (tried.size > MOST_TRIED) return null;
    tried.add(digest);
    const { document } = await api.readEdit(id, number);
    if (!isWanted()) return null;
    const { runs } = await engine.submit(document, number);
    if (runs) return number;
  }
  return null;
}
