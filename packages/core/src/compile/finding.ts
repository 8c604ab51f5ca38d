import type { FindingCode } from './finding-kinds.ts';
import type { DocumentCommand } from '../editing/commands/commands.ts';
import type { Span } from '../expression/ir.ts';
import type { ExpressionFault } from '../expression/parse.ts';

/** Something wrong, or worth a look, in a document: what, where, and what to do. */
export interface Finding {
  code: FindingCode;
  /** An error keeps the document from running. */
  severity: 'error' | 'warning';
  /** Such as `minds.warden.machine.states[0].transitions[1].when`. */
  path: string;
  message: string;
  /** The part of the expression at `path` that is meant. */
  at?: Span;
  /** The name in an expression that nothing has, where that is the error. */
  unknown?: string;
  /** A change that is safe and puts it right. */
  remedy?: Remedy;
}

/** One step that puts a finding right, and what to call it. */
export interface Remedy {
  title: string;
  command: DocumentCommand;
}

export interface Findings {
  list: Finding[];
  error(code: FindingCode, path: string, message: string, at?: Span, remedy?: Remedy): void;
  warning(code: FindingCode, path: string, message: string, remedy?: Remedy): void;
  /** An error in the expression at `path`. */
  fault(path: string, fault: ExpressionFault): void;
}

/** Gathers findings; the same one is kept once, since a part that is used twice is checked twice. */
export function collectFindings(): Findings {
  const list: Finding[] = [];
  const known = new Set<string>();
  const put = (finding: Finding) => {
    const key = `${finding.code} ${finding.path} ${finding.message}`;
    if (known.has(key)) return;
    known.add(key);
    list.push(finding);
  };
  return {
    list,
    error: (code, path, message, at, remedy) =>
      put({
        code,
        severity: 'error',
        path,
        message,
        ...(at ? { at } : {}),
        ...(remedy ? { remedy } : {}),
      }),
    fault: (path, fault) => put({ code: 'expression', severity: 'error', path, ...fault }),
    warning: (code, path, message, remedy) =>
      put({ code, severity: 'warning', path, message, ...(remedy ? { remedy } : {}) }),
  };
}

export function hasErrors(findings: readonly Finding[]): boolean {
  return findings.some((finding) => finding.severity === 'error');
}
