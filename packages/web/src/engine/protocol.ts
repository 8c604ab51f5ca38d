import type {
  AgentFigures,
  Asking,
  Branch,
  ChoiceReadout,
  CoverageItem,
  Difference,
  DocumentCommand,
  ExpressionFault,
  ExpressionPlace,
  FollowedReadout,
  FoundChange,
  Given,
  FightPicture,
  GamePicture,
  Finding,
  HeatPicture,
  Input,
  KnownPicture,
  LedgerEntry,
  MindReadout,
  Parting,
  PartValue,
  PathPicture,
  PhaseName,
  Program,
  ProjectDocument,
  RecordingFormat,
  Observation,
  SharedPicture,
  Statement,
  Stop,
  Target,
  TryProgress,
  UnlikeDecision,
} from '@crooked-lantern/core';
import type { Patch } from './document-patch.ts';
import type { Lanes } from './lanes.ts';

/** What the worker takes from the pages besides what it passes on to its engine. */
export interface WorkerApi extends Omit<EngineApi, 'submit'> {
  /** `submit` of a document, by what it has that the one submitted before had not; the first is whole. */
  submitPatch(patch: Patch, edit: number, hasForm?: boolean): Promise<SubmitResult>;
  /**
   * Where frames are sent, and where any message says that all that have come were drawn. There are sixty a second
   * of both, which would wait for no answer.
   */
  sendFrames(to: MessagePort): void;
}

/** What the pages ask of the engine, which runs in a worker of its own. */
export interface EngineApi {
  /** Checks a document and, where it has no errors, puts it in force from the next tick. `hasForm`: its form has been checked before. */
  submit(document: ProjectDocument, edit: number, hasForm?: boolean): Promise<SubmitResult>;
  checkExpression(
    mind: string | null,
    source: string,
    place: ExpressionPlace,
  ): Promise<ExpressionFault[]>;
  /**
   * What each part of an expression of a mind is worth to the watched agent now, the whole first; empty where
   * that can't be said: the expression has an error, or this tick ran under another edit.
   */
  readExpression(mind: string, source: string, tree?: string): Promise<PartValue[]>;
  /** What an agent of a project would do in its first seconds, beside the run that is shown; or why it can’t run. */
  tryOut(
    document: ProjectDocument,
    agent: string,
    seconds: number,
  ): Promise<{ entries: LedgerEntry[]; ticksPerSecond: number } | { trouble: string }>;
  /** Runs on as fast as it goes until a breakpoint is met, for half an hour of the run at most. */
  runOn(): void;
  /** Goes back to where a breakpoint was met last. Returns why it can't; null where it has. */
  goBack(): Promise<string | null>;
  play(): void;
  pause(): void;
  /** Goes this many ticks on or back from where the run stands, and rests there; past the head it runs on. */
  nudge(ticks: number): void;
  restart(seed: number | null): void;
  setSpeed(speed: number): void;
  /** Goes to a tick; past the head it runs on to there. */
  seek(tick: number): void;
  /** What a player does. Going on from the past gives again what players did then, until one does something else. */
  setInput(input: Input): void;
  /** Whose mind is read with each frame, and which of its states in detail. */
  watch(agent: string | null, mind: string | null, state: string | null): void;
  /** Who else is read with each frame, by name. */
  follow(agents: readonly string[]): void;
  /** Whose choice is read with each frame; null for none. */
  weigh(choice: WatchedChoice | null): void;
  /** What the options of the watched choice were worth in the last seconds; null where none is watched. */
  choicePast(): Promise<ChoicePast | null>;
  /** What the watched choice would come to if its agent stood there now. */
  choiceAt(x: number, y: number): Promise<ChoiceReadout | null>;
  /** What an option of the watched choice would be worth all over the ground now, every so many metres. */
  heat(option: string, step: number): Promise<HeatPicture | null>;
  /** Why an agent does what it does at the tick that is shown, or why not something else; or why that can’t be said. */
  ask(question: EngineQuestion): Promise<EngineAnswer>;
  /** The same, looked at as far back as the run is kept. `onProgress` is given shares of 1. */
  askFarBack(question: WhyNotQuestion, onProgress: (share: number) => void): Promise<EngineAnswer>;
  /**
   * Looks for the smallest change of one number with which the agent would have been in a state at the tick that
   * is shown. It ends when the run moves, or another is begun; `onProgress` is called after each run of the past.
   */
  tryChange(
    question: WhyNotQuestion,
    onProgress: (progress: TryProgress) => void,
  ): Promise<TryAnswer>;
  /**
   * What differs between the run that goes on and a branch that was kept: where they part, why, and both in
   * figures. `onProgress` is given shares of 1.
   */
  compare(
    id: number,
    onProgress: (share: number) => void,
  ): Promise<Comparison | { trouble: string }>;
  /** Runs what players did again, under the edit that is in force: with another seed, set-up, or as it is. It is kept as a branch. */
  runBeside(
    how: RunBeside,
    onProgress: (share: number) => void,
  ): Promise<{ id: number } | { trouble: string }>;
  /** Ends the search, comparison or run beside that is under way. */
  stopLooking(): void;
  /** What of the minds was ever done in this run, or (with `over`) in all that are kept; null before there is one. */
  coverage(over: boolean): Promise<{ items: CoverageItem[]; runs: number } | null>;
  /** What is recorded of this run, as a file; null before there is one. */
  exportRun(format: RecordingFormat, title: string): Promise<string | null>;
  /** The ticks in which the ledger says something with these words in it, in order. */
  find(words: string): Promise<number[]>;
  /** What was noticed in this run; null before there is one. */
  observations(): Promise<NoticedObservations | null>;
  /** Goes on with a branch that was kept; the one before is kept in its place. */
  goToBranch(id: number): void;
  /** Names a branch, which is then kept until it is let go; null takes the name away. */
  nameBranch(id: number, name: string | null): void;
  letGoOfBranch(id: number): void;
  /** Which parts of a frame are wanted. */
  show(wanted: WantedParts): void;
  /** Hands an agent to the player, and the one played before back to its minds. */
  possess(agent: string): void;
  /** Puts an agent down elsewhere, by one tick of the run. */
  putDown(agent: string, x: number, y: number): void;
  /** What players have done in this run so far, and the seed it began with. */
  recording(): Promise<Recording>;
  /** Starts again as a set-up has it, or (with null) as the project says. Returns why that can't be, and goes on as before; null where it has begun. */
  begin(setup: string | null): Promise<string | null>;
  /** Starts again with the same seed and runs to `until` with the same input. */
  replay(recording: Recording, until: number): void;
}

export interface WatchedChoice {
  agent: string;
  mind: string;
  choice: string;
}

/** What the options of the watched choice were worth in the last seconds. */
export interface ChoicePast {
  /** The tick of the last sample. */
  tick: number;
  options: string[];
  /** Sample after sample, by option. */
  scores: Float32Array;
  running: Int8Array;
  /** By option and consideration: how often its input lay in each part of its range. */
  bins: number[][][];
}

/** An observation of the run that goes on, and in how many of the kept runs it is found too. */
export interface NoticedObservation extends Observation {
  runs: number;
}

export interface NoticedObservations {
  observations: NoticedObservation[];
  /** The runs that are counted. */
  runs: number;
  /** The last tick that was looked at. */
  to: number;
}

/** Ticks a strip shows. */
export const HISTORY_TICKS = 48;

/** Something in the worker threw. */
export interface EngineFailure {
  /** `run`: the run itself; else what the page had asked for. */
  during: 'run' | 'worker' | keyof EngineApi | keyof WorkerApi;
  message: string;
  /** Whether the run was stopped by it. It rests at its last snapshot then. */
  stopped: boolean;
  /** Where in the tick; all null where the failure was elsewhere. */
  tick: number | null;
  phase: PhaseName | null;
  /** Title of the agent that was at work. */
  agent: string | null;
  stack: string;
}

/** What comes through the port of frames. */
export type FromWorker = { frame: Frame } | { failure: EngineFailure };

/** Agent. */
export interface AskedMind {
  agent: string;
  /** Left out: its first. */
  mind?: string;
}

export interface EngineQuestion extends AskedMind {
  asking: Asking;
}

/** Why something is not. */
interface WhyNotQuestion extends AskedMind {
  target: Target;
}

/** How a run is made beside the one that goes on. `change`: with one change of the document from a tick on, which stays as it was. */
export type RunBeside =
  | { seed: number }
  | { setup: string | null }
  | { edit: true }
  | { change: DocumentCommand; from: number; name: string };

/** Two runs compared: the one that goes on, then the branch. */
export interface Comparison {
  /** The branch. */
  id: number;
  /** The last tick that both have come to. */
  until: number;
  /** Null where they do not part. */
  parting: Parting | null;
  given: Given;
  /** From the edit of the one to that of the other; null where it is the same, or no longer known. */
  changes: Difference[] | null;
  /** The first decision that differs, and why each was made; null where all decide the same. */
  decision: (UnlikeDecision & { answers: [EngineAnswer, EngineAnswer] }) | null;
  figures: [Map<string, AgentFigures>, Map<string, AgentFigures>];
  /** What the ledger shows of the branch, and the tick it has come to. */
  lanes: Lanes;
  head: number;
}

/** What came of a search: the change, that the edit in force does already, that no number does, or why it ended. */
export type TryAnswer =
  { found: FoundChange; tried: number } | { found: null; tried: number } | { trouble: string };

export type EngineAnswer = { tick: number; answer: Statement } | { tick: number; trouble: string };

/** Parts of a frame that take work to make. */
export interface WantedParts {
  rays: boolean;
  paths: boolean;
  forces: boolean;
  known: boolean;
  side: boolean;
  places: boolean;
}

/** What players did in a run, with the seed: the same edit gives the same run with it. */
export interface Recording {
  seed: number;
  inputs: { tick: number; input: Input }[];
}

interface SubmitResult {
  findings: Finding[];
  /** Whether the document runs from here on. */
  runs: boolean;
}

/** What the rows of a state came to, compactly: there may be hundreds, and they come with each frame. */
export interface RowsPicture {
  /** Where each is written, where that has changed since the frame before; else null. */
  paths: string[] | null;
  /** When each was reached last in this run, and what came of it, as `readRow` reads it. */
  cells: Float64Array;
  /** What each came to in the last ticks, the oldest tick first, row after row: places in `ROW_CODES`. */
  past: Uint8Array;
}

/** A branch as it is listed. */
export interface BranchPicture extends Branch {
  seed: number;
  /** The tick it has come to; null for the one that goes on, whose frame says so. */
  head: number | null;
}

/** What there is to draw, sent at most once a display frame. */
export interface Frame {
  tick: number;
  head: number;
  keptFrom: number;
  edit: number;
  /** What the frame ran under, where that is another program than the frame before had. */
  program: Program | null;
  playing: boolean;
  /** The tick it is run on to as fast as it goes; null where it is not. */
  towards: number | null;
  /** The set-up that the run began with; null where it began as the project says. */
  setup: string | null;
  /** The breakpoints that were met in this tick. */
  stops: Stop[];
  speed: number;
  seed: number;
  bodies: Float32Array;
  rays: Float32Array | null;
  paths: PathPicture[] | null;
  forces: Float32Array | null;
  known: KnownPicture | null;
  /** Where agents are as far as the played side knows, as `pictureSide` gives it. */
  side: Float32Array | null;
  places: SharedPicture | null;
  things: Float32Array;
  /** Null where no agent fights. */
  fights: FightPicture | null;
  /** Hits of the last moments, with the share of that time that is over. */
  hits: { x: number; y: number; result: string; harm: number; age: number }[];
  /** By gate: 0 closed, 1 open, 2 locked. */
  gates: number[];
  /** Null on a ground without scores, modes, waves and director. */
  game: GamePicture | null;
  /** The agent that a player drives; −1 for none. */
  played: number;
  /** Noises of the last moments. */
  noises: { x: number; y: number; reach: number; age: number }[];
  /** Whether going on from here gives again what players did then. */
  givesAgain: boolean;
  /** The ways runs have taken, the one that goes on first, where they are others than the frame before told; else null. */
  branches: BranchPicture[] | null;
  /** How often anything was noticed in this run that is an observation. */
  noticed: number;
  speech: { agent: number; text: string }[];
  /** New since the last frame, or all of them where `entriesAnew`. */
  entries: LedgerEntry[];
  entriesAnew: boolean;
  /** The rows of the watched state. */
  rows: RowsPicture;
  readout: MindReadout | null;
  /** The followed agents, in their order. */
  followed: FollowedReadout[];
  /** The watched choice. */
  choice: ChoiceReadout | null;
  /** State hash, where the run rests. */
  hash: string | null;
}
