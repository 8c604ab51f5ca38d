import { checkExpression, type Wanted } from '../expression/check.ts';
import type { ExpressionFault } from '../expression/parse.ts';
import { unitNamed } from '../expression/units.ts';
import { actionSpec } from '../model/actions.ts';
import type { ActionDocument, ProjectDocument } from '../model/documents.ts';
import { mindScope } from './compile-mind.ts';
import { createContext } from './context.ts';
import { collectFindings } from './finding.ts';

/** What an expression is for: a guard, or a parameter of an action. */
export type ExpressionPlace = { guard: true } | { action: ActionDocument; parameter: string };

function wantedAt(place: ExpressionPlace, typeOfKey: (key: string) => Wanted | undefined): Wanted {
  if ('guard' in place) return { types: ['flag'] };
  const spec = actionSpec(place.action.do)?.parameters[place.parameter];
  switch (spec?.kind) {
    case 'place':
      return { types: ['point', 'agent'] };
    case 'route':
      return { types: ['route'] };
    case 'value':
      return (
        typeOfKey(String(place.action.key)) ?? {
          types: ['number', 'flag', 'text', 'point', 'agent'],
        }
      );
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
  const wanted = wantedAt(place, (name) => {
    const key = scope.keys.get(name);
    return (
      key && { types: [key.type], ...(key.type === 'number' ? { unit: unitNamed(key.unit) } : {}) }
    );
  });
  const result = checkExpression(source, scope, wanted);
  return result.ok ? [] : result.faults;
}
