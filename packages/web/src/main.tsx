import { prepareWorker } from './engine/start-worker.ts';

// What the page of a project waits for longest loads while its own scripts do: its worker and its document.
const project = /^\/projects\/([^/]+)/.exec(window.location.pathname)?.[1];
if (project !== undefined) {
  prepareWorker();
  const link = document.createElement('link');
  link.rel = 'preload';
  link.as = 'fetch';
  link.crossOrigin = 'anonymous';
  link.href = `/api/projects/${project}`;
  document.head.append(link);
}

import('./app/start.tsx').catch((error: unknown) => {
  console.error(error);
  document.getElementById('root')!.textContent =
    'Crooked Lantern could not be loaded. Is the server running? Reload this page to try again.';
});
