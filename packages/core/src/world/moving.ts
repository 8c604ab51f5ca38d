import { LEGS_FAILED } from '../mind/host.ts';
import { isStuck, needsPath, stopLegs, takePath, type Body } from '../motion/body.ts';
import { moveBody } from '../motion/move.ts';
import { AHEAD } from '../motion/steer.ts';
import { findPath, findPaths, type PathResult } from '../motion/path.ts';
import type { Walkable } from '../motion/walkable.ts';
import { collectNeighbours } from '../space/neighbours.ts';
import { circleBlocked } from '../space/walls.ts';
import type { Agent } from './agent.ts';
import { pressPlates } from './gates.ts';
import { fly } from './flight.ts';
import { feelTouch, recycle } from './harm.ts';
import { recordFor } from './record-agent.ts';
import { carry } from './things.ts';
import type { World } from './world.ts';

/** The part of a tick in which bodies and things move. */

/** As many bodies of one size that want a way to one place share a field. */
const FIELD_FROM = 3;
/** Metres from step to step. */
const STRIDE = 0.8;

const found: number[] = [];

export function moveAll(world: World): void {
  findWays(world);
  const { statics, bodies, agents, neighbours, walls } = world;
  const dt = 1 / statics.program.ticksPerSecond;
  for (const agent of agents) {
    if (agent.asleep || agent.resting) {
      agent.body.vx = 0;
      agent.body.vy = 0;
      continue;
    }
    const { body, index } = agent;
    const kind = statics.bodies[agent.placed.archetype];
    // Others may have moved since the cells were filled, by as much as a fast body goes in a tick.
    const reach = kind.radius + statics.largestRadius + AHEAD + 2 * statics.longestStep;
    const count = collectNeighbours(neighbours, body.x, body.y, reach, found);
    moveBody(bodies, statics.radii, index, kind, walls, found, count, dt);
    makeSteps(world, agent, dt);
    feelTouch(world, agent, found, count);
    if (isStuck(body, world.tick, statics.program.ticksPerSecond)) tellStuck(world, agent, count);
  }
  pressPlates(world);
  carry(world);
  fly(world);
  recycle(world);
}

/** Paths for all bodies that need one in this tick: those that go to one place share the work. */
function findWays(world: World): void {
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
    const walkable = world.walkable[group[0].placed.archetype];
    const results =
      group.length < FIELD_FROM ? each(world, walkable, group) : shared(world, walkable, group);
    group.forEach((agent, i) => takeWay(world, agent, results[i]));
  }
}

function each({ walls }: World, walkable: Walkable, group: readonly Agent[]): PathResult[] {
  return group.map(({ body: { x, y, goalX, goalY } }) =>
    findPath(walls, walkable, x, y, goalX, goalY),
  );
}

function shared({ walls }: World, walkable: Walkable, group: readonly Agent[]): PathResult[] {
  const { goalX, goalY } = group[0].body;
  const starts = group.flatMap(({ body }) => [body.x, body.y]);
  return findPaths(walls, walkable, starts, goalX, goalY);
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
    recordFor(agent, world.recorder, { kind: 'noWay', x, y, reason: result.reason });
  }
  if (result.reason === 'closed in')
    raiseStuck(world, agent, 'closed in: no way leads out of here');
}

function raiseStuck(world: World, agent: Agent, reason: string): void {
  agent.deliver(['stuck']);
  if (!world.recorder) return;
  const { x, y } = agent.body;
  recordFor(agent, world.recorder, { kind: 'stuck', x, y, reason });
}

/** Says what keeps a body that moves and gets nowhere: the bodies around it, or a wall. */
function tellStuck(world: World, agent: Agent, count: number): void {
  const { agents, walls } = world;
  const { body, archetype } = agent;
  const touching = found.slice(0, count).filter((other) => {
    if (other === agent.index) return false;
    return agent.awayFrom(agents[other].x, agents[other].y) < agents[other].archetype.radius + 0.1;
  });
  const names = touching.map((other) => agents[other].placed.title).join(', ');
  const atWall = circleBlocked(walls, body.x, body.y, archetype.radius + 0.05);
  raiseStuck(
    world,
    agent,
    names ? `held up by ${names}` : atWall ? 'held up by a wall' : 'held up',
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
