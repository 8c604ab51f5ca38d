import { defineConfig } from 'vitest/config';

const conditions = ['@crooked-lantern/source', 'node'];

/** The tests that tell mutants from what they were made of: those of meaning, without browser, server and scripts. */
export default defineConfig({
  resolve: { conditions },
  ssr: { resolve: { conditions } },
  test: {
    include: ['packages/{core,web}/src/**/*.test.{ts,tsx}'],
    testTimeout: 30_000,
  },
});
