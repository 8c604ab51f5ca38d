import {
  createElement,
  lazy,
  useEffect,
  useSyncExternalStore,
  type ComponentType,
  type ReactNode,
} from 'react';
import styled from 'styled-components';
import { runInBackground } from '../state/failures.ts';
import { tellOfNewVersion } from './new-version.ts';
import { Button } from '../ui/button.tsx';

/** Milliseconds after which what could not be loaded is tried again; the last holds from then on. */
const AGAIN = [1000, 2000, 4000, 8000];

const Over = styled.div`
  position: fixed;
  left: 50%;
  bottom: 40px;
  z-index: 20;
  translate: -50% 0;
  border: 1px solid var(--line2);
  border-radius: 8px;
  background: var(--panel);
`;

/** The frame of what opens over the page, and has no place of its own there. */
export function overThePage(missing: ReactNode): ReactNode {
  return <Over>{missing}</Over>;
}

/** A component whose code is loaded when it is first shown, or before that. */
export type LatePart<P> = ComponentType<P> & {
  /** Loads the code before it is needed; where that fails, it is loaded when the part is shown. */
  prepare(): Promise<void>;
};

/**
 * A part of a page whose code is loaded when it is first shown; needs a `Suspense` around it for as long as that takes.
 * Where it can't be loaded, it says so in its own place, and tries again until it can be.
 *
 * @param name what it is called in a sentence: “the history”
 * @param frame puts what is said while it can't be loaded in its place; left out: where the part would stand
 */
export function latePart<P extends object>(
  name: string,
  load: () => Promise<ComponentType<P>>,
  frame: (missing: ReactNode, props: P) => ReactNode = (missing) => missing,
): LatePart<P> {
  let part: ComponentType<P> | null = null;
  /** Whether it was ever to be shown, and not only prepared. */
  let isAsked = false;
  let failures = 0;
  /** Settles when the code is there, or could not be loaded; null while nothing is under way. */
  let loading: Promise<void> | null = null;
  const listeners = new Set<() => void>();
  /** Suspends until the code is there, or could not be loaded, which the part around it then says. */
  const wait = () =>
    lazy(async () => {
      isAsked = true;
      await start();
      return { default: () => null };
    });
  let Waiting = wait();

  function start(): Promise<void> {
    loading ??= load().then(
      (loaded) => {
        part = loaded;
        tell();
      },
      () => {
        // Where it was only prepared, it is loaded as if for the first time when it is shown.
        if (isAsked) failures++;
        loading = null;
        Waiting = wait();
        tell();
        runInBackground(tellOfNewVersion());
      },
    );
    return loading;
  }
  function tell(): void {
    for (const listener of listeners) listener();
  }
  const subscribe = (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  };

  function Missing() {
    useEffect(() => {
      const waiting = setTimeout(start, AGAIN[Math.min(failures, AGAIN.length) - 1]);
      return () => clearTimeout(waiting);
    });
    return (
      <p role="alert" style={{ padding: 12 }}>
        Can’t load {name}. Trying again; everything else goes on.{' '}
        <Button onPress={() => runInBackground(start())}>Try now</Button>
      </p>
    );
  }

  function Late(props: P) {
    const state = useSyncExternalStore(subscribe, () => (part ? 'here' : failures));
    if (part) return createElement(part, props);
    if (state !== 0) return frame(<Missing />, props);
    return <Waiting />;
  }
  return Object.assign(Late, { prepare: start });
}
