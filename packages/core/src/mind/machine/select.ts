import { isAncestor, type RunnableMachine, type RunnableTransition } from './runnable.ts';
import { readList } from './cells.ts';
import type { Done, Stepping } from './stepping.ts';

/** Which transitions a decision takes. */

/** Whether event `name` has the descriptor's words at its head, word by word. */
export function matchesEvent(descriptor: string[], name: string): boolean {
  const words = name.split('.');
  return descriptor.length <= words.length && descriptor.every((word, i) => word === words[i]);
}

function holds({ machine, host }: Stepping, transition: RunnableTransition): boolean {
  const { memory, tick } = host;
  const { cells } = machine;
  if (
    transition.afterTicks > 0 &&
    tick - memory[cells.enteredAt + transition.source] < transition.afterTicks
  )
    return false;
  if (transition.when === null) return true;
  if (transition.forTicks > 0) {
    const since = memory[cells.trueSince + transition.index];
    return since >= 0 && tick - since >= transition.forTicks;
  }
  return transition.when(host);
}

function fires(
  stepping: Stepping,
  transition: RunnableTransition,
  event: string | null,
  done: Done | null,
): boolean {
  if (event === null) return holds(stepping, transition);
  if (transition.on === null || !matchesEvent(transition.on, event)) return false;
  if (transition.ownDone && done !== null && done.state !== transition.source) return false;
  return holds(stepping, transition);
}

/** Notes since when the guards with a `for` time have held. */
export function lookAtHeldGuards({ machine, host }: Stepping): void {
  const { memory } = host;
  const { active, trueSince } = machine.cells;
  const last = active + memory[active];
  for (let at = active + 1; at <= last; at++) {
    const { held } = machine.states[memory[at]];
    for (let j = 0; j < held.length; j++) {
      const { index, when } = held[j];
      if (!when!(host)) memory[trueSince + index] = -1;
      else if (memory[trueSince + index] < 0) memory[trueSince + index] = host.tick;
    }
  }
}

/** Whether the transition leaves the state, if that is active. */
export function inExitSet(
  machine: RunnableMachine,
  transition: RunnableTransition,
  state: number,
): boolean {
  return transition.target >= 0 && isAncestor(machine.states, transition.domain, state);
}

interface Chosen {
  transition: RunnableTransition;
  leaf: number;
}

const NONE: RunnableTransition[] = [];

/** The transitions that `event` (null for none) sets off, one for each region at most. */
export function selectTransitions(
  stepping: Stepping,
  event: string | null,
  done: Done | null,
): RunnableTransition[] {
  const { machine } = stepping;
  const { memory } = stepping.host;
  const { active } = machine.cells;
  const last = active + memory[active];
  let first: RunnableTransition | null = null;
  let firstLeaf = -1;
  let chosen: Chosen[] | null = null;
  for (let at = active + 1; at <= last; at++) {
    const leaf = memory[at];
    const { candidates, eventless } = machine.states[leaf];
    const tried = event === null ? eventless : candidates;
    for (let j = 0; j < tried.length; j++) {
      const transition = tried[j];
      if (!fires(stepping, transition, event, done)) continue;
      if (first === null) {
        first = transition;
        firstLeaf = leaf;
      } else {
        chosen ??= [{ transition: first, leaf: firstLeaf }];
        if (!chosen.some((other) => other.transition === transition))
          chosen.push({ transition, leaf });
      }
      break;
    }
  }
  if (first === null) return NONE;
  return chosen === null ? [first] : removeConflicting(stepping, chosen);
}

/** Of two transitions that would leave the same state, the one from further inside wins, else the earlier. */
function removeConflicting({ machine, host }: Stepping, chosen: Chosen[]): RunnableTransition[] {
  const active = readList(host.memory, machine.cells.active);
  const rank = ({ transition, leaf }: Chosen) => (transition.urgent ? leaf : transition.source);
  let kept: Chosen[] = [];
  for (const entry of chosen) {
    const rivals = kept.filter((other) =>
      active.some(
        (s) => inExitSet(machine, entry.transition, s) && inExitSet(machine, other.transition, s),
      ),
    );
    if (rivals.some((other) => !isAncestor(machine.states, rank(other), rank(entry)))) continue;
    kept = kept.filter((other) => !rivals.includes(other));
    kept.push(entry);
  }
  return kept.map((entry) => entry.transition);
}
