import type { FlagFunction, NumberFunction } from '../../expression/closures.ts';
import type { CheckedExpression } from '../../expression/ir.ts';
import type {
  ActionDocument,
  ChoiceCallDocument,
  NodeDocument,
  NodeForms,
  NumberOrExpression,
  RulesCallDocument,
  TreeCallDocument,
  UnitName,
} from '../../model/documents.ts';
import type { CellLayout } from '../cells.ts';
import type {
  ActionProgram,
  ChoiceProgram,
  NodeBodyProgram,
  NodeKind,
  NodeProgram,
  NumberProgram,
  RuleProgram,
} from '../program.ts';
import type { Grove } from './grove.ts';
import type { Behaviour, TreeNode } from './node.ts';

/**
 * All there is to know of one kind of node besides its words and fields, which stand in
 * `model/documents/node-kinds.ts`: how it is compiled, what runs, and what can be told of it before anything runs.
 */
export interface NodeKindOf<K extends NodeKind> {
  /** Null, with findings, where it can't run. */
  compile(document: NodeForms[K], compiling: Compiling): BodyOf<K> | null;
  make(program: BodyOf<K>, making: Making): Behaviour;
  /** The nodes directly below it, in order. */
  children(program: BodyOf<K>): readonly NodeProgram[];
  /** Which ends it can come to, its guard aside. */
  ends(program: BodyOf<K>, asking: Asking): Ends;
  /** Least seconds until it can succeed; Infinity where it can't. */
  leastSeconds(program: BodyOf<K>, asking: Asking): number;
  /** Whether it can itself run on past the decision it starts in; what its children do is asked of them. */
  runsOn(program: BodyOf<K>): boolean;
}

type BodyOf<K extends NodeKind> = Extract<NodeBodyProgram, { kind: K }>;

/** What compiling a node can ask for. Fields are named as in the document. */
interface Compiling {
  /** The node in the field that names the kind. */
  child(document: NodeDocument): NodeProgram;
  children(documents: readonly NodeDocument[]): NodeProgram[];
  number(value: NumberOrExpression, field: string, unit: UnitName | null): NumberProgram;
  flag(source: string, field: string): CheckedExpression | null;
  action(document: ActionDocument): ActionProgram | null;
  /** The root of the tree that is called. */
  called(document: TreeCallDocument): NodeProgram | null;
  rules(document: RulesCallDocument): RuleProgram[] | null;
  choice(document: ChoiceCallDocument): ChoiceProgram | null;
}

/** What making a node can ask for. */
export interface Making {
  layout: CellLayout;
  grove: Grove;
  row: number;
  /** By row: the cell of its last result. */
  cells: number[];
  below: (program: NodeProgram) => TreeNode;
  number: (program: NumberProgram) => NumberFunction;
  flag: (program: CheckedExpression) => FlagFunction;
}

/** Which ends a node can come to. */
export interface Ends {
  success: boolean;
  failure: boolean;
}

/** What telling of a node before it runs can ask for. */
export interface Asking {
  /** Of a node with its guard. */
  ends: (node: NodeProgram) => Ends;
  leastSeconds: (node: NodeProgram) => number;
  actionEnds: (action: ActionProgram) => Ends;
  truth: (test: CheckedExpression) => 'always' | 'never' | 'sometimes';
}
