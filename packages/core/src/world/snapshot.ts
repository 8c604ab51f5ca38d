import { copyMachineState, type MachineState } from '../mind/machine/state.ts';
import type { Body } from '../motion/body.ts';
import { hashState } from '../numeric/state-hash.ts';
import type { Track } from '../senses/sight.ts';
import type { Agent } from './agent.ts';
import type { World } from './world.ts';

/** Everything a run is at one tick, as plain data; what follows from the program is left out. */
export interface Snapshot {
  tick: number;
  agents: AgentSnapshot[];
}

export interface AgentSnapshot {
  name: string;
  body: Body;
  gait: number;
  tracks: Track[];
  inbox: string[];
  speech: string;
  spokenAt: number;
  stream: number[];
  memory: number[];
  writtenAt: number[];
  machine: MachineState | null;
}

function copyBody(body: Body): Body {
  return { ...body, path: body.path.slice() };
}

function copyTracks(tracks: readonly Track[]): Track[] {
  return tracks.map((track) => ({ ...track }));
}

function snapshotAgent(agent: Agent): AgentSnapshot {
  const { mindState } = agent;
  return {
    name: agent.name,
    body: copyBody(agent.body),
    gait: agent.gait,
    tracks: copyTracks(agent.tracks),
    inbox: agent.inbox.slice(),
    speech: agent.speech,
    spokenAt: agent.spokenAt,
    stream: [...agent.stream],
    memory: [...agent.memory],
    writtenAt: mindState ? [...mindState.writtenAt] : [],
    machine: mindState && copyMachineState(mindState.machine),
  };
}

export function takeSnapshot(world: World): Snapshot {
  return { tick: world.tick, agents: world.agents.map(snapshotAgent) };
}

/** Puts a world of the same program back to where the snapshot was taken. Throws where the agents differ. */
export function restoreSnapshot(world: World, snapshot: Snapshot): void {
  if (snapshot.agents.length !== world.agents.length) {
    throw new Error(
      `The snapshot has ${snapshot.agents.length} agents, the program ${world.agents.length}.`,
    );
  }
  world.tick = snapshot.tick;
  snapshot.agents.forEach((kept, index) => {
    const agent = world.agents[index];
    if (agent.name !== kept.name)
      throw new Error(`The snapshot has “${kept.name}” where the program has “${agent.name}”.`);
    agent.tick = snapshot.tick;
    agent.body = copyBody(kept.body);
    world.bodies[index] = agent.body;
    agent.gait = kept.gait;
    agent.tracks = copyTracks(kept.tracks);
    agent.attend();
    agent.inbox = kept.inbox.slice();
    agent.speech = kept.speech;
    agent.spokenAt = kept.spokenAt;
    agent.stream = Uint32Array.from(kept.stream);
    if (agent.mindState && kept.machine) {
      agent.mindState.memory.set(kept.memory);
      agent.mindState.writtenAt.set(kept.writtenAt);
      agent.mindState.machine = copyMachineState(kept.machine);
    }
  });
}

/** The state hash: equal runs have equal hashes at every tick, in every engine. */
export function worldHash(world: World): string {
  return hashState(takeSnapshot(world));
}
