import type {
  BinaryExpression,
  CallExpression,
  Expression as Node,
  Literal,
  LogicalExpression,
  UnaryExpression,
} from 'acorn';
import { meantBy } from './meant-names.ts';
import { BUILTINS, builtinsNamed, signature } from './builtins.ts';
import { checkBands } from './check-bands.ts';
import {
  accepts,
  builtinUnit,
  checkKeyArgument,
  checkName,
  dottedName,
  isNamed,
  mayAsk,
} from './check-name.ts';
import {
  expectType,
  fault,
  span,
  textOf,
  TYPE_NAMES,
  type Checker,
  type Typed,
} from './checker.ts';
import type { ArithmeticOperator, CheckedExpression, ComparisonOperator, ValueType } from './ir.ts';
import { parseExpression, type ExpressionFault } from './parse.ts';
import type { Scope } from './scope.ts';
import { combinedUnit, PLAIN, sameUnit, unitText, type Unit } from './units.ts';

export type CheckResult =
  | { ok: true; expression: CheckedExpression; unit: Unit }
  | { ok: false; faults: ExpressionFault[] };

const ARITHMETIC = new Set(['+', '-', '*', '/', '%']);
const COMPARISON = new Set(['<', '<=', '>', '>=', '==', '!=', '===', '!==']);

function checkLiteral(checker: Checker, node: Literal): Typed | null {
  const at = span(node);
  if (typeof node.value === 'number') {
    if (!Number.isFinite(node.value))
      return fault(checker, node, `“${node.raw}” is too large a number.`);
    return { ir: { op: 'literal', at, type: 'number', value: node.value }, unit: null };
  }
  if (typeof node.value === 'boolean') {
    return { ir: { op: 'literal', at, type: 'flag', value: Number(node.value) }, unit: PLAIN };
  }
  if (typeof node.value === 'string') {
    return {
      ir: { op: 'literal', at, type: 'text', value: checker.scope.internText(node.value) },
      unit: PLAIN,
    };
  }
  return fault(
    checker,
    node,
    `“${node.raw}” is not a value an expression can use: write a number, true, false or a 'text'.`,
  );
}

/** `at(place, expression)`: the expression as if the agent stood there. */
function checkAt(checker: Checker, node: CallExpression): Typed | null {
  const [where, what] = node.arguments as Node[];
  if (node.arguments.length !== 2)
    return fault(checker, node, 'at(place, expression) takes a point, and what is asked there.');
  const place = expectType(checker, where, checkNode(checker, where), 'point');
  const asked = checkNode(checker, what);
  if (!place || !asked) return null;
  return {
    ir: { op: 'at', at: span(node), type: asked.ir.type, place: place.ir, a: asked.ir },
    unit: asked.unit,
  };
}

function checkCall(checker: Checker, node: CallExpression): Typed | null {
  const name = node.callee.type === 'Super' ? null : dottedName(node.callee);
  if (name === 'at') return checkAt(checker, node);
  if (name === 'inBand' || name === 'bandOf') return checkBands(checker, node, name, checkNode);
  const overloads =
    name === null ? [] : builtinsNamed(name).filter((builtin) => builtin.parameters);
  if (overloads.length === 0) {
    const functions = BUILTINS.filter((builtin) => builtin.parameters).map(
      (builtin) => builtin.name,
    );
    return fault(
      checker,
      node.callee,
      `There is no function “${textOf(checker, node.callee)}”.${meantBy(name ?? '', functions)}`,
    );
  }
  const args: Node[] = [];
  for (const arg of node.arguments) {
    if (arg.type === 'SpreadElement')
      return fault(checker, arg, '“…” can’t be used in an expression.');
    args.push(arg);
  }
  const takesKey = overloads[0].parameters?.[0]?.type === 'key';
  if (takesKey && args.length === 1) {
    const key = checkKeyArgument(checker, args[0], overloads[0]);
    return (
      key && {
        ir: {
          op: 'call',
          at: span(node),
          type: overloads[0].result,
          name: signature(overloads[0]),
          args: [key.ir],
        },
        unit: builtinUnit(overloads[0], []),
      }
    );
  }
  const checked = args.map((arg) => checkNode(checker, arg));
  if (checked.some((arg) => arg === null)) return null;
  const typed = checked as Typed[];
  const types = typed.map((arg) => arg.ir.type);
  const builtin = overloads.find((overload) => accepts(overload, types));
  if (!builtin) {
    const given = types.length === 0 ? 'nothing' : types.map((type) => TYPE_NAMES[type]).join(', ');
    return fault(
      checker,
      node,
      `${overloads.map(signature).join(' or ')} is needed; this gives it ${given}.`,
    );
  }
  if (!mayAsk(checker, node.callee as Node, builtin)) return null;
  if (!args.every((arg, i) => isNamed(checker, arg, builtin.parameters?.[i]?.names))) return null;
  if (builtin.unit === 'same') {
    const odd = typed.findIndex((arg) => !sameUnit(arg.unit, builtinUnit(builtin, typed)));
    if (odd >= 0)
      return fault(
        checker,
        args[odd],
        `${builtin.name}() needs one unit for all: ${typed.map((arg) => unitText(arg.unit)).join(', ')}.`,
      );
  }
  return {
    ir: {
      op: 'call',
      at: span(node),
      type: builtin.result,
      name: signature(builtin),
      args: typed.map((arg) => arg.ir),
    },
    unit: builtinUnit(builtin, typed),
  };
}

function checkUnary(checker: Checker, node: UnaryExpression): Typed | null {
  const argument = checkNode(checker, node.argument);
  if (node.operator === '!') {
    const flag = expectType(checker, node.argument, argument, 'flag');
    return flag && { ir: { op: 'not', at: span(node), type: 'flag', a: flag.ir }, unit: PLAIN };
  }
  if (node.operator === '-') {
    const number = expectType(checker, node.argument, argument, 'number');
    return (
      number && {
        ir: { op: 'negate', at: span(node), type: 'number', a: number.ir },
        unit: number.unit,
      }
    );
  }
  return fault(checker, node, `“${node.operator}” can’t be used in an expression.`);
}

/** Both sides with their units: “distance(quarry)” is in m, “patience” is in s. */
function sides(checker: Checker, { left, right }: BinaryExpression, a: Typed, b: Typed): string {
  const side = (node: { start: number; end: number }, { unit }: Typed) =>
    `“${textOf(checker, node)}” ${sameUnit(unit, PLAIN) ? 'has no unit' : `is in ${unitText(unit)}`}`;
  return `${side(left, a)}, ${side(right, b)}`;
}

function checkComparison(
  checker: Checker,
  node: BinaryExpression,
  a: Typed,
  b: Typed,
): Typed | null {
  const operator = node.operator.slice(0, 2) as ComparisonOperator;
  const equality = operator === '==' || operator === '!=';
  if (a.ir.type !== b.ir.type) {
    return fault(
      checker,
      node,
      `${TYPE_NAMES[a.ir.type]} can’t be compared with ${TYPE_NAMES[b.ir.type]}.`,
    );
  }
  if (!equality && a.ir.type !== 'number') {
    return fault(checker, node, `“${operator}” compares numbers, not ${TYPE_NAMES[a.ir.type]}.`);
  }
  if (a.ir.type.startsWith('list'))
    return fault(checker, node, 'Lists can’t be compared: use count(list) or has(list, entry).');
  if (a.ir.type === 'point')
    return fault(
      checker,
      node,
      'Points are hardly ever equal: compare distance(point) with a length.',
    );
  if (!sameUnit(a.unit, b.unit)) {
    return fault(
      checker,
      node,
      `Only what has one unit can be compared: ${sides(checker, node, a, b)}.`,
    );
  }
  return {
    ir: { op: 'compare', at: span(node), type: 'flag', operator, a: a.ir, b: b.ir },
    unit: PLAIN,
  };
}

function checkArithmetic(
  checker: Checker,
  node: BinaryExpression,
  left: Typed,
  right: Typed,
): Typed | null {
  const a = expectType(checker, node.left as Node, left, 'number');
  const b = expectType(checker, node.right, right, 'number');
  if (!a || !b) return null;
  const operator = node.operator as ArithmeticOperator;
  let unit: Unit;
  if (operator === '*') unit = combinedUnit(a.unit, b.unit, 1);
  else if (operator === '/') unit = combinedUnit(a.unit, b.unit, -1);
  else if (sameUnit(a.unit, b.unit)) unit = a.unit ?? b.unit;
  else
    return fault(
      checker,
      node,
      `“${operator}” needs one unit on both sides: ${sides(checker, node, a, b)}.`,
    );
  return {
    ir: { op: 'arithmetic', at: span(node), type: 'number', operator, a: a.ir, b: b.ir },
    unit,
  };
}

function checkBinary(checker: Checker, node: BinaryExpression): Typed | null {
  if (node.left.type === 'PrivateIdentifier')
    return fault(checker, node.left, '“#” can’t be used in an expression.');
  if (!ARITHMETIC.has(node.operator) && !COMPARISON.has(node.operator)) {
    return fault(checker, node, `“${node.operator}” can’t be used in an expression.`);
  }
  const a = checkNode(checker, node.left);
  const b = checkNode(checker, node.right);
  if (!a || !b) return null;
  return COMPARISON.has(node.operator)
    ? checkComparison(checker, node, a, b)
    : checkArithmetic(checker, node, a, b);
}

function checkLogical(checker: Checker, node: LogicalExpression): Typed | null {
  if (node.operator === '??')
    return fault(checker, node, '“??” can’t be used in an expression: ask known(…) instead.');
  const a = expectType(checker, node.left, checkNode(checker, node.left), 'flag');
  const b = expectType(checker, node.right, checkNode(checker, node.right), 'flag');
  return (
    a &&
    b && {
      ir: {
        op: node.operator === '&&' ? 'and' : 'or',
        at: span(node),
        type: 'flag',
        a: a.ir,
        b: b.ir,
      },
      unit: PLAIN,
    }
  );
}

function checkNode(checker: Checker, node: Node): Typed | null {
  switch (node.type) {
    case 'ParenthesizedExpression':
      return checkNode(checker, node.expression);
    case 'Literal':
      return checkLiteral(checker, node);
    case 'Identifier':
    case 'MemberExpression':
      return checkName(checker, node);
    case 'CallExpression':
      return checkCall(checker, node);
    case 'UnaryExpression':
      return checkUnary(checker, node);
    case 'BinaryExpression':
      return checkBinary(checker, node);
    case 'LogicalExpression':
      return checkLogical(checker, node);
    case 'ConditionalExpression': {
      const test = expectType(checker, node.test, checkNode(checker, node.test), 'flag');
      const a = checkNode(checker, node.consequent);
      const b = checkNode(checker, node.alternate);
      if (!test || !a || !b) return null;
      if (a.ir.type !== b.ir.type || !sameUnit(a.unit, b.unit)) {
        return fault(checker, node, 'Both outcomes of ? : must have one type and unit.');
      }
      return {
        ir: { op: 'if', at: span(node), type: a.ir.type, test: test.ir, a: a.ir, b: b.ir },
        unit: a.unit ?? b.unit,
      };
    }
    case 'AssignmentExpression':
      return fault(checker, node, '“=” would assign; to compare, write “==”.');
    default:
      return fault(checker, node, `“${textOf(checker, node)}” can’t be used in an expression.`);
  }
}

export interface Wanted {
  types: readonly ValueType[];
  unit?: Unit;
}

/** Parses and checks `source`. With `wanted`, its type must be one of these and its unit must fit. */
export function checkExpression(source: string, scope: Scope, wanted: Wanted): CheckResult {
  const parsed = parseExpression(source);
  if (!parsed.ok) return { ok: false, faults: [parsed.fault] };
  const checker: Checker = { source, scope, faults: [] };
  const typed = checkNode(checker, parsed.node);
  if (typed && !wanted.types.includes(typed.ir.type)) {
    const needed = wanted.types.map((type) => TYPE_NAMES[type]).join(' or ');
    fault(
      checker,
      parsed.node,
      `This gives ${TYPE_NAMES[typed.ir.type]}; ${needed} is needed here.`,
    );
  } else if (typed && wanted.unit !== undefined && !sameUnit(typed.unit, wanted.unit)) {
    fault(
      checker,
      parsed.node,
      `This gives ${unitText(typed.unit)}; ${unitText(wanted.unit)} is needed here.`,
    );
  }
  if (!typed || checker.faults.length > 0) return { ok: false, faults: checker.faults };
  return { ok: true, expression: { source, ir: typed.ir }, unit: typed.unit };
}
