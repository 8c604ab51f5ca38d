import { readList } from './cells.ts';
import { isAncestor, isHistory, type RunnableMachine, type RunnableState } from './runnable.ts';

/** Which states entering a target enters. Source: W3C SCXML, `addDescendantStatesToEnter` and `addAncestorStatesToEnter`. */

interface Machine {
  machine: RunnableMachine;
  cells: Float64Array;
}

export function addDescendants(stepping: Machine, index: number, entering: Set<number>): void {
  const { machine, cells } = stepping;
  const target = machine.states[index];
  if (isHistory(target.kind)) {
    const at = target.historyAt;
    const goals = cells[at] >= 0 ? readList(cells, at) : defaultOf(machine, target);
    for (const goal of goals) addDescendants(stepping, goal, entering);
    for (const goal of goals) addAncestors(stepping, goal, target.parent, entering);
    return;
  }
  entering.add(index);
  if (target.kind === 'compound') {
    addDescendants(stepping, target.initial, entering);
    addAncestors(stepping, target.initial, index, entering);
  } else if (target.kind === 'parallel') {
    addRegions(stepping, index, entering);
  }
}

/** What a history that remembers nothing leads to: what it says, else where its parent begins; in a parallel, all regions. */
function defaultOf({ states }: RunnableMachine, history: RunnableState): readonly number[] {
  if (history.initial >= 0) return [history.initial];
  const parent = states[history.parent];
  return parent.kind === 'parallel' ? parent.children : [parent.initial];
}

function addRegions(stepping: Machine, index: number, entering: Set<number>): void {
  for (const child of stepping.machine.states[index].children) {
    const begun = [...entering].some(
      (s) => s === child || isAncestor(stepping.machine.states, child, s),
    );
    if (!begun) addDescendants(stepping, child, entering);
  }
}

export function addAncestors(
  stepping: Machine,
  index: number,
  below: number,
  entering: Set<number>,
): void {
  const { states } = stepping.machine;
  for (let s = states[index].parent; s !== below && s >= 0; s = states[s].parent) {
    entering.add(s);
    if (states[s].kind === 'parallel') addRegions(stepping, s, entering);
  }
}

/** All states that entering these targets from outside the machine enters, in document order. */
export function entrySet(
  machine: RunnableMachine,
  cells: Float64Array,
  targets: readonly number[],
): number[] {
  const entering = new Set<number>();
  for (const target of targets) addDescendants({ machine, cells }, target, entering);
  for (const target of targets) addAncestors({ machine, cells }, target, -1, entering);
  return inDocumentOrder(entering);
}

const ascending = (a: number, b: number) => a - b;

export function inDocumentOrder(states: Iterable<number>): number[] {
  return [...states].sort(ascending);
}
