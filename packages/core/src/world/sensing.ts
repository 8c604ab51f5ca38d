import { forgetDueKeys } from '../mind/memory.ts';
import type { KeyProgram } from '../mind/program.ts';
import type { Percept } from '../senses/percept.ts';
import {
  crossing,
  isForgotten,
  sightStrength,
  updateTrack,
  type SightKind,
  type Track,
} from '../senses/sight.ts';
import { SENSES } from '../senses/words.ts';
import { collectNeighbours, fillNeighbours } from '../space/neighbours.ts';
import type { Agent } from './agent.ts';
import { notice } from './attention.ts';
import { dropSearches } from './booking.ts';
import { find, findables } from './found.ts';
import { hear, spreadNoises } from './hearing.ts';
import { isPlayed } from './input.ts';
import { lightAt } from './light.ts';
import { dueMessages } from './messages.ts';
import { FRIENDLY } from './program.ts';
import { recordFor } from './record-agent.ts';
import { AWARENESS_STEP, type Recorder } from './recorder.ts';
import { giveRoles } from './roles.ts';
import type { World } from './world.ts';

const found: number[] = [];

/** Light on each body, and the tick it was looked up in. */
function lightOn(world: World, { index, x, y }: Agent): number {
  const { litAt, light } = world;
  if (litAt[index] !== world.tick) {
    litAt[index] = world.tick;
    light[index] = lightAt(world, x, y);
  }
  return light[index];
}

function trackOf(tracks: readonly Track[], agent: number): Track | undefined {
  for (let i = 0; i < tracks.length; i++) if (tracks[i].of === agent) return tracks[i];
  return undefined;
}

function lookAround(world: World, agent: Agent, kind: SightKind): void {
  const { agents, walls, neighbours, statics } = world;
  const { body, tracks } = agent;
  const { stances, factions } = statics.program;
  const row = agent.archetype.side * factions.length;
  for (let i = 0; i < tracks.length; i++) tracks[i].strength = 0;
  const count = collectNeighbours(neighbours, body.x, body.y, kind.reach, found);
  for (let i = 0; i < count; i++) {
    // Most of those about are friends, whom this tells without a look at them.
    if (stances[row + statics.sides[found[i]]] === FRIENDLY) continue;
    const other = agents[found[i]];
    if (other === agent || other.isDead) continue;
    const unlit = sightStrength(kind, walls, agent, other);
    if (unlit === 0) continue;
    const strength = unlit * lightOn(world, other);
    if (strength === 0) continue;
    let track = trackOf(tracks, other.index);
    if (!track) {
      track = {
        of: other.index,
        heeded: agent.isHostile(other.index),
        awareness: 0,
        strength: 0,
        visible: false,
        seenAt: world.tick,
        x: NaN,
        y: NaN,
      };
      tracks.push(track);
    }
    track.strength = strength;
  }
}

/** What the senses of the agent in hand have raised in this tick. */
const raised: string[] = [];

function updateTracks(world: World, agent: Agent, kind: SightKind): void {
  const dt = 1 / agent.ticksPerSecond;
  let forgotten = false;
  for (let i = 0; i < agent.tracks.length; i++) {
    const track = agent.tracks[i];
    const before = track.awareness;
    const { x, y } = world.bodies[track.of];
    updateTrack(track, kind, x, y, world.tick, dt);
    const change = crossing(kind, before, track.awareness);
    if (change !== null) {
      raised.push(`sight.${change}`);
      if (world.recorder) recordPercept(world.recorder, agent, track, change);
    }
    forgotten ||= isForgotten(track, kind, world.tick);
  }
  if (forgotten)
    agent.tracks = agent.tracks.filter((track) => !isForgotten(track, kind, world.tick));
}

function recordPercept(
  record: Recorder,
  agent: Agent,
  track: Track,
  how: NonNullable<ReturnType<typeof crossing>>,
): void {
  const of = agent.program.agents[track.of].name;
  recordFor(agent, record, {
    kind: 'percept',
    sense: 'sight',
    how,
    of,
    x: track.x,
    y: track.y,
    strength: track.awareness,
  });
}

function recordAwareness(world: World, agent: Agent): void {
  const step = Math.round(agent.awarenessShown / AWARENESS_STEP);
  if (step === world.awarenessRecorded[agent.index]) return;
  world.awarenessRecorded[agent.index] = step;
  recordFor(agent, world.recorder!, { kind: 'awareness', value: step * AWARENESS_STEP });
}

/** What the senses of the agent in hand bring in this tick besides sight. */
const brought: Percept[] = [];

/** Percepts, awareness, and memory that is due to be forgotten: facts before decisions. */
export function sense(world: World): void {
  fillNeighbours(world.neighbours, world.bodies);
  restFarAgents(world);
  if (world.noises.length > 0) {
    if (world.recorder) recordNoises(world, world.recorder);
    spreadNoises(world, world.neighbours);
  }
  const words = dueMessages(world, world.tick);
  const list = findables(world);
  for (const agent of world.agents) {
    if (agent.asleep || agent.resting) continue;
    const kind = world.statics.sights[agent.placed.archetype];
    if (brought.length > 0) brought.length = 0;
    if (raised.length > 0) raised.length = 0;
    hear(agent, brought);
    if (words.size > 0) brought.push(...(words.get(agent.index) ?? []));
    if (kind) {
      lookAround(world, agent, kind);
      updateTracks(world, agent, kind);
      if (list.length > 0) find(world, agent, kind, list, brought);
    }
    if (kind || agent.perceived > 0 || brought.length > 0) notice(agent, raised, brought);
    if (world.recorder) {
      for (const percept of brought) recordBrought(world.recorder, agent, percept);
      recordAwareness(world, agent);
    }
    if (agent.stack) {
      const told = world.recorder && forgotten(world.recorder, agent);
      forgetDueKeys(agent.memory, agent.stack.ownKeys, world.tick, told);
    }
  }
  forgetShared(world);
  dropSearches(world, world.tick, world.statics.program.ticksPerSecond);
  giveRoles(world);
}

/** Steps are recorded of players only: others make too many of them, and what is heard is recorded anyway. */
function recordNoises({ noises, agents, statics, tick }: World, record: Recorder): void {
  const { texts } = statics.program;
  for (const { what, x, y, reach, maker } of noises) {
    if (what === statics.words.step && !(agents[maker] && isPlayed(agents[maker]))) continue;
    const agent = agents[maker]?.name ?? '';
    record({ tick, agent, kind: 'noise', what: texts[what], x, y, reach });
  }
}

function recordBrought(record: Recorder, agent: Agent, percept: Percept): void {
  const { agents, texts, ground } = agent.program;
  const { sense: index, what, of, thing, x, y, strength } = percept;
  recordFor(agent, record, {
    kind: 'percept',
    sense: SENSES[index],
    how: texts[what],
    of: agents[of]?.name ?? ground.things[thing]?.name ?? '',
    x,
    y,
    strength,
  });
}

/** Agents too far from every player rest, and wake again a little nearer. */
function restFarAgents({ agents, statics }: World): void {
  if (!statics.someSleep) return;
  const played = agents.filter(isPlayed);
  for (const agent of agents) {
    const { sleepBeyond } = agent.archetype;
    if (sleepBeyond === 0) continue;
    const limit = agent.resting ? sleepBeyond * 0.9 : sleepBeyond;
    const near = played.some(({ x, y }) => {
      const dx = x - agent.x;
      const dy = y - agent.y;
      return dx * dx + dy * dy <= limit * limit;
    });
    agent.resting = played.length > 0 && !near && !isPlayed(agent);
  }
}

function forgotten(record: Recorder, agent: Agent): (key: KeyProgram) => void {
  return ({ name }) => recordFor(agent, record, { kind: 'forgot', key: name });
}

function forgetShared({ statics, squadMemories, worldMemory, tick: now, recorder }: World): void {
  const { squadKeys, worldKeys, squads } = statics.program;
  const tell = (of: string) =>
    recorder &&
    (({ name }: KeyProgram) => recorder({ tick: now, agent: '', kind: 'forgot', key: name, of }));
  squadMemories.forEach((cells, squad) =>
    forgetDueKeys(cells, squadKeys.keys, now, tell(squads[squad]?.name ?? '')),
  );
  forgetDueKeys(worldMemory, worldKeys.keys, now, tell('world'));
}
