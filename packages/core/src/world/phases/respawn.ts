import { nextRandom } from '../../numeric/random.ts';
import { whoStandsAt } from '../mechanics/room.ts';
import { begin } from '../state/agent-run.ts';
import type { AgentState } from '../state/agent-state.ts';
import { attend } from '../state/attention.ts';
import { recordFor } from '../state/record.ts';
import type { World } from '../world.ts';

/** Those who are dead for long enough respawn, where there is room: at a spawn place, or where they were placed if the ground has none. */
export function respawn(world: World): void {
  const { someRecycle, program } = world.statics;
  if (!someRecycle) return;
  for (const agent of world.agents) {
    const { recycleTicks } = agent.archetype;
    if (!agent.isDead || recycleTicks === 0 || world.tick - agent.life.diedAt < recycleTicks)
      continue;
    const { spawns } = program.ground;
    const places = (spawns.length > 0 ? spawns : [agent.placed]).filter(({ x, y }) =>
      hasRoom(world, agent, x, y),
    );
    if (places.length === 0) continue;
    const { x, y, heading } = places[Math.floor(nextRandom(agent.stream) * places.length)];
    beginAgain(world, agent, x, y, heading);
  }
}

/** The dead are no hindrance: one that lies at the only spawn place would keep all others from coming back. */
function hasRoom(world: World, agent: AgentState, x: number, y: number): boolean {
  if (world.ground.isBlocked(x, y, agent.archetype.radius)) return false;
  return !whoStandsAt(world, agent, x, y, ({ isDead }) => !isDead);
}

/** As at the start of the run, elsewhere: nothing is remembered, known or on its way. Whoever is played stays so. */
function beginAgain(world: World, agent: AgentState, x: number, y: number, heading: number): void {
  const { isPlayed: played } = agent;
  begin(agent, { x, y, heading, played, asleep: false, seed: null });
  agent.perceived = 0;
  agent.hasEvents = false;
  attend(agent);
  // Its body can be found again, should it come to that.
  for (const items of world.found) items[agent.index] = 0;
  if (world.recorder) recordFor(agent, world.recorder, { kind: 'recycled', x, y });
}
