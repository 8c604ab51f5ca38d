// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { tellOfNewVersion } from './new-version.ts';

const told = vi.hoisted(() => ({ titles: [] as string[] }));
vi.mock('../state/failures.ts', () => ({
  reportFailure: ({ title }: { title: string }) => told.titles.push(title),
}));

const page = (entry: string) =>
  `<!doctype html><script type="module" crossorigin src="/assets/${entry}.js"></script>`;

function serverGives(answer: () => Response) {
  vi.stubGlobal('fetch', () => Promise.resolve().then(answer));
}

beforeEach(() => {
  told.titles = [];
  // The document of the tests loads no scripts; it only has to name the one it began with.
  const script = { src: new URL('/assets/index-1.js', location.href).href };
  vi.spyOn(document, 'querySelector').mockReturnValue(script as HTMLScriptElement);
});
afterEach(() => {
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

it('another build on the server is reported', async () => {
  serverGives(() => new Response(page('index-2')));
  await tellOfNewVersion();
  expect(told.titles).toEqual([expect.stringContaining('newer version of Crooked Lantern')]);
});

it.each([
  ['the same build', () => new Response(page('index-1'))],
  ['a server that fails', () => new Response('', { status: 502 })],
  ['a page of another program', () => new Response('<p>Sign in</p>')],
  [
    'a server that is away',
    () => {
      throw new TypeError('Failed to fetch');
    },
  ],
])('%s is not reported', async (_, answer) => {
  serverGives(answer);
  await tellOfNewVersion();
  expect(told.titles).toEqual([]);
});
