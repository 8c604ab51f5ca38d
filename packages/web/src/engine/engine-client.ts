import {
  isOfFight,
  type LedgerEntry,
  type Program,
  type ProjectDocument,
} from '@crooked-lantern/core';
import * as Comlink from 'comlink';
import { patchOf } from './document-patch.ts';
import { addEntries, createLanes, type Lanes } from './lanes.ts';
import type { BranchPicture, EngineApi, Frame, WorkerApi } from './protocol.ts';
import { addToTallies, type RowTallies } from './row-tallies.ts';
import { startWorker } from './start-worker.ts';

/**
 * The pages' side of the engine. What changes every frame is kept here and told to subscribers, not put
 * in the store: React renders on changes of meaning, drawing follows frames.
 */
export interface EngineClient extends EngineApi {
  /** The latest frame; null before the first. */
  readonly frame: Frame | null;
  readonly lanes: Lanes;
  readonly tallies: RowTallies;
  /** What the ledger says of fights, in order. */
  readonly fights: readonly LedgerEntry[];
  /** The ways runs have taken, the one that goes on first. */
  readonly branches: readonly BranchPicture[];
  /** Who is followed, and which of its minds. */
  readonly watched: { readonly agent: string | null; readonly mind: string | null };
  /** Where the rows of the watched state are written. */
  readonly rowPaths: readonly string[];
  /** What the frame ran under, which an earlier tick may have had another of; null before the first frame. */
  readonly program: Program | null;
  /** Called after each new frame; gives the way to unsubscribe. */
  onFrame(listener: () => void): () => void;
  end(): void;
}

export function startEngine(): EngineClient {
  const worker = startWorker();
  const remote = Comlink.wrap<WorkerApi>(worker);
  const listeners = new Set<() => void>();
  let frame: Frame | null = null;
  let program: Program | null = null;
  let lanes = createLanes();
  const tallies: RowTallies = new Map();
  let fights: LedgerEntry[] = [];
  let rowPaths: readonly string[] = [];
  let branches: readonly BranchPicture[] = [];
  /** What the worker has of the project, whose parts that an edit leaves alone are not sent again. */
  let submitted: ProjectDocument | null = null;
  let watched: { agent: string | null; mind: string | null } = { agent: null, mind: null };

  const { port1: frames, port2: sender } = new MessageChannel();
  void remote.sendFrames(Comlink.transfer(sender, [sender]));
  frames.onmessage = ({ data }: MessageEvent<Frame>) => {
    frame = data;
    if (frame.program) program = frame.program;
    if (frame.branches) branches = frame.branches;
    if (frame.rows.paths) rowPaths = frame.rows.paths;
    if (frame.entriesAnew) {
      lanes = createLanes();
      tallies.clear();
      fights = [];
    }
    addEntries(lanes, frame.entries);
    addToTallies(tallies, frame.entries);
    for (const entry of frame.entries) if (isOfFight(entry)) fights.push(entry);
    for (const listener of listeners) listener();
    // Asked for last, it comes after all that is drawn in the next display frame.
    requestAnimationFrame(() => frames.postMessage(null));
  };

  return {
    get frame() {
      return frame;
    },
    get lanes() {
      return lanes;
    },
    tallies,
    get fights() {
      return fights;
    },
    get rowPaths() {
      return rowPaths;
    },
    get branches() {
      return branches;
    },
    get program() {
      return program;
    },
    onFrame(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    submit(document, edit, hasForm) {
      const result = remote.submitPatch(patchOf(submitted, document), edit, hasForm);
      submitted = document;
      return result;
    },
    checkExpression: (mind, source, place) => remote.checkExpression(mind, source, place),
    readExpression: (mind, source, tree) => remote.readExpression(mind, source, tree),
    tryOut: (document, agent, seconds) => remote.tryOut(document, agent, seconds),
    runOn: () => void remote.runOn(),
    goBack: () => remote.goBack(),
    play: () => void remote.play(),
    pause: () => void remote.pause(),
    nudge: (ticks) => void remote.nudge(ticks),
    restart: (seed) => void remote.restart(seed),
    setSpeed: (speed) => void remote.setSpeed(speed),
    seek: (tick) => void remote.seek(tick),
    setInput: (input) => void remote.setInput(input),
    get watched() {
      return watched;
    },
    watch: (agent, mind, state) => {
      watched = { agent, mind };
      void remote.watch(agent, mind, state);
    },
    follow: (agents) => void remote.follow(agents),
    weigh: (choice) => void remote.weigh(choice),
    choicePast: () => remote.choicePast(),
    choiceAt: (x, y) => remote.choiceAt(x, y),
    heat: (option, step) => remote.heat(option, step),
    ask: (question) => remote.ask(question),
    askFarBack: (question, onProgress) => remote.askFarBack(question, Comlink.proxy(onProgress)),
    tryChange: (question, onProgress) => remote.tryChange(question, Comlink.proxy(onProgress)),
    compare: (id, onProgress) => remote.compare(id, Comlink.proxy(onProgress)),
    runBeside: (how, onProgress) => remote.runBeside(how, Comlink.proxy(onProgress)),
    stopLooking: () => void remote.stopLooking(),
    coverage: (over) => remote.coverage(over),
    exportRun: (format, title) => remote.exportRun(format, title),
    find: (words) => remote.find(words),
    findings: () => remote.findings(),
    goToBranch: (id) => void remote.goToBranch(id),
    nameBranch: (id, name) => void remote.nameBranch(id, name),
    letGoOfBranch: (id) => void remote.letGoOfBranch(id),
    show: (wanted) => void remote.show(wanted),
    possess: (agent) => void remote.possess(agent),
    putDown: (agent, x, y) => void remote.putDown(agent, x, y),
    begin: (setup) => remote.begin(setup),
    recording: () => remote.recording(),
    replay: (recording, until) => void remote.replay(recording, until),
    end() {
      listeners.clear();
      frames.close();
      worker.terminate();
    },
  };
}
