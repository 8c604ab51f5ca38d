import { checkExpression, type Wanted } from '../expression/check.ts';
import type { ExpressionFault } from '../expression/parse.ts';
import { unitNamed } from '../expression/units.ts';
import { actionSpec } from '../model/actions.ts';
import type { ActionDocument, ProjectDocument } from '../model/documents.ts';
import { wantedValue, type MindScope } from './compile-actions.ts';
import { checkScore } from './compile-cast.ts';
import { compileSharedKeys, mindScope } from './compile-mind.ts';
import { createContext } from './context.ts';
import { collectFindings } from './finding.ts';

/** What an expression is for: a guard, a parameter of an action, or the score of a squad's role. */
export type ExpressionPlace =
  { guard: true } | { action: ActionDocument; parameter: string } | { score: true };

const ANY_VALUE: Wanted = { types: ['number', 'flag', 'text', 'point', 'agent', 'thing'] };

function wantedAt(place: Exclude<ExpressionPlace, { score: true }>, scope: MindScope): Wanted {
  if ('guard' in place) return { types: ['flag'] };
  const spec = actionSpec(place.action.do)?.parameters[place.parameter];
  switch (spec?.kind) {
    case 'place':
      return { types: ['point', 'agent'] };
    case 'route':
    case 'agent':
    case 'thing':
    case 'gate':
      return { types: [spec.kind] };
    case 'value':
      return wantedValue(scope, String(place.action.key)) ?? ANY_VALUE;
    default:
      return { types: ['number'], unit: unitNamed(spec?.unit) };
  }
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
  const scope = mindScope(mind, context);
  const result = checkExpression(source, scope, wantedAt(place, scope));
  return result.ok ? [] : result.faults;
}
