import type { Remedy } from '../compile/finding.ts';
import { stepsOfPath } from '../model/names/path-text.ts';
import type { ProjectDocument, TransitionDocument } from '../model/documents.ts';
import { partAt } from '../editing/commands/put.ts';
import { statePaths } from '../findings/state-paths.ts';
import type { Noticed } from './detector.ts';

/** Seconds that a guard which flickers has to hold, if nothing better is known. */
const HOLD_SECONDS = 0.5;

/** A change that usually puts right what was noticed, where one can be made without knowing more; null for none. */
export function remedyOf(document: ProjectDocument, { kind, place }: Noticed): Remedy | null {
  if (kind !== 'flicker' || place?.order === undefined) return null;
  const machine = document.minds[place.mind]?.machine;
  const state = machine && statePaths(machine, `minds.${place.mind}.machine`).get(place.state);
  if (state === undefined) return null;
  const path = stepsOfPath(`${state}.transitions[${place.order - 1}]`);
  if (!path) return null;
  const leave = partAt(document, path) as TransitionDocument | undefined;
  if (!leave || leave.when === undefined || leave.for !== undefined) return null;
  return {
    title: `let it hold for ${HOLD_SECONDS} s`,
    command: { command: 'put', how: 'set', path: [...path, 'for'], value: HOLD_SECONDS },
  };
}
