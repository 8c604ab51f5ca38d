import { resetKey } from '../mind/memory.ts';
import type { SharedKeysProgram } from '../mind/program.ts';
import type { Body } from '../motion/body.ts';
import { withOwnCells } from '../motion/walkable.ts';
import { createNeighbours, fillNeighbours } from '../space/neighbours.ts';
import { withOwnGates } from '../space/walls.ts';
import { Agent, sharesAlone } from './agent.ts';
import { stepMinds } from './deciding.ts';
import { itemCount } from './found.ts';
import { settleGates } from './gates.ts';
import { applyInput } from './input.ts';
import { joinLearned } from './learned.ts';
import { moveAll } from './moving.ts';
import type { Input, Program } from './program.ts';
import { createMindRecorder } from './record-agent.ts';
import { AWARENESS_STEP, type Recorder } from './recorder.ts';
import { sense } from './sensing.ts';
import { createStatics, type Statics } from './statics.ts';
import type { Surroundings } from './surroundings.ts';
import { createThings } from './things.ts';

/** A program at a tick: all that a run is now. */
export interface World extends Surroundings {
  /** Ticks done. */
  tick: number;
  bodies: Body[];
  /** By squad, then one for each agent that shares with nobody at all times. */
  squadMemories: Float64Array[];
  worldMemory: Float64Array;
  /** By agent: light on it, and the tick that is known for; worked out when it is asked for. */
  light: Float64Array;
  litAt: Int32Array;
  recorder: Recorder | null;
  /** Last awareness recorded for each agent, in steps of {@link AWARENESS_STEP}. */
  awarenessRecorded: number[];
  /** Decides in place of compiled minds, for measuring and for games that bring their own. */
  decideFor: ((agent: Agent, events: readonly string[]) => void) | null;
}

export function createWorld(
  program: Program,
  seed = program.seed,
  statics = createStatics(program),
): World {
  const agents = createAgents(statics, seed);
  const { ground, squads } = program;
  // Archetypes of one size share an area, here as in the statics.
  const areas = new Map(statics.walkable.map((area) => [area, ownArea(area, statics)]));
  const world: World = {
    statics,
    agents,
    walls: ground.gates.length > 0 ? withOwnGates(statics.walls) : statics.walls,
    walkable: statics.walkable.map((area) => areas.get(area)!),
    openings: ownArea(statics.openings, statics),
    gates: statics.startingGates.slice(),
    things: createThings(ground.things),
    noises: [],
    messages: [],
    searches: [],
    slots: [],
    learned: ground.routes.map(() => []),
    learn(route, x, y) {
      world.learned[route]?.push(x, y);
      if (world.learned[route]) joinRoute(world, route);
    },
    routes: statics.routePoints,
    found: [],
    outbox: [],
    effects: [],
    squadMemories: squads.map(() => sharedMemory(program.squadKeys)),
    worldMemory: sharedMemory(program.worldKeys),
    tick: 0,
    bodies: agents.map((agent) => agent.body),
    neighbours: createNeighbours(ground.width, ground.height, agents.length),
    light: new Float64Array(agents.length),
    litAt: new Int32Array(agents.length).fill(-1),
    recorder: null,
    awarenessRecorded: agents.map(() => 0),
    decideFor: null,
  };
  const items = itemCount(world);
  world.found = Array.from({ length: squads.length + agents.length }, () => new Uint8Array(items));
  for (const agent of agents) settleIn(world, agent);
  settleGates(world);
  fillNeighbours(world.neighbours, world.bodies);
  return world;
}

/** An area whose cells change with gates, where there are any. */
function ownArea(area: Statics['openings'], { program }: Statics): Statics['openings'] {
  return program.ground.gates.length > 0 ? withOwnCells(area) : area;
}

/** Gives an agent what it shares with others. */
function settleIn(world: World, agent: Agent): void {
  agent.surroundings = world;
  agent.worldMemory = world.worldMemory;
  if (sharesAlone(agent)) {
    agent.squadMemory = sharedMemory(world.statics.program.squadKeys);
    world.squadMemories.push(agent.squadMemory);
  } else agent.squadMemory = world.squadMemories[agent.placed.squad];
}

/** Puts the learned waypoints of a route among its own. */
export function joinRoute(world: Surroundings, route: number): void {
  const points = world.statics.program.ground.routes[route].points;
  world.routes = world.routes.slice();
  world.routes[route] = Float64Array.from(joinLearned(points, world.learned[route]));
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
    world.awarenessRecorded[agent.index] = Math.round(agent.awarenessShown / AWARENESS_STEP);
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
  const { scripted } = world.statics;
  for (const input of scripted.get(world.tick) ?? []) applyInput(world, input);
  for (const input of inputs) applyInput(world, input);
  sense(world);
}

/** The part of a tick after the minds: motion. */
export function endTick(world: World): void {
  moveAll(world);
}
