import type { ProjectDocument } from '@crooked-lantern/core';
import { createEngine } from '../engine.ts';
import type { EngineApi, Frame } from '../protocol.ts';

export const TICK_MS = 1000 / 60;

export interface Rig {
  engine: EngineApi;
  /** The latest frame, once all that waits without delay is done. */
  frame(): Frame;
  /** Lets so many milliseconds pass, as far as the engine asks to be called back. */
  pass(ms: number): Frame;
  frames: Frame[];
  /** Whether the page has not drawn what it was shown. */
  page: { isBehind: boolean };
  /** What comes of work that goes on piece by piece, once all of it is done. */
  drained<T>(work: Promise<T>): Promise<T>;
}

/** An engine with a clock that is moved by hand. */
function rig(): Rig {
  let time = 0;
  const waiting: { at: number; work: () => void }[] = [];
  const frames: Frame[] = [];
  const page = { isBehind: false };
  const engine = createEngine({
    show: (frame) => frames.push(frame),
    isBehind: () => page.isBehind,
    now: () => time,
    later: (work, ms) => {
      waiting.push({ at: time + ms, work });
    },
  });
  const until = (end: number) => {
    for (;;) {
      waiting.sort((a, b) => a.at - b.at);
      if (!waiting[0] || waiting[0].at > end) break;
      const { at, work } = waiting.shift()!;
      time = Math.max(time, at);
      work();
    }
    time = end;
    return frames.at(-1)!;
  };
  const drained = async <T>(work: Promise<T>) => {
    let isDone = false;
    void work.then(() => (isDone = true));
    while (!isDone) {
      until(time);
      await Promise.resolve();
    }
    return work;
  };
  return {
    engine,
    frames,
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
