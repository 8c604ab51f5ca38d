import { atan2, cos, sin, wrapAngle } from '../../numeric/trigonometry.ts';
import type { Agent } from '../agents/agent.ts';
import { applyHit, findStruck, tellMiss, type Hit } from '../mechanics/fighting/hits.ts';
import { applyKnock, findKnocked, type Knock } from '../mechanics/fighting/knocks.ts';
import { bePushed, endMove, shove, tireGuard } from '../mechanics/fighting/moves.ts';
import { flyShots, shoot } from '../mechanics/fighting/shots.ts';
import type { MoveProgram } from '../program/program.ts';
import { lengthOf, moveOf } from '../state/fight.ts';
import type { World } from '../world.ts';

const hits: Hit[] = [];
const knocks: Knock[] = [];

/**
 * Fighting, on the places where bodies have come to: moves advance, what flies moves on, all hits of this tick
 * are found, then all are applied. So two who hit each other in one tick both land, whatever their order.
 */
export function fight(world: World): void {
  const { agents, shots } = world;
  hits.length = 0;
  knocks.length = 0;
  if (shots.length === 0 && !agents.some(isFighting)) return;
  // Bodies have moved since they were filed, and who is near is asked from here on.
  world.ground.fileBodies(world.bodies);
  for (const agent of agents) {
    world.acting = agent.index;
    const { fight: state } = agent;
    if (state.guard >= 0) tireGuard(agent);
    if (state.pushTicks > 0) bePushed(world, agent);
    const move = moveOf(agent);
    if (move) advance(world, agent, move);
  }
  world.acting = -1;
  world.ground.fileBodies(world.bodies);
  flyShots(world, hits);
  for (const agent of agents) {
    world.acting = agent.index;
    const move = moveOf(agent);
    if (move) act(world, agent, move);
  }
  world.acting = -1;
  for (const hit of hits) applyHit(world, hit);
  for (const knock of knocks) applyKnock(world, knock);
  for (const agent of agents) {
    const move = moveOf(agent);
    if (move && agent.tick - agent.fight.startedAt >= lengthOf(move) - 1) endMove(agent);
  }
}

function isFighting({ fight: { move, guard, pushTicks } }: Agent): boolean {
  return move >= 0 || guard >= 0 || pushTicks > 0;
}

/** Turns toward the target while it winds up, and is carried on while it is active. */
function advance(world: World, agent: Agent, move: MoveProgram): void {
  const { fight: state, body } = agent;
  if (agent.isDead) return endMove(agent);
  const elapsed = agent.tick - state.startedAt;
  if (elapsed < move.windUp && move.kind !== 'dodge') {
    const seen = agent.sightOf(state.target);
    if (!seen) return;
    const off = wrapAngle(atan2(seen.y - body.y, seen.x - body.x) - body.heading);
    body.heading = wrapAngle(body.heading + Math.max(-move.turn, Math.min(move.turn, off)));
    return;
  }
  if (elapsed === move.windUp) {
    if (move.kind === 'dodge') state.untouchableUntil = agent.tick + move.invulnerable;
    else state.heading = wrapAngle(body.heading + state.aimOff);
    if (move.noise > 0) {
      const { x, y } = body;
      const what = move.word;
      world.noises.push({ what, x, y, reach: move.noise, maker: agent.index, thing: -1 });
    }
  }
  if (elapsed >= move.windUp && elapsed < move.windUp + move.active && move.advance > 0)
    shove(world, agent, cos(state.heading), sin(state.heading), move.advance / move.active);
}

/** Finds the agents it meets while it is active; shots go off one after the other. */
function act(world: World, agent: Agent, move: MoveProgram): void {
  const { fight: state } = agent;
  const since = agent.tick - state.startedAt - move.windUp;
  if (since < 0 || since >= move.active) return;
  if (move.kind === 'thrown' || move.kind === 'instant') {
    const gap = Math.max(1, move.gap);
    if (since % gap === 0 && since / gap < move.shots) shoot(world, agent, hits);
    return;
  }
  if (move.kind !== 'strike') return;
  if (world.things.length > 0) findKnocked(world, agent, move, knocks);
  if (!state.spent) findStruck(world, agent, hits);
  if (since === move.active - 1 && state.struck.length === 0) tellMiss(world, agent);
}
