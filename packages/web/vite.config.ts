import optimizeLocales from '@react-aria/optimize-locales-plugin';
import react from '@vitejs/plugin-react';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { defineConfig, type Plugin } from 'vite';

const server = `http://127.0.0.1:${process.env.PORT ?? 4173}`;

/** Compresses what is built once and well, so that the server need not do it again for each visitor. */
function compressed(): Plugin {
  const dist = path.join(import.meta.dirname, 'dist');
  return {
    name: 'compressed',
    apply: 'build',
    closeBundle(error) {
      // It would hide why the build failed: then there is nothing to compress.
      if (error) return;
      for (const file of readdirSync(dist, { recursive: true, encoding: 'utf8' })) {
        if (!/\.(js|css|html|svg)$/.test(file)) continue;
        const full = path.join(dist, file);
        const text = readFileSync(full);
        writeFileSync(`${full}.br`, brotliCompressSync(text));
        writeFileSync(`${full}.gz`, gzipSync(text, { level: 9 }));
      }
    },
  };
}

const SOURCE = path.join(import.meta.dirname, 'src');
const WORKER = path.join(SOURCE, 'worker/worker.ts');
const START = path.join(SOURCE, 'app/start.tsx');

/** All modules the engine's worker is made of, and all the first page of a project is. */
const ofWorker = new Set<string>();
const ofStart = new Set<string>();

/**
 * Builds the engine's worker together with the pages, so that what both need is one file, loaded once. By itself the
 * bundler gives a worker a copy of everything.
 */
function workerWithPages(): Plugin {
  return {
    name: 'worker-with-pages',
    apply: 'build',
    enforce: 'pre',
    transform(code, id) {
      if (id !== path.join(SOURCE, 'engine/start-worker.ts')) return null;
      const file = this.emitFile({ type: 'chunk', id: WORKER, name: 'worker' });
      const place = "new URL('../worker/worker.ts', import.meta.url)";
      if (!code.includes(place)) this.error(`start-worker.ts no longer says ${place}.`);
      return code.replace(place, `import.meta.ROLLUP_FILE_URL_${file}`);
    },
    buildEnd() {
      const reach = (from: string, found: Set<string>) => {
        if (found.has(from)) return;
        found.add(from);
        for (const id of this.getModuleInfo(from)?.importedIds ?? []) reach(id, found);
      };
      for (const [from, found] of [
        [WORKER, ofWorker],
        [START, ofStart],
      ] as const) {
        found.clear();
        reach(from, found);
      }
    },
  };
}

/** Names what the pages begin with in the HTML, so that it loads beside the script that would ask for it. */
function startPreloaded(): Plugin {
  return {
    name: 'start-preloaded',
    apply: 'build',
    transformIndexHtml: {
      order: 'post',
      handler(_, { bundle = {} }) {
        const chunks = Object.values(bundle).filter((file) => file.type === 'chunk');
        const start = chunks.find(({ facadeModuleId }) => facadeModuleId === START);
        if (!start) throw new Error(`${START} is in no chunk of its own.`);
        return [start.fileName, ...start.imports].map((file) => ({
          tag: 'link',
          attrs: { rel: 'modulepreload', crossorigin: true, href: `/${file}` },
          injectTo: 'head' as const,
        }));
      },
    },
  };
}

/** Libraries every page needs. */
const BASE =
  /node_modules\/(react|react-dom|scheduler|react-router|styled-components|stylis|@reduxjs\/toolkit|redux|redux-thunk|reselect|immer|react-redux|use-sync-external-store|clsx|tinykeys)\//;

/** What only charts need, which come when a page with one is opened. */
const CHARTS =
  /node_modules\/(recharts|victory-vendor|d3-[a-z-]+|es-toolkit|decimal\.js-light|eventemitter3|internmap|tiny-invariant)\//;

export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    react(),
    // The pages are in English; React Aria brings its words in thirty languages.
    optimizeLocales.vite({ locales: ['en-US'] }),
    workerWithPages(),
    startPreloaded(),
    compressed(),
  ],
  resolve: {
    conditions: ['@crooked-lantern/source', 'module', 'browser', 'development|production'],
  },
  worker: { format: 'es' },
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    chunkSizeWarningLimit: 2000,
    // A few larger files are packed better than twenty small ones, each with its headers.
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'both', test: (id) => ofWorker.has(id), minShareCount: 2 },
            { name: 'base', test: (id) => ofStart.has(id) && BASE.test(id) },
            { name: 'shared', test: (id) => ofStart.has(id), minShareCount: 2 },
            { name: 'charts', test: CHARTS },
          ],
        },
      },
    },
  },
  server: {
    host: '127.0.0.1',
    port: 4174,
    proxy: {
      '/api': { target: server, changeOrigin: true, ws: true, headers: { origin: server } },
    },
  },
});
