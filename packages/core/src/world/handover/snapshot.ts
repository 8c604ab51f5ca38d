import { hashState } from '../../numeric/state-hash.ts';
import {
  copyAgentRun,
  restoreAgentRun,
  unlikeAgentRun,
  type AgentRun,
} from '../state/agent-run.ts';
import {
  copyWorldRun,
  restoreWorldRun,
  unlikeWorldRun,
  type WorldRun,
} from '../state/world-run.ts';
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

/** Why a world can't be put back to a snapshot; null where it can. */
function whyNotRestore(world: World, snapshot: Snapshot): string | null {
  if (typeof snapshot !== 'object' || snapshot === null || !Array.isArray(snapshot.agents))
    return 'This is no snapshot: it has no agents.';
  const { agents } = snapshot;
  if (agents.length !== world.agents.length)
    return `The snapshot has ${agents.length} agents, the program ${world.agents.length}.`;
  for (const [index, kept] of agents.entries()) {
    const agent = world.agents[index];
    if (agent.name !== kept.name)
      return `The snapshot has “${kept.name}” where the program has “${agent.name}”.`;
    const unlike = unlikeAgentRun(agent, kept);
    if (unlike !== null)
      return `The snapshot is not whole: “${unlike}” of “${kept.name}” is missing, or is of another program.`;
  }
  const unlike = unlikeWorldRun(world, snapshot);
  return unlike === null
    ? null
    : `The snapshot is not whole: “${unlike}” is missing, or is of another program.`;
}

/**
 * Puts a world of the same program back to where the snapshot was taken.
 *
 * @throws {Error} the snapshot is not whole, or is of another program; the world is as it was
 */
export function restoreSnapshot(world: World, snapshot: Snapshot): void {
  const trouble = whyNotRestore(world, snapshot);
  if (trouble !== null) throw new Error(trouble);
  snapshot.agents.forEach((kept, index) => restoreAgentRun(world.agents[index], kept));
  restoreWorldRun(world, snapshot);
  settle(world);
}

/** The state hash: equal runs have equal hashes at every tick, in every engine. */
export function worldHash(world: World): string {
  return hashState(takeSnapshot(world));
}
