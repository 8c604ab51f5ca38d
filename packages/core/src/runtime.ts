/** What a game ships: running a compiled program, with no dependency. */
export { createWorld, setRecorder, tick, beginTick, stepMinds, endTick, isPlayed, AWARENESS_STEP, type Input, type World } from './world/world.ts';
export { takeSnapshot, restoreSnapshot, worldHash, type Snapshot } from './world/snapshot.ts';
export { swapProgram } from './world/swap.ts';
export type { Agent } from './world/agent.ts';
export type { Program } from './world/program.ts';
export type { LedgerEntry, Reading, Recorder } from './world/recorder.ts';
