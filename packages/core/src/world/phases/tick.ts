import { pressPlates } from '../mechanics/gates.ts';
import { carry } from '../mechanics/things.ts';
import { filePlaces } from '../state/places.ts';
import type { Input } from '../program/program.ts';
import type { World } from '../world.ts';
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
export interface Phase {
  name: string;
  run(world: World, inputs: readonly Input[]): void;
}

/**
 * A tick, in the order that gives a run its meaning: facts before decisions, decisions before their
 * effects. Entries are recorded in the ledger where things happen, so that its order is theirs.
 */
export const PHASES: readonly Phase[] = [
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
];

/** Runs the world on by one tick. A run that has ended stands still: only its ticks are counted. */
export function tick(world: World, inputs: readonly Input[] = []): void {
  beginTick(world);
  if (world.result !== null) return;
  for (const { run } of PHASES) run(world, inputs);
}

/** Counts the tick; for those who run the phases themselves. */
export function beginTick(world: World): void {
  world.tick++;
  for (const agent of world.agents) agent.tick = world.tick;
}
