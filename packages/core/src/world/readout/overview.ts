import type { Agent } from '../agents/agent.ts';
import { EYE_SHARE } from '../../senses/sight.ts';
import { lives } from '../mechanics/game/waves.ts';
import type { World } from '../world.ts';

/** Numbers one agent takes in {@link pictureSide}: its index, x, y, and 1 where it is so now, 0 where it is remembered. */
export const SIDE_STRIDE = 4;

/** Metres a player sees, with no more senses than a screen. */
const PLAYERS_REACH = 30;
/** Height of a head, as a share of the body's. */
const HEAD = 0.95;
const heights = [0];

/** Whether a played body has a free line to the head of another. */
function isBefore({ ground }: World, played: Agent, other: Agent): boolean {
  if (!(played.awayFrom(other.x, other.y) < PLAYERS_REACH)) return false;
  heights[0] = HEAD * other.archetype.height;
  const eye = played.archetype.height * EYE_SHARE;
  return ground.clearPoints(played.x, played.y, eye, other.x, other.y, heights) > 0;
}

/**
 * Positions as far as the side of the played agent knows: its own agents, those that the played agent sees, and
 * those that its other agents know of. All that are on the ground where no agent is played.
 */
export function pictureSide(world: World): Float32Array {
  const { agents } = world;
  const played = agents.find((agent) => agent.isPlayed && lives(agent));
  const known = new Map<number, [x: number, y: number, now: number]>();
  if (!played) {
    for (const agent of agents) if (!agent.away) known.set(agent.index, [agent.x, agent.y, 1]);
  } else {
    const friends = new Set(
      agents.filter((agent) => !agent.away && (agent === played || played.isFriendly(agent.index))),
    );
    for (const friend of friends)
      for (const { of, x, y, visible } of friend.tracks) {
        const before = known.get(of);
        if (x - x === 0 && !(before && before[2] === 1 && !visible))
          known.set(of, [x, y, Number(visible)]);
      }
    for (const agent of agents)
      if (!agent.away && (friends.has(agent) || isBefore(world, played, agent)))
        known.set(agent.index, [agent.x, agent.y, 1]);
  }
  return Float32Array.from([...known].flatMap(([index, [x, y, now]]) => [index, x, y, now]));
}
