import { moveOf, phaseAt } from '../state/fight.ts';
import { WORD_INDICES } from '../../terms/senses.ts';
import type { World } from '../world.ts';

/** What there is to draw of a fight. */

export interface FighterPicture {
  agent: number;
  /** Share of its health left, 0 to 1; null for an agent that can’t be hurt. */
  health: number | null;
  /** The move it makes: which, the part it is in, and how much of that part is over, 0 to 1. */
  move: {
    name: string;
    phase: 'windUp' | 'active' | 'recovery';
    share: number;
    heading: number;
  } | null;
  /** Place of the guard it holds; −1 for none. */
  guard: number;
  staggered: boolean;
}

export interface FightPicture {
  /** Agents that have been hurt, and agents that do something. */
  fighters: FighterPicture[];
  /** Of each: x, y, height, radius. */
  shots: [number, number, number, number][];
}

/** Null where no agent fights. */
export function pictureFights({ agents, shots, tick }: World): FightPicture | null {
  const fighters = agents.flatMap((agent): FighterPicture[] => {
    const { fight, life, archetype, index, heading } = agent;
    const isHurt = life.health < archetype.health && !agent.isDead;
    const isStaggered = fight.staggeredUntil > tick;
    const move = moveOf(agent);
    if (!isHurt && !isStaggered && !move && fight.guard < 0) return [];
    const elapsed = tick - fight.startedAt + 1;
    const phase = move ? phaseAt(move, elapsed - 1) : -1;
    const [name, begin, length] = !move
      ? (['recovery', 0, 1] as const)
      : phase === WORD_INDICES.windUp
        ? (['windUp', 0, move.windUp] as const)
        : phase === WORD_INDICES.active
          ? (['active', move.windUp, move.active] as const)
          : (['recovery', move.windUp + move.active, Math.max(1, move.recovery)] as const);
    return [
      {
        agent: index,
        health: life.health === life.health ? life.health / archetype.health : null,
        move: move
          ? {
              name: move.name,
              phase: name,
              share: Math.min(1, (elapsed - begin) / length),
              heading: name === 'windUp' && move.kind !== 'dodge' ? heading : fight.heading,
            }
          : null,
        guard: fight.guard,
        staggered: isStaggered,
      },
    ];
  });
  if (fighters.length === 0 && shots.length === 0) return null;
  return {
    fighters,
    shots: shots.map(({ x, y, z, by, move }) => [
      x,
      y,
      z,
      agents[by].archetype.moves[move]?.radius ?? 0.1,
    ]),
  };
}
