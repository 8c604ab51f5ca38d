import type { Expression as Node } from 'acorn';
import type { ParameterType } from './builtins.ts';
import type { Ir, Span, ValueType } from './ir.ts';
import type { ExpressionFault } from './parse.ts';
import type { Scope } from './scope.ts';
import type { Unit } from './units.ts';

/** What all parts of checking one expression share. */

export interface Typed {
  ir: Ir;
  unit: Unit;
}

export interface Checker {
  source: string;
  scope: Scope;
  faults: ExpressionFault[];
}

export const TYPE_NAMES: Record<ParameterType, string> = {
  number: 'a number',
  flag: 'true or false',
  text: 'a text',
  point: 'a point',
  agent: 'an agent',
  thing: 'a thing',
  route: 'a route',
  gate: 'a gate',
  zone: 'a zone',
  'list of number': 'a list of numbers',
  'list of text': 'a list of texts',
  'list of point': 'a list of points',
  'list of agent': 'a list of agents',
  key: 'the name of a memory key',
  bands: 'the name of a band set',
  expression: 'an expression',
};

export function span(node: { start: number; end: number }): Span {
  return [node.start, node.end];
}

export function fault(
  checker: Checker,
  node: { start: number; end: number },
  message: string,
  unknown?: string,
): null {
  checker.faults.push({ message, at: span(node), ...(unknown === undefined ? {} : { unknown }) });
  return null;
}

export function textOf(checker: Checker, node: { start: number; end: number }): string {
  return checker.source.slice(node.start, node.end);
}

export function expectType(
  checker: Checker,
  node: Node,
  typed: Typed | null,
  type: ValueType,
): Typed | null {
  if (typed === null || typed.ir.type === type) return typed;
  return fault(
    checker,
    node,
    `“${textOf(checker, node)}” is ${TYPE_NAMES[typed.ir.type]}; ${TYPE_NAMES[type]} is needed here.`,
  );
}
