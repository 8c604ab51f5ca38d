import type { Expression as Node } from 'acorn';
import { dottedName } from './check-name.ts';
import type { Span } from './ir.ts';
import { parseExpression } from './parse.ts';

/** A name as it is written in an expression: `quarry`, `self.post`; functions are left out. */
export interface NameIn {
  name: string;
  at: Span;
}

function isNode(value: unknown): value is Node {
  return typeof value === 'object' && value !== null && 'type' in value && 'start' in value;
}

function collect(node: Node, found: NameIn[]): void {
  const name = dottedName(node);
  if (name !== null) {
    found.push({ name, at: [node.start, node.end] });
    return;
  }
  const skipped = node.type === 'CallExpression' ? node.callee : null;
  for (const part of Object.values(node) as unknown[])
    for (const inner of Array.isArray(part) ? (part as unknown[]) : [part])
      if (isNode(inner) && inner !== skipped) collect(inner, found);
}

/** The names an expression uses, from left to right; none where it can't be read. */
export function namesIn(source: string): NameIn[] {
  const parsed = parseExpression(source);
  if (!parsed.ok) return [];
  const found: NameIn[] = [];
  collect(parsed.node, found);
  return found.sort((a, b) => a.at[0] - b.at[0]);
}

/** The expression with names replaced; those for which `replacement` gives null stay. */
export function replaceNames(source: string, replacement: (name: string) => string | null): string {
  let text = source;
  for (const { name, at } of namesIn(source).reverse()) {
    const next = replacement(name);
    if (next !== null) text = text.slice(0, at[0]) + next + text.slice(at[1]);
  }
  return text;
}
