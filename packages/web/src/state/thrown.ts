/** What was thrown, on either side of the worker. Anything can be thrown. */

export function errorOf(thrown: unknown): Error {
  return thrown instanceof Error ? thrown : new Error(String(thrown));
}

/** The page has been told of what was thrown: the caller gets this as its answer. */
export class ReportedError extends Error {
  override readonly name = 'ReportedError';
}

/** Whether the engine has reported it already. On its way from the worker an error loses its class and keeps its name. */
export function wasReported(thrown: unknown): boolean {
  return thrown instanceof Error && thrown.name === 'ReportedError';
}
