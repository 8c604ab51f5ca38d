import type { RunnableMachine } from './runnable.ts';

/** The list of active states among the cells, kept in document order. */

export function addActive(memory: Float64Array, active: number, state: number): void {
  const count = ++memory[active];
  let at = active + count;
  while (at > active + 1 && memory[at - 1] > state) {
    memory[at] = memory[at - 1];
    at--;
  }
  memory[at] = state;
}

/** Takes out the state whose cell is `at`. */
export function removeActive(memory: Float64Array, active: number, at: number): void {
  const last = active + memory[active]--;
  for (let i = at; i < last; i++) memory[i] = memory[i + 1];
  memory[last] = 0;
}

/** Notes which state without children is active, where there is only one. */
export function noteLeaf(machine: RunnableMachine, memory: Float64Array): void {
  const { active, leaf } = machine.cells;
  let found = -1;
  for (let i = 1; i <= memory[active]; i++) {
    const state = memory[active + i];
    if (machine.states[state].children.length > 0) continue;
    if (found >= 0) {
      memory[leaf] = -1;
      return;
    }
    found = state;
  }
  memory[leaf] = found;
}
