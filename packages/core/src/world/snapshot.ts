import type { Body } from '../motion/body.ts';
import { hashState } from '../numeric/state-hash.ts';
import type { Track } from '../senses/sight.ts';
import type { Agent, Sensation } from './agent.ts';
import type { World } from './world.ts';

/** Everything a run is at one tick, as plain data; what follows from the program is left out. */
export interface Snapshot {
  tick: number;
  agents: AgentSnapshot[];
  squadMemories: Float64Array[];
  worldMemory: Float64Array;
}

export interface AgentSnapshot {
  name: string;
  body: Body;
  gait: number;
  tracks: Track[];
  noticed: Track[];
  late: Sensation[];
  inboxes: string[][];
  speech: string;
  spokenAt: number;
  stream: number[];
  memory: Float64Array;
}

function copyBody(body: Body): Body {
  return { ...body, path: body.path.slice() };
}

function copyTracks(tracks: readonly Track[]): Track[] {
  return tracks.map((track) => ({ ...track }));
}

function copyLate(late: readonly Sensation[]): Sensation[] {
  return late.map(({ tracks, events }) => ({ tracks: copyTracks(tracks), events: events.slice() }));
}

/** Without a reaction time, what has been noticed is what the senses hold, and needs no copy. */
function isLate(agent: Agent): boolean {
  return agent.archetype.reactionTicks > 0;
}

function snapshotAgent(agent: Agent): AgentSnapshot {
  return {
    name: agent.name,
    body: copyBody(agent.body),
    gait: agent.gait,
    tracks: copyTracks(agent.tracks),
    noticed: isLate(agent) ? copyTracks(agent.noticed) : [],
    late: copyLate(agent.late),
    inboxes: agent.inboxes.map((inbox) => inbox.slice()),
    speech: agent.speech,
    spokenAt: agent.spokenAt,
    stream: [...agent.stream],
    memory: agent.memory.slice(),
  };
}

export function takeSnapshot(world: World): Snapshot {
  return {
    tick: world.tick,
    agents: world.agents.map(snapshotAgent),
    squadMemories: world.squadMemories.map((cells) => cells.slice()),
    worldMemory: world.worldMemory.slice(),
  };
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
    agent.noticed = isLate(agent) ? copyTracks(kept.noticed) : agent.tracks;
    agent.late = copyLate(kept.late);
    agent.attend();
    agent.inboxes = kept.inboxes.map((inbox) => inbox.slice());
    agent.hasEvents = agent.inboxes.some((inbox) => inbox.length > 0);
    agent.speech = kept.speech;
    agent.spokenAt = kept.spokenAt;
    agent.stream = Uint32Array.from(kept.stream);
    agent.memory.set(kept.memory);
  });
  snapshot.squadMemories.forEach((cells, index) => world.squadMemories[index].set(cells));
  world.worldMemory.set(snapshot.worldMemory);
}

/** The state hash: equal runs have equal hashes at every tick, in every engine. */
export function worldHash(world: World): string {
  return hashState(takeSnapshot(world));
}
