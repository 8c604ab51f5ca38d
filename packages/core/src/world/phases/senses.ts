import { SENSES } from '../../terms/senses.ts';
import { cos, sin } from '../../numeric/trigonometry.ts';
import { FRIENDLY } from '../../terms/stances.ts';
import type { Percept } from '../../senses/percept.ts';
import {
  crossing,
  isForgotten,
  NOTHING_SEEN,
  sightStrength,
  updateTrack,
  type Looker,
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

/** By agent, x and y of where it stands; NaN for who can’t be seen. All look at all of them: in one row that takes a fraction of asking every body. */
let spots = new Float64Array(0);
/** By agent: the place of its track in the list of who looks around, if the track there is its own. */
let places = new Int32Array(0);

function noteSpots({ agents, bodies }: World): void {
  if (places.length < agents.length) {
    spots = new Float64Array(2 * agents.length);
    places = new Int32Array(agents.length);
  }
  for (let i = 0; i < agents.length; i++) {
    spots[2 * i] = agents[i].isDead ? NaN : bodies[i].x;
    spots[2 * i + 1] = bodies[i].y;
  }
}

/** The eyes of the agent in hand. */
const looker: Looker = { x: 0, y: 0, heading: 0, faceX: 1, faceY: 0, eye: 0 };

function lookFrom({ body, heading, eye }: Agent): void {
  looker.x = body.x;
  looker.y = body.y;
  looker.heading = heading;
  looker.faceX = cos(heading);
  looker.faceY = sin(heading);
  looker.eye = eye;
}

function lookAround(world: World, agent: Agent, kind: SightKind): void {
  const { agents, ground, statics } = world;
  const { tracks } = agent;
  const { x, y } = looker;
  const reach = kind.reach * kind.reach;
  const { stances, factions } = statics.program;
  const row = agent.archetype.side * factions.length;
  for (let i = 0; i < tracks.length; i++) {
    tracks[i].strength = 0;
    places[tracks[i].of] = i;
  }
  const count = ground.near(x, y, kind.reach, found);
  for (let i = 0; i < count; i++) {
    const index = found[i];
    // Most of those about are friends, whom this tells without a look at them.
    if (stances[row + statics.sides[index]] === FRIENDLY || index === agent.index) continue;
    // Cells are square: of those in them many are too far.
    const dx = spots[2 * index] - x;
    const dy = spots[2 * index + 1] - y;
    if (!(dx * dx + dy * dy < reach)) continue;
    const other = agents[index];
    const unlit = sightStrength(kind, ground, looker, other);
    if (unlit === 0) continue;
    const strength = unlit * lightOn(world, other);
    if (strength === 0) continue;
    let track: Track | undefined = tracks[places[index]];
    if (track?.of !== index) {
      track = {
        of: index,
        heeded: agent.isHostile(index),
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
}

/** What the senses of the agent in hand have raised in this tick. */
const raised: string[] = [];

function updateTracks(world: World, agent: Agent, kind: SightKind): void {
  const dt = 1 / agent.ticksPerSecond;
  let forgotten = false;
  for (let i = 0; i < agent.tracks.length; i++) {
    const track = agent.tracks[i];
    const before = track.awareness;
    updateTrack(track, kind, spots[2 * track.of], spots[2 * track.of + 1], world.tick, dt);
    if (track.visible) {
      const { vx, vy } = world.bodies[track.of];
      track.vx = vx;
      track.vy = vy;
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
  noteSpots(world);
  for (const agent of world.agents) {
    if (agent.asleep || agent.resting) continue;
    // Setting a length costs more than asking for it, and most have noticed nothing.
    if (brought.length > 0) brought.length = 0;
    if (raised.length > 0) raised.length = 0;
    hear(agent, brought);
    if (words.size > 0) brought.push(...(words.get(agent.index) ?? []));
    const kind = world.statics.sights[agent.placed.archetype];
    if (kind) {
      lookFrom(agent);
      lookAround(world, agent, kind);
      updateTracks(world, agent, kind);
      if (items.length > 0) find(world, agent, kind, looker, items, brought);
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
