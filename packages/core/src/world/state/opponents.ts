import type { SeenFighting } from '../../senses/tracks.ts';
import type { MoveProgram } from '../program/program.ts';
import type { AgentState } from './agent-state.ts';
import { guardOf, moveNamed, moveOf, phaseAt } from './fight.ts';

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

/** Null for who is not known, or not there. */
export function opponentOf(agent: AgentState, other: number, inTruth: boolean): Opponent | null {
  if (!inTruth) return agent.track(other);
  const there = agent.surroundings.agents[other];
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

function moveBy(agent: AgentState, other: number, { seen }: Opponent): MoveProgram | undefined {
  const there = agent.surroundings.agents[other];
  return seen.move < 0 ? undefined : there.archetype.moves[moveNamed(there, seen.move)];
}

/** Index of the word for the part its move is in; −1 for none. */
export function phaseOfOpponent(agent: AgentState, other: number, inTruth: boolean): number {
  const opponent = opponentOf(agent, other, inTruth);
  const move = opponent && moveBy(agent, other, opponent);
  return opponent && move ? phaseAt(move, agent.tick - opponent.seen.movedAt) : -1;
}

/** Index of the word for its move; −1 for none. */
export function moveOfOpponent(agent: AgentState, other: number, inTruth: boolean): number {
  const isMoving = phaseOfOpponent(agent, other, inTruth) >= 0;
  return isMoving ? opponentOf(agent, other, inTruth)!.seen.move : -1;
}

/**
 * Seconds until what another does can hit a body like this agent’s, at that place and of that velocity, as both go
 * on; NaN where it can’t.
 */
export function impactOn(
  agent: AgentState,
  other: number,
  inTruth: boolean,
  x: number,
  y: number,
  vx: number,
  vy: number,
): number {
  const opponent = opponentOf(agent, other, inTruth);
  const move = opponent && moveBy(agent, other, opponent);
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
