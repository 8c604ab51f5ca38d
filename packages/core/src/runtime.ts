/** What a game ships: running a compiled program, with no dependency. */
export { createWorld, setRecorder, type World } from './world/world.ts';
export { beginTick, PHASES, tick, TickError, type PhaseName } from './world/phases/tick.ts';
export {
  takeSnapshot,
  restoreSnapshot,
  worldHash,
  type Snapshot,
} from './world/handover/snapshot.ts';
export { firstMind } from './world/recording/names.ts';
export { swapProgram } from './world/handover/swap.ts';
export type { Agent } from './world/agents/agent.ts';
export { decodeProgram, encodeProgram, PROGRAM_VERSION } from './world/program/encoding.ts';
export {
  THING_RADIUS,
  wallBoxes,
  type GateProgram,
  type Input,
  type Program,
  type SquadProgram,
  type ThingProgram,
  type WallProgram,
} from './world/program/program.ts';
export { FORCES } from './motion/body.ts';
export { findCells } from './ground/from-above/search-cells.ts';
export { createWalkable, islandsOf, type Walkable } from './ground/from-above/walkable.ts';
export { HAND_REACH, THROW_RANGE } from './world/mechanics/hands.ts';
export {
  AWARENESS_STEP,
  type LedgerEntry,
  type Reading,
  type Recorder,
} from './world/state/recorder.ts';
export {
  AWAY,
  BODY_STRIDE,
  CROUCHED,
  DEAD,
  leafState,
  LYING,
  pictureBodies,
  pictureForces,
  pictureKnown,
  picturePaths,
  MOST_APART,
  pictureRays,
  pictureShared,
  pictureThings,
  playedAgent,
  RAY_STRIDE,
  THING_STRIDE,
  type KnownPicture,
  type PathPicture,
  type SharedPicture,
} from './world/readout/picture.ts';
export {
  pictureFights,
  type FighterPicture,
  type FightPicture,
} from './world/readout/picture-fights.ts';
export { pictureSide, SIDE_STRIDE } from './world/readout/overview.ts';
export { pictureGame, type GamePicture, type WavePicture } from './world/readout/game.ts';
export {
  readMind,
  type LeaveReadout,
  type MindReadout,
  type StateReadout,
} from './world/readout/readout.ts';
export {
  readRow,
  readRowCells,
  ROW_CODES,
  rowCode,
  rowPlaces,
  type RowResult,
  type RowsAsked,
} from './world/readout/rows.ts';
export { compileFlag } from './expression/closures.ts';
export { castRay } from './ground/from-above/rays.ts';
export { circleBlocked, createWalls, type Walls } from './ground/from-above/walls.ts';
export type {
  GroundProgram,
  ArchetypeProgram,
  AgentProgram,
  GuardProgram,
  MoveProgram,
  SightProgram,
} from './world/program/program.ts';
export type {
  MachineProgram,
  MindProgram,
  StateProgram,
  TransitionProgram,
} from './mind/program.ts';
export { atan2, cos, sin } from './numeric/trigonometry.ts';
