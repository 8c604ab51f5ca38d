import type { Fighters } from '../../expression/facts.ts';
import type { SeenFighting } from '../../senses/tracks.ts';
import type { MoveProgram } from '../program/program.ts';
import { moveNamed, phaseAt } from './fight.ts';
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

/**
 * How an agent really fights; null for none. While minds decide that is how it fought when they began to, the same
 * for all of them. Good until it is asked for again.
 */
export function trueOpponent({ agents, isDeciding }: Surroundings, other: number): Opponent | null {
  const there = agents[other];
  if (!there) return null;
  const { body, fight } = there;
  truth.x = body.x;
  truth.y = body.y;
  truth.vx = body.vx;
  truth.vy = body.vy;
  const isChanged = isDeciding && fight.changedAt === there.tick;
  const { moves, guards } = there.archetype;
  seen.move = moves[isChanged ? fight.moveBefore : fight.move]?.word ?? -1;
  seen.movedAt = isChanged ? fight.startedBefore : fight.startedAt;
  seen.guard = guards[isChanged ? fight.guardBefore : fight.guard]?.word ?? -1;
  seen.health = there.life.health;
  return truth;
}

/** The move that another is known to make; undefined for none. */
export function moveBy(
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
