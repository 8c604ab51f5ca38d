import { because } from '../../terms/reasons.ts';
import { isStuck, type Body } from '../../motion/body.ts';
import type { Agent } from '../agents/agent.ts';
import { feelTouch } from '../mechanics/fighting/harm.ts';
import { raiseStuck } from '../mechanics/ways/stuck.ts';
import { isHeld } from '../state/fight.ts';
import type { World } from '../world.ts';

/** Metres from step to step. */
const STRIDE = 0.8;

const found: number[] = [];

/** Bodies move one after the other; each makes its steps, feels the agents it touches, and reports when it is stuck. */
export function moveBodies(world: World): void {
  const { statics, bodies, agents, ground, tick } = world;
  const { ticksPerSecond } = statics.program;
  const dt = 1 / ticksPerSecond;
  for (const agent of agents) {
    const { body, index } = agent;
    world.acting = index;
    if (agent.asleep || agent.resting || isHeld(agent)) {
      body.vx = 0;
      body.vy = 0;
      continue;
    }
    const count = ground.moveBody(bodies, index, dt, found);
    makeSteps(world, agent, dt);
    feelTouch(world, agent, found, count);
    if (isStuck(body, tick, ticksPerSecond)) tellStuck(world, agent, count);
  }
}

/** Says what keeps a body that moves and gets nowhere: the bodies around it, or a wall. */
function tellStuck(world: World, agent: Agent, count: number): void {
  const { agents, ground } = world;
  const { body, archetype } = agent;
  const touching = found.slice(0, count).filter((other) => {
    if (other === agent.index) return false;
    return agent.awayFrom(agents[other].x, agents[other].y) < agents[other].archetype.radius + 0.1;
  });
  const names = touching.map((other) => agents[other].placed.title).join(', ');
  const atWall = ground.isBlocked(body.x, body.y, archetype.radius + 0.05);
  raiseStuck(
    world,
    agent,
    names
      ? because('blockedByBodies', names)
      : atWall
        ? because('blockedByWall')
        : because('blocked'),
  );
  // Perhaps there is another way by now.
  body.pathX = NaN;
}

/** Steps are heard, as far as the gait says. */
function makeSteps(world: World, agent: Agent, dt: number): void {
  const { body, archetype, gait, index } = agent;
  const reach = archetype.stepNoises[gait];
  if (reach === 0) return;
  body.stride += speedOf(body) * dt;
  if (body.stride < STRIDE) return;
  body.stride = 0;
  const { x, y } = body;
  world.noises.push({ what: world.statics.words.step, x, y, reach, maker: index, thing: -1 });
}

function speedOf({ vx, vy }: Body): number {
  return Math.sqrt(vx * vx + vy * vy);
}
