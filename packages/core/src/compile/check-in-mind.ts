import { checkExpression, type Wanted } from '../expression/check.ts';
import type { ExpressionFault } from '../expression/parse.ts';
import { unitNamed } from '../expression/units.ts';
import { actionSpec } from '../model/actions.ts';
import type { Bound } from '../expression/scope.ts';
import type {
  ActionDocument,
  Name,
  ParameterType,
  ProjectDocument,
  UnitName,
} from '../model/documents.ts';
import { wantedValue, type MindScope } from './compile-actions.ts';
import { checkScore } from './compile-cast.ts';
import { compileSharedKeys, mindScope } from './compile-mind.ts';
import { createContext } from './context.ts';
import { collectFindings } from './finding.ts';

/** What an expression is for: the score of a squad's role, or something in a mind. */
export type ExpressionPlace = { score: true } | MindPlace;

type MindPlace = {
  /** The tree it is written in: its parameters are names too. */
  tree?: Name;
} & (
  | { guard: true }
  | { action: ActionDocument; parameter: string }
  /** What a tree is called with. */
  | { argument: ParameterType }
  /** A number of a node. */
  | { number: true; unit?: UnitName }
);

const ANY_VALUE: Wanted = { types: ['number', 'flag', 'text', 'point', 'agent', 'thing'] };

function wantedAt(place: MindPlace, scope: MindScope): Wanted {
  if ('guard' in place) return { types: ['flag'] };
  if ('argument' in place) return { types: [place.argument] };
  if ('number' in place) return { types: ['number'], unit: unitNamed(place.unit) };
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

/** The names of a tree's parameters, bound to nothing that is known. */
function parametersOf(document: ProjectDocument, mind: Name, tree: Name | undefined) {
  const parameters = tree === undefined ? {} : document.minds[mind]?.trees?.[tree]?.parameters;
  return new Map(
    Object.entries(parameters ?? {}).map(([name, type]): [string, Bound] => [
      name,
      { type, unit: null, expression: null },
    ]),
  );
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
    parameters: parametersOf(document, mind, place.tree),
  };
  const result = checkExpression(source, scope, wantedAt(place, scope));
  return result.ok ? [] : result.faults;
}
