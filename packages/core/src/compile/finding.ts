import type { Span } from '../expression/ir.ts';

/** Something wrong, or worth a look, in a document: what, where, and what to do. */
export interface Finding {
  code: FindingCode;
  /** An error keeps the document from running. */
  severity: 'error' | 'warning';
  /** Such as `minds.warden.machine.states[0].leaves[1].when`. */
  path: string;
  message: string;
  /** The part of the expression at `path` that is meant. */
  at?: Span;
}

export type FindingCode =
  | 'form'
  | 'expression'
  | 'unknownName'
  | 'taken'
  | 'structure'
  | 'parameter'
  | 'place'
  | 'unreachable'
  | 'noWayOut'
  | 'neverFires'
  | 'neverWritten'
  | 'coupled';

export interface Findings {
  list: Finding[];
  error(code: FindingCode, path: string, message: string, at?: Span): void;
  warning(code: FindingCode, path: string, message: string): void;
}

export function collectFindings(): Findings {
  const list: Finding[] = [];
  return {
    list,
    error: (code, path, message, at) =>
      list.push({ code, severity: 'error', path, message, ...(at ? { at } : {}) }),
    warning: (code, path, message) => list.push({ code, severity: 'warning', path, message }),
  };
}

export function hasErrors(findings: readonly Finding[]): boolean {
  return findings.some((finding) => finding.severity === 'error');
}
