import { makeStack, type RunnableStack } from '../mind/mind.ts';
import type { BodyKind } from '../motion/body.ts';
import { createWalkable, type Walkable } from '../motion/walkable.ts';
import type { SightKind } from '../senses/sight.ts';
import { createWalls, type Walls } from '../space/walls.ts';
import type { ArchetypeProgram, Program } from './program.ts';

/** What follows from a program and does not change while it runs. */
export interface Statics {
  program: Program;
  walls: Walls;
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
  const walls = kept?.walls ?? createWalls(ground.width, ground.height, ground.walls);
  const bySize = new Map<number, Walkable>(
    (kept?.walkable ?? []).map((walkable) => [walkable.radius, walkable]),
  );
  const walkable = archetypes.map(({ radius }) => {
    const known = bySize.get(radius) ?? createWalkable(walls, radius);
    bySize.set(radius, known);
    return known;
  });
  const radii = agents.map((agent) => archetypes[agent.archetype].radius);
  return {
    program,
    walls,
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
