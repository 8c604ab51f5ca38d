import { errorOf, ReportedError } from '../state/thrown.ts';

/**
 * The same entries; what one of them throws, at once or later, is reported before the caller is answered with it.
 *
 * @param report called once for each error
 */
export function guarded<Api extends object>(
  api: Api,
  report: (entry: keyof Api & string, error: Error) => void,
): Api {
  const guard = (entry: keyof Api & string, call: (...args: unknown[]) => unknown) => {
    const fail = (thrown: unknown): never => {
      if (thrown instanceof ReportedError) throw thrown;
      const error = errorOf(thrown);
      report(entry, error);
      throw new ReportedError(error.message);
    };
    return (...args: unknown[]) => {
      try {
        const result = call(...args);
        return result instanceof Promise ? result.catch(fail) : result;
      } catch (thrown) {
        return fail(thrown);
      }
    };
  };
  return Object.fromEntries(
    Object.entries(api).map(([entry, call]) => [entry, guard(entry as keyof Api & string, call)]),
  ) as Api;
}
