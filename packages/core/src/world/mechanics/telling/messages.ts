import { TOLD } from '../../../terms/senses.ts';
import type { Percept } from '../../../senses/percept.ts';
import type { AgentState } from '../../state/agent-state.ts';
import type { Surroundings } from '../../state/surroundings.ts';

/** What squad members tell each other: within the squad's reach, after its delay. */

/** Whether what one member says or writes reaches the other now. */
export function isInReach(from: AgentState, to: AgentState): boolean {
  const { squad } = from.placed;
  if (squad < 0 || squad !== to.placed.squad) return false;
  const { reach } = from.program.squads[squad];
  if (reach < 0) return true;
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  return dx * dx + dy * dy <= reach * reach;
}

/** Sends word to all members in reach now. */
export function tell(
  world: Surroundings,
  by: AgentState,
  what: number,
  x: number,
  y: number,
  of: number,
): void {
  const { squad } = by.placed;
  if (squad < 0) return;
  const { delayTicks } = by.program.squads[squad];
  for (const to of by.mates()) {
    if (to.asleep || to.away || !isInReach(by, to)) continue;
    const due = by.tick + Math.max(1, delayTicks);
    world.messages.push({ to: to.index, by: by.index, what, of, x, y, due });
  }
}

/** Its friends in reach get word of who calls, and from where, in this very tick. */
export function call(world: Surroundings, by: AgentState): void {
  const { x, y, index } = by;
  const { words } = world.statics;
  for (const to of world.agents) {
    if (to === by || to.asleep || to.away || !by.isFriendly(to.index)) continue;
    if (!(by.awayFrom(to.x, to.y) <= by.archetype.callReach)) continue;
    world.messages.push({
      to: to.index,
      by: index,
      what: words.call,
      of: index,
      x,
      y,
      due: by.tick,
    });
  }
}

/** The words that arrive in this tick, by who they are for. */
export function dueMessages(world: Surroundings, tick: number): Map<number, Percept[]> {
  const due = new Map<number, Percept[]>();
  if (world.messages.length === 0) return due;
  for (const { to, what, of, x, y, due: at } of world.messages) {
    if (at > tick) continue;
    const percept = { sense: TOLD, what, of, thing: -1, x, y, strength: 1, tick };
    due.set(to, [...(due.get(to) ?? []), percept]);
  }
  world.messages = world.messages.filter((message) => message.due > tick);
  return due;
}
