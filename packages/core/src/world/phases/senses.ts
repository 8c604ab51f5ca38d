import { SENSES } from '../../terms/senses.ts';
import { FRIENDLY } from '../../terms/stances.ts';
import type { Percept } from '../../senses/percept.ts';
import {
  crossing,
  isForgotten,
  NOTHING_SEEN,
  sightStrength,
  updateTrack,
  type SeenFighting,
  type SightKind,
  type Track,
} from '../../senses/sight.ts';
import type { Agent } from '../agents/agent.ts';
import { find, findables } from '../mechanics/found.ts';
import { dueMessages } from '../mechanics/messages.ts';
import { hear } from '../mechanics/noises.ts';
import { notice } from '../state/attention.ts';
import { lightAt } from '../state/light.ts';
import { recordFor } from '../state/record.ts';
import { AWARENESS_STEP, type Recorder } from '../state/recorder.ts';
import type { World } from '../world.ts';
import { forgetOwn } from './forgetting.ts';

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

/** By agent: 1 more than the place of its track in the list of who looks around; 0 where it has none. */
let places = new Int32Array(0);

function lookAround(world: World, agent: Agent, kind: SightKind): void {
  const { agents, bodies, ground, statics } = world;
  const { body, tracks } = agent;
  const reach = kind.reach * kind.reach;
  const { stances, factions } = statics.program;
  const row = agent.archetype.side * factions.length;
  if (places.length < agents.length) places = new Int32Array(agents.length);
  for (let i = 0; i < tracks.length; i++) {
    tracks[i].strength = 0;
    places[tracks[i].of] = i + 1;
  }
  const count = ground.near(body.x, body.y, kind.reach, found);
  for (let i = 0; i < count; i++) {
    // Most of those about are friends, whom this tells without a look at them.
    if (stances[row + statics.sides[found[i]]] === FRIENDLY) continue;
    // Cells are square: of those in them many are too far.
    const dx = bodies[found[i]].x - body.x;
    const dy = bodies[found[i]].y - body.y;
    if (dx * dx + dy * dy >= reach) continue;
    const other = agents[found[i]];
    if (other === agent || other.isDead) continue;
    const unlit = sightStrength(kind, ground, agent, other);
    if (unlit === 0) continue;
    const strength = unlit * lightOn(world, other);
    if (strength === 0) continue;
    let track: Track | undefined = tracks[places[other.index] - 1];
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
        vx: 0,
        vy: 0,
        seen: NOTHING_SEEN,
      };
      tracks.push(track);
    }
    track.strength = strength;
  }
  for (let i = 0; i < tracks.length; i++) places[tracks[i].of] = 0;
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
    if (track.visible) {
      const { body } = world.agents[track.of];
      track.vx = body.vx;
      track.vy = body.vy;
      track.seen = lookOf(world, track.of);
    }
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

/** What is seen of how somebody fights, worked out once in a tick for all who see it; the same object while it is the same. */
function lookOf(world: World, index: number): SeenFighting {
  const { lookedAt, looks, tick } = world;
  const before = looks[index];
  if (lookedAt[index] === tick) return before;
  lookedAt[index] = tick;
  const { archetype, fight, health } = world.agents[index];
  const move = archetype.moves[fight.move]?.word ?? -1;
  const guard = archetype.guards[fight.guard]?.word ?? -1;
  const movedAt = move < 0 ? -1 : fight.startedAt;
  if (
    before.move !== move ||
    before.movedAt !== movedAt ||
    before.guard !== guard ||
    !Object.is(before.health, health)
  )
    looks[index] = { move, movedAt, guard, health };
  return looks[index];
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

/** Percepts, awareness, and own memory that is due to be forgotten, agent by agent: facts before decisions. */
export function senseAll(world: World): void {
  const words = dueMessages(world, world.tick);
  const items = findables(world);
  for (const agent of world.agents) {
    if (agent.asleep || agent.resting) continue;
    // Setting a length costs more than asking for it, and most have noticed nothing.
    if (brought.length > 0) brought.length = 0;
    if (raised.length > 0) raised.length = 0;
    hear(agent, brought);
    if (words.size > 0) brought.push(...(words.get(agent.index) ?? []));
    const kind = world.statics.sights[agent.placed.archetype];
    if (kind) {
      lookAround(world, agent, kind);
      updateTracks(world, agent, kind);
      if (items.length > 0) find(world, agent, kind, items, brought);
    }
    if (kind || agent.perceived > 0 || brought.length > 0) notice(agent, raised, brought);
    if (world.recorder) {
      for (const percept of brought) recordBrought(world.recorder, agent, percept);
      recordAwareness(world, agent);
    }
    forgetOwn(agent, world.recorder);
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
