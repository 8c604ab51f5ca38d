import { pressPlates } from '../mechanics/hands/gates.ts';
import { carry } from '../mechanics/hands/things.ts';
import { filePlaces } from '../state/places.ts';
import type { Input } from '../program/program.ts';
import type { World } from '../world.ts';
import { checkInputs } from './check-inputs.ts';
import { bringWaves } from './arrivals.ts';
import { direct } from './director.ts';
import { doEffects } from './effects.ts';
import { changeNumbers } from './needs.ts';
import { fly } from './flight.ts';
import { fight } from './fighting.ts';
import { forgetShared } from './forgetting.ts';
import { stepGroups } from './group.ts';
import { takeInputs } from './input.ts';
import { decideAll } from './minds.ts';
import { moveBodies } from './motion.ts';
import { sendNoises } from './noises.ts';
import { respawn } from './respawn.ts';
import { senseAll } from './senses.ts';
import { restFarAgents } from './sleep-distance.ts';
import { findWays } from './ways.ts';

/** One part of a tick. */
interface Phase<Name extends string = string> {
  readonly name: Name;
  run(world: World, inputs: readonly Input[]): void;
}

/** Keeps the names as types, so that a phase that does not exist can't be asked for. */
function phases<Name extends string>(list: readonly Phase<Name>[]): readonly Phase<Name>[] {
  return list;
}

/**
 * A tick, in the order that gives a run its meaning: facts before decisions, decisions before their
 * effects. Entries are recorded in the ledger where things happen, so that its order is theirs.
 */
export const PHASES = phases([
  { name: 'input', run: takeInputs },
  { name: 'director', run: direct },
  { name: 'places', run: filePlaces },
  { name: 'sleep distance', run: restFarAgents },
  { name: 'noises', run: sendNoises },
  { name: 'senses', run: senseAll },
  { name: 'forgetting', run: forgetShared },
  { name: 'needs', run: changeNumbers },
  { name: 'group', run: stepGroups },
  { name: 'minds', run: decideAll },
  { name: 'effects', run: doEffects },
  { name: 'ways', run: findWays },
  { name: 'motion', run: moveBodies },
  { name: 'fighting', run: fight },
  { name: 'plates', run: pressPlates },
  { name: 'carrying', run: carry },
  { name: 'flight', run: fly },
  { name: 'respawn', run: respawn },
  { name: 'arrivals', run: bringWaves },
]);

/** A phase by its name, such as `minds`. */
export type PhaseName = (typeof PHASES)[number]['name'];

/** A phase threw. The world is half changed by then: restore a snapshot before it is used again. */
export class TickError extends Error {
  readonly world: World;
  /** The tick that was not completed. */
  readonly tick: number;
  readonly phase: PhaseName;
  /** Title of the agent the phase was at; null where it was at none. */
  readonly agent: string | null;

  constructor(world: World, phase: PhaseName, cause: unknown) {
    super(cause instanceof Error ? cause.message : String(cause), { cause });
    this.name = 'TickError';
    this.world = world;
    this.tick = world.tick;
    this.phase = phase;
    this.agent = world.agents[world.acting]?.placed.title ?? null;
  }
}

/**
 * Runs the world on by one tick: 1 / `ticksPerSecond` of a second. An input holds for its agent until the next one.
 * A run that has ended stands still: only its ticks are counted.
 *
 * @throws {InputError} an input names who or what is not there, or holds no number; the world is as it was
 * @throws {TickError} a phase threw, or the recorder did
 */
export function tick(world: World, inputs: readonly Input[] = []): void {
  checkInputs(world, inputs);
  tickAsRecorded(world, inputs);
}

/** The same with input that was recorded, perhaps under another edit: what it names and is gone is left out. */
export function tickAsRecorded(world: World, inputs: readonly Input[] = []): void {
  if (world.isTicking)
    throw new Error('A recorder can’t run the world on: the tick it is told of is not over yet.');
  world.isTicking = true;
  try {
    beginTick(world);
    if (world.result !== null) return;
    for (const phase of PHASES) runPhase(world, phase, inputs);
  } finally {
    world.isTicking = false;
  }
}

/** @throws {TickError} the phase threw */
export function runPhase(world: World, phase: Phase<PhaseName>, inputs: readonly Input[]): void {
  world.acting = -1;
  try {
    phase.run(world, inputs);
  } catch (error) {
    throw new TickError(world, phase.name, error);
  }
}

/** Counts the tick; for games that run the phases themselves. */
export function beginTick(world: World): void {
  world.tick++;
  for (const agent of world.agents) agent.tick = world.tick;
}
