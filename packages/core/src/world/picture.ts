import { atan2, wrapAngle } from '../numeric/trigonometry.ts';
import { castRay } from '../space/rays.ts';
import type { Agent } from './agent.ts';
import type { World } from './world.ts';

/** Numbers a body takes in {@link pictureBodies}: x, y, heading, awareness, leaf state, speed. */
export const BODY_STRIDE = 6;
/** Numbers a ray takes in {@link pictureRays}: from x, y, to x, y, and 1 where it reached its goal. */
export const RAY_STRIDE = 5;

/** Index of the innermost active state (the last in document order) of one of its minds; −1 for none. */
export function leafState(agent: Agent, mind = 0): number {
  const { memory, minds } = agent;
  if (mind >= minds.length) return -1;
  const { active } = minds[mind].machine.cells;
  return memory[active] > 0 ? memory[active + memory[active]] : -1;
}

/** All bodies for drawing, {@link BODY_STRIDE} numbers each. */
export function pictureBodies(world: World): Float32Array {
  const picture = new Float32Array(world.agents.length * BODY_STRIDE);
  world.agents.forEach((agent, i) => {
    const { x, y, heading, vx, vy } = agent.body;
    picture.set(
      [x, y, heading, agent.awarenessShown, leafState(agent), Math.sqrt(vx * vx + vy * vy)],
      i * BODY_STRIDE,
    );
  });
  return picture;
}

/** The rays sight sends: one to each body of another faction that a cone covers, up to where it hits. */
export function pictureRays(world: World): Float32Array {
  const rays: number[] = [];
  for (const agent of world.agents) {
    const kind = world.statics.sights[agent.placed.archetype];
    if (!kind || agent.asleep) continue;
    for (const other of world.agents) {
      if (other === agent || agent.isFriendly(other.index)) continue;
      const dx = other.x - agent.x;
      const dy = other.y - agent.y;
      const distance = Math.sqrt(dx * dx + dy * dy);
      const angle = Math.abs(wrapAngle(atan2(dy, dx) - agent.heading));
      if (!kind.cones.some((cone) => distance < cone.range && angle <= cone.halfAngle)) continue;
      const t = castRay(
        world.walls,
        agent.x,
        agent.y,
        other.x,
        other.y,
        0,
        Math.min(agent.eye, other.height),
      );
      rays.push(agent.x, agent.y, agent.x + dx * t, agent.y + dy * t, t >= 1 ? 1 : 0);
    }
  }
  return Float32Array.from(rays);
}

/** What is left of each agent's way, as x, y pairs from where it stands. */
export function picturePaths(world: World): { agent: number; points: number[] }[] {
  return world.agents.flatMap(({ index, body }) => {
    if (body.path.length === 0) return [];
    return [{ agent: index, points: [body.x, body.y, ...body.path.slice(body.pathAt)] }];
  });
}
