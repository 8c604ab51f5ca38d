import { actionSpec, type ExpressionPlace, type MemoryKeyDocument } from '@crooked-lantern/core';

/** The types of value that fit where an expression is written, for the order in which names are offered. */
export function wantedTypes(
  place: ExpressionPlace,
  memory: Readonly<Record<string, MemoryKeyDocument>>,
): readonly string[] {
  if ('score' in place || 'number' in place) return ['number'];
  if ('guard' in place) return ['flag'];
  if ('argument' in place) return [place.argument];
  const spec = actionSpec(place.action.do)?.parameters[place.parameter];
  switch (spec?.kind) {
    case 'place':
      return ['point', 'agent'];
    case 'agent':
    case 'thing':
    case 'gate':
    case 'route':
      return [spec.kind];
    case 'value': {
      const type = memory[String(place.action.key)]?.type;
      return type === undefined ? [] : [type.replace('list of ', '')];
    }
    default:
      return ['number'];
  }
}
