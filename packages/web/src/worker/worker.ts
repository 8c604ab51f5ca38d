import * as Comlink from 'comlink';
import type { ProjectDocument } from '@crooked-lantern/core';
import { patched } from '../engine/document-patch.ts';
import type { EngineFailure, FromWorker, WorkerApi } from '../engine/protocol.ts';
import { createEngine, failureOf } from './engine.ts';
import { errorOf } from '../state/thrown.ts';
import { guarded } from './guarded.ts';

/** Frames that are on their way at most: one is drawn while the next is made. */
const MOST_UNDRAWN = 2;
/** Milliseconds after which a page that draws nothing, since it is hidden, gets one all the same. */
const LONGEST_WAIT = 200;

let frames: MessagePort | null = null;
/** Failures from before there was a port to tell of them. */
const untold: EngineFailure[] = [];
let undrawn = 0;
let shownAt = 0;

function fail(failure: EngineFailure): void {
  if (frames) frames.postMessage({ failure } satisfies FromWorker);
  else untold.push(failure);
}

const engine = createEngine({
  show(frame) {
    const transfer: Transferable[] = [frame.bodies.buffer, frame.rows.past.buffer];
    if (frame.rays) transfer.push(frame.rays.buffer);
    undrawn++;
    shownAt = performance.now();
    frames?.postMessage({ frame } satisfies FromWorker, { transfer });
  },
  isBehind: () => undrawn >= MOST_UNDRAWN && performance.now() - shownAt < LONGEST_WAIT,
  now: () => performance.now(),
  later: setTimeout,
  fail,
});

/** What no entry was under way for. */
function failOutside(thrown: unknown): void {
  fail(failureOf('worker', errorOf(thrown), false));
}
self.addEventListener('error', (event) => {
  event.preventDefault();
  failOutside(event.error ?? event.message);
});
self.addEventListener('unhandledrejection', (event) => {
  event.preventDefault();
  failOutside(event.reason);
});
self.addEventListener('messageerror', () => failOutside('A message to the engine is unreadable.'));

/** The document that was submitted last, of which the next is a patch. */
let document: unknown = null;

const { submit, ...others } = engine;

const api: WorkerApi = {
  ...others,
  submitPatch(patch, edit, hasForm) {
    document = patched(document, patch);
    return submit(document as ProjectDocument, edit, hasForm);
  },
  sendFrames(to) {
    frames = to;
    frames.onmessage = () => (undrawn = 0);
    frames.onmessageerror = () => failOutside('A message to the engine is unreadable.');
    untold.splice(0).forEach(fail);
  },
};

Comlink.expose(guarded(api, (entry, error) => fail(failureOf(entry, error, false))));
