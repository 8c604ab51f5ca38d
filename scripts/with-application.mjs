import { rmSync } from 'node:fs';
import path from 'node:path';
import { ensureBuilt } from './build.mjs';
import { chromiumOptions, ensureChromium } from './chromium.mjs';
import { freePort, startCluster, temporaryFolder } from './postgres.mjs';
import { ROOT } from './project.mjs';

/**
 * Runs `work` with the whole application on a database of its own and a browser to use it; both are gone
 * afterwards, whatever happened.
 * @template T
 * @param {(application: { address: string, browser: import('playwright-core').Browser }) => Promise<T>} work
 * @returns {Promise<T>}
 */
export async function withApplication(work) {
  const executablePath = ensureChromium();
  ensureBuilt(['programs', 'pages']);
  const { chromium } = await import('playwright-core');
  const { serve } = await import('../packages/server/dist/index.js');
  const folder = temporaryFolder();
  const cluster = await startCluster({ folder, durable: false });
  try {
    const serving = await serve({
      databaseUrl: cluster.url,
      port: await freePort(),
      pages: path.join(ROOT, 'packages/web/dist'),
      demos: path.join(ROOT, 'demo'),
    });
    try {
      const browser = await chromium.launch({ executablePath, ...chromiumOptions() });
      try {
        return await work({ address: serving.address, browser });
      } finally {
        await browser.close();
      }
    } finally {
      await serving.close();
    }
  } finally {
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/**
 * Adds a project; gives its address.
 * @param {string} address of the application
 * @param {unknown} document
 */
export async function addProject(address, document) {
  const response = await fetch(`${address}/api/projects`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(document),
  });
  if (!response.ok) throw new Error(`The project was refused: ${await response.text()}`);
  const { id } = await response.json();
  return `/projects/${id}`;
}
