let spare: Worker | null = null;

function create(): Worker {
  return new Worker(new URL('../worker/worker.ts', import.meta.url), { type: 'module' });
}

/** Lets a worker load before anybody asks for one; it is given to the first who does. */
export function prepareWorker(): void {
  spare ??= create();
}

export function startWorker(): Worker {
  const worker = spare ?? create();
  spare = null;
  return worker;
}
