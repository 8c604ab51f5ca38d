import type { BandSetDocument, UnitName } from '../model/documents.ts';
import type { GroundView } from '../terms/views.ts';
import type { CalledPart } from '../model/names/named-parts.ts';
import type { Unit } from './units.ts';
import type { CheckedExpression, KeyScope, ValueType } from './ir.ts';

export interface ScopeKey {
  index: number;
  scope: KeyScope;
  slot: number;
  type: ValueType;
  unit?: UnitName;
}

/** A parameter's type, and its value where the tree is called. */
export interface Bound {
  type: ValueType;
  unit: Unit;
  expression: CheckedExpression | null;
}

/** Something on the ground that can be named, as its index among those of its kind. */
export interface GroundName {
  type: 'route' | 'gate' | 'thing' | 'zone';
  index: number;
}

/** The names that texts can stand for: scores, waves, and the agents of archetypes, factions, squads and waves. */
export type NamesInTexts = Readonly<Record<'group' | 'score' | 'wave', ReadonlySet<string>>>;

/** The names an expression may use besides the built-ins. */
export interface Scope {
  keys: ReadonlyMap<string, ScopeKey>;
  /** Parameters of the tree, and what the call binds them to; null where that was wrong and has been said. */
  parameters?: ReadonlyMap<string, Bound>;
  /** What is on the ground, by name: routes, gates, things and zones. */
  onGround: ReadonlyMap<string, GroundName>;
  /** Names for parts of numbers, of the whole project. */
  bands?: Readonly<Record<string, BandSetDocument>>;
  /** What texts can name. */
  inTexts?: Partial<Record<CalledPart, ReadonlySet<string>>>;
  /** How the ground is seen that it is asked on. */
  view: GroundView;
  /** It is asked by the mind of a director. */
  isDirector?: boolean;
  /** Index of a text; texts are kept once for the whole program. */
  internText(text: string): number;
}
