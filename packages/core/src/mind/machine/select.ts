import { isAncestor, type RunnableMachine, type RunnableTransition } from './runnable.ts';
import type { Host } from '../host.ts';
import type { Done, Stepping } from './stepping.ts';

/** Which transitions a decision takes. */

/** Whether event `name` has the descriptor's words at its head, word by word. */
export function matchesEvent(descriptor: string[], name: string): boolean {
  const words = name.split('.');
  return descriptor.length <= words.length && descriptor.every((word, i) => word === words[i]);
}

function holds(machine: RunnableMachine, host: Host, transition: RunnableTransition): boolean {
  const { memory, tick } = host;
  if (
    transition.afterTicks > 0 &&
    tick - memory[machine.states[transition.source].enteredAt] < transition.afterTicks
  )
    return false;
  if (transition.when === null) return true;
  if (transition.forTicks > 0) {
    const since = memory[transition.heldAt];
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
  const { machine, host } = stepping;
  if (event === null) return holds(machine, host, transition);
  if (transition.on === null || !matchesEvent(transition.on, event)) return false;
  if (transition.ownDone && done !== null && done.state !== transition.source) return false;
  return holds(machine, host, transition);
}

/**
 * Notes since when the guards with a `for` time have held, and says whether any eventless transition
 * fires. One pass does for both: what a state may fire rests on held guards of its own and of the states
 * around it, which stand before it.
 */
export function stirs(machine: RunnableMachine, host: Host): boolean {
  const { memory } = host;
  const { active, leaf, dozing } = machine.cells;
  if (memory[leaf] >= 0) {
    const { heldAlong, eventless, dozes, index } = machine.states[memory[leaf]];
    if (dozes) {
      if (host.known.aware) memory[dozing] = 0;
      else if (memory[dozing] === index + 1) return false;
      else memory[dozing] = index + 1;
    }
    lookAt(host, heldAlong);
    return someHolds(machine, host, eventless);
  }
  const last = active + memory[active];
  let stirred = false;
  for (let at = active + 1; at <= last; at++) {
    const { held, eventless } = machine.states[memory[at]];
    lookAt(host, held);
    stirred ||= someHolds(machine, host, eventless);
  }
  return stirred;
}

function lookAt(host: Host, held: readonly RunnableTransition[]): void {
  const { memory } = host;
  for (let j = 0; j < held.length; j++) {
    const { heldAt, when } = held[j];
    const since = memory[heldAt];
    if (when!(host) !== since >= 0) memory[heldAt] = since >= 0 ? -1 : host.tick;
  }
}

function someHolds(
  machine: RunnableMachine,
  host: Host,
  transitions: readonly RunnableTransition[],
): boolean {
  for (let j = 0; j < transitions.length; j++) {
    const transition = transitions[j];
    const { plain } = transition;
    if (plain !== null ? plain(host) : holds(machine, host, transition)) return true;
  }
  return false;
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

/**
 * Whether two transitions that are both possible leave a state in common. What a transition leaves is all that
 * is active inside its domain, its source among it; so they do where one domain lies in the other.
 */
function conflict(
  { states }: RunnableMachine,
  a: RunnableTransition,
  b: RunnableTransition,
): boolean {
  if (a.target < 0 || b.target < 0) return false;
  if (a.domain === b.domain) return true;
  return (
    (b.domain >= 0 && isAncestor(states, a.domain, b.domain)) ||
    (a.domain >= 0 && isAncestor(states, b.domain, a.domain))
  );
}

/** Of two transitions that would leave the same state, the one from further inside wins, else the earlier. */
function removeConflicting({ machine }: Stepping, chosen: Chosen[]): RunnableTransition[] {
  const rank = ({ transition, leaf }: Chosen) => (transition.urgent ? leaf : transition.source);
  let kept: Chosen[] = [];
  for (const entry of chosen) {
    const rivals = kept.filter((other) => conflict(machine, entry.transition, other.transition));
    if (rivals.some((other) => !isAncestor(machine.states, rank(other), rank(entry)))) continue;
    if (rivals.length > 0) kept = kept.filter((other) => !rivals.includes(other));
    kept.push(entry);
  }
  return kept.map((entry) => entry.transition);
}
