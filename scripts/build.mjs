import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { checkInterrupted, checkNode, Refusal, ROOT, runScript, say } from './project.mjs';
import { ensurePackages } from './install.mjs';

/** What is built, by name: the sources it is built from, and the commands. */
const PARTS = {
  programs: {
    what: 'the server and the command line',
    sources: [
      'packages/core',
      'packages/server',
      'packages/cli',
      'tsconfig.base.json',
      'package-lock.json',
    ],
    made: [
      'packages/core/dist/index.js',
      'packages/server/dist/index.js',
      'packages/cli/dist/main.js',
    ],
    command: ['tsc', '-b', '--force', 'packages/server', 'packages/cli'],
  },
  pages: {
    what: 'the pages',
    sources: ['packages/core', 'packages/web', 'tsconfig.base.json', 'package-lock.json'],
    made: ['packages/web/dist/index.html'],
    command: ['vite', 'build', '--logLevel', 'warn', 'packages/web'],
  },
  bench: {
    what: 'the benchmarks',
    sources: ['packages/core', 'bench', 'tsconfig.base.json', 'package-lock.json'],
    made: ['bench/dist/main.js'],
    command: ['tsc', '-b', '--force', 'bench'],
  },
};

/** @typedef {keyof typeof PARTS} Part */

const STAMPS = path.join(ROOT, '.lantern', 'built');

/** @param {string} file @param {import('node:crypto').Hash} hash */
function hashSource(file, hash) {
  const full = path.join(ROOT, file);
  if (
    path.basename(file) === 'dist' ||
    path.basename(file) === 'node_modules' ||
    file.endsWith('.tsbuildinfo')
  )
    return;
  if (!existsSync(full)) return;
  let entries;
  try {
    entries = readdirSync(full).sort();
  } catch {
    hash.update(file).update(readFileSync(full));
    return;
  }
  for (const entry of entries) hashSource(`${file}/${entry}`, hash);
}

/** @param {Part} part */
function digestOf(part) {
  const hash = createHash('sha256');
  for (const source of PARTS[part].sources) hashSource(source, hash);
  return hash.digest('hex');
}

/** @param {Part} part */
const stampOf = (part) => path.join(STAMPS, part);

/** @param {Part} part @param {string} digest of the sources it was built from */
function markBuilt(part, digest) {
  mkdirSync(STAMPS, { recursive: true });
  writeFileSync(stampOf(part), digest);
}

/**
 * For parts that something else is about to build. Call what this gives when that went well: it notes them as built
 * from the sources of now, so that what is changed meanwhile is built again.
 * @param {Part[]} parts
 */
export function aboutToBuild(parts) {
  const digests = parts.map(digestOf);
  return () => parts.forEach((part, i) => markBuilt(part, digests[i]));
}

/**
 * Builds the parts whose sources have changed since they were last built.
 * @param {Part[]} parts
 */
export function ensureBuilt(parts) {
  for (const part of parts) {
    const { what, made, command } = PARTS[part];
    const digest = digestOf(part);
    if (
      existsSync(stampOf(part)) &&
      readFileSync(stampOf(part), 'utf8') === digest &&
      made.every((file) => existsSync(path.join(ROOT, file)))
    )
      continue;
    say(`Building ${what} …`);
    const [program, ...flags] = command;
    const result = spawnSync(path.join(ROOT, 'node_modules', '.bin', program), flags, {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    checkInterrupted(result);
    if (result.status !== 0) throw new Refusal(`Building ${what} failed; the reasons stand above.`);
    markBuilt(part, digest);
  }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  await runScript(async () => {
    checkNode();
    ensurePackages();
    ensureBuilt(/** @type {Part[]} */ (Object.keys(PARTS)));
  });
}
