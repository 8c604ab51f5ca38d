import { FRIENDLY } from '../../terms/stances.ts';
import { WORD_INDICES } from '../../terms/senses.ts';
import { compileNumber } from '../../expression/closures.ts';
import type { Facts } from '../../expression/facts.ts';
import { GROUND_KINDS } from '../../ground/kinds/kinds.ts';
import type { GroundKind, GroundPlan, PreparedGround } from '../../ground/ground.ts';
import { createNeighbours, fillNeighbours, type Neighbours } from '../../ground/neighbours.ts';
import { makeStack, type RunnableStack } from '../../mind/machine/mind.ts';
import type { KeyProgram } from '../../mind/program.ts';
import { sameData } from '../../terms/same-data.ts';
import { sightKind, type SightKind } from '../../senses/sight.ts';
import {
  GATE_STATUS,
  stanceToward,
  wallBoxes,
  type AgentProgram,
  type ArchetypeProgram,
  type GateStatus,
  type Input,
  type InputProgram,
  type Program,
} from './program.ts';

/** What follows from a program and does not change while it runs. */
export interface Statics {
  program: Program;
  /** A kind of ground that a game brought; null where the program's view says it. */
  ownKind: GroundKind | null;
  ground: PreparedGround;
  startingGates: GateStatus[];
  /** Gates that some plate opens. */
  platedGates: number[];
  lamps: Neighbours;
  /** Reach of the lamp that reaches farthest. */
  largestLamp: number;
  /** The same of the lanterns that bodies carry; 0 where none does. */
  largestLantern: number;
  /** Radius of the widest body. */
  largestRadius: number;
  /** The agents that carry one, ascending. */
  lanterns: Int32Array;
  /** By faction: the agents that are no friends of it, ascending. Null where no agent of the faction can see. */
  strangers: (Int32Array | null)[];
  /** Whether the director waits for an agent to enter a zone: only then zones are checked. */
  watchesZones: boolean;
  /** By squad: the agents in it. */
  members: number[][];
  /** All agents that have a squad, ascending. */
  inSquads: Int32Array;
  /** By squad, then role. */
  roleScores: ((facts: Facts) => number)[][];
  /** By the word for their name: the agents of archetypes, factions, squads and waves. */
  groups: ReadonlyMap<number, readonly number[]>;
  /** Whether anyone respawns. */
  someRecycle: boolean;
  /** Shared keys that are forgotten after a time. */
  forgetting: { squad: KeyProgram[]; world: KeyProgram[] };
  /** Whether any agent's own keys change by themselves, and which shared ones do. */
  changing: { own: boolean; squad: KeyProgram[]; world: KeyProgram[] };
  /** Whether anyone rests while far from the players. */
  someSleep: boolean;
  /** What a scripted player does, by tick. */
  scripted: Map<number, Input[]>;
  /** Indices of the texts that the world itself uses. */
  words: typeof WORD_INDICES;
  stacks: RunnableStack[];
  /** By archetype. */
  sights: (SightKind | null)[];
  /** By route. */
  routePoints: Float64Array[];
}

function sameGround(a: Program, b: Program): boolean {
  return sameData(a.ground, b.ground);
}

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

function watchesZones({ director, agents, archetypes, stacks }: Program): boolean {
  if (director.agent < 0) return false;
  const { stack } = archetypes[agents[director.agent].archetype];
  return stacks[stack].minds.some(({ machine }) =>
    machine.transitions.some(({ on }) => on.startsWith('entered')),
  );
}

function fastestPace(archetypes: readonly ArchetypeProgram[]): number {
  return Math.max(
    0,
    ...archetypes.flatMap(({ speeds }) => speeds.filter((pace) => !Number.isNaN(pace))),
  );
}

/** Indices of the agents that a test holds for, ascending. */
function indicesOf(
  agents: readonly AgentProgram[],
  test: (agent: AgentProgram) => boolean,
): Int32Array {
  return Int32Array.from(agents.flatMap((agent, index) => (test(agent) ? [index] : [])));
}

function planOf({ ground, archetypes, agents, ticksPerSecond }: Program): GroundPlan {
  return {
    width: ground.width,
    height: ground.height,
    solids: wallBoxes(ground),
    gates: ground.gates.length,
    kinds: archetypes.map(({ radius, acceleration, turnRate }) => ({
      radius,
      acceleration,
      turnRate,
    })),
    kindOf: agents.map(({ archetype }) => archetype),
    longestStep: fastestPace(archetypes) / ticksPerSecond,
  };
}

/**
 * Prepares a program; what was made of its ground is taken over from `before` where that is the same. `own` is a
 * kind of ground to use instead of the one for the program's view; what is prepared after it has it too.
 */
export function createStatics(
  program: Program,
  before?: Statics,
  own: GroundKind | null = before?.ownKind ?? null,
): Statics {
  const { ground, archetypes, agents } = program;
  const kept = before && sameGround(before.program, program) ? before.ground : undefined;
  const lamps = createNeighbours(ground.width, ground.height, ground.lamps.length, 8);
  fillNeighbours(lamps, ground.lamps);
  return {
    program,
    ownKind: own,
    ground: (own ?? GROUND_KINDS[ground.view]).prepare(planOf(program), kept),
    startingGates: ground.gates.map(({ state }) => GATE_STATUS[state]),
    platedGates: [...new Set(ground.plates.map(({ gate }) => gate))].sort((a, b) => a - b),
    lamps,
    largestLamp: Math.max(0, ...ground.lamps.map(({ reach }) => reach)),
    largestRadius: Math.max(0, ...archetypes.map(({ radius }) => radius)),
    largestLantern: Math.max(0, ...archetypes.map(({ lantern }) => lantern?.reach ?? 0)),
    lanterns: indicesOf(agents, ({ archetype }) => archetypes[archetype].lantern !== null),
    strangers: program.factions.map((_, side) =>
      archetypes.some((archetype) => archetype.side === side && archetype.sight !== null)
        ? indicesOf(
            agents,
            ({ archetype }) => stanceToward(program, side, archetypes[archetype].side) !== FRIENDLY,
          )
        : null,
    ),
    watchesZones: watchesZones(program),
    members: membersOf(program),
    inSquads: indicesOf(agents, ({ squad }) => squad >= 0),
    roleScores: program.squads.map(({ roles }) =>
      roles.map(({ score }) => compileNumber(score.ir)),
    ),
    groups: new Map(program.groups.map(({ word, members }) => [word, members])),
    someRecycle: archetypes.some(({ respawnTicks }) => respawnTicks > 0),
    forgetting: {
      squad: program.squadKeys.keys.filter(({ forgetAfter }) => forgetAfter !== 0),
      world: program.worldKeys.keys.filter(({ forgetAfter }) => forgetAfter !== 0),
    },
    changing: {
      own: program.stacks.some(({ keys }) =>
        keys.some(({ scope, rate }) => scope === 'self' && rate !== 0),
      ),
      squad: program.squadKeys.keys.filter(({ rate }) => rate !== 0),
      world: program.worldKeys.keys.filter(({ rate }) => rate !== 0),
    },
    someSleep: archetypes.some(({ sleepDistance }) => sleepDistance > 0),
    scripted: byTick(program.inputs),
    words: WORD_INDICES,
    stacks: program.stacks.map(makeStack),
    sights: archetypes.map(({ sight }) => sight && sightKind(sight)),
    routePoints: ground.routes.map((route) => Float64Array.from(route.points)),
  };
}
