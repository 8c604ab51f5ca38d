import { resetKey, forgetDueKeys } from '../mind/memory.ts';
import { decide } from '../mind/mind.ts';
import type { KeyProgram, SharedKeysProgram } from '../mind/program.ts';
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
import { Agent, type SharedWrite } from './agent.ts';
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
  /** By squad, then one for each agent without a squad. */
  squadMemories: Float64Array[];
  worldMemory: Float64Array;
  /** What minds want written to memory they share; empty between ticks. */
  outbox: SharedWrite[];
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
  const agents = createAgents(statics, seed);
  const { width, height } = program.ground;
  const worldMemory = sharedMemory(program.worldKeys);
  const outbox: SharedWrite[] = [];
  const squadMemories = program.squads.map(() => sharedMemory(program.squadKeys));
  for (const agent of agents) {
    const { squad } = agent.placed;
    agent.worldMemory = worldMemory;
    agent.outbox = outbox;
    agent.squadMemory = squadMemories[squad] ?? sharedMemory(program.squadKeys);
    if (squad < 0) squadMemories.push(agent.squadMemory);
  }
  return {
    statics,
    outbox,
    squadMemories,
    worldMemory,
    tick: 0,
    agents,
    bodies: agents.map((agent) => agent.body),
    neighbours: createNeighbours(width, height, agents.length),
    recorder: null,
    awarenessRecorded: agents.map(() => 0),
    decideFor: null,
  };
}

function sharedMemory({ keys, slots }: SharedKeysProgram): Float64Array {
  const cells = new Float64Array(slots);
  for (const key of keys) resetKey(cells, key);
  return cells;
}

/** The agents, their cells side by side in one stretch of memory: minds go through them in that order. */
function createAgents(statics: Statics, seed: number): Agent[] {
  const { agents, archetypes } = statics.program;
  const sizes = agents.map(
    ({ archetype }) => statics.stacks[archetypes[archetype].stack]?.initial.length ?? 0,
  );
  const cells = new Float64Array(sizes.reduce((sum, size) => sum + size, 0));
  let from = 0;
  return sizes.map((size, index) => {
    from += size;
    return new Agent(statics, index, seed, cells.subarray(from - size, from));
  });
}

/** Starts or (with null) ends recording. Recording never changes what happens. */
export function setRecorder(world: World, recorder: Recorder | null): void {
  world.recorder = recorder;
  for (const agent of world.agents) {
    agent.recorders =
      recorder && agent.minds.map((_, mind) => createMindRecorder(agent, mind, recorder));
    agent.recorder = agent.recorders?.[0] ?? null;
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

function trackOf(tracks: readonly Track[], agent: number): Track | undefined {
  for (let i = 0; i < tracks.length; i++) if (tracks[i].of === agent) return tracks[i];
  return undefined;
}

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
    let track = trackOf(tracks, other.index);
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

/** What the senses of the agent in hand have raised in this tick. */
const raised: string[] = [];

function updateTracks(world: World, agent: Agent, kind: SightKind): void {
  if (raised.length > 0) raised.length = 0;
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
      agent.notice(raised);
      if (world.recorder) recordAwareness(world, agent);
    }
    if (agent.stack) {
      const told = world.recorder && forgotten(world.recorder, agent);
      forgetDueKeys(agent.memory, agent.stack.ownKeys, world.tick, told);
    }
  }
  forgetShared(world);
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
    forgetDueKeys(cells, squadKeys.keys, now, tell(squads[squad] ?? '')),
  );
  forgetDueKeys(worldMemory, worldKeys.keys, now, tell('world'));
}

/** Whether a player drives the agent; its minds rest meanwhile. */
export function isPlayed(agent: Agent): boolean {
  return !Number.isNaN(agent.body.steerX);
}

/** Every agent decides on the same facts: what minds do to the world shows only after all have decided. */
export function stepMinds(world: World): void {
  const { agents, decideFor } = world;
  for (let i = 0; i < agents.length; i++) {
    const agent = agents[i];
    if (agent.minds.length === 0) continue;
    if (isPlayed(agent)) dropEvents(agent);
    else if (decideFor) {
      decideFor(agent, agent.inboxes[0]);
      dropEvents(agent);
    } else if (agent.hasEvents || agent.minds.length > 1) stepEachMind(agent);
    else decide(agent.minds[0], agent, NO_EVENTS, agent.stagger);
  }
  if (world.outbox.length > 0) applyWrites(world);
}

const NO_EVENTS: readonly string[] = [];

function dropEvents(agent: Agent): void {
  if (!agent.hasEvents) return;
  for (const inbox of agent.inboxes) inbox.length = 0;
  agent.hasEvents = false;
}

function stepEachMind(agent: Agent): void {
  const { minds, inboxes, recorders } = agent;
  // Events raised while they decide are for their next decisions.
  const waiting = inboxes.map((inbox) => inbox.slice());
  for (let mind = 0; mind < minds.length; mind++) {
    if (recorders !== null) agent.recorder = recorders[mind];
    const events = waiting[mind];
    if (decide(minds[mind], agent, events, agent.stagger)) inboxes[mind].splice(0, events.length);
  }
  agent.hasEvents = inboxes.some((inbox) => inbox.length > 0);
}

/** Writes to shared memory, in agent order. Where two write one key in a tick the later stays, and the ledger says so. */
function applyWrites({ outbox, recorder, tick: now }: World): void {
  const writers = new Map<string, Agent>();
  for (const write of outbox) {
    const { agent } = write;
    if (!agent.apply(write)) continue;
    agent.recorders?.[0].remembered(write.key);
    if (!recorder || write.how === 'add') continue;
    const { name, scope } = agent.stack!.program.keys[write.key];
    const id = `${name} ${scope === 'squad' ? agent.placed.squad : ''}`;
    const before = writers.get(id);
    if (before && before !== agent)
      recorder({ tick: now, agent: agent.name, kind: 'overwrote', key: name, of: before.name });
    writers.set(id, agent);
  }
  outbox.length = 0;
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
