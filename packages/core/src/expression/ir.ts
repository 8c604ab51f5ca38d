/**
 * A checked expression as plain data: what the checker gives and the runtime turns into closures, so
 * that a game needs no parser.
 */

export type ValueType =
  | 'number'
  | 'flag'
  | 'text'
  | 'point'
  | 'agent'
  | 'thing'
  | 'route'
  | 'gate'
  | 'zone'
  | 'list of number'
  | 'list of text'
  | 'list of point'
  | 'list of agent';

/** Whose memory a key is in. */
export type KeyScope = 'self' | 'squad' | 'world';

/** Where a part stands in the source, as offsets. */
export type Span = [from: number, to: number];

export type ArithmeticOperator = '+' | '-' | '*' | '/' | '%';
export type ComparisonOperator = '<' | '<=' | '>' | '>=' | '==' | '!=';

export type Ir = { at: Span; type: ValueType } & (
  | { op: 'literal'; value: number }
  | { op: 'key'; scope: KeyScope; slot: number; key: number }
  | { op: 'call'; name: string; args: Ir[] }
  | { op: 'not' | 'negate'; a: Ir }
  | { op: 'arithmetic'; operator: ArithmeticOperator; a: Ir; b: Ir }
  | { op: 'compare'; operator: ComparisonOperator; a: Ir; b: Ir }
  | { op: 'and' | 'or'; a: Ir; b: Ir }
  | { op: 'if'; test: Ir; a: Ir; b: Ir }
);

export interface CheckedExpression {
  source: string;
  ir: Ir;
}

/** An expression and all its parts, the whole first. */
export function partsOf(ir: Ir): Ir[] {
  switch (ir.op) {
    case 'call':
      return [ir, ...ir.args.flatMap(partsOf)];
    case 'not':
    case 'negate':
      return [ir, ...partsOf(ir.a)];
    case 'arithmetic':
    case 'compare':
    case 'and':
    case 'or':
      return [ir, ...partsOf(ir.a), ...partsOf(ir.b)];
    case 'if':
      return [ir, ...partsOf(ir.test), ...partsOf(ir.a), ...partsOf(ir.b)];
    case 'literal':
    case 'key':
      return [ir];
  }
}

/** Indices of the keys an expression reads, or asks the age of. */
export function keysIn(ir: Ir): number[] {
  return partsOf(ir).flatMap((part) => {
    if (part.op === 'key') return [part.key];
    const [first] = part.op === 'call' && part.name === 'age(key)' ? part.args : [];
    return first?.op === 'literal' ? [first.value] : [];
  });
}
