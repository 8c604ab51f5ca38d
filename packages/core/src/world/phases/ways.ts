import { because } from '../../terms/reasons.ts';
import { needsPath, stopLegs, takePath } from '../../motion/body.ts';
import { LEGS_FAILED, type PathResult } from '../../motion/legs.ts';
import type { Agent } from '../agents/agent.ts';
import { raiseStuck } from '../mechanics/ways/stuck.ts';
import { recordFor } from '../state/record.ts';
import type { World } from '../world.ts';

/** Ways for all bodies that need one in this tick: those of one size that go to one place share the work. */
export function findWays(world: World): void {
  const asking = new Map<string, Agent[]>();
  for (const agent of world.agents) {
    if (!needsPath(agent.body) || agent.asleep || agent.resting) continue;
    const { goalX, goalY } = agent.body;
    const key = `${agent.archetype.radius} ${goalX} ${goalY}`;
    const group = asking.get(key);
    if (group) group.push(agent);
    else asking.set(key, [agent]);
  }
  for (const group of asking.values()) {
    const { placed, body } = group[0];
    world.acting = group[0].index;
    const starts = group.flatMap(({ x, y }) => [x, y]);
    const results = world.ground.findWays(placed.archetype, starts, body.goalX, body.goalY);
    group.forEach((agent, i) => takeWay(world, agent, results[i]));
  }
}

function takeWay(world: World, agent: Agent, result: PathResult): void {
  const { body } = agent;
  if (result.ok) {
    takePath(body, result.points);
    body.trouble = '';
    return;
  }
  stopLegs(body);
  body.legs = LEGS_FAILED;
  body.trouble = result.reason;
  if (world.recorder) {
    const { goalX: x, goalY: y } = body;
    recordFor(agent, world.recorder, { kind: 'noWay', x, y, reason: because(result.reason) });
  }
  if (result.reason === 'closedIn') raiseStuck(world, agent, because('noWayOut'));
}
