import { runInBackground } from '../state/failures.ts';
import { wellAfterOpening } from '../ui/timing/well-after-opening.ts';

const whenIdle = (then: () => void) =>
  typeof requestIdleCallback === 'function' ? requestIdleCallback(then) : setTimeout(then, 200);

/** Prepares one part after the other, whenever a page that opened a while ago has nothing to do; returns a cancel function. */
export function prepareWhenIdle(parts: readonly { prepare(): Promise<void> }[]): () => void {
  let isWanted = true;
  const prepareNext = ([part, ...others]: typeof parts) => {
    if (!part || !isWanted) return;
    whenIdle(() => runInBackground(part.prepare().then(() => prepareNext(others))));
  };
  const cancel = wellAfterOpening(() => prepareNext(parts));
  return () => {
    isWanted = false;
    cancel();
  };
}
