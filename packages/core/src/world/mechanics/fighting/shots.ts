import { firstContact } from '../../../numeric/circles.ts';
import { leadAim } from '../../../numeric/lead-aim.ts';
import { atan2, cos, sin } from '../../../numeric/trigonometry.ts';
import { nextNormal } from '../../../numeric/random.ts';
import type { MoveProgram } from '../../program/program.ts';
import type { AgentState } from '../../state/agent-state.ts';
import { moveOf } from '../../state/fight.ts';
import { recordFor } from '../../state/record.ts';
import type { Shot, Surroundings } from '../../state/surroundings.ts';
import { canBeHit, resultOf, type Hit } from './hits.ts';

/** What moves send flying, and straight lines that hit at once. */

/** Where a shot goes, in radians: toward what is known of its target, else where the body faces. */
function aim(agent: AgentState, move: MoveProgram): number {
  const { fight, x, y } = agent;
  const seen = agent.sightOf(fight.target);
  let heading = fight.heading;
  if (seen) {
    const [dx, dy] = [seen.x - x, seen.y - y];
    const [ax, ay] =
      move.lead && move.kind === 'thrown'
        ? leadAim(dx, dy, seen.vx, seen.vy, move.speed)
        : [dx, dy];
    heading = atan2(ay, ax) + fight.aimOff;
  }
  return move.spread > 0 ? heading + nextNormal(agent.stream) * move.spread : heading;
}

/** Fires a shot, or finds at once what an instant one meets. */
export function shoot(world: Surroundings, agent: AgentState, hits: Hit[]): void {
  const move = moveOf(agent)!;
  const { x, y, archetype, index } = agent;
  const heading = aim(agent, move);
  const [dx, dy] = [cos(heading), sin(heading)];
  const z = (move.from + move.to) / 2;
  // What is sent off begins inside the body, its front at the edge: reach is counted from edge to edge.
  const from = archetype.radius - move.radius;
  const shot: Shot = {
    by: index,
    move: agent.fight.move,
    x: x + dx * from,
    y: y + dy * from,
    z,
    vx: dx * move.speed,
    vy: dy * move.speed,
    vz: 0,
    flown: 0,
    target: agent.fight.target,
    passed: [],
  };
  if (move.kind === 'thrown') world.shots.push(shot);
  else if (!flyOn(world, shot, move, move.reach, hits)) tellWide(world, shot, move);
}

const near: number[] = [];

/** Moves a shot on by so many metres; true where it met an agent or a thing. */
function flyOn(
  world: Surroundings,
  shot: Shot,
  move: MoveProgram,
  metres: number,
  hits: Hit[],
): boolean {
  const { ground } = world;
  const speed = Math.sqrt(shot.vx * shot.vx + shot.vy * shot.vy) || 1;
  const [ux, uy] = [shot.vx / speed, shot.vy / speed];
  const [dx, dy] = [ux * metres, uy * metres];
  const { x, y } = shot;
  const walled = ground.castRay(x, y, x + dx, y + dy, move.radius, shot.z);
  for (;;) {
    const { met, share } = firstMet(world, shot, move, x, y, dx, dy, walled);
    shot.x = x + dx * share;
    shot.y = y + dy * share;
    if (!met) {
      shot.flown += metres * share;
      if (walled < 1) tellWide(world, shot, move, 'walled');
      return walled < 1;
    }
    const flown = shot.flown + metres * share;
    const heights = [
      Math.max(0, shot.z - move.radius),
      Math.min(met.height, shot.z + move.radius),
    ] as const;
    const { result, share: part } = resultOf(met, move, atan2(-uy, -ux), heights);
    hits.push({
      by: shot.by,
      of: met.index,
      move,
      result,
      share: part,
      x: shot.x,
      y: shot.y,
      z: shot.z,
      heading: atan2(uy, ux),
      fromX: shot.x - ux * flown,
      fromY: shot.y - uy * flown,
    });
    if (result !== 'dodged') return true;
    // It flies on to the agents behind.
    shot.passed.push(met.index);
  }
}

/** The agent that a shot meets first on its way from (x, y) by (dx, dy), and where along it; null, and `most`, where it meets none before that. */
function firstMet(
  { agents, ground, statics }: Surroundings,
  shot: Shot,
  move: MoveProgram,
  x: number,
  y: number,
  dx: number,
  dy: number,
  most: number,
): { met: AgentState | null; share: number } {
  const attacker = agents[shot.by];
  let share = most;
  let met: AgentState | null = null;
  const half = Math.sqrt(dx * dx + dy * dy) / 2;
  const reach = half + statics.largestRadius + move.radius;
  const count = ground.near(x + dx / 2, y + dy / 2, reach, near);
  for (let i = 0; i < count; i++) {
    const other = agents[near[i]];
    if (!canBeHit(attacker, other) || shot.passed.includes(other.index)) continue;
    if (other.height < shot.z - move.radius) continue;
    const room = other.archetype.radius + move.radius;
    const contact = firstContact(other.x - x, other.y - y, dx, dy, room);
    const isFirst =
      contact < share || (met !== null && contact === share && other.index < met.index);
    if (!isFirst) continue;
    share = contact;
    met = other;
  }
  return { met, share };
}

/** A shot that met no agent. */
function tellWide(
  world: Surroundings,
  shot: Shot,
  move: MoveProgram,
  result: 'missed' | 'walled' = 'missed',
): void {
  const attacker = world.agents[shot.by];
  attacker.fight.lastResult = world.statics.words[result];
  if (!world.recorder) return;
  const target = world.agents[shot.target];
  const gap = target ? Math.max(0, target.awayFrom(shot.x, shot.y) - move.radius) : NaN;
  recordFor(attacker, world.recorder, {
    kind: 'hit',
    move: move.name,
    of: target?.name ?? '',
    result,
    harm: 0,
    x: shot.x,
    y: shot.y,
    z: shot.z,
    ...(gap === gap ? { missedBy: gap } : {}),
  });
}

/** Moves all that flies by one tick, and finds the agents it meets. */
export function flyShots(world: Surroundings, hits: Hit[]): void {
  const { shots, agents, statics } = world;
  if (shots.length === 0) return;
  const dt = 1 / statics.program.ticksPerSecond;
  let kept = 0;
  for (const shot of shots) {
    const move = agents[shot.by].archetype.moves[shot.move];
    if (!move) continue;
    shot.vz -= move.drop * dt;
    shot.z += shot.vz * dt;
    const metres = Math.min(move.speed * dt, move.reach - shot.flown);
    const isDone = flyOn(world, shot, move, metres, hits);
    if (isDone) continue;
    if (shot.z <= 0 || shot.flown >= move.reach - 1e-9) {
      tellWide(world, shot, move);
      continue;
    }
    shots[kept++] = shot;
  }
  shots.length = kept;
}
