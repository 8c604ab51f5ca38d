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

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), compressed()],
  resolve: {
    conditions: ['@crooked-lantern/source', 'module', 'browser', 'development|production'],
  },
  worker: { format: 'es' },
  build: { outDir: 'dist', emptyOutDir: true, chunkSizeWarningLimit: 2000 },
  server: {
    host: '127.0.0.1',
    port: 4174,
    proxy: { '/api': { target: server, changeOrigin: true, headers: { origin: server } } },
  },
});
