import { hashState } from '../../numeric/state-hash.ts';
import { copyAgentRun, restoreAgentRun, type AgentRun } from '../state/agent-run.ts';
import { copyWorldRun, restoreWorldRun, type WorldRun } from '../state/world-run.ts';
import { settle, type World } from '../world.ts';

/** Everything a run is at one tick, as plain data; what follows from the program is left out. */
export interface Snapshot extends WorldRun {
  agents: (AgentRun & { name: string })[];
}

/** Keeps everything a run is now, sharing nothing with the world: it can be sent, stored and restored any time. */
export function takeSnapshot(world: World): Snapshot {
  return {
    ...copyWorldRun(world),
    agents: world.agents.map((agent) => ({ name: agent.name, ...copyAgentRun(agent) })),
  };
}

/** Puts a world of the same program back to where the snapshot was taken. Throws where the agents differ. */
export function restoreSnapshot(world: World, snapshot: Snapshot): void {
  if (snapshot.agents.length !== world.agents.length) {
    throw new Error(
      `The snapshot has ${snapshot.agents.length} agents, the program ${world.agents.length}.`,
    );
  }
  snapshot.agents.forEach((kept, index) => {
    const agent = world.agents[index];
    if (agent.name !== kept.name)
      throw new Error(`The snapshot has “${kept.name}” where the program has “${agent.name}”.`);
    restoreAgentRun(agent, kept);
  });
  restoreWorldRun(world, snapshot);
  settle(world);
}

/** The state hash: equal runs have equal hashes at every tick, in every engine. */
export function worldHash(world: World): string {
  return hashState(takeSnapshot(world));
}
