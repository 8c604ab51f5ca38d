import { parseExpressionAt, type Expression as Node } from 'acorn';
import type { Span } from './ir.ts';

/** A mistake in an expression: what, and where in the source. */
export interface ExpressionFault {
  message: string;
  at: Span;
  /** The name that nothing has, where that is the fault. */
  unknown?: string;
}

export type ParseResult = { ok: true; node: Node } | { ok: false; fault: ExpressionFault };

/** Words people write for signs. */
const SIGNS: Readonly<Record<string, string>> = { and: '&&', or: '||', not: '!' };

/** What people are used to write elsewhere, at the place where reading stopped or right before it. */
function habit(source: string, offset: number): ExpressionFault | null {
  const [done, rest] = [source.slice(0, offset), source.slice(offset)];
  const negation = /\bnot\s*$/.exec(done);
  const word = negation ? 'not' : /^(and|or|not)\b/.exec(rest)?.[1];
  if (word !== undefined) {
    const from = negation?.index ?? offset;
    return {
      message: `“${word}” is written “${SIGNS[word]}” in an expression.`,
      at: [from, from + word.length],
    };
  }
  const unit = /^(m|s|°)(?![\w.])/.exec(rest)?.[1];
  if (unit === undefined || !/(^|[^\w.])\d[\d.]*\s*$/.test(done)) return null;
  return {
    message: `Write the number without “${unit}”: its unit follows from what it is used with.`,
    at: [offset, offset + unit.length],
  };
}

function plainReason(reason: string, source: string, offset: number): string {
  if (offset >= source.trimEnd().length)
    return 'The expression stops too early: something is missing at its end.';
  if (/Unterminated string/.test(reason)) return 'The text has no closing quote.';
  if (/Unexpected token/.test(reason)) return `“${source[offset]}” can’t stand here.`;
  return `${reason}.`;
}

/** Expressions read before: with each edit all of a document are checked, and nearly all are as they were. */
const known = new Map<string, ParseResult>();
const MOST_KNOWN = 4096;

/** Parses ECMAScript expression syntax; which parts of it an expression may use is the checker's word. */
export function parseExpression(source: string): ParseResult {
  let result = known.get(source);
  if (result) return result;
  if (known.size >= MOST_KNOWN) known.clear();
  result = parse(source);
  known.set(source, result);
  return result;
}

function parse(source: string): ParseResult {
  if (source.trim() === '') {
    return {
      ok: false,
      fault: { message: 'An expression is missing here.', at: [0, source.length] },
    };
  }
  try {
    const node = parseExpressionAt(source, 0, { ecmaVersion: 2022, preserveParens: true });
    const rest = source.slice(node.end);
    if (rest.trim() !== '') {
      const from = node.end + rest.length - rest.trimStart().length;
      return {
        ok: false,
        fault: habit(source, from) ?? {
          message: `“${rest.trim()}” is left over: the expression ends before it.`,
          at: [from, source.trimEnd().length],
        },
      };
    }
    return { ok: true, node };
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    const offset = Math.min((error as SyntaxError & { pos: number }).pos, source.length);
    const reason = error.message.replace(/ \(\d+:\d+\)$/, '');
    return {
      ok: false,
      fault: habit(source, offset) ?? {
        message: plainReason(reason, source, offset),
        at: [offset, Math.min(offset + 1, source.length)],
      },
    };
  }
}
