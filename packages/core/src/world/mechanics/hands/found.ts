import { FOUND } from '../../../terms/senses.ts';
import type { Percept } from '../../../senses/percept.ts';
import { coneGainAt, type Looker, type SightKind } from '../../../senses/sight.ts';
import type { AgentState } from '../../state/agent-state.ts';
import { lightAt } from '../../state/light.ts';
import { GATE_OPEN } from '../../program/program.ts';
import type { Surroundings } from '../../state/surroundings.ts';

/**
 * Things that are not as they should be, each noticed once by every squad: a body on the ground, a
 * thing out of its place, a gate that stands open, a thing in flight, which leads to its thrower.
 */

/** Metres from its place before a thing counts as moved. */
const OUT_OF_PLACE = 1;
/** What is seen of it (gain × light) must be this much. */
const NOTICEABLE = 0.2;

/** Something that can be found in this tick. */
export interface Findable {
  /** Its place in what each squad has found: bodies, things, gates, flights, in this order. */
  item: number;
  what: number;
  of: number;
  thing: number;
  /** Where it is. */
  x: number;
  y: number;
  z: number;
  /** Where the percept leads to. */
  fromX: number;
  fromY: number;
  /** The agent that moved it; −1 where unknown. */
  mover: number;
}

export function findables(world: Surroundings): Findable[] {
  const { statics, agents, things, gates } = world;
  const { ground } = statics.program;
  const { words } = statics;
  const list: Findable[] = [];
  for (const agent of agents) {
    // Where it is costs a look at its body, and few lie about.
    if (!agent.asleep) continue;
    const { index, x, y } = agent;
    const what = words.body;
    list.push({
      item: index,
      what,
      of: index,
      thing: -1,
      x,
      y,
      z: 0.2,
      fromX: x,
      fromY: y,
      mover: -1,
    });
  }
  things.forEach(({ x, y, z, fromX, fromY, carrier, mover, flight }, thing) => {
    const item = agents.length + thing;
    if (flight > 0) {
      const flown = item + things.length + gates.length;
      list.push({ item: flown, what: words.flight, of: -1, thing, x, y, z, fromX, fromY, mover });
      return;
    }
    const home = ground.things[thing];
    const moved = Math.abs(x - home.x) > OUT_OF_PLACE || Math.abs(y - home.y) > OUT_OF_PLACE;
    if (carrier >= 0 || !moved) return;
    list.push({ item, what: words.thing, of: -1, thing, x, y, z: 0.2, fromX: x, fromY: y, mover });
  });
  gates.forEach((status, gate) => {
    if (status !== GATE_OPEN || statics.startingGates[gate] === GATE_OPEN) return;
    const box = ground.gates[gate];
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    const item = agents.length + things.length + gate;
    list.push({
      item,
      what: words.gate,
      of: -1,
      thing: -1,
      x,
      y,
      z: 1,
      fromX: x,
      fromY: y,
      mover: -1,
    });
  });
  return list;
}

/** A thing that was picked up can be found again. */
export function forgetThing({ found, agents, things, gates }: Surroundings, thing: number): void {
  const item = agents.length + thing;
  for (const items of found) {
    items[item] = 0;
    items[item + things.length + gates.length] = 0;
  }
}

const height = [0];

/** What one agent comes to find in this tick is added to `percepts`. */
export function find(
  world: Surroundings,
  agent: AgentState,
  kind: SightKind,
  looker: Looker,
  list: readonly Findable[],
  percepts: Percept[],
): void {
  const found = world.found[agent.finder];
  for (const findable of list) {
    const { item, x, y } = findable;
    if (found[item] === 1) continue;
    const dx = x - looker.x;
    const dy = y - looker.y;
    const distance = Math.sqrt(dx * dx + dy * dy);
    if (distance >= kind.reach) continue;
    const { what, of, thing, z, fromX, fromY, mover } = findable;
    if (of === agent.index || mover === agent.index) continue;
    if (mover >= 0 && agent.isFriendly(mover)) continue;
    if (of >= 0 && agent.self.isHostile(of)) continue;
    const gain = coneGainAt(kind, looker, dx, dy, distance);
    if (gain < NOTICEABLE) continue;
    height[0] = z;
    if (world.ground.clearPoints(looker.x, looker.y, looker.eye, x, y, height) === 0) continue;
    const strength = Math.min(1, gain * lightAt(world, x, y));
    if (strength < NOTICEABLE) continue;
    found[item] = 1;
    const { tick } = agent;
    percepts.push({ sense: FOUND, what, of, thing, x: fromX, y: fromY, strength, tick });
  }
}
