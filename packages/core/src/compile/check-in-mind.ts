import { checkExpression, type Wanted } from '../expression/check.ts';
import type { ExpressionFault } from '../expression/parse.ts';
import { unitNamed } from '../expression/units.ts';
import { actionSpec } from '../model/actions.ts';
import type { ActionDocument, ProjectDocument } from '../model/documents.ts';
import { wantedValue, type MindScope } from './compile-actions.ts';
import { mindScope } from './compile-mind.ts';
import { createContext } from './context.ts';
import { collectFindings } from './finding.ts';

/** What an expression is for: a guard, or a parameter of an action. */
export type ExpressionPlace = { guard: true } | { action: ActionDocument; parameter: string };

const ANY_VALUE: Wanted = { types: ['number', 'flag', 'text', 'point', 'agent', 'thing'] };

function wantedAt(place: ExpressionPlace, scope: MindScope): Wanted {
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

/** Checks one expression as it would be checked at its place in a mind, without changing anything. */
export function checkInMind(
  document: ProjectDocument,
  mind: string,
  source: string,
  place: ExpressionPlace,
): ExpressionFault[] {
  const scope = mindScope(mind, createContext(document, collectFindings()));
  const result = checkExpression(source, scope, wantedAt(place, scope));
  return result.ok ? [] : result.faults;
}
