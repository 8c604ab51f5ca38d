import type { ValueType } from '../expression/ir.ts';
import { actionSpec } from '../model/actions/actions.ts';
import type { ActionDocument, Name, ParameterType, UnitName } from '../model/documents.ts';

/** What an expression is for: the score of a squad's role, or something in a mind. */
export type ExpressionPlace = { score: true } | MindPlace;

export type MindPlace = {
  /** The tree it is written in, whose parameters are names too; or the option, as `whatNow.2`. */
  tree?: string;
} & (
  | { guard: true }
  | { action: ActionDocument; parameter: string }
  /** What a tree is called with. */
  | { argument: ParameterType }
  /** A number of a node. */
  | { number: true; unit?: UnitName }
);

/**
 * The types of value that fit at a place; null where a key's value is wanted and the key is not known.
 * `keyType` gives the type of a key by its name.
 */
export function wantedTypes(
  place: ExpressionPlace,
  keyType: (name: Name) => string | undefined,
): readonly ValueType[] | null {
  if ('score' in place || 'number' in place) return ['number'];
  if ('guard' in place) return ['flag'];
  if ('argument' in place) return [place.argument];
  const spec = actionSpec(place.action.do)?.parameters[place.parameter];
  switch (spec?.kind) {
    case 'place':
      return ['point', 'agent'];
    case 'route':
    case 'agent':
    case 'thing':
    case 'gate':
      return [spec.kind];
    case 'value': {
      // Into a list goes one of its entries.
      const type = keyType(String(place.action.key));
      return type === undefined ? null : [type.replace('list of ', '') as ValueType];
    }
    default:
      return ['number'];
  }
}
