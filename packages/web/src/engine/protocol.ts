import type {
  ExpressionFault,
  ExpressionPlace,
  Finding,
  Input,
  LedgerEntry,
  MindReadout,
  Program,
  ProjectDocument,
  RowReadout,
} from '@crooked-lantern/core';

/** What the pages ask of the engine, which runs in a worker of its own. */
export interface EngineApi {
  /** Checks a document and, where it has no errors, puts it in force from the next tick. */
  submit(document: ProjectDocument, edit: number): Promise<SubmitResult>;
  checkExpression(mind: string, source: string, place: ExpressionPlace): Promise<ExpressionFault[]>;
  play(): void;
  pause(): void;
  /** Goes this many ticks on or back from where the run stands, and rests there; past the head it runs on. */
  nudge(ticks: number): void;
  restart(seed: number | null): void;
  setSpeed(speed: number): void;
  /** Goes to a tick; past the head it runs on to there. */
  seek(tick: number): void;
  setInput(input: Input): void;
  /** Whose mind is read with each frame, and which of its states in detail. */
  watch(agent: string | null, mind: string | null, state: string | null): void;
  show(overlays: { sight: boolean; paths: boolean }): void;
}

export interface SubmitResult {
  findings: Finding[];
  /** What runs now, where the document took effect. */
  program: Program | null;
}

/** What there is to draw, sent at most once a display frame. */
export interface Frame {
  tick: number;
  head: number;
  keptFrom: number;
  edit: number;
  playing: boolean;
  speed: number;
  seed: number;
  bodies: Float32Array;
  rays: Float32Array | null;
  paths: { agent: number; points: number[] }[] | null;
  speech: { agent: number; text: string }[];
  /** New since the last frame, or all of them where `entriesAnew`. */
  entries: LedgerEntry[];
  entriesAnew: boolean;
  /** What the rows of the watched state came to in the last ticks, the oldest first. */
  rows: RowReadout['result'][][];
  readout: MindReadout | null;
  /** State hash, where the run rests. */
  hash: string | null;
}
