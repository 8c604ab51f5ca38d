import { spawn } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { aboutToBuild, ensureBuilt } from './build.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensurePackages } from './install.mjs';
import { startCluster, temporaryFolder } from './postgres.mjs';
import { checkNode, ROOT, runScript, say } from './project.mjs';

const BIN = path.join(ROOT, 'node_modules', '.bin');

/** What is checked besides running tests; each counts as one. */
const CHECKS = {
  format: ['prettier', '--check', '--log-level', 'warn', '.'],
  'lint and direction of dependencies': [
    'oxlint',
    '--deny-warnings',
    'packages',
    'bench',
    'e2e',
    'scripts',
  ],
  'unused files, exports and packages': ['knip', '--no-progress'],
  types: ['tsc', '-b', '--force'],
};

/**
 * @param {keyof typeof CHECKS} name
 * @returns {Promise<{name: string, good: boolean}>}
 */
function check(name) {
  const [program, ...flags] = CHECKS[name];
  return new Promise((resolve) => {
    const checker = spawn(path.join(BIN, program), flags, {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    checker.on('error', () => resolve({ name, good: false }));
    checker.on('exit', (code) => resolve({ name, good: code === 0 }));
  });
}

/**
 * @param {{testResults: {name: string, status: string, assertionResults: {fullName: string, status: string}[]}[]}} report
 * @returns {string[]}
 */
function namesOfFailed({ testResults }) {
  return testResults.flatMap(({ name, status, assertionResults }) => {
    const file = path.relative(ROOT, name);
    const tests = assertionResults.filter((test) => test.status === 'failed');
    if (tests.length === 0) return status === 'failed' ? [file] : [];
    return tests.map(({ fullName }) => `${file}: ${fullName}`);
  });
}

/**
 * Runs test projects; a runner that breaks before it can count is one failure.
 * @param {string[]} projects
 * @param {string} report
 * @param {NodeJS.ProcessEnv} env
 * @returns {Promise<{passed: number, failed: number, names: string[]}>} names of those that failed, with their files
 */
function runTests(projects, report, env) {
  const flags = projects.flatMap((project) => ['--project', project]);
  return new Promise((resolve) => {
    const runner = spawn(
      path.join(BIN, 'vitest'),
      ['run', ...flags, '--reporter=default', '--reporter=json', `--outputFile=${report}`],
      {
        cwd: ROOT,
        env,
        stdio: ['ignore', 'inherit', 'inherit'],
      },
    );
    runner.on('exit', (code) => {
      try {
        const result = JSON.parse(readFileSync(report, 'utf8'));
        const { numPassedTests: passed, numFailedTests: failed } = result;
        const names = namesOfFailed(result);
        // A file that could not be loaded, or an error outside of any test, counts as one.
        if (code !== 0 && failed === 0)
          resolve({
            passed,
            failed: 1,
            names: [...names, `outside of tests of ${projects.join(', ')}`],
          });
        else resolve({ passed, failed, names });
      } catch {
        resolve({ passed: 0, failed: 1, names: [`the runner of ${projects.join(', ')}`] });
      }
    });
  });
}

const PINNED = path.join(ROOT, 'packages/core/src/testing/pinned');

/**
 * Pinned files, and sections of them, that no test has compared with: they guard nothing.
 * @param {string} log what was compared, a name a line
 */
function unreadPinned(log) {
  const read = new Set(existsSync(log) ? readFileSync(log, 'utf8').split('\n') : []);
  return readdirSync(PINNED, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.txt'))
    .flatMap((file) => {
      const name = file.slice(0, -'.txt'.length);
      const sections = readFileSync(path.join(PINNED, file), 'utf8').match(/^\[.*\]$/gm);
      const isSplit = sections !== null && name.includes('/') === false;
      return isSplit ? sections.map((section) => `${name}#${section.slice(1, -1)}`) : [name];
    })
    .filter((name) => !read.has(name));
}

await runScript(async () => {
  checkNode();
  ensurePackages();
  let passed = 0;
  let failed = 0;
  /** What failed, said again at the end: a long run's output is read from there. @type {string[]} */
  const failures = [];
  // The check of types writes all that is built with the compiler alone.
  const typesAreGood = aboutToBuild(['programs', 'bench']);
  const checks = /** @type {(keyof typeof CHECKS)[]} */ (Object.keys(CHECKS)).map(check);
  const chromium = ensureChromium();
  ensureBuilt(['pages']);
  for (const { name, good } of await Promise.all(checks)) {
    say(`${good ? '✓' : '✗'} ${name}`);
    if (good) passed++;
    else {
      failed++;
      failures.push(name);
    }
    if (name === 'types' && good) typesAreGood();
  }
  ensureBuilt(['programs', 'bench']);
  const folder = temporaryFolder();
  const cluster = await startCluster({ folder, durable: false });
  try {
    const pinnedRead = path.join(folder, 'pinned-read.txt');
    const env = {
      ...process.env,
      LANTERN_TEST_DATABASE: cluster.url,
      CHROMIUM: chromium,
      PINNED_READ: pinnedRead,
    };
    // The interface is driven in real time, so it runs when nothing else does.
    for (const projects of [['unit', 'server'], ['e2e']]) {
      const result = await runTests(projects, path.join(folder, `${projects[0]}.json`), env);
      passed += result.passed;
      failed += result.failed;
      failures.push(...result.names);
    }
    const unread = unreadPinned(pinnedRead);
    if (unread.length > 0) {
      failed++;
      failures.push(`pinned and compared by no test: ${unread.join(', ')}`);
    } else passed++;
  } finally {
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
  for (const name of failures) say(`✗ ${name}`);
  say(`${passed} passed, ${failed} failed`);
  if (failed > 0) process.exitCode = 1;
});
