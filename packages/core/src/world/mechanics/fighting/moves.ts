import { because, type Reason } from '../../../terms/reasons.ts';
import { cos, sin } from '../../../numeric/trigonometry.ts';
import { nextNormal } from '../../../numeric/random.ts';
import type { AgentState } from '../../state/agent-state.ts';
import {
  guardOf,
  isCovering,
  lengthOf,
  moveOf,
  noteBefore,
  whyNotBegin,
} from '../../state/fight.ts';
import { recordFor } from '../../state/record.ts';
import { tellDirector } from '../telling/telling.ts';
import type { Surroundings } from '../../state/surroundings.ts';

/** Beginning, breaking off and ending moves; raising and lowering guards. */

/** Begins a move. `heading` (radians) is where a dodge goes; for others the body’s own until the wind-up is over. */
export function beginMove(
  world: Surroundings,
  agent: AgentState,
  move: number,
  target: number,
  heading: number,
): Reason | null {
  const trouble = whyNotBegin(agent, move);
  if (trouble) return trouble;
  noteBefore(agent);
  const { fight, tick } = agent;
  fight.move = move;
  fight.startedAt = tick;
  fight.target = target;
  fight.heading = heading;
  const { aimError } = agent.archetype;
  fight.aimOff = aimError > 0 ? nextNormal(agent.stream) * aimError : 0;
  fight.struck.length = 0;
  fight.spent = false;
  fight.knocked.length = 0;
  fight.missedBy = Infinity;
  fight.guard = -1;
  if (world.recorder) {
    const of = world.agents[target]?.name;
    recordFor(agent, world.recorder, {
      kind: 'move',
      move: agent.archetype.moves[move].name,
      lasts: lengthOf(agent.archetype.moves[move]),
      ...(of === undefined ? {} : { of }),
    });
  }
  return null;
}

/** Ends a move before its time, or at its end; its cooldown begins. */
export function endMove(agent: AgentState): void {
  const { fight, tick } = agent;
  const move = moveOf(agent);
  if (!move) return;
  noteBefore(agent);
  fight.readyAt[fight.move] = tick + move.cooldown;
  fight.move = -1;
}

/** A hit, or the agent that makes it, breaks a move off. */
export function breakMove(world: Surroundings, agent: AgentState, why: Reason): void {
  const move = moveOf(agent);
  if (!move) return;
  agent.fight.brokenAt = agent.tick;
  agent.fight.brokenBy = why;
  agent.fight.lastResult = world.statics.words.broken;
  endMove(agent);
  if (world.recorder)
    recordFor(agent, world.recorder, { kind: 'broken', move: move.name, reason: why });
  tellDirector(world, `broken.${agent.archetype.name}`);
}

export function raiseGuard(agent: AgentState, guard: number): Reason | null {
  const { fight, tick, archetype } = agent;
  if (!archetype.guards[guard]) return because('noSuchGuard');
  if (agent.asleep) return because('lying');
  if (fight.staggeredUntil > tick) return because('staggered');
  if (fight.move >= 0) return because('busyWithMove', archetype.moves[fight.move].title);
  if (fight.guard === guard) return null;
  noteBefore(agent);
  fight.guard = guard;
  fight.raisedAt = tick;
  fight.loweredBy = null;
  return null;
}

export function lowerGuard(agent: AgentState): void {
  noteBefore(agent);
  agent.fight.guard = -1;
}

/** A guard that has been held for as long as it can be is down. */
export function tireGuard(agent: AgentState): void {
  const { fight, tick } = agent;
  const guard = guardOf(agent);
  if (!guard || tick - fight.raisedAt < guard.raise) return;
  if (!isCovering(guard, fight.raisedAt, tick)) fight.guard = -1;
}

/** Seconds that a push takes. */
const PUSH_SECONDS = 0.15;

/** Pushes a body so far in a direction, over the ticks to come; what was left of an earlier push is gone. */
export function push({ fight, ticksPerSecond }: AgentState, heading: number, metres: number): void {
  if (metres === 0) return;
  const ticks = Math.max(1, Math.round(PUSH_SECONDS * ticksPerSecond));
  fight.pushTicks = ticks;
  fight.pushX = (cos(heading) * metres) / ticks;
  fight.pushY = (sin(heading) * metres) / ticks;
}

/** Carries a body that is pushed on by a tick; what stops it ends the push. */
export function bePushed(world: Surroundings, agent: AgentState): void {
  const { fight } = agent;
  fight.pushTicks--;
  const metres = Math.sqrt(fight.pushX * fight.pushX + fight.pushY * fight.pushY);
  const gone = shove(world, agent, fight.pushX / metres, fight.pushY / metres, metres);
  if (gone < metres) fight.pushTicks = 0;
}

const STEP = 0.1;

/** Carries a body so far in the direction (dx, dy), of length 1: up to a wall or another agent. Returns the metres it went. */
export function shove(
  world: Surroundings,
  agent: AgentState,
  dx: number,
  dy: number,
  metres: number,
): number {
  const { body, archetype } = agent;
  let gone = 0;
  while (gone < metres) {
    const step = Math.min(STEP, metres - gone);
    const [x, y] = [body.x + dx * step, body.y + dy * step];
    if (world.ground.isBlocked(x, y, archetype.radius) || isTaken(world, agent, x, y)) break;
    body.x = x;
    body.y = y;
    gone += step;
  }
  return gone;
}

const near: number[] = [];
/** Metres that bodies may have been carried on since they were filed. */
const FILED = 1;

/** Whether another body, on its feet, stands there and would be come nearer to. */
function isTaken(
  { agents, ground, statics }: Surroundings,
  agent: AgentState,
  x: number,
  y: number,
): boolean {
  const reach = agent.archetype.radius + statics.largestRadius + FILED;
  const count = ground.near(x, y, reach, near);
  for (let i = 0; i < count; i++) {
    const other = agents[near[i]];
    if (other === agent || other.asleep) continue;
    const room = agent.archetype.radius + other.archetype.radius;
    const [dx, dy] = [x - other.x, y - other.y];
    const square = dx * dx + dy * dy;
    if (square >= room * room) continue;
    const [ox, oy] = [agent.x - other.x, agent.y - other.y];
    if (square < ox * ox + oy * oy) return true;
  }
  return false;
}
