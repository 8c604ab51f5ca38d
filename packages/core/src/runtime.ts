/**
 * What a game ships: running a compiled program, with no dependency. Lengths are metres, angles radians,
 * times ticks of the program's `ticksPerSecond`, unless a name says seconds.
 */
export { createWorld, setRecorder, type World } from './world/world.ts';
export { createStatics, type Statics } from './world/program/statics.ts';
export { beginTick, PHASES, tick, TickError, type PhaseName } from './world/phases/tick.ts';
export { InputError } from './world/phases/check-inputs.ts';
export {
  takeSnapshot,
  restoreSnapshot,
  worldHash,
  type Snapshot,
} from './world/handover/snapshot.ts';
export { decodeSnapshot, encodeSnapshot } from './world/handover/saving.ts';
export { swapProgram } from './world/handover/swap.ts';
export { decodeProgram, PROGRAM_VERSION } from './world/program/encoding.ts';
export type { Agent } from './world/agents/agent.ts';
export type { Input, Program } from './world/program/program.ts';
export type { LedgerEntry, Recorder } from './world/state/recorder.ts';
// For a ground of the game's own.
export type {
  Ground,
  GroundKind,
  GroundPlan,
  GroundSpace,
  PreparedGround,
  Reachable,
  Solid,
  WalkableArea,
} from './ground/ground.ts';
export type { Body, BodyKind } from './motion/body.ts';
export type { PathResult } from './motion/legs.ts';
