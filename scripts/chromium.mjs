import { existsSync } from 'node:fs';
import path from 'node:path';
import { installDebianPackages } from './install.mjs';
import { Refusal } from './project.mjs';

/**
 * How headless Chromium is launched for tests and pictures: quiet, offline, as root too, and with scrollbars
 * shown, as those who use the pages have them.
 */
export const CHROMIUM_OPTIONS = {
  args: [
    '--headless',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
  ignoreDefaultArgs: ['--hide-scrollbars'],
};

function find() {
  const named = process.env.CHROMIUM;
  if (named) return existsSync(named) ? named : undefined;
  const folders = ['/usr/bin', ...(process.env.PATH ?? '').split(path.delimiter)];
  return folders
    .flatMap((folder) => ['chromium', 'chromium-browser'].map((name) => path.join(folder, name)))
    .find((file) => existsSync(file));
}

/** Path of Chromium; installs it from Debian's packages where it is missing. */
export function ensureChromium() {
  const found = find();
  if (found) return found;
  installDebianPackages('Chromium', ['chromium', 'fonts-liberation']);
  const installed = find();
  if (!installed)
    throw new Refusal(
      'Chromium was installed but is nowhere to be found; set CHROMIUM to its path.',
    );
  return installed;
}
