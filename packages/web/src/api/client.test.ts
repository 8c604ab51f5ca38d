import fc from 'fast-check';
import type { ProjectDocument } from '@crooked-lantern/core';
import { afterEach, expect, it, vi } from 'vitest';
import { api } from './client.ts';

afterEach(() => vi.unstubAllGlobals());

/** The header that says what an edit changes, as the server reads it; undefined for none. */
async function headerFor(what: string): Promise<string | undefined> {
  let headers: Record<string, string> = {};
  vi.stubGlobal('fetch', (_: string, init: RequestInit) => {
    headers = init.headers as Record<string, string>;
    return Promise.resolve(new Response('{}'));
  });
  await api.write('night', 1, { title: 'Night' } as ProjectDocument, what);
  const sent = headers['x-edit-what'];
  return sent === undefined ? undefined : decodeURIComponent(sent);
}

it('what an edit changes goes with it, as one line', async () => {
  expect(await headerFor('guard of Chase: 2 → 3')).toBe('guard of Chase: 2 → 3');
  expect(await headerFor('note:\n“far”')).toBe('note: “far”');
  expect(await headerFor(' ')).toBeUndefined();
});

it('whatever it holds, the server takes it: saving never fails for it', async () => {
  await fc.assert(
    fc.asyncProperty(fc.string({ unit: 'binary', maxLength: 300 }), async (what) => {
      const line = await headerFor(what);
      if (line === undefined) return;
      expect([...line].length).toBeLessThanOrEqual(200);
      expect(line).not.toMatch(/\p{Cc}|\p{Cs}/u);
      expect(line).not.toBe('');
    }),
    { numRuns: 200 },
  );
});
