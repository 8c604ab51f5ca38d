import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { checkInterrupted, Refusal, ROOT, say } from './project.mjs';

const STAMP = path.join(ROOT, 'node_modules', '.lantern-installed');

function lockHash() {
  return createHash('sha256')
    .update(readFileSync(path.join(ROOT, 'package-lock.json')))
    .digest('hex');
}

/** Installs the node packages the lock file names, unless they are there already. */
export function ensurePackages() {
  const wanted = lockHash();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return;
  say('Installing node packages (about a minute, once) …');
  const result = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  checkInterrupted(result);
  if (result.status !== 0)
    throw new Refusal('Installing the node packages failed; what npm said stands above.');
  writeFileSync(STAMP, wanted);
}

function isRoot() {
  return process.getuid?.() === 0;
}

/** @param {string} program */
function has(program) {
  return spawnSync('sh', ['-c', `command -v ${program}`], { stdio: 'ignore' }).status === 0;
}

/**
 * Installs Debian packages where that is allowed, else refuses with what to install.
 * @param {string} what what they are for, such as `PostgreSQL`
 * @param {string[]} packages
 */
export function installDebianPackages(what, packages) {
  const command = `apt-get install -y --no-install-recommends ${packages.join(' ')}`;
  const advice = `${what} is missing and can’t be installed from here. Install it, for example with: sudo ${command}`;
  const sudo = isRoot() ? [] : ['sudo', '-n'];
  if (
    !has('apt-get') ||
    (!isRoot() && spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status !== 0)
  )
    throw new Refusal(advice);
  say(`Installing ${what} from Debian’s packages …`);
  const run = (/** @type {string} */ script) => {
    const result = spawnSync([...sudo, 'sh'][0], [...sudo, 'sh', '-c', script].slice(1), {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
    checkInterrupted(result);
    return result.status === 0;
  };
  // Debian would otherwise set up and start a database server of its own, which we do not want.
  const quiet =
    'mkdir -p /etc/postgresql-common && [ -e /etc/postgresql-common/createcluster.conf ] || echo "create_main_cluster = false" > /etc/postgresql-common/createcluster.conf';
  const done = run(`${quiet}; apt-get update -qq && ${command} -o Dpkg::Options::=--force-confold`);
  if (!done) throw new Refusal(advice);
}
