import type { CallExpression, Expression as Node } from 'acorn';
import { dottedName } from './check-name.ts';
import type { Span } from './ir.ts';
import { parseExpression } from './parse.ts';

/** A name as it is written in an expression: `quarry`, `self.post`; functions are left out. */
export interface NameIn {
  name: string;
  at: Span;
}

/** Where a word stands: as an argument of a function, or compared with what one gives. */
interface Use {
  /** The name of the function, or of the plain value that it is compared with. */
  of: string;
  /** The number of the argument, from 0; null for a comparison. */
  argument: number | null;
  /** The name that is the first argument, where it is one. */
  first: string | null;
}

/** A name, or a text, which is spanned without its quotes. */
export interface WordIn extends NameIn {
  isText: boolean;
  use: Use | null;
}

function isNode(value: unknown): value is Node {
  return typeof value === 'object' && value !== null && 'type' in value && 'start' in value;
}

function firstName({ arguments: [first] }: CallExpression): string | null {
  return first && isNode(first) ? dottedName(first) : null;
}

/** How the words on the other side of a comparison with a node are used. */
function comparison(node: unknown): Use | null {
  if (!isNode(node)) return null;
  if (node.type === 'ParenthesizedExpression') return comparison(node.expression);
  const called = node.type === 'CallExpression' && isNode(node.callee) ? node : null;
  const of = dottedName((called?.callee ?? node) as Node);
  return of === null ? null : { of, argument: null, first: called && firstName(called) };
}

function usesOf(node: Node): readonly [part: unknown, use: Use | null][] {
  if (node.type === 'CallExpression') {
    const of = isNode(node.callee) ? dottedName(node.callee) : null;
    const first = firstName(node);
    return node.arguments.map((part, argument) => [
      part,
      of === null ? null : { of, argument, first },
    ]);
  }
  if (node.type === 'BinaryExpression')
    return [
      [node.left, comparison(node.right)],
      [node.right, comparison(node.left)],
    ];
  return Object.values(node)
    .flat()
    .map((part) => [part, null]);
}

function collect(node: Node, use: Use | null, found: WordIn[]): void {
  const name = dottedName(node);
  if (name !== null) {
    found.push({ name, at: [node.start, node.end], isText: false, use });
  } else if (node.type === 'Literal' && typeof node.value === 'string') {
    found.push({ name: node.value, at: [node.start + 1, node.end - 1], isText: true, use });
  } else {
    for (const [part, inner] of usesOf(node)) if (isNode(part)) collect(part, inner, found);
  }
}

/** The names and texts of an expression, from left to right; none where it can’t be read. */
function wordsIn(source: string): WordIn[] {
  const parsed = parseExpression(source);
  if (!parsed.ok) return [];
  const found: WordIn[] = [];
  collect(parsed.node, null, found);
  return found.sort((a, b) => a.at[0] - b.at[0]);
}

/** The names an expression uses, from left to right; none where it can’t be read. */
export function namesIn(source: string): NameIn[] {
  return wordsIn(source).flatMap(({ name, at, isText }) => (isText ? [] : { name, at }));
}

/** The expression with names and texts replaced; those for which `replacement` gives null stay. */
export function replaceWords(source: string, replacement: (word: WordIn) => string | null): string {
  let text = source;
  for (const word of wordsIn(source).reverse()) {
    const next = replacement(word);
    if (next !== null) text = text.slice(0, word.at[0]) + next + text.slice(word.at[1]);
  }
  return text;
}

/** The expression with names replaced; those for which `replacement` gives null stay. */
export function replaceNames(source: string, replacement: (name: string) => string | null): string {
  return replaceWords(source, ({ name, isText }) => (isText ? null : replacement(name)));
}
