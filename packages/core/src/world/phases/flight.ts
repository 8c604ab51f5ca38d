import { distance } from '../../numeric/distance.ts';
import type { Agent } from '../agents/agent.ts';
import { harm } from '../mechanics/fighting/harm.ts';
import { THING_RADIUS } from '../program/program.ts';
import type { Thing } from '../state/surroundings.ts';
import { HAND_HEIGHT, isFlying, land } from '../mechanics/hands/things.ts';
import type { World } from '../world.ts';

/** Things in flight, and the agents they hit. */

/** Metres that a flight rises above the straight line. */
const ARC = 1.1;

/** The agent that a thing meets first on its way of this tick, not counting its thrower; null for none. What rises above a body passes it. */
function bodyInWay({ ground, agents }: World, thing: Thing, x: number, y: number): Agent | null {
  const dx = x - thing.x;
  const dy = y - thing.y;
  const square = dx * dx + dy * dy;
  let best: Agent | null = null;
  let bestShare = square === 0 ? 1 : ground.castRay(thing.x, thing.y, x, y, 0, thing.z);
  for (const agent of agents) {
    if (agent.index === thing.mover || agent.height < thing.z) continue;
    const [toX, toY] = [agent.x - thing.x, agent.y - thing.y];
    const reach = agent.archetype.radius + THING_RADIUS;
    const share = Math.max(0, Math.min(1, (toX * dx + toY * dy) / (square || 1)));
    const [offX, offY] = [toX - dx * share, toY - dy * share];
    if (offX * offX + offY * offY > reach * reach || share >= bestShare) continue;
    best = agent;
    bestShare = share;
  }
  return best;
}

/** A thing that hits a body falls down before it. */
function strike(world: World, index: number, agent: Agent): void {
  const thing = world.things[index];
  const { fromX, fromY, mover } = thing;
  const away = distance(fromX, fromY, agent.x, agent.y) || 1;
  const gap = agent.archetype.radius + THING_RADIUS;
  thing.x = agent.x + ((fromX - agent.x) / away) * gap;
  thing.y = agent.y + ((fromY - agent.y) / away) * gap;
  land(world, index, 1);
  const { hit: what } = world.statics.words;
  const amount = world.statics.program.ground.things[index].damage;
  harm(world, agent, amount, mover, { what, of: -1, thing: index, fromX, fromY, strength: 1 });
}

/** Moves what flies by one tick; it falls where a wall higher than its way stands before it. */
export function fly(world: World): void {
  world.things.forEach((thing, index) => {
    if (!isFlying(thing)) return;
    thing.flown++;
    const share = thing.flown / thing.flight;
    const x = thing.fromX + (thing.toX - thing.fromX) * share;
    const y = thing.fromY + (thing.toY - thing.fromY) * share;
    thing.z = HAND_HEIGHT * (1 - share) + 4 * ARC * share * (1 - share);
    const hit = bodyInWay(world, thing, x, y);
    if (hit) return strike(world, index, hit);
    const { width, height } = world.ground;
    const inside = x > 0 && y > 0 && x < width && y < height;
    if (!inside || world.ground.castRay(thing.x, thing.y, x, y, 0, thing.z) < 1) {
      // Off the wall by a hair, whose face it may have come to lie in.
      thing.x -= (x - thing.x) * 0.01;
      thing.y -= (y - thing.y) * 0.01;
      return land(world, index, 1);
    }
    if (thing.flown === thing.flight && world.ground.isBlocked(x, y, THING_RADIUS))
      return land(world, index, 1);
    thing.x = x;
    thing.y = y;
    if (thing.flown === thing.flight) land(world, index, 1);
  });
}
