import {
  isOfFight,
  type LedgerEntry,
  type Program,
  type ProjectDocument,
} from '@crooked-lantern/core';
import * as Comlink from 'comlink';
import { patchOf } from './document-patch.ts';
import { addEntries, createLanes, type Lanes } from './lanes.ts';
import type {
  BranchPicture,
  EngineApi,
  EngineFailure,
  Frame,
  FromWorker,
  WorkerApi,
} from './protocol.ts';
import { addToTallies, type RowTallies } from './row-tallies.ts';
import { startWorker } from './start-worker.ts';
import { errorOf, wasReported } from '../state/thrown.ts';
import { engineFailed } from './engine-failed.ts';

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
  /** The followed agent, and which of its minds. */
  readonly watched: { readonly agent: string | null; readonly mind: string | null };
  /** Where the rows of the watched state are written. */
  readonly rowPaths: readonly string[];
  /** What the frame ran under, which an earlier tick may have had another of; null before the first frame. */
  readonly program: Program | null;
  /** Calls the listener after each new frame. Returns a function that unsubscribes it. */
  onFrame(listener: () => void): () => void;
  /** Calls the listener when the user restarts the engine after a failure. Returns a function that unsubscribes it. */
  onRestart(listener: () => void): () => void;
  end(): void;
}

/** What is asked of the engine without an answer. */
type Command = {
  [Name in keyof EngineApi]: ReturnType<EngineApi[Name]> extends void ? Name : never;
}[keyof EngineApi];

function outside(during: EngineFailure['during'], thrown: unknown): EngineFailure {
  const { message, stack = '' } = errorOf(thrown);
  return { during, message, stopped: true, tick: null, phase: null, agent: null, stack };
}

/** @param startAgain replaces this engine with a new one, where its worker can't go on */
export function startEngine(startAgain: () => void): EngineClient {
  const worker = startWorker();
  const remote = Comlink.wrap<WorkerApi>(worker);
  const listeners = new Set<() => void>();
  const restarting = new Set<() => void>();
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

  /** A failure on the way to the worker or back, which the worker can't know of. */
  const lost = (during: EngineFailure['during'], thrown: unknown) => {
    if (!wasReported(thrown))
      engineFailed(outside(during, thrown), { edit: frame?.edit, retry: startAgain });
  };
  /** Sends a command without waiting for an answer. */
  const send = <Name extends Command>(name: Name, ...args: Parameters<EngineApi[Name]>): void => {
    const call = remote[name] as (...given: unknown[]) => Promise<void>;
    call(...args).catch((thrown: unknown) => lost(name, thrown));
  };

  /** A question whose answer can say that there is none: a failure is told, and answered so. */
  const asked = <Name extends keyof EngineApi>(
    name: Name,
    answer: Promise<unknown>,
    without: (reason: string) => Awaited<ReturnType<EngineApi[Name]>>,
  ) =>
    answer.catch((thrown: unknown) => {
      lost(name, thrown);
      return without(`The engine failed: ${errorOf(thrown).message}`);
    }) as ReturnType<EngineApi[Name]>;
  const trouble = (reason: string) => ({ trouble: reason });
  const troubleNow = (reason: string) => ({ tick: frame?.tick ?? 0, trouble: reason });
  const itself = (reason: string) => reason;
  const nothing = () => null;

  worker.onerror = (event) => {
    event.preventDefault();
    lost('worker', event.message || 'The engine could not be loaded.');
  };
  worker.onmessageerror = () => lost('worker', 'An answer of the engine is unreadable.');

  const { port1: frames, port2: sender } = new MessageChannel();
  frames.onmessageerror = () => lost('worker', 'A frame of the engine is unreadable.');
  remote
    .sendFrames(Comlink.transfer(sender, [sender]))
    .catch((thrown: unknown) => lost('sendFrames', thrown));
  frames.onmessage = ({ data }: MessageEvent<FromWorker>) => {
    if ('failure' in data) {
      const { failure } = data;
      engineFailed(failure, {
        edit: frame?.edit,
        retry: failure.stopped ? restart : null,
      });
      // A run that was stopped may send no further frame to say so.
      if (failure.stopped && frame) frame = { ...frame, playing: false };
      tellListeners();
      return;
    }
    takeFrame(data.frame);
    tellListeners();
    // Asked for last, it comes after all that is drawn in the next display frame.
    requestAnimationFrame(() => frames.postMessage(null));
  };

  function restart(): void {
    for (const listener of restarting) listener();
    send('play');
  }

  function tellListeners(): void {
    for (const listener of listeners) listener();
  }

  function takeFrame(next: Frame): void {
    frame = next;
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
  }

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
    onRestart(listener) {
      restarting.add(listener);
      return () => restarting.delete(listener);
    },
    onFrame(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    submit(document, edit, hasForm) {
      const result = remote.submitPatch(patchOf(submitted, document), edit, hasForm);
      submitted = document;
      return result.catch((thrown: unknown) => {
        // What the worker has of the project is not known now: the next edit is sent whole.
        submitted = null;
        throw thrown;
      });
    },
    checkExpression: (mind, source, place) => remote.checkExpression(mind, source, place),
    readExpression: (mind, source, tree) =>
      asked('readExpression', remote.readExpression(mind, source, tree), () => []),
    tryOut: (document, agent, seconds) =>
      asked('tryOut', remote.tryOut(document, agent, seconds), trouble),
    runOn: () => send('runOn'),
    goBack: () => asked('goBack', remote.goBack(), itself),
    play: () => send('play'),
    pause: () => send('pause'),
    nudge: (ticks) => send('nudge', ticks),
    restart: (seed) => send('restart', seed),
    setSpeed: (speed) => send('setSpeed', speed),
    seek: (tick) => send('seek', tick),
    setInput: (input) => send('setInput', input),
    get watched() {
      return watched;
    },
    watch: (agent, mind, state) => {
      watched = { agent, mind };
      send('watch', agent, mind, state);
    },
    follow: (agents) => send('follow', agents),
    weigh: (choice) => send('weigh', choice),
    choicePast: () => asked('choicePast', remote.choicePast(), nothing),
    choiceAt: (x, y) => asked('choiceAt', remote.choiceAt(x, y), nothing),
    heat: (option, step) => asked('heat', remote.heat(option, step), nothing),
    ask: (question) => asked('ask', remote.ask(question), troubleNow),
    askFarBack: (question, onProgress) =>
      asked('askFarBack', remote.askFarBack(question, Comlink.proxy(onProgress)), troubleNow),
    tryChange: (question, onProgress) =>
      asked('tryChange', remote.tryChange(question, Comlink.proxy(onProgress)), trouble),
    compare: (id, onProgress) =>
      asked('compare', remote.compare(id, Comlink.proxy(onProgress)), trouble),
    runBeside: (how, onProgress) =>
      asked('runBeside', remote.runBeside(how, Comlink.proxy(onProgress)), trouble),
    stopLooking: () => send('stopLooking'),
    coverage: (over) => asked('coverage', remote.coverage(over), nothing),
    exportRun: (format, title) => asked('exportRun', remote.exportRun(format, title), nothing),
    find: (words) => asked('find', remote.find(words), () => []),
    observations: () => asked('observations', remote.observations(), nothing),
    goToBranch: (id) => send('goToBranch', id),
    nameBranch: (id, name) => send('nameBranch', id, name),
    letGoOfBranch: (id) => send('letGoOfBranch', id),
    show: (wanted) => send('show', wanted),
    possess: (agent) => send('possess', agent),
    putDown: (agent, x, y) => send('putDown', agent, x, y),
    begin: (setup) => asked('begin', remote.begin(setup), itself),
    recording: () => remote.recording(),
    replay: (recording, until) => send('replay', recording, until),
    end() {
      listeners.clear();
      restarting.clear();
      frames.close();
      worker.terminate();
    },
  };
}
