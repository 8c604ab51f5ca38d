import { because, type Reason } from '../../../terms/reasons.ts';
import { distance } from '../../../numeric/distance.ts';
import type { AgentState } from '../../state/agent-state.ts';
import { forgetThing } from './found.ts';
import { distanceToGate, useGate, whyGateStays } from './gates.ts';
import type { Surroundings, Thing } from '../../state/surroundings.ts';
import { tellDirector } from '../telling/telling.ts';
import { HAND_HEIGHT, isFlying, land } from './things.ts';

/**
 * What hands do: picking up, dropping, throwing, opening, waking. The first of each pair gives why it
 * can't be, or an empty text; the other does it, or gives the same.
 */

/** How near something must be, from the edge of the body. */
export const HAND_REACH = 0.8;
/** Metres a throw goes at most, and metres a second it flies. */
export const THROW_RANGE = 9;
const THROW_SPEED = 10;

export function whyNotPickUp(world: Surroundings, agent: AgentState, index: number): Reason | null {
  const thing = world.things[index];
  if (!thing) return because('thingUnknown');
  if (agent.carried >= 0) return because('handsFull');
  if (thing.carrier >= 0) return because('alreadyCarried');
  if (isFlying(thing)) return because('inTheAir');
  return agent.awayFrom(thing.x, thing.y) > HAND_REACH ? because('outOfReach') : null;
}

export function pickUp(world: Surroundings, agent: AgentState, index: number): Reason | null {
  const trouble = whyNotPickUp(world, agent, index);
  if (trouble) return trouble;
  world.things[index].carrier = agent.index;
  agent.carried = index;
  agent.settlePace();
  forgetThing(world, index);
  tellDirector(world, `taken.${world.statics.program.ground.things[index].kind}`);
  return null;
}

/** The lying thing nearest to the hands; −1 where none is in reach. */
export function thingInReach(world: Surroundings, agent: AgentState): number {
  let best = -1;
  let bestAway = HAND_REACH;
  world.things.forEach((thing, index) => {
    if (thing.carrier >= 0 || isFlying(thing)) return;
    const away = agent.awayFrom(thing.x, thing.y);
    if (away > bestAway || (away === bestAway && best >= 0)) return;
    best = index;
    bestAway = away;
  });
  return best;
}

export function whyNotRelease(agent: AgentState): Reason | null {
  return agent.carried < 0 ? because('handsEmpty') : null;
}

function release(agent: AgentState, world: Surroundings): Thing {
  const thing = world.things[agent.carried];
  agent.carried = -1;
  agent.settlePace();
  thing.carrier = -1;
  thing.mover = agent.index;
  thing.x = agent.x;
  thing.y = agent.y;
  thing.fromX = agent.x;
  thing.fromY = agent.y;
  return thing;
}

export function drop(world: Surroundings, agent: AgentState): Reason | null {
  const trouble = whyNotRelease(agent);
  if (trouble) return trouble;
  const index = agent.carried;
  release(agent, world);
  land(world, index, 0.25);
  return null;
}

export function throwAt(
  world: Surroundings,
  agent: AgentState,
  x: number,
  y: number,
): Reason | null {
  const trouble = whyNotRelease(agent);
  if (trouble) return trouble;
  const away = distance(agent.x, agent.y, x, y);
  if (!(away > 0)) return because('placeUnknown');
  const thing = release(agent, world);
  const share = Math.min(1, THROW_RANGE / away);
  thing.toX = agent.x + (x - agent.x) * share;
  thing.toY = agent.y + (y - agent.y) * share;
  thing.z = HAND_HEIGHT;
  thing.flown = 0;
  thing.flight = Math.max(1, Math.round(((away * share) / THROW_SPEED) * agent.ticksPerSecond));
  return null;
}

export function whyNotUse(world: Surroundings, agent: AgentState, gate: number): Reason | null {
  if (!(gate >= 0)) return because('gateUnknown');
  const away = distanceToGate(world, gate, agent.x, agent.y) - agent.archetype.radius;
  return away > HAND_REACH ? because('outOfReach') : whyGateStays(world, gate);
}

/** Opens or closes a gate. */
export function use(world: Surroundings, agent: AgentState, gate: number): Reason | null {
  const trouble = whyNotUse(world, agent, gate);
  if (trouble === null) useGate(world, gate, agent.index);
  return trouble;
}

/** The gate nearest to the hands; −1 where none is in reach. */
export function gateInReach(world: Surroundings, agent: AgentState): number {
  const away = world.gates.map(
    (_, gate) => distanceToGate(world, gate, agent.x, agent.y) - agent.archetype.radius,
  );
  const nearest = Math.min(...away, Infinity);
  return nearest <= HAND_REACH ? away.indexOf(nearest) : -1;
}

export function whyNotWake(world: Surroundings, agent: AgentState, sleeper: number): Reason | null {
  const other = world.agents[sleeper];
  if (!other) return because('sleeperUnknown');
  if (other.isDead) return because('sleeperDead');
  if (!other.asleep) return because('sleeperAwake');
  const away = agent.awayFrom(other.x, other.y) - other.archetype.radius;
  return away > HAND_REACH ? because('sleeperOutOfReach') : null;
}

export function wake(world: Surroundings, agent: AgentState, sleeper: number): Reason | null {
  const trouble = whyNotWake(world, agent, sleeper);
  if (trouble === null) world.agents[sleeper].asleep = false;
  return trouble;
}
