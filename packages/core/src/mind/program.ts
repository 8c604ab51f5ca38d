import type { ActionName, Channel } from '../model/actions.ts';
import type { CheckedExpression, ValueType } from '../expression/ir.ts';

/** A mind as the compiler gives it and the runtime takes it: plain data, names resolved to indices. */

export interface MindProgram {
  name: string;
  title: string;
  keys: KeyProgram[];
  /** Memory slots in all; a point takes two. */
  slots: number;
  machine: MachineProgram;
}

export interface KeyProgram {
  name: string;
  type: ValueType;
  slot: number;
  /** What the slot holds at the start and after forgetting; NaN or −1 for nothing. */
  initial: number;
  /** Ticks after the last write; 0 for never. */
  forgetAfter: number;
}

export type NodeKind = 'atomic' | 'compound' | 'parallel' | 'final' | 'history' | 'deepHistory';

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
  kind: NodeKind;
  /** −1 at the top. */
  parent: number;
  children: number[];
  /** The child entered by default; −1 where there is none. */
  initial: number;
  entry: ActionProgram[];
  exit: ActionProgram[];
  activity: ActionProgram | null;
  /** Indices into the machine's transitions, in order. */
  leaves: number[];
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
  forTicks: number;
  afterTicks: number;
  urgent: boolean;
  internal: boolean;
  actions: ActionProgram[];
}

/** An argument: a constant (an index, where it names something) or an expression. */
export type ArgumentProgram = number | string | CheckedExpression;

export interface ActionProgram {
  action: ActionName;
  channel: Channel | null;
  args: Record<string, ArgumentProgram>;
}
