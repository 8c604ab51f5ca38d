import { compileNumber } from '../expression/closures.ts';
import type { Facts } from '../expression/facts.ts';
import { makeStack, type RunnableStack } from '../mind/mind.ts';
import type { BodyKind } from '../motion/body.ts';
import { createWalkable, type Walkable } from '../motion/walkable.ts';
import type { SightKind } from '../senses/sight.ts';
import { SOUND_HEIGHT } from '../senses/hearing.ts';
import { WORD_INDICES } from '../senses/words.ts';
import { createNeighbours, fillNeighbours, type Neighbours } from '../space/neighbours.ts';
import { createWalls, type Walls } from '../space/walls.ts';
import {
  wallBoxes,
  type ArchetypeProgram,
  type GroundProgram,
  type Input,
  type InputProgram,
  type Program,
} from './program.ts';
import { GATE_CLOSED, GATE_LOCKED, GATE_OPEN, type GateStatus } from './surroundings.ts';

/** What follows from a program and does not change while it runs. */
export interface Statics {
  program: Program;
  /** With all gates open. */
  walls: Walls;
  /** Where sound gets through, with all gates open. */
  openings: Walkable;
  startingGates: GateStatus[];
  /** Gates that some plate opens. */
  platedGates: number[];
  lamps: Neighbours;
  /** Reach of the lamp that reaches farthest. */
  largestLamp: number;
  /** The same of the lanterns that bodies carry; 0 where none does. */
  largestLantern: number;
  /** By agent: its faction. */
  sides: Uint8Array;
  /** By squad: the agents in it. */
  members: number[][];
  /** By squad, then role. */
  roleScores: ((facts: Facts) => number)[][];
  /** Whether anyone begins anew after death. */
  someRecycle: boolean;
  /** Whether anyone rests while far from the players. */
  someSleep: boolean;
  /** What a scripted player does, by tick. */
  scripted: Map<number, Input[]>;
  /** Indices of the texts that the world itself uses. */
  words: typeof WORD_INDICES;
  stacks: RunnableStack[];
  /** By archetype. */
  bodies: BodyKind[];
  walkable: Walkable[];
  sights: (SightKind | null)[];
  /** Radius of each agent. */
  radii: number[];
  largestRadius: number;
  /** Metres the fastest body goes in a tick. */
  longestStep: number;
  /** By route. */
  routePoints: Float64Array[];
}

function sameGround(a: Program, b: Program): boolean {
  return JSON.stringify(a.ground) === JSON.stringify(b.ground);
}

function ungatedWalls(ground: GroundProgram): Walls {
  const walls = createWalls(ground.width, ground.height, wallBoxes(ground));
  walls.standing.fill(0, ground.walls.length);
  return walls;
}

/** Breadth of what sound needs to get through, as a radius. */
const SOUND_RADIUS = 0.05;

function byTick(inputs: readonly InputProgram[]): Map<number, Input[]> {
  const list = new Map<number, Input[]>();
  for (const { tick, input } of inputs) list.set(tick, [...(list.get(tick) ?? []), input]);
  return list;
}

function membersOf({ squads, agents }: Program): number[][] {
  const members: number[][] = squads.map(() => []);
  agents.forEach(({ squad }, index) => members[squad]?.push(index));
  return members;
}

const STATUS: Record<GroundProgram['gates'][number]['state'], GateStatus> = {
  closed: GATE_CLOSED,
  open: GATE_OPEN,
  locked: GATE_LOCKED,
};

function fastestPace(archetypes: readonly ArchetypeProgram[]): number {
  return Math.max(
    0,
    ...archetypes.flatMap(({ paces }) => paces.filter((pace) => !Number.isNaN(pace))),
  );
}

/** Prepares a program; the ground is taken over from `before` where it is the same. */
export function createStatics(program: Program, before?: Statics): Statics {
  const { ground, archetypes, agents } = program;
  const kept = before && sameGround(before.program, program) ? before : undefined;
  const walls = kept?.walls ?? ungatedWalls(ground);
  const bySize = new Map<number, Walkable>(
    (kept?.walkable ?? []).map((walkable) => [walkable.radius, walkable]),
  );
  const walkable = archetypes.map(({ radius }) => {
    const known = bySize.get(radius) ?? createWalkable(walls, radius);
    bySize.set(radius, known);
    return known;
  });
  const lamps = createNeighbours(ground.width, ground.height, ground.lamps.length, 8);
  fillNeighbours(lamps, ground.lamps);
  const radii = agents.map((agent) => archetypes[agent.archetype].radius);
  return {
    program,
    walls,
    openings: kept?.openings ?? createWalkable(walls, SOUND_RADIUS, SOUND_HEIGHT),
    startingGates: ground.gates.map(({ state }) => STATUS[state]),
    platedGates: [...new Set(ground.plates.map(({ gate }) => gate))].sort((a, b) => a - b),
    lamps,
    largestLamp: Math.max(0, ...ground.lamps.map(({ reach }) => reach)),
    largestLantern: Math.max(0, ...archetypes.map(({ lantern }) => lantern?.reach ?? 0)),
    sides: Uint8Array.from(agents, ({ archetype }) => archetypes[archetype].side),
    members: membersOf(program),
    roleScores: program.squads.map(({ roles }) =>
      roles.map(({ score }) => compileNumber(score.ir)),
    ),
    someRecycle: archetypes.some(({ recycleTicks }) => recycleTicks > 0),
    someSleep: archetypes.some(({ sleepBeyond }) => sleepBeyond > 0),
    scripted: byTick(program.inputs),
    words: WORD_INDICES,
    stacks: program.stacks.map(makeStack),
    bodies: archetypes.map(({ radius, acceleration, turnRate }) => ({
      radius,
      acceleration,
      turnRate,
    })),
    walkable,
    sights: archetypes.map(
      ({ sight }) =>
        sight && { ...sight, reach: Math.max(...sight.cones.map((cone) => cone.range)) },
    ),
    radii,
    largestRadius: Math.max(0, ...radii),
    longestStep: fastestPace(archetypes) / program.ticksPerSecond,
    routePoints: ground.routes.map((route) => Float64Array.from(route.points)),
  };
}
