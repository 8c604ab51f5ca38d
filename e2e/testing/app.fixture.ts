import type { ProjectDocument } from '@crooked-lantern/core';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import {
  chromium,
  type Browser,
  type BrowserContext,
  type BrowserContextOptions,
  type Page,
} from 'playwright-core';
import { serve, type Serving } from '@crooked-lantern/server';
import { freshDatabase } from '../../packages/server/src/testing/database.fixture.ts';
import {
  startProxy,
  type CuttableProxy,
} from '../../packages/server/src/testing/cuttable-proxy.fixture.ts';
import { chromiumOptions } from '../../scripts/chromium.mjs';
import { freePort } from '../../scripts/postgres.mjs';
import { giveLayouts, takeLayouts } from './kept-layouts.fixture.ts';

const ROOT = path.resolve(import.meta.dirname, '../..');

const PLAIN = 'bench/plain-orchard.lantern.json';
const NIGHT_WATCH = 'demo/night-watch.lantern.json';

/** The whole application on a database of its own, with a browser to use it. */
export interface App {
  address: string;
  database: CuttableProxy;
  /** A page in a browser window of its own; errors of the page fail the test that asks for them. */
  open(where: string, options?: BrowserContextOptions): Promise<Page>;
  /** Adds a plain night of its own (one kind of warden, no squads), changed, and gives the address of its mind. */
  newNight(change?: (document: ProjectDocument) => void): Promise<string>;
  /** A project made from the plain night, with the address of the project. */
  newProject(change: (document: ProjectDocument) => void): Promise<string>;
  /** The same of Night Watch, with the address of the project. */
  newNightWatch(change?: (document: ProjectDocument) => void): Promise<string>;
  /** Closes all pages, which would run on beside the next test, and gives the errors they have thrown. */
  endPages(): Promise<string[]>;
  stopServer(): Promise<void>;
  startServer(): Promise<void>;
  close(): Promise<void>;
}

/**
 * Opens an empty page in a window, closes what else is open there, and takes away all that pages of the application
 * have kept. A window that is never without a page need not be made again.
 */
async function empty(context: BrowserContext, address: string): Promise<Page> {
  const before = context.pages();
  for (const each of before) await takeLayouts(each, address);
  const page = await context.newPage();
  for (const each of before) await each.close();
  const session = await context.newCDPSession(page);
  await session.send('Storage.clearDataForOrigin', {
    origin: address,
    storageTypes: 'local_storage,indexeddb,cookies',
  });
  await session.detach();
  await context.clearPermissions();
  return page;
}

/**
 * What the files of a worker share, one after the other: a browser, its usual window and the port, so that what the
 * browser has loaded and compiled once stays. The browser ends with the worker.
 */
let shared: Promise<{ browser: Browser; port: number }> | null = null;
/** The window of tests that ask for no other. */
let usual: BrowserContext | null = null;
/** The empty page that waits in it for the next test. */
let waiting: Page | null = null;

async function launch() {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    // With it, what was compiled of a script is not found again when the next page loads it.
    ...chromiumOptions(['BackgroundResourceFetch']),
  });
  return { browser, port: await freePort() };
}

export async function startApp(): Promise<App> {
  shared ??= launch();
  const fresh = await freshDatabase();
  const url = new URL(fresh.url);
  const database = await startProxy(Number(url.port));
  url.port = String(database.port);
  const { browser, port } = await shared;
  const address = `http://127.0.0.1:${port}`;
  let server: Serving | null = null;
  let errors: string[] = [];

  const startServer = async () => {
    server = await serve({
      databaseUrl: url.href,
      port,
      pages: path.join(ROOT, 'packages/web/dist'),
      demos: path.join(ROOT, 'demo'),
    });
  };
  const stopServer = async () => {
    await server?.close();
    server = null;
  };

  const addProject = async (
    file: string,
    change: (document: ProjectDocument) => void = () => {},
  ) => {
    const document = JSON.parse(readFileSync(path.join(ROOT, file), 'utf8')) as ProjectDocument;
    change(document);
    const response = await fetch(`${address}/api/projects`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(document),
    });
    const { id } = (await response.json()) as { id: string };
    return `/projects/${id}`;
  };

  await startServer();
  const newWindow = (options: BrowserContextOptions = {}) =>
    browser.newContext({
      viewport: { width: 1280, height: 800 },
      // Without a graphics card drawing is dear, and nothing here is about how sharp it is.
      deviceScaleFactor: 0.5,
      ...options,
    });
  const endPages = async () => {
    for (const context of browser.contexts()) if (context !== usual) await context.close();
    if (usual) waiting = await empty(usual, address);
  };
  return {
    address,
    database,
    async open(where, options) {
      const alone = options === undefined && (!usual || waiting !== null);
      if (alone && !usual) {
        usual = await newWindow();
        usual.on('close', () => (usual = waiting = null));
      }
      const context = alone ? usual! : await newWindow(options);
      const page = (alone && waiting) || (await context.newPage());
      if (alone) waiting = null;
      page.setDefaultTimeout(20_000);
      page.on('pageerror', (error) => errors.push(error.message));
      await giveLayouts(page);
      await page.goto(address + where);
      return page;
    },
    newNight: async (change) => `${await addProject(PLAIN, change)}/minds/warden`,
    newProject: (change) => addProject(PLAIN, change),
    newNightWatch: (change) => addProject(NIGHT_WATCH, change),
    async endPages() {
      await endPages();
      const taken = errors;
      errors = [];
      return taken;
    },
    startServer,
    stopServer,
    async close() {
      await endPages();
      await stopServer();
      await database.close();
      await fresh.drop();
    },
  };
}
