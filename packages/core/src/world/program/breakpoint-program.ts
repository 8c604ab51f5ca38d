import type { CheckedExpression } from '../../expression/ir.ts';
import type { BreakpointDocument } from '../../model/documents/run.ts';

/** A breakpoint made ready for a program; it is no part of that, since it changes nothing of what runs. */
export interface BreakpointProgram {
  name: string;
  document: BreakpointDocument;
  /** Names of those it is about; null for every agent. */
  agents: ReadonlySet<string> | null;
  /** For a condition: how each mind that can read it reads it, by the mind’s name. */
  conditions: ReadonlyMap<string, CheckedExpression>;
}
