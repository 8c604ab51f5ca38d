let spare: Worker | null = null;

function create(): Worker {
  return new Worker(new URL('../worker/worker.ts', import.meta.url), { type: 'module' });
}

/** Lets a worker load before it is asked for; the first caller gets it. */
export function prepareWorker(): void {
  spare ??= create();
}

export function startWorker(): Worker {
  const worker = spare ?? create();
  spare = null;
  return worker;
}
