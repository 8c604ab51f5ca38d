/** What a game ships: running a compiled program, with no dependency. */
export { createWorld, setRecorder, tick, beginTick, endTick, type World } from './world/world.ts';
export { stepMinds } from './world/deciding.ts';
export { isPlayed } from './world/input.ts';
export { takeSnapshot, restoreSnapshot, worldHash, type Snapshot } from './world/snapshot.ts';
export { firstMind } from './world/names.ts';
export { swapProgram } from './world/swap.ts';
export type { Agent } from './world/agent.ts';
export {
  wallBoxes,
  type GateProgram,
  type Input,
  type Program,
  type SquadProgram,
  type ThingProgram,
  type WallProgram,
} from './world/program.ts';
export { FORCES } from './motion/body.ts';
export { findCells } from './motion/search-cells.ts';
export { createWalkable, islandsOf, type Walkable } from './motion/walkable.ts';
export { HAND_REACH, THROW_RANGE } from './world/hands.ts';
export { AWARENESS_STEP, type LedgerEntry, type Reading, type Recorder } from './world/recorder.ts';
export {
  BODY_STRIDE,
  CROUCHED,
  DEAD,
  leafState,
  LYING,
  pictureBodies,
  pictureForces,
  pictureKnown,
  picturePaths,
  pictureRays,
  pictureShared,
  pictureThings,
  playedAgent,
  RAY_STRIDE,
  THING_STRIDE,
  type KnownPicture,
  type PathPicture,
  type SharedPicture,
} from './world/picture.ts';
export {
  readMind,
  readRowResults,
  type LeaveReadout,
  type MindReadout,
  type RowReadout,
  type StateReadout,
} from './world/readout.ts';
export { compileFlag } from './expression/closures.ts';
export { castRay } from './space/rays.ts';
export { circleBlocked, createWalls, type Walls } from './space/walls.ts';
export type {
  GroundProgram,
  ArchetypeProgram,
  AgentProgram,
  SightProgram,
} from './world/program.ts';
export type {
  MachineProgram,
  MindProgram,
  StateProgram,
  TransitionProgram,
} from './mind/program.ts';
export { atan2, cos, sin } from './numeric/trigonometry.ts';
