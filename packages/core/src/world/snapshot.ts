import { copyBody, type Body } from '../motion/body.ts';
import { hashState } from '../numeric/state-hash.ts';
import type { Track } from '../senses/sight.ts';
import type { Percept } from '../senses/percept.ts';
import type { Agent } from './agent.ts';
import type { Arriving, Life, Sensation } from './agent-state.ts';
import { attend } from './attention.ts';
import { settleGates } from './gates.ts';
import type { GateStatus, Message, Noise, Search, Slot, Thing } from './surroundings.ts';
import { joinRoute, type World } from './world.ts';

/** Everything a run is at one tick, as plain data; what follows from the program is left out. */
export interface Snapshot {
  tick: number;
  agents: AgentSnapshot[];
  squadMemories: Float64Array[];
  worldMemory: Float64Array;
  gates: GateStatus[];
  things: Thing[];
  noises: Noise[];
  messages: Message[];
  searches: Search[];
  slots: Slot[];
  learned: number[][];
  found: Uint8Array[];
}

type Commons = Pick<
  Snapshot,
  'gates' | 'things' | 'noises' | 'messages' | 'searches' | 'slots' | 'learned' | 'found'
>;

export interface AgentSnapshot {
  name: string;
  body: Body;
  gait: number;
  tracks: Track[];
  noticed: Track[];
  late: Sensation[];
  percepts: (Percept | null)[];
  arriving: Arriving[];
  asleep: boolean;
  resting: boolean;
  life: Life;
  refused: string;
  carried: number;
  role: number;
  inboxes: string[][];
  speech: string;
  spokenAt: number;
  stream: number[];
  memory: Float64Array;
}

function copyTracks(tracks: readonly Track[]): Track[] {
  return tracks.map((track) => ({ ...track }));
}

function copyLate(late: readonly Sensation[]): Sensation[] {
  return late.map(({ due, tracks, events, percepts }) => ({
    due,
    tracks: copyTracks(tracks),
    events: events.slice(),
    percepts: percepts.slice(),
  }));
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
    percepts: agent.percepts.slice(),
    arriving: agent.arriving.slice(),
    asleep: agent.asleep,
    resting: agent.resting,
    life: { ...agent.life },
    refused: agent.refused,
    carried: agent.carried,
    role: agent.role,
    inboxes: agent.inboxes.map((inbox) => inbox.slice()),
    speech: agent.speech,
    spokenAt: agent.spokenAt,
    stream: [...agent.stream],
    memory: agent.memory.slice(),
  };
}

/** What belongs to nobody in particular. */
function copyCommons(from: Commons): Commons {
  return {
    gates: from.gates.slice(),
    things: from.things.map((thing) => ({ ...thing })),
    noises: from.noises.map((noise) => ({ ...noise })),
    messages: from.messages.map((message) => ({ ...message })),
    searches: from.searches.map((search) => ({
      ...search,
      places: search.places.slice(),
      by: search.by.slice(),
    })),
    slots: from.slots.map((slot) => ({ ...slot })),
    learned: from.learned.map((points) => points.slice()),
    found: from.found.map((items) => items.slice()),
  };
}

export function takeSnapshot(world: World): Snapshot {
  return {
    tick: world.tick,
    agents: world.agents.map(snapshotAgent),
    squadMemories: world.squadMemories.map((cells) => cells.slice()),
    worldMemory: world.worldMemory.slice(),
    ...copyCommons(world),
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
    agent.percepts = kept.percepts.slice();
    agent.perceived = kept.percepts.filter((percept) => percept !== null).length;
    agent.arriving = kept.arriving.slice();
    agent.asleep = kept.asleep;
    agent.resting = kept.resting;
    agent.life = { ...kept.life };
    agent.refused = kept.refused;
    agent.carried = kept.carried;
    agent.role = kept.role;
    agent.inboxes = kept.inboxes.map((inbox) => inbox.slice());
    agent.hasEvents = agent.inboxes.some((inbox) => inbox.length > 0);
    agent.speech = kept.speech;
    agent.spokenAt = kept.spokenAt;
    agent.stream = Uint32Array.from(kept.stream);
    agent.memory.set(kept.memory);
    attend(agent);
  });
  Object.assign(world, copyCommons(snapshot));
  snapshot.learned.forEach((points, route) => {
    if (points.length > 0 || world.routes[route] !== world.statics.routePoints[route])
      joinRoute(world, route);
  });
  settleGates(world);
  world.litAt.fill(-1);
  snapshot.squadMemories.forEach((cells, index) => world.squadMemories[index].set(cells));
  world.worldMemory.set(snapshot.worldMemory);
}

/** The state hash: equal runs have equal hashes at every tick, in every engine. */
export function worldHash(world: World): string {
  return hashState(takeSnapshot(world));
}
