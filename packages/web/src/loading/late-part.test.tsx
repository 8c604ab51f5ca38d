// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { Suspense } from 'react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { latePart } from './late-part.tsx';

const told = vi.hoisted(() => ({ checks: 0 }));
vi.mock('./new-version.ts', () => ({
  tellOfNewVersion: () => {
    told.checks++;
    return Promise.resolve();
  },
}));

beforeEach(() => {
  vi.useFakeTimers();
  told.checks = 0;
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

/** A part whose code comes when it is asked for the n-th time. */
function partAfter(failures: number) {
  const load = vi.fn(() =>
    load.mock.calls.length > failures
      ? Promise.resolve(({ of }: { of: string }) => <p>The history of {of}</p>)
      : Promise.reject(new TypeError('Failed to fetch')),
  );
  return { load, Part: latePart('the history', load) };
}

async function show(Part: ReturnType<typeof partAfter>['Part']) {
  await act(async () => {
    render(
      <>
        <p>The run</p>
        <Suspense fallback="…">
          <Part of="Rounds" />
        </Suspense>
      </>,
    );
  });
}
const after = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

it('what can’t be loaded says so in its place, keeps trying, and comes by itself', async () => {
  const { Part, load } = partAfter(3);
  await show(Part);
  expect(screen.getByRole('alert').textContent).toContain('Can’t load the history.');
  screen.getByText('The run');
  expect(told.checks).toBe(1);
  await after(1000);
  await after(2000);
  expect(load).toHaveBeenCalledTimes(3);
  expect(screen.queryByRole('alert')).not.toBeNull();
  await after(4000);
  screen.getByText('The history of Rounds');
  expect(screen.queryByRole('alert')).toBeNull();
});

it('it is tried at once when one asks for it', async () => {
  const { Part, load } = partAfter(1);
  await show(Part);
  await act(async () => {
    fireEvent.click(screen.getByRole('button', { name: 'Try now' }));
    await vi.advanceTimersByTimeAsync(0);
  });
  expect(load).toHaveBeenCalledTimes(2);
  screen.getByText('The history of Rounds');
});

it('what was prepared is there at once; what could not be is loaded when it is shown', async () => {
  const ready = partAfter(0);
  await ready.Part.prepare();
  await show(ready.Part);
  screen.getByText('The history of Rounds');
  expect(ready.load).toHaveBeenCalledTimes(1);
  cleanup();
  const late = partAfter(1);
  await late.Part.prepare();
  await show(late.Part);
  screen.getByText('The history of Rounds');
});
