import { checkExpression, type Wanted } from '../expression/check.ts';
import type { ExpressionFault } from '../expression/parse.ts';
import { unitNamed } from '../expression/units.ts';
import { actionSpec } from '../model/actions/actions.ts';
import type { ProjectDocument, UnitName } from '../model/documents.ts';
import type { MindScope } from './compile-actions.ts';
import { namesWithin } from './candidate-keys.ts';
import { unbound } from './compile-tree.ts';
import { wantedTypes, type ExpressionPlace, type MindPlace } from './wanted-types.ts';
import { checkScore } from './compile-cast.ts';
import { compileSharedKeys, mindScope } from './compile-mind.ts';
import { createContext } from './context.ts';
import { collectFindings } from './finding.ts';

const ANY_VALUE: Wanted = { types: ['number', 'flag', 'text', 'point', 'agent', 'thing'] };

function unitAt(place: MindPlace, scope: MindScope): UnitName | undefined {
  if ('number' in place) return place.unit;
  if (!('action' in place)) return undefined;
  const spec = actionSpec(place.action.do)?.parameters[place.parameter];
  return spec?.kind === 'value' ? scope.keys.get(String(place.action.key))?.unit : spec?.unit;
}

function wantedAt(place: MindPlace, scope: MindScope): Wanted {
  const types = wantedTypes(place, (name) => scope.keys.get(name)?.type);
  if (types === null) return ANY_VALUE;
  // What a tree is called with may have any unit.
  if (!types.includes('number') || 'argument' in place) return { types };
  return { types, unit: unitNamed(unitAt(place, scope)) };
}

/** Checks one expression as it would be checked at its place, without changing anything. `mind` is null for what belongs to none. */
export function checkInMind(
  document: ProjectDocument,
  mind: string | null,
  source: string,
  place: ExpressionPlace,
): ExpressionFault[] {
  const context = createContext(document, collectFindings());
  if (mind === null || 'score' in place) {
    const result = checkScore(source, compileSharedKeys(context), context);
    return result.ok ? [] : result.faults;
  }
  const scope = {
    ...mindScope(mind, context),
    parameters: unbound(namesWithin(document.minds[mind], place.tree)),
  };
  const result = checkExpression(source, scope, wantedAt(place, scope));
  return result.ok ? [] : result.faults;
}
