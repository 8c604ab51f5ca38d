import type { Fighters } from '../../expression/facts.ts';
import type { SeenFighting } from '../../senses/tracks.ts';
import type { MoveProgram } from '../program/program.ts';
import type { AgentState } from './agent-state.ts';
import { guardOf, moveNamed, moveOf, phaseAt } from './fight.ts';
import type { Surroundings } from './surroundings.ts';

/** What an agent goes by of another in a fight: what it has seen of it, or how things are in truth. */
export interface Opponent {
  /** Metres, and metres a second. */
  x: number;
  y: number;
  vx: number;
  vy: number;
  seen: SeenFighting;
}

const seen: SeenFighting = { move: -1, movedAt: -1, guard: -1, health: NaN };
/** One for all agents, since it is read at once. */
const truth: Opponent = { x: 0, y: 0, vx: 0, vy: 0, seen };

/** How an agent really fights; null for none. Good until it is asked for again. */
export function trueOpponent({ agents }: Surroundings, other: number): Opponent | null {
  const there = agents[other];
  if (!there) return null;
  const { body, fight } = there;
  truth.x = body.x;
  truth.y = body.y;
  truth.vx = body.vx;
  truth.vy = body.vy;
  seen.move = moveOf(there)?.word ?? -1;
  seen.movedAt = fight.startedAt;
  seen.guard = guardOf(there)?.word ?? -1;
  seen.health = there.life.health;
  return truth;
}

function moveBy(
  { agents }: Surroundings,
  other: number,
  { seen }: Opponent,
): MoveProgram | undefined {
  const there = agents[other];
  return seen.move < 0 ? undefined : there.archetype.moves[moveNamed(there, seen.move)];
}

/** What can be told of other fighters from what is known of them. */
export abstract class Opponents implements Fighters {
  protected abstract get world(): Surroundings;
  protected abstract opponent(agent: number): Opponent | null;

  phaseOf(agent: number): number {
    const opponent = this.opponent(agent);
    const move = opponent && moveBy(this.world, agent, opponent);
    return move ? phaseAt(move, this.world.tick - opponent.seen.movedAt) : -1;
  }
  moveOf(agent: number): number {
    return this.phaseOf(agent) < 0 ? -1 : this.opponent(agent)!.seen.move;
  }
  guardOf(agent: number): number {
    return this.opponent(agent)?.seen.guard ?? -1;
  }
  healthOf(agent: number): number {
    return this.opponent(agent)?.seen.health ?? NaN;
  }
}

/**
 * Seconds until what another does can hit a body like this agent’s, at that place and of that velocity, as both go
 * on; NaN where it can’t.
 */
export function impactOn(
  agent: AgentState,
  other: number,
  opponent: Opponent | null,
  x: number,
  y: number,
  vx: number,
  vy: number,
): number {
  const move = opponent && moveBy(agent.surroundings, other, opponent);
  if (!opponent || !move || move.kind === 'dodge') return NaN;
  const elapsed = agent.tick - opponent.seen.movedAt;
  if (elapsed >= move.windUp + move.active || move.from >= agent.height) return NaN;
  const seconds = Math.max(0, move.windUp - elapsed) / agent.ticksPerSecond;
  const dx = opponent.x + opponent.vx * seconds - x - vx * seconds;
  const dy = opponent.y + opponent.vy * seconds - y - vy * seconds;
  const { radius } = agent.surroundings.agents[other].archetype;
  const gap = Math.sqrt(dx * dx + dy * dy) - radius - agent.archetype.radius;
  if (gap > move.reach + move.advance) return NaN;
  return seconds + (move.kind === 'thrown' ? Math.max(0, gap) / move.speed : 0);
}
