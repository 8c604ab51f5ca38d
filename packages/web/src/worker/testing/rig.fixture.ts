import type { ProjectDocument } from '@crooked-lantern/core';
import { createEngine } from '../engine.ts';
import type { EngineApi, EngineFailure, Frame } from '../../engine/protocol.ts';

export const TICK_MS = 1000 / 60;

export interface Rig {
  engine: EngineApi;
  /** The latest frame, once all that waits without delay is done. */
  frame(): Frame;
  /** Lets so many milliseconds pass, as far as the engine asks to be called back. */
  pass(ms: number): Frame;
  frames: Frame[];
  failures: EngineFailure[];
  /**
   * Whether the page has not drawn what it was shown, and whether showing it anything throws; and how many
   * milliseconds pass between two looks at the clock, so that work takes time.
   */
  page: { isBehind: boolean; breaks: boolean; msPerLook: number };
  /** What comes of work that goes on piece by piece, once all of it is done. */
  drained<T>(work: Promise<T>): Promise<T>;
}

/** An engine with a clock that is moved by hand. */
function rig(): Rig {
  let time = 0;
  const waiting: { at: number; work: () => void }[] = [];
  const frames: Frame[] = [];
  const failures: EngineFailure[] = [];
  const page = { isBehind: false, breaks: false, msPerLook: 0 };
  const engine = createEngine({
    show: (frame) => {
      if (page.breaks) throw new Error('The page broke.');
      frames.push(frame);
    },
    isBehind: () => page.isBehind,
    now: () => (time += page.msPerLook),
    later: (work, ms) => {
      waiting.push({ at: time + ms, work });
    },
    fail: (failure) => failures.push(failure),
  });
  const until = (end: number) => {
    for (;;) {
      waiting.sort((a, b) => a.at - b.at);
      if (!waiting[0] || waiting[0].at > end) break;
      const { at, work } = waiting.shift()!;
      time = Math.max(time, at);
      work();
    }
    time = Math.max(time, end);
    return frames.at(-1)!;
  };
  const drained = async <T>(work: Promise<T>) => {
    let isDone = false;
    const done = () => {
      isDone = true;
    };
    work.then(done, done);
    while (!isDone) {
      until(time);
      await Promise.resolve();
    }
    return work;
  };
  return {
    engine,
    frames,
    failures,
    page,
    drained,
    frame: () => until(time),
    pass: (ms) => until(time + ms),
  };
}

export async function started(document: ProjectDocument): Promise<Rig> {
  const made = rig();
  const { runs } = await made.engine.submit(document, 1);
  if (!runs) throw new Error('The project has errors.');
  made.frame();
  return made;
}
