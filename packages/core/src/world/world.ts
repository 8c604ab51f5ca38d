import type { Body } from '../motion/body.ts';
import { NOTHING_SEEN, type SeenFighting } from '../senses/tracks.ts';
import { Agent } from './agents/agent.ts';
import { createGame } from './mechanics/game/game.ts';
import { settleGates } from './mechanics/hands/gates.ts';
import { joinLearned } from './mechanics/ways/learned.ts';
import type { Program } from './program/program.ts';
import { createStatics, type Statics } from './program/statics.ts';
import { createMindRecorder } from './recording/record-mind.ts';
import { AWARENESS_STEP, type Recorder } from './state/recorder.ts';
import { TrueAround } from './state/around.ts';
import { attend } from './state/attention.ts';
import { sharesAlone } from './state/agent-state.ts';
import { createPlaces, filePlaces } from './state/places.ts';
import { createClaims } from './state/claims.ts';
import type { Surroundings } from './state/surroundings.ts';
import { beginWorldRun, loners } from './state/world-run.ts';

/**
 * A program at a tick: all that a run is now. A game reads `tick`, `agents` (`name`, `x`, `y` in metres, `body.heading`
 * in radians, `speech`, `life`, `isDead`, `asleep`, `away`), `things`, `gates`, `scores` and `result`; it writes nothing.
 */
export interface World extends Surroundings {
  agents: Agent[];
  bodies: Body[];
  /** By agent: light on it, and the tick that is known for; worked out when it is asked for. */
  light: Float64Array;
  litAt: Int32Array;
  /** By agent: what is seen of how it fights, and the tick that is known for. */
  looks: SeenFighting[];
  lookedAt: Int32Array;
  /** Last awareness recorded for each agent, in steps of {@link AWARENESS_STEP}. */
  awarenessRecorded: number[];
  /** Whether a tick is under way. */
  isTicking: boolean;
  /** Index of the agent that the running phase is at; −1 for none. A failure report names it. */
  acting: number;
  /** Decides in place of compiled minds, for measuring and for games that bring their own. */
  decideFor: ((agent: Agent, events: readonly string[]) => void) | null;
}

/**
 * A world at tick 0. The same program, seed and inputs give the same run.
 *
 * @param seed where every random draw comes from: a whole number from 0; left out: the program’s
 * @param statics what was prepared of the program, to be shared by several worlds or to bring a ground of one’s own
 */
export function createWorld(
  program: Program,
  seed = program.seed,
  statics = createStatics(program),
): World {
  const agents = createAgents(statics, seed);
  const world: World = {
    ...beginWorldRun(statics),
    statics,
    agents,
    ground: statics.ground.enter(),
    places: createPlaces(statics),
    claims: createClaims(statics),
    isDeciding: false,
    routes: statics.routePoints,
    outbox: [],
    effects: [],
    bodies: agents.map((agent) => agent.body),
    light: new Float64Array(agents.length),
    litAt: new Int32Array(agents.length).fill(-1),
    looks: agents.map(() => NOTHING_SEEN),
    lookedAt: new Int32Array(agents.length).fill(-1),
    recorder: null,
    awarenessRecorded: agents.map(() => 0),
    isTicking: false,
    acting: -1,
    decideFor: null,
    around: new TrueAround(
      () => world,
      createGame(() => world),
    ),
  };
  shareOut(world);
  settle(world);
  return world;
}

/** Hands agents what they share with others. */
function shareOut(world: World): void {
  const { program } = world.statics;
  const alone = loners(world.statics);
  for (const agent of world.agents) {
    const { placed, index } = agent;
    agent.surroundings = world;
    agent.around = world.around;
    agent.worldMemory = world.worldMemory;
    const own = program.squads.length + alone.indexOf(index);
    agent.squadMemory = world.squadMemories[sharesAlone(placed, program) ? own : placed.squad];
  }
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

/** Works out what follows from the state of a run, after that was put in place as a whole. */
export function settle(world: World): void {
  settleGates(world);
  filePlaces(world);
  world.litAt.fill(-1);
  world.lookedAt.fill(-1);
  const { routes } = world.statics.program.ground;
  world.routes = routes.map(({ points }, route) =>
    world.learned[route].length === 0
      ? world.statics.routePoints[route]
      : Float64Array.from(joinLearned(points, world.learned[route])),
  );
  for (const agent of world.agents) {
    agent.tick = world.tick;
    agent.known.perceived = agent.percepts.filter((percept) => percept !== null).length;
    agent.hasEvents = agent.inboxes.some((inbox) => inbox.length > 0);
    attend(agent);
  }
}

/** Calls `recorder` for each entry of the ledger from now on; null ends it. Recording never changes what happens. */
export function setRecorder(world: World, recorder: Recorder | null): void {
  world.recorder = recorder;
  for (const agent of world.agents) {
    agent.recorders =
      recorder && agent.minds.map((_, mind) => createMindRecorder(agent, mind, recorder));
    agent.recorder = agent.recorders?.[0] ?? null;
    world.awarenessRecorded[agent.index] = Math.round(agent.known.awarenessShown / AWARENESS_STEP);
  }
}
