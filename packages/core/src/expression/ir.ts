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
  /** `a` as if the agent stood at `place`. */
  | { op: 'at'; place: Ir; a: Ir }
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
    case 'at':
      return [ir, ...partsOf(ir.place), ...partsOf(ir.a)];
    case 'literal':
    case 'key':
      return [ir];
  }
}

/** The same expression with every part of it said to stand elsewhere in the source. */
export function withSpans(ir: Ir, change: (at: Span) => Span): Ir {
  const inner = (part: Ir) => withSpans(part, change);
  const at = change(ir.at);
  switch (ir.op) {
    case 'call':
      return { ...ir, at, args: ir.args.map(inner) };
    case 'not':
    case 'negate':
      return { ...ir, at, a: inner(ir.a) };
    case 'arithmetic':
    case 'compare':
    case 'and':
    case 'or':
      return { ...ir, at, a: inner(ir.a), b: inner(ir.b) };
    case 'if':
      return { ...ir, at, test: inner(ir.test), a: inner(ir.a), b: inner(ir.b) };
    case 'at':
      return { ...ir, at, place: inner(ir.place), a: inner(ir.a) };
    case 'literal':
    case 'key':
      return { ...ir, at };
  }
}

/** Indices of the keys an expression reads, or asks the age of. */
export function keysIn(ir: Ir): number[] {
  return partsOf(ir).flatMap((part) => {
    // The candidate of an option is no key that a document declares.
    if (part.op === 'key') return part.key < 0 ? [] : [part.key];
    const [first] = part.op === 'call' && part.name === 'age(key)' ? part.args : [];
    return first?.op === 'literal' ? [first.value] : [];
  });
}
