import type { Expression as Node } from 'acorn';
import { fitsView, GROUND_VIEWS } from '../terms/views.ts';
import { nearestName, suggestion } from '../model/names/nearest-name.ts';
import { meantBy } from './meant-names.ts';
import {
  BUILTINS,
  builtinsNamed,
  signature,
  type Builtin,
  type ParameterType,
} from './builtins.ts';
import { fault, span, textOf, type Checker, type Typed } from './checker.ts';
import { withSpans, type Span } from './ir.ts';
import type { Bound } from './scope.ts';
import { wordsOfCalled, type CalledPart } from '../model/names/named-parts.ts';
import { PLAIN, unitNamed, type Unit } from './units.ts';

/** What a name in an expression stands for: a parameter, a memory key, a built-in or something on the ground. */

/** `self.place` as one name, or null where the node is no plain dotted name. */
export function dottedName(node: Node): string | null {
  if (node.type === 'Identifier') return node.name;
  if (node.type !== 'MemberExpression' || node.computed || node.optional) return null;
  if (node.property.type !== 'Identifier' || node.object.type === 'Super') return null;
  const object = dottedName(node.object);
  return object === null ? null : `${object}.${node.property.name}`;
}

function knownNames(checker: Checker): string[] {
  return [
    ...new Set([
      ...(checker.scope.parameters?.keys() ?? []),
      ...checker.scope.keys.keys(),
      ...checker.scope.onGround.keys(),
      ...BUILTINS.map((builtin) => builtin.name),
    ]),
  ];
}

/** For a word that is nearly the first part of names: the names that begin so. */
function partsOf(name: string, names: readonly string[]): string {
  const firstOf = (dotted: string) => dotted.slice(0, dotted.indexOf('.'));
  const dotted = names.filter((known) => known.includes('.'));
  const nearest = nearestName(name, new Set(dotted.map(firstOf)));
  const parts = dotted.filter((known) => firstOf(known) === nearest);
  return parts.length > 0 ? ` Did you mean ${parts.join(', ')}?` : '';
}

/** A parameter stands for the expression it is bound to, wherever that was written. */
function parameterValue({ type, unit, expression }: Bound, at: Span): Typed {
  if (expression === null) return { ir: { op: 'literal', at, type, value: NaN }, unit };
  // Every part of it is said by the parameter's name, so every part stands where that does.
  return { ir: withSpans(expression.ir, () => at), unit };
}

export function checkName(checker: Checker, node: Node): Typed | null {
  const at = span(node);
  const name = dottedName(node);
  if (name === null)
    return fault(
      checker,
      node,
      `“${textOf(checker, node)}” is not a name: use plain names with dots.`,
    );
  const bound = checker.scope.parameters?.get(name);
  if (bound) return parameterValue(bound, at);
  const key = checker.scope.keys.get(name);
  if (key) {
    return {
      ir: { op: 'key', at, type: key.type, scope: key.scope, slot: key.slot, key: key.index },
      unit: unitNamed(key.unit),
    };
  }
  const builtins = builtinsNamed(name);
  if (builtins.some((builtin) => builtin.parameters)) {
    return fault(
      checker,
      node,
      `“${name}” is a function: write ${builtins.map(signature).join(' or ')}.`,
    );
  }
  if (builtins.length > 0) {
    const [builtin] = builtins;
    if (!mayAsk(checker, node, builtin)) return null;
    return {
      ir: { op: 'call', at, type: builtin.result, name: signature(builtin), args: [] },
      unit: builtinUnit(builtin, []),
    };
  }
  const placed = checker.scope.onGround.get(name);
  if (placed)
    return { ir: { op: 'literal', at, type: placed.type, value: placed.index }, unit: PLAIN };
  const names = knownNames(checker);
  // A word that names begin with is no slip of the pen.
  const isPart = names.some((known) => known.startsWith(`${name}.`));
  const meant = isPart ? partsOf(name, names) : meantBy(name, names) || partsOf(name, names);
  return fault(checker, node, `Nothing is called “${name}” here.${meant}`, name);
}

/** Whether it can be asked on this ground, and by this mind: one that perceives must not know what holds for all agents. */
export function mayAsk(checker: Checker, node: Node, builtin: Builtin): boolean {
  const { name, directorOnly } = builtin;
  const { view } = checker.scope;
  if (!fitsView(builtin, view)) {
    const seen = GROUND_VIEWS[view].title.toLowerCase();
    fault(checker, node, `“${name}” can’t be asked on a ground ${seen}.`);
    return false;
  }
  if (!directorOnly || checker.scope.isDirector) return true;
  fault(
    checker,
    node,
    `“${name}” is for the mind of a director to ask: it tells the truth about every agent, whatever any of them perceives.`,
  );
  return false;
}

/** A text that must be a name is one; texts that are only known in a run are not looked at. */
export function isNamed(checker: Checker, node: Node, names: CalledPart | undefined): boolean {
  const known = names && checker.scope.inTexts?.[names];
  if (!known || node.type !== 'Literal' || known.has(String(node.value))) return true;
  const text = String(node.value);
  fault(checker, node, `There is no ${wordsOfCalled(names)} “${text}”.${suggestion(text, known)}`);
  return false;
}

export function builtinUnit(builtin: Builtin, args: Typed[]): Unit {
  if (builtin.unit === 'same') return args.find((arg) => arg.unit !== null)?.unit ?? null;
  return builtin.unit === undefined ? PLAIN : unitNamed(builtin.unit);
}

export function accepts(builtin: Builtin, types: ParameterType[]): boolean {
  const parameters = builtin.parameters ?? [];
  const last = parameters[parameters.length - 1];
  if (builtin.variadic ? types.length < 2 : types.length !== parameters.length) return false;
  return types.every((type, i) => type === (parameters[i] ?? last).type);
}

export function checkKeyArgument(checker: Checker, node: Node, builtin: Builtin): Typed | null {
  const name = dottedName(node);
  const key = name === null ? undefined : checker.scope.keys.get(name);
  if (!key) {
    return fault(
      checker,
      node,
      `${builtin.name}() takes the name of a memory key.${suggestion(name ?? '', checker.scope.keys.keys())}`,
    );
  }
  return { ir: { op: 'literal', at: span(node), type: 'number', value: key.index }, unit: null };
}
