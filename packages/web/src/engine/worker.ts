import * as Comlink from 'comlink';
import { createEngine } from './engine.ts';

const engine = createEngine({
  show(frame) {
    const transfer: Transferable[] = [frame.bodies.buffer, frame.rows.past.buffer];
    if (frame.rays) transfer.push(frame.rays.buffer);
    postMessage({ frame }, { transfer });
  },
  now: () => performance.now(),
  later: setTimeout,
});

Comlink.expose(engine);
