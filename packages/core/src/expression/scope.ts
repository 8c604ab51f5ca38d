import type { UnitName } from '../model/documents.ts';
import type { ValueType } from './ir.ts';

export interface ScopeKey {
  index: number;
  slot: number;
  type: ValueType;
  unit?: UnitName;
}

/** The names an expression may use besides the built-ins. */
export interface Scope {
  keys: ReadonlyMap<string, ScopeKey>;
  /** Routes of the ground by name, with their index. */
  routes: ReadonlyMap<string, number>;
  /** Index of a text; texts are kept once for the whole program. */
  internText(text: string): number;
}
