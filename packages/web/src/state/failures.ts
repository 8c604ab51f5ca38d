import { useSyncExternalStore } from 'react';
import { errorOf, wasReported } from './thrown.ts';

/** Something that should not happen did. The page says so in one notice, whichever part it came from. */
export interface Failure {
  /** What happened, as a sentence. */
  title: string;
  /** Everything known about it, as text for a bug report. */
  report: string;
  /** What can be done about it; null where all goes on by itself. */
  retry: { label: string; run: () => void } | null;
}

let latest: Failure | null = null;
const listeners = new Set<() => void>();

function become(failure: Failure | null): void {
  latest = failure;
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Shows a failure in place of the one before. One that can be retried stays until then: what follows comes of it. */
export function reportFailure(failure: Failure): void {
  console.error(failure.report);
  if (latest?.retry) return;
  become(failure);
}

export function dismissFailure(): void {
  become(null);
}

/** The failure to be shown; null where there is none. */
export function useFailure(): Failure | null {
  return useSyncExternalStore(subscribe, () => latest);
}

function failOnPage(thrown: unknown): void {
  if (wasReported(thrown)) return;
  const { message, stack = '' } = errorOf(thrown);
  reportFailure({
    title: `Something on this page failed: ${message}`,
    report: `${message}\n${window.location.pathname}\n${navigator.userAgent}\n${stack}`,
    retry: null,
  });
}

/** Lets work go on by itself. Where it fails, the page says so. */
export function runInBackground(work: unknown): void {
  if (work instanceof Promise) work.catch(failOnPage);
}

/** What the browser calls an error and is none: a layout that took two rounds. */
const LAYOUT_ROUNDS = /^ResizeObserver loop/;

/** Shows what nothing else on the page has caught. */
export function watchForFailures(): void {
  window.addEventListener('error', ({ error, message }) => {
    if (!LAYOUT_ROUNDS.test(message)) failOnPage(error ?? message);
  });
  window.addEventListener('unhandledrejection', ({ reason }) => failOnPage(reason));
}
