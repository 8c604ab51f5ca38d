import { SENSES } from '../../terms/senses.ts';
import { cos, sin } from '../../numeric/trigonometry.ts';
import { collectNeighbours } from '../../ground/neighbours.ts';
import type { Percept } from '../../senses/percept.ts';
import {
  crossing,
  sightStrength,
  type Looker,
  type SightKind,
  type SightTarget,
} from '../../senses/sight.ts';
import type { SeenFighting } from '../../senses/tracks.ts';
import type { Agent } from '../agents/agent.ts';
import { find, findables } from '../mechanics/hands/found.ts';
import { dueMessages } from '../mechanics/telling/messages.ts';
import { hear } from '../mechanics/telling/noises.ts';
import { notice } from '../state/attention.ts';
import { guardOf, moveOf } from '../state/fight.ts';
import { lightAt } from '../state/light.ts';
import { recordFor } from '../state/record.ts';
import { AWARENESS_STEP, type Recorder } from '../state/recorder.ts';
import type { World } from '../world.ts';
import { forgetOwn } from './forgetting.ts';

const found: number[] = [];

/** Light on each body, and the tick it was looked up in. */
function lightOn(world: World, index: number): number {
  const { litAt, light } = world;
  if (litAt[index] !== world.tick) {
    const { x, y } = world.bodies[index];
    litAt[index] = world.tick;
    light[index] = lightAt(world, x, y);
  }
  return light[index];
}

/** Numbers that say how a body can be seen: x, y, height, posture. */
const LOOK = 4;
/** These of all agents; NaN for an agent that can’t be seen. All look at all of them: in one row that takes a fraction of asking every body. */
let bodies = new Float64Array(0);
/** By agent: how strongly the current agent sees it; 0 between agents. */
let strengths = new Float64Array(0);

function noteBodies({ agents }: World): void {
  if (strengths.length < agents.length) {
    bodies = new Float64Array(LOOK * agents.length);
    strengths = new Float64Array(agents.length);
  }
  for (let i = 0; i < agents.length; i++) {
    const agent = agents[i];
    bodies[LOOK * i] = agent.isDead ? NaN : agent.body.x;
    bodies[LOOK * i + 1] = agent.body.y;
    bodies[LOOK * i + 2] = agent.height;
    bodies[LOOK * i + 3] = agent.posture;
  }
}

/** The eyes of the current agent. */
const looker: Looker = { x: 0, y: 0, heading: 0, faceX: 1, faceY: 0, eye: 0 };

/** Writes where an agent looks from. */
export function lookFrom(agent: Agent, into: Looker): Looker {
  const { body, eye, face } = agent;
  const { heading } = body;
  if (face[0] !== heading) {
    face[0] = heading;
    face[1] = cos(heading);
    face[2] = sin(heading);
  }
  into.x = body.x;
  into.y = body.y;
  into.heading = heading;
  into.faceX = face[1];
  into.faceY = face[2];
  into.eye = eye;
  return into;
}

const target: SightTarget = { x: 0, y: 0, height: 0, posture: 0 };

/** Agents that the current agent sees: so many of the list. Setting a length costs more than counting. */
const seen: number[] = [];
let seenCount = 0;

/** Finds the agents that the current agent sees, into {@link seen} and {@link strengths}. */
function lookAround(world: World, agent: Agent, kind: SightKind): void {
  const { ground, places } = world;
  const { x, y } = looker;
  const reach = kind.reach * kind.reach;
  seenCount = 0;
  // Most agents nearby are friends, which are not looked at.
  const count = collectNeighbours(places.strangers[agent.archetype.side]!, x, y, kind.reach, found);
  for (let i = 0; i < count; i++) {
    const index = found[i];
    if (index === agent.index) continue;
    target.x = bodies[LOOK * index];
    target.y = bodies[LOOK * index + 1];
    // Cells are square: of those in them many are too far.
    const dx = target.x - x;
    const dy = target.y - y;
    if (!(dx * dx + dy * dy < reach)) continue;
    target.height = bodies[LOOK * index + 2];
    target.posture = bodies[LOOK * index + 3];
    const unlit = sightStrength(kind, ground, looker, target);
    if (unlit === 0) continue;
    const strength = unlit * lightOn(world, index);
    if (strength === 0) continue;
    strengths[index] = strength;
    seen[seenCount++] = index;
  }
}

/** What the senses of the current agent have raised in this tick. */
const raised: string[] = [];

/** Brings what the current agent knows by sight up to this tick. */
function updateTracks(world: World, agent: Agent, kind: SightKind): void {
  const { sight } = agent.known;
  let forgotten = false;
  for (let i = 0; i < sight.length; i++) {
    updateTrack(world, agent, kind, i);
    forgotten ||= sight.isForgotten(i, kind, world.tick);
  }
  for (let i = 0; i < seenCount; i++) {
    // Agents with a track have been handled with it.
    if (strengths[seen[i]] === 0) continue;
    const track = sight.begin(seen[i], agent.self.isHostile(seen[i]), world.tick);
    updateTrack(world, agent, kind, track);
  }
  if (forgotten) sight.forget(kind, world.tick);
}

function updateTrack(world: World, agent: Agent, kind: SightKind, track: number): void {
  const { sight } = agent.known;
  const of = sight.of(track);
  const before = sight.awareness(track);
  sight.update(track, kind, strengths[of], world.tick, 1 / agent.ticksPerSecond);
  if (strengths[of] > 0) {
    const { x, y, vx, vy } = world.bodies[of];
    sight.place(track, x, y, vx, vy, lookOf(world, of));
    strengths[of] = 0;
  }
  const change = crossing(kind, before, sight.awareness(track));
  if (change === null) return;
  raised.push(`sight.${change}`);
  if (world.recorder) recordPercept(world.recorder, agent, track, change);
}

/** What others see of how an agent fights, computed once in a tick for all of them; the same object while it is the same. */
function lookOf(world: World, index: number): SeenFighting {
  const { lookedAt, looks, tick } = world;
  const before = looks[index];
  if (lookedAt[index] === tick) return before;
  lookedAt[index] = tick;
  const agent = world.agents[index];
  const { health } = agent.life;
  const move = moveOf(agent)?.word ?? -1;
  const guard = guardOf(agent)?.word ?? -1;
  const movedAt = move < 0 ? -1 : agent.fight.startedAt;
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
  track: number,
  how: NonNullable<ReturnType<typeof crossing>>,
): void {
  const { of, x, y, awareness } = agent.known.sight.at(track);
  const { name } = agent.program.agents[of];
  recordFor(agent, record, {
    kind: 'percept',
    sense: 'sight',
    how,
    of: name,
    x,
    y,
    strength: awareness,
  });
}

function recordAwareness(world: World, agent: Agent): void {
  const step = Math.round(agent.known.awarenessShown / AWARENESS_STEP);
  if (step === world.awarenessRecorded[agent.index]) return;
  world.awarenessRecorded[agent.index] = step;
  recordFor(agent, world.recorder!, { kind: 'awareness', value: step * AWARENESS_STEP });
}

/** What the senses of the current agent bring in this tick besides sight. */
const brought: Percept[] = [];

/** Percepts, awareness, and own memory that is due to be forgotten, agent by agent: facts before decisions. */
export function senseAll(world: World): void {
  const words = dueMessages(world, world.tick);
  const items = findables(world);
  noteBodies(world);
  for (const agent of world.agents) {
    world.acting = agent.index;
    if (agent.asleep || agent.resting) continue;
    // Setting a length costs more than asking for it, and most have noticed nothing.
    if (brought.length > 0) brought.length = 0;
    if (raised.length > 0) raised.length = 0;
    hear(agent, brought);
    if (words.size > 0) brought.push(...(words.get(agent.index) ?? []));
    const kind = world.statics.sights[agent.placed.archetype];
    if (kind) {
      lookFrom(agent, looker);
      lookAround(world, agent, kind);
      updateTracks(world, agent, kind);
      if (items.length > 0) find(world, agent, kind, looker, items, brought);
    }
    if (kind || agent.known.perceived > 0 || brought.length > 0) notice(agent, raised, brought);
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
