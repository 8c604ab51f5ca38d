import { defineConfig } from 'vitest/config';

const conditions = ['@crooked-lantern/source', 'node'];
const shared = { resolve: { conditions }, ssr: { resolve: { conditions } } };

/** All processors of a small machine: left to itself, Vitest keeps one free. */
const maxWorkers = 2;

/** Milliseconds after which a test hangs. No test measures time by it: it is far more than a slow machine needs. */
const testTimeout = 120_000;

const poll = { timeout: 20_000 };

export default defineConfig({
  ...shared,
  test: {
    projects: [
      {
        ...shared,
        test: {
          name: 'unit',
          // What is tested there keeps nothing between tests, and loading it once saves half of the time.
          isolate: false,
          maxWorkers,
          testTimeout,
          include: [
            'packages/{core,cli,web}/src/**/*.test.{ts,tsx}',
            'bench/**/*.test.ts',
            'scripts/*.test.ts',
          ],
        },
      },
      {
        ...shared,
        test: {
          name: 'server',
          // Starting and killing the application needs no browser, so that it need not be alone.
          include: ['packages/server/src/**/*.test.ts', 'e2e/start.test.ts'],
          maxWorkers,
          testTimeout,
          hookTimeout: testTimeout,
          expect: { poll },
        },
      },
      {
        ...shared,
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          exclude: ['e2e/start.test.ts'],
          // The files of a worker share a browser, and load the application once.
          isolate: false,
          // They cut its database off, which it would report.
          env: { LANTERN_LOG: 'fatal' },
          testTimeout,
          hookTimeout: testTimeout,
          // Two at a time: each has the application and a browser of its own, and most of the time one of them waits.
          maxWorkers,
          expect: { poll },
          // A browser that draws in software beside another is late now and then; the report says which test was tried again.
          retry: 1,
        },
      },
    ],
  },
});
