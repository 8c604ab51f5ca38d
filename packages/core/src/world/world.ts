import { decide, forgetDueKeys } from '../mind/mind.ts';
import { LEGS_FAILED } from '../mind/host.ts';
import { moveBody, type Body } from '../motion/body.ts';
import {
  crossing,
  isForgotten,
  sightStrength,
  updateTrack,
  type SightKind,
  type Track,
} from '../senses/sight.ts';
import {
  collectNeighbours,
  createNeighbours,
  fillNeighbours,
  type Neighbours,
} from '../space/neighbours.ts';
import { Agent } from './agent.ts';
import type { Program } from './program.ts';
import { createMindRecorder, recordFor } from './record-agent.ts';
import type { Recorder } from './recorder.ts';
import { createStatics, type Statics } from './statics.ts';

/** What a player does with one agent, from the next tick until it says otherwise. */
export interface Input {
  agent: string;
  /** −1 to 1 each way. */
  x: number;
  y: number;
  /** A gait by name; null for the archetype's own. */
  gait: string | null;
}

export interface World {
  statics: Statics;
  /** Ticks done. */
  tick: number;
  agents: Agent[];
  bodies: Body[];
  neighbours: Neighbours;
  recorder: Recorder | null;
  /** Last awareness recorded for each agent, in steps of {@link AWARENESS_STEP}. */
  awarenessRecorded: number[];
  /** Decides in place of compiled minds, for measuring and for games that bring their own. */
  decideFor: ((agent: Agent, events: readonly string[]) => void) | null;
}

/** The ledger's awareness line moves in steps this large. */
export const AWARENESS_STEP = 1 / 16;

export function createWorld(
  program: Program,
  seed = program.seed,
  statics = createStatics(program),
): World {
  const agents = program.agents.map((_, index) => new Agent(statics, index, seed));
  const { width, height } = program.ground;
  return {
    statics,
    tick: 0,
    agents,
    bodies: agents.map((agent) => agent.body),
    neighbours: createNeighbours(width, height, agents.length),
    recorder: null,
    awarenessRecorded: agents.map(() => 0),
    decideFor: null,
  };
}

/** Starts or (with null) ends recording. Recording never changes what happens. */
export function setRecorder(world: World, recorder: Recorder | null): void {
  world.recorder = recorder;
  for (const agent of world.agents) {
    agent.recorder = recorder && createMindRecorder(agent, recorder);
    world.awarenessRecorded[agent.index] = awarenessStep(agent);
  }
}

function awarenessStep(agent: Agent): number {
  return Math.round(agent.attentionStrength / AWARENESS_STEP);
}

function applyInput(world: World, input: Input): void {
  const agent = world.agents.find((candidate) => candidate.name === input.agent);
  if (!agent) return;
  const { gaits } = agent.program;
  const gait = input.gait === null ? agent.archetype.gait : gaits.indexOf(input.gait);
  agent.body.steerX = input.x;
  agent.body.steerY = input.y;
  if (gait >= 0 && !Number.isNaN(agent.archetype.paces[gait])) agent.setGait(gait);
  if (world.recorder)
    recordFor(agent, world.recorder, { kind: 'input', x: input.x, y: input.y, gait: input.gait });
}

const found: number[] = [];

function lookAround(world: World, agent: Agent, kind: SightKind): void {
  const { agents, statics, neighbours } = world;
  const { body, tracks } = agent;
  for (let i = 0; i < tracks.length; i++) tracks[i].strength = 0;
  const count = collectNeighbours(neighbours, body.x, body.y, kind.reach, found);
  for (let i = 0; i < count; i++) {
    const other = agents[found[i]];
    if (other.archetype.faction === agent.archetype.faction) continue;
    const strength = sightStrength(kind, statics.walls, body, other.body.x, other.body.y);
    if (strength === 0) continue;
    let track = agent.track(other.index);
    if (!track) {
      track = {
        of: other.index,
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
      agent.inbox.push(`sight.${change}`);
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
  const step = awarenessStep(agent);
  if (step === world.awarenessRecorded[agent.index]) return;
  world.awarenessRecorded[agent.index] = step;
  recordFor(agent, world.recorder!, { kind: 'awareness', value: step * AWARENESS_STEP });
}

/** Percepts, awareness, and memory that is due to be forgotten: facts before decisions. */
function sense(world: World): void {
  fillNeighbours(world.neighbours, world.bodies);
  for (const agent of world.agents) {
    const kind = world.statics.sights[agent.placed.archetype];
    if (kind) {
      lookAround(world, agent, kind);
      updateTracks(world, agent, kind);
      agent.attend();
      if (world.recorder) recordAwareness(world, agent);
    }
    if (agent.mind) {
      const due = forgetDueKeys(agent.mind, agent.mindState!, world.tick);
      if (due && world.recorder) {
        for (const key of due)
          recordFor(agent, world.recorder, {
            kind: 'forgot',
            key: agent.mind.program.keys[key].name,
          });
      }
    }
  }
}

const NO_EVENTS: readonly string[] = [];

/** Whether a player drives the agent; its mind rests meanwhile. */
export function isPlayed(agent: Agent): boolean {
  return !Number.isNaN(agent.body.steerX);
}

/** Every agent decides on the same facts: what minds do to the world shows only after all have decided. */
export function stepMinds(world: World): void {
  for (const agent of world.agents) {
    const events = agent.inbox.length === 0 ? NO_EVENTS : agent.inbox;
    if (agent.inbox.length > 0) agent.inbox = [];
    if (!agent.mind || isPlayed(agent)) continue;
    if (world.decideFor) world.decideFor(agent, events);
    else decide(agent.mind, agent.mindState!, agent, events);
  }
}

/** The part of a tick after the minds: motion. */
export function endTick(world: World): void {
  const { statics, bodies, agents, neighbours } = world;
  const dt = 1 / statics.program.ticksPerSecond;
  for (const agent of agents) {
    const { body, index } = agent;
    const { archetype } = agent.placed;
    const kind = statics.bodies[archetype];
    // Others may have moved since the cells were filled, by as much as a fast body goes in a tick.
    const reach = kind.radius + statics.largestRadius + 2 * statics.longestStep;
    const count = collectNeighbours(neighbours, body.x, body.y, reach, found);
    const before = body.legs;
    moveBody(
      bodies,
      statics.radii,
      index,
      kind,
      statics.walls,
      statics.walkable[archetype],
      found,
      count,
      dt,
    );
    if (body.legs === LEGS_FAILED && before !== LEGS_FAILED && world.recorder) {
      recordFor(agent, world.recorder, { kind: 'noWay', x: body.goalX, y: body.goalY });
    }
  }
}

/** One tick, in the order that gives a run its meaning: input, senses, minds, motion. */
export function tick(world: World, inputs: readonly Input[] = []): void {
  beginTick(world, inputs);
  stepMinds(world);
  endTick(world);
}

/** The part of a tick before the minds, apart so that minds can be measured alone. */
export function beginTick(world: World, inputs: readonly Input[] = []): void {
  world.tick++;
  for (const agent of world.agents) agent.tick = world.tick;
  for (const input of inputs) applyInput(world, input);
  sense(world);
}
