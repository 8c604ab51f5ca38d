import type { Findings } from '../compile/finding.ts';
import { matchesEvent } from '../mind/machine/select.ts';
import type { MachineProgram, MindProgram, TransitionProgram } from '../mind/program.ts';
import { implies, neverPart, truthOf, type Known } from '../expression/truth.ts';

/** States nothing enters or leaves, and transitions that never fire. */

/** States some chain of initial states and transitions leads to. */
function reachableStates({ states, transitions, initial }: MachineProgram): Set<number> {
  const reached = new Set<number>();
  // A list of what is still to be entered: chains of transitions may be longer than calls can be deep.
  const entered = [initial];
  for (let next = entered.pop(); next !== undefined; next = entered.pop()) {
    for (let s = next; s >= 0 && !reached.has(s); s = states[s].parent) {
      reached.add(s);
      const { kind, children, initial: first, transitions: own, parent } = states[s];
      if (kind === 'parallel') entered.push(...children);
      if (first >= 0) entered.push(first);
      if ((kind === 'history' || kind === 'deepHistory') && first < 0 && parent >= 0)
        entered.push(states[parent].initial);
      for (const leave of own) entered.push(transitions[leave].target);
    }
  }
  return reached;
}

/** Whether a state itself has a transition to a state. */
function leads({ states, transitions }: MachineProgram, state: number): boolean {
  return states[state].transitions.some((leave) => transitions[leave].target >= 0);
}

/** By state: whether it, or one inside it, has a transition to a state. */
function leadingStates(machine: MachineProgram): boolean[] {
  const { states } = machine;
  const leading = states.map((_, state) => leads(machine, state));
  // Children stand behind their parents.
  for (let s = states.length - 1; s >= 0; s--)
    if (leading[s] && states[s].parent >= 0) leading[states[s].parent] = true;
  return leading;
}

/** Whether the state, one around it, or one in a region beside it has a transition to elsewhere. */
function hasWayOut(machine: MachineProgram, leading: readonly boolean[], state: number): boolean {
  const { states } = machine;
  for (let s = state; s >= 0; s = states[s].parent) {
    if (leads(machine, s)) return true;
    if (states[s].kind === 'parallel' && leading[s]) return true;
  }
  return false;
}

/** Whether `later`, further down in the same state, fires only when `earlier` does, which comes first. */
function shadows(earlier: TransitionProgram, later: TransitionProgram, known: Known): boolean {
  if (later.urgent && !earlier.urgent) return false;
  // Waiting events are taken before anything without one, so only like shadows like.
  if ((earlier.on === '') !== (later.on === '')) return false;
  if (earlier.on !== '' && !matchesEvent(earlier.on.split('.'), later.on)) return false;
  if (earlier.afterTicks > later.afterTicks || earlier.forTicks > later.forTicks) return false;
  const always = earlier.when === null || truthOf(earlier.when.ir, known) === 'always';
  return always || implies(later.when?.ir ?? null, earlier.when!.ir);
}

/** What makes one transition never fire; null where nothing does. */
function whyNever(
  index: number,
  transitions: readonly TransitionProgram[],
  heard: (event: string) => boolean,
  known: Known,
): string | null {
  const leave = transitions[index];
  if (leave.on !== '' && !heard(leave.on))
    return `nothing raises “${leave.on}”. Raise it, or take another event`;
  const never = leave.when && neverPart(leave.when.ir, known);
  if (never) {
    const part = leave.when!.source.slice(...never.at);
    return `“${part}” can never hold. Look at its numbers`;
  }
  const above = transitions.findIndex((other, i) => i < index && shadows(other, leave, known));
  if (above < 0) return null;
  return `number ${above + 1} above it does whenever this one would. Put this one first, or remove it`;
}

export function checkMachine(
  mind: MindProgram,
  paths: ReadonlyMap<string, string>,
  heard: (event: string) => boolean,
  known: Known,
  findings: Findings,
): void {
  const { machine } = mind;
  const reached = reachableStates(machine);
  const leading = leadingStates(machine);
  machine.states.forEach((state, index) => {
    const path = paths.get(state.id);
    if (path === undefined) return;
    if (!reached.has(index)) {
      findings.warning(
        'unreachable',
        path,
        `“${state.title}” is never entered: no transition leads to it. Add one, or remove the state.`,
        {
          title: `Remove ${state.title}`,
          command: { command: 'removeState', mind: mind.name, state: state.id },
        },
      );
    } else if (
      state.kind === 'atomic' &&
      machine.states.length > 1 &&
      // Nothing has to lead out of where the run ends.
      !state.entry.some(({ action }) => action === 'end') &&
      !hasWayOut(machine, leading, index)
    ) {
      findings.warning(
        'noWayOut',
        path,
        `“${state.title}” is never left: it has no transition to another state, nor has any state around it.`,
      );
    }
    const transitions = state.transitions.map((leave) => machine.transitions[leave]);
    transitions.forEach((_, i) => {
      const why = whyNever(i, transitions, heard, known);
      if (why === null) return;
      findings.warning(
        'neverFires',
        `${path}.transitions[${i}]`,
        `This transition never fires: ${why}.`,
        {
          title: `Remove transition ${i + 1} of ${state.title}`,
          command: { command: 'removeTransition', mind: mind.name, state: state.id, index: i },
        },
      );
    });
  });
}
