/** What the application shows of a running world, and no game needs: pictures, readouts, programs in detail. */
export { encodeProgram } from './world/program/encoding.ts';
export { spaceOf } from './world/program/space.ts';
export { firstMind } from './world/recording/names.ts';
export {
  THING_RADIUS,
  type GateProgram,
  type SquadProgram,
  type ThingProgram,
  type WallProgram,
} from './world/program/program.ts';
export { FORCES } from './motion/body.ts';
export { HAND_REACH, THROW_RANGE } from './world/mechanics/hands/hands.ts';
export { AWARENESS_STEP, type Reading } from './world/state/recorder.ts';
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
