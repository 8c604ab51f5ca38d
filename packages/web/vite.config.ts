import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const server = `http://127.0.0.1:${process.env.PORT ?? 4173}`;

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react()],
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
