import type { Channel } from '../terms/channels.ts';
import type { ActionName } from '../model/actions/actions.ts';
import type {
  Combination,
  CurveDocument,
  MemoryScope,
  NodeForms,
  Sense,
} from '../model/documents.ts';
import type { CheckedExpression, ValueType } from '../expression/ir.ts';

/** Minds as the compiler gives them and the runtime takes them: plain data, names resolved to indices. */

/** The minds that agents of an archetype have, one beside the other, and the memory they share. */
export interface StackProgram {
  minds: MindProgram[];
  /** Every key any of these minds declares, whatever its scope. */
  keys: KeyProgram[];
  /** Cells the keys of scope `self` take, from 0. */
  slots: number;
}

export interface MindProgram {
  name: string;
  title: string;
  cadence: CadenceProgram;
  machine: MachineProgram;
}

export type CadenceProgram =
  { kind: 'tick' } | { kind: 'interval'; ticks: number } | { kind: 'event' };

/** The keys of one scope that several agents share. */
export interface SharedKeysProgram {
  keys: KeyProgram[];
  slots: number;
}

export interface KeyProgram {
  name: string;
  type: ValueType;
  scope: MemoryScope;
  /** First cell of the value in its scope's array. */
  slot: number;
  /** The cell that holds the tick of the last write; −1 for never, or forgotten. */
  stamp: number;
  /** What the slot holds at the start and after forgetting; NaN or −1 for nothing. */
  initial: number;
  /** Ticks after the last write; 0 for never. */
  forgetAfter: number;
  /** Entries a list can hold; 0 for other types. */
  capacity: number;
  /** What is added to a number each tick; 0 for one that stays as it is written. */
  rate: number;
  /** Bounds of a number; infinite where there are none. */
  min: number;
  max: number;
}

export type StateKindProgram =
  'atomic' | 'compound' | 'parallel' | 'final' | 'history' | 'deepHistory';

export interface MachineProgram {
  /** In document order: a parent comes before its children. */
  states: StateProgram[];
  transitions: TransitionProgram[];
  /** The states entered first, as targets. */
  initial: number;
}

export interface StateProgram {
  id: string;
  title: string;
  kind: StateKindProgram;
  /** −1 at the top. */
  parent: number;
  children: number[];
  /** The child entered by default; −1 where there is none. */
  initial: number;
  entry: ActionProgram[];
  exit: ActionProgram[];
  activity: ActivityProgram | null;
  /** Indices into the machine's transitions, in order. */
  transitions: number[];
  /** Which sense wins the attention while it is active; null where it says nothing. */
  attention: Sense[] | null;
}

/** What a state does while it is active. */
export interface ActivityProgram {
  /** The action, tree or rules by name, as the ledger calls it. */
  name: string;
  root: NodeProgram;
  /** Starts again in the decision after its end: so it is for a mind that is one activity. */
  again: boolean;
}

export interface TransitionProgram {
  source: number;
  /** Place among the source's transitions, from 1, as the sheet counts them. */
  order: number;
  /** −1: no target, its actions run and nothing is left. */
  target: number;
  /** Event descriptor; empty for none. */
  on: string;
  when: CheckedExpression | null;
  /** Its guard can't hold while nothing is noticed. */
  needsNotice: boolean;
  forTicks: number;
  afterTicks: number;
  urgent: boolean;
  internal: boolean;
  actions: ActionProgram[];
}

/** One row of a tree as it runs; subtrees stand in place of their calls. */
export interface NodeProgram {
  /** Place in the activity's outline, from 0, top to bottom. */
  row: number;
  /** Where it is written: `trees.comb.root.sequence[0]`; empty for a plain action. */
  path: string;
  /** What people call it: its own title, else its kind and what it is about. */
  title: string;
  guard: CheckedExpression | null;
  holds: boolean;
  preempts: boolean;
  /** Its guard is a rule of conduct, which may not be heeded. */
  conduct: boolean;
  body: NodeBodyProgram;
}

/** What each kind of node is when compiled; the kinds are those of the document. */
export type NodeBodyProgram =
  | { kind: 'do'; action: ActionProgram }
  | { kind: 'condition'; test: CheckedExpression }
  | { kind: 'sequence'; restart: boolean; children: NodeProgram[] }
  | { kind: 'selector'; restart: boolean; children: NodeProgram[] }
  | { kind: 'parallel'; successes: number; failures: number; children: NodeProgram[] }
  | { kind: 'random'; weights: NumberProgram[]; children: NodeProgram[] }
  | { kind: 'invert'; child: NodeProgram }
  | { kind: 'succeed'; child: NodeProgram }
  | { kind: 'fail'; child: NodeProgram }
  /** `times` 0 for without end. */
  | { kind: 'repeat'; times: number; until: 'success' | 'failure' | null; child: NodeProgram }
  | { kind: 'limit'; times: number; child: NodeProgram }
  | { kind: 'cooldown'; seconds: NumberProgram; child: NodeProgram }
  | { kind: 'timeout'; seconds: NumberProgram; child: NodeProgram }
  | { kind: 'delay'; seconds: NumberProgram; child: NodeProgram }
  | { kind: 'chance'; probability: NumberProgram; child: NodeProgram }
  | { kind: 'tree'; child: NodeProgram }
  | { kind: 'rules'; rows: RuleProgram[] }
  | { kind: 'choice'; choice: ChoiceProgram };

export type NodeKind = keyof NodeForms;

/** A row of rules; its actions have rows of their own in the outline. */
export interface RuleProgram {
  row: number;
  path: string;
  title: string;
  /** Null for an `else`, which fires when the rule before it does not. */
  when: CheckedExpression | null;
  edge: boolean;
  conduct: boolean;
  actions: NodeProgram[];
  /** Tested only when this one fires. */
  rows: RuleProgram[];
  otherwise: RuleProgram | null;
}

/** A choice of a mind as it runs. */
export interface ChoiceProgram {
  name: string;
  title: string;
  combine: Combination;
  /** Drawn by score among those within `margin` of the best; else the best. */
  weighted: boolean;
  margin: number;
  /** 0: each decision. */
  everyTicks: number;
  commitment: number;
  minDurationTicks: number;
  minScore: number;
  once: boolean;
  options: OptionProgram[];
}

export interface OptionProgram {
  id: string;
  title: string;
  /** Where it is written: `minds.keeper.choices.whatNow.options[0]`. */
  path: string;
  guard: CheckedExpression | null;
  conduct: boolean;
  rank: number;
  weight: NumberProgram;
  cost: NumberProgram;
  cooldownTicks: number;
  each: EachProgram | null;
  considerations: ConsiderationProgram[];
  grades: GradeProgram[];
  /** What it does. */
  node: NodeProgram;
}

/** What an option is weighed for; each in turn, and then the one that was picked, stands in the key’s cells. */
export interface EachProgram {
  name: string;
  /** The key, which no document declares. */
  key: KeyProgram;
  of:
    | { kind: 'agents'; stance: number }
    /** Indices of things. */
    | { kind: 'things'; things: number[] }
    | { kind: 'list'; scope: MemoryScope; slot: number }
    /** x, y pairs around the middle. */
    | { kind: 'places'; offsets: number[]; around: CheckedExpression };
}

export interface ConsiderationProgram {
  title: string;
  /** Place among the option’s considerations in the document. */
  index: number;
  input: CheckedExpression;
  from: number;
  to: number;
  curve: CurveDocument;
  importance: number;
  veto: boolean;
}

export interface GradeProgram {
  /** What must hold, each 0 to 1. */
  memberships: CheckedExpression[];
  strength: number;
}

export type NumberProgram = number | CheckedExpression;

/** An argument: a constant (an index, where it names something) or an expression. */
export type ArgumentProgram = number | string | CheckedExpression;

export interface ActionProgram {
  action: ActionName;
  channel: Channel | null;
  lasts: boolean;
  /** No decision is made while it runs. */
  uninterrupted: boolean;
  args: Record<string, ArgumentProgram>;
}
