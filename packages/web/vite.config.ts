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
    closeBundle() {
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

/** What every page needs. */
const BASE =
  /node_modules\/(react|react-dom|scheduler|react-router|styled-components|stylis|@reduxjs\/toolkit|redux|redux-thunk|reselect|immer|react-redux|use-sync-external-store|clsx|tinykeys)\//;

/** What only charts need, which come when a page with one is opened. */
const CHARTS =
  /node_modules\/(recharts|victory-vendor|d3-[a-z-]+|es-toolkit|decimal\.js-light|eventemitter3|internmap|tiny-invariant)\//;

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), compressed()],
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
            { name: 'base', test: BASE },
            { name: 'charts', test: CHARTS },
            { name: 'shared', minShareCount: 3 },
          ],
        },
      },
    },
  },
  server: {
    host: '127.0.0.1',
    port: 4174,
    proxy: { '/api': { target: server, changeOrigin: true, headers: { origin: server } } },
  },
});
