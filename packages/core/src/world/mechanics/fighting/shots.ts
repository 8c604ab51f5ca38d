import { atan2, cos, sin } from '../../../numeric/trigonometry.ts';
import { nextNormal } from '../../../numeric/random.ts';
import type { MoveProgram } from '../../program/program.ts';
import type { AgentState } from '../../state/agent-state.ts';
import { moveOf } from '../../state/fight.ts';
import { recordFor } from '../../state/record.ts';
import type { Shot, Surroundings } from '../../state/surroundings.ts';
import { canBeHit, resultOf, type Hit } from './hits.ts';

/** What moves send flying, and straight lines that hit at once. */

/**
 * Where to aim at a target at (x, y) with velocity (vx, vy), from the origin, with something of that speed:
 * where the two meet first; where they are now if they never do.
 */
export function leadAim(
  x: number,
  y: number,
  vx: number,
  vy: number,
  speed: number,
): [number, number] {
  const a = vx * vx + vy * vy - speed * speed;
  const b = 2 * (x * vx + y * vy);
  const c = x * x + y * y;
  let t = NaN;
  if (Math.abs(a) < 1e-9) t = b < 0 ? -c / b : NaN;
  else {
    const root = b * b - 4 * a * c;
    if (root >= 0) {
      const q = Math.sqrt(root);
      const times = [(-b - q) / (2 * a), (-b + q) / (2 * a)].filter((time) => time > 0);
      t = times.length > 0 ? Math.min(...times) : NaN;
    }
  }
  return t === t ? [x + vx * t, y + vy * t] : [x, y];
}

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
  const from = archetype.radius + move.radius;
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
  };
  if (move.kind === 'thrown') world.shots.push(shot);
  else if (!flyOn(world, shot, move, move.reach, hits)) tellWide(world, shot, move);
}

/** Moves a shot on by so many metres; true where it met an agent or a thing. */
function flyOn(
  world: Surroundings,
  shot: Shot,
  move: MoveProgram,
  metres: number,
  hits: Hit[],
): boolean {
  const { agents, ground } = world;
  const attacker = agents[shot.by];
  const speed = Math.sqrt(shot.vx * shot.vx + shot.vy * shot.vy) || 1;
  const [dx, dy] = [(shot.vx / speed) * metres, (shot.vy / speed) * metres];
  let share = ground.castRay(shot.x, shot.y, shot.x + dx, shot.y + dy, move.radius, shot.z);
  const isWalled = share < 1;
  let met: AgentState | null = null;
  for (const other of agents) {
    if (!canBeHit(attacker, other)) continue;
    if (other.height < shot.z - move.radius) continue;
    const room = other.archetype.radius + move.radius;
    const [ox, oy] = [other.x - shot.x, other.y - shot.y];
    const along = Math.max(0, Math.min(1, (ox * dx + oy * dy) / (metres * metres || 1)));
    const [px, py] = [ox - dx * along, oy - dy * along];
    if (px * px + py * py > room * room || along >= share) continue;
    share = along;
    met = other;
  }
  shot.x += dx * share;
  shot.y += dy * share;
  shot.flown += metres * share;
  if (met) {
    const heights = [
      Math.max(0, shot.z - move.radius),
      Math.min(met.height, shot.z + move.radius),
    ] as const;
    const { result, share: part } = resultOf(met, move, shot.x - dx, shot.y - dy, heights);
    hits.push({
      by: shot.by,
      of: met.index,
      move,
      result,
      harm: move.damage * part,
      x: shot.x,
      y: shot.y,
      z: shot.z,
      heading: atan2(dy, dx),
    });
    return true;
  }
  if (isWalled) tellWide(world, shot, move, 'walled');
  return isWalled;
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
