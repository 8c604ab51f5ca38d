import { defineConfig } from 'vitest/config';

const conditions = ['@crooked-lantern/source', 'node'];
const shared = { resolve: { conditions }, ssr: { resolve: { conditions } } };

/** All processors of a small machine: left to itself, Vitest keeps one free. */
const maxWorkers = 2;

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
          testTimeout: 30_000,
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
          testTimeout: 90_000,
          hookTimeout: 90_000,
        },
      },
      {
        ...shared,
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          exclude: ['e2e/start.test.ts'],
          testTimeout: 90_000,
          hookTimeout: 90_000,
          // Two at a time: each has the application and a browser of its own, and most of the time one of them waits.
          maxWorkers,
          expect: { poll: { timeout: 20_000 } },
        },
      },
    ],
  },
});
