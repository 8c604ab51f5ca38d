import { nextRandom } from '../../numeric/random.ts';
import { beginAgain, hasRoom, leave } from '../mechanics/game/waves.ts';
import { recordFor } from '../state/record.ts';
import type { World } from '../world.ts';

/** Agents that have been dead for long enough leave, if they came with a wave; others respawn, where there is room: at a spawn place, or where they were placed if the ground has none. */
export function respawn(world: World): void {
  const { someRecycle, program } = world.statics;
  if (!someRecycle) return;
  for (const agent of world.agents) {
    const { respawnTicks } = agent.archetype;
    world.acting = agent.index;
    if (!agent.isDead || respawnTicks === 0 || world.tick - agent.life.diedAt < respawnTicks)
      continue;
    // An agent of a wave comes again with its wave; its body is removed.
    if (agent.placed.away) {
      if (world.recorder) recordFor(agent, world.recorder, { kind: 'left' });
      leave(world, agent);
      continue;
    }
    const { spawns } = program.ground;
    const places = (spawns.length > 0 ? spawns : [agent.placed]).filter(({ x, y }) =>
      hasRoom(world, agent, x, y),
    );
    if (places.length === 0) continue;
    const { x, y, heading } = places[Math.floor(nextRandom(agent.stream) * places.length)];
    beginAgain(world, agent, { x, y, heading });
    if (world.recorder) recordFor(agent, world.recorder, { kind: 'recycled', x, y });
  }
}
