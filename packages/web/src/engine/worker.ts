import * as Comlink from 'comlink';
import type { ProjectDocument } from '@crooked-lantern/core';
import { patched } from './document-patch.ts';
import { createEngine } from './engine.ts';
import type { WorkerApi } from './protocol.ts';

/** Frames that are on their way at most: one is drawn while the next is made. */
const MOST_UNDRAWN = 2;
/** Milliseconds after which a page that draws nothing, since it is hidden, gets one all the same. */
const LONGEST_WAIT = 200;

let frames: MessagePort | null = null;
let undrawn = 0;
let shownAt = 0;

const engine = createEngine({
  show(frame) {
    const transfer: Transferable[] = [frame.bodies.buffer, frame.rows.past.buffer];
    if (frame.rays) transfer.push(frame.rays.buffer);
    undrawn++;
    shownAt = performance.now();
    frames?.postMessage(frame, { transfer });
  },
  isBehind: () => undrawn >= MOST_UNDRAWN && performance.now() - shownAt < LONGEST_WAIT,
  now: () => performance.now(),
  later: setTimeout,
});

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
  },
};

Comlink.expose(api);
