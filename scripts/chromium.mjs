import { existsSync } from 'node:fs';
import path from 'node:path';
import { installDebianPackages } from './install.mjs';
import { Refusal } from './project.mjs';

/**
 * What the browser does beside showing pages. The address bar's lists, which are pages themselves, took a third of
 * the processor in each new window. This takes the place of Playwright's own list, so what matters of it is here too.
 */
const UNUSED = [
  'WebUIOmniboxPopup',
  'WebUIOmniboxAimPopup',
  'WebUIOmniboxFullPopup',
  'AimEnabled',
  'DestroyProfileOnBrowserClose',
  'HttpsFirstBalancedModeAutoEnable',
  'HttpsUpgrades',
  'MediaRouter',
  'NetworkTimeServiceQuerying',
  'OptimizationHints',
  'PaintHolding',
  'PreconnectToSearch',
];

/**
 * How headless Chromium is launched for tests and pictures: quiet, offline, as root too, and with scrollbars
 * shown, as users of the pages have them.
 * @param {readonly string[]} unused features that are off besides
 */
export function chromiumOptions(unused = []) {
  return {
    args: [
      '--headless',
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      `--disable-features=${[...UNUSED, ...unused].join(',')}`,
    ],
    ignoreDefaultArgs: ['--hide-scrollbars'],
  };
}

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
