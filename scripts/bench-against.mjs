import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Refusal, ROOT, say } from './project.mjs';

/** @typedef {{ figure: string, value: number, unit: string, goal?: string }} Figure */

/** A figure that changed by less is as it was. */
const NOISE = 0.03;

/**
 * Whether a change is for the better, by the goal of the figure.
 * @param {number} ratio @param {string | undefined} goal
 */
function verdict(ratio, goal) {
  if (Math.abs(ratio - 1) <= NOISE || goal === undefined) return '';
  return ratio > 1 === goal.startsWith('>=') ? 'better' : 'worse';
}

/** Each side is measured so often, in turns: a machine that is now fast, now slow is so for both. */
const ROUNDS = 5;

/**
 * A checkout of a commit. Its own scripts install its packages and build it, when it is first measured: what a commit
 * is measured with belongs to it.
 * @param {string} commit
 * @returns {string} its folder
 */
function checkOut(commit) {
  const folder = path.join(mkdtempSync(path.join(tmpdir(), 'bench-against-')), 'checkout');
  const added = spawnSync('git', ['worktree', 'add', '--detach', folder, commit], {
    cwd: ROOT,
    encoding: 'utf8',
  });
  if (added.status !== 0)
    throw new Refusal(`There is no commit “${commit}” to measure against: ${added.stderr.trim()}`);
  return folder;
}

/** @param {string} folder */
function remove(folder) {
  spawnSync('git', ['worktree', 'remove', '--force', folder], { cwd: ROOT });
  rmSync(path.dirname(folder), { recursive: true, force: true });
}

/**
 * The figures of a checkout, each measured once. Before figures had names of their own within a group, a group was asked for.
 * @param {string} root
 * @param {string[]} names what is asked for, tried one after the other
 * @returns {Map<string, Figure>}
 */
function measure(root, names) {
  for (const name of names) {
    const flags = ['scripts/bench.mjs', '--json', ...(name === '' ? [] : ['--only', name])];
    const { status, stdout, stderr } = spawnSync(process.execPath, flags, {
      cwd: root,
      encoding: 'utf8',
      maxBuffer: 16 * 1_048_576,
    });
    if (status !== 0) {
      if (name === names.at(-1)) throw new Refusal(`${root} could not be measured: ${stderr}`);
      continue;
    }
    const figures = stdout
      .split('\n')
      .filter((line) => line.startsWith('{'))
      .map((line) => /** @type {Figure} */ (JSON.parse(line)));
    return new Map(figures.map((figure) => [figure.figure, figure]));
  }
  return new Map();
}

/** @param {number[]} values */
function median(values) {
  const sorted = [...values].sort((a, b) => a - b);
  return (sorted[(sorted.length - 1) >> 1] + sorted[sorted.length >> 1]) / 2;
}

/**
 * Builds a commit beside this checkout, measures both in turns, and prints the ratio of each figure: now / then.
 * @param {string} commit
 * @param {string[]} names of a figure, then of the group it is in; empty texts for all
 * @param {number} [rounds]
 */
export function benchAgainst(commit, names, rounds = ROUNDS) {
  const then = checkOut(commit);
  try {
    const hash = execFileSync('git', ['rev-parse', '--short', 'HEAD'], {
      cwd: then,
      encoding: 'utf8',
    });
    say(`now / ${hash.trim()}: median of ${rounds} rounds, in turns; least and greatest after it`);
    /** @type {Map<string, { goal: string | undefined, ours: number[], theirs: number[] }>} */
    const measured = new Map();
    for (let round = 0; round < rounds; round++) {
      // The first of each round in turns, so that neither has the colder machine.
      const isFirst = round % 2 === 0;
      const early = measure(isFirst ? ROOT : then, names);
      const late = measure(isFirst ? then : ROOT, names);
      const [now, before] = isFirst ? [early, late] : [late, early];
      for (const [name, { value, goal }] of now) {
        const other = before.get(name)?.value;
        if (other === undefined || other === 0) continue;
        const figure = measured.get(name) ?? { goal, ours: [], theirs: [] };
        figure.ours.push(value);
        figure.theirs.push(other);
        measured.set(name, figure);
      }
    }
    for (const [name, figure] of measured) {
      const ratios = figure.ours.map((value, i) => value / figure.theirs[i]);
      const ratio = median(ratios);
      const spread = `${Math.min(...ratios).toFixed(3)} to ${Math.max(...ratios).toFixed(3)}`;
      process.stdout.write(
        `${name.padEnd(18)} ${ratio.toFixed(3)} ${verdict(ratio, figure.goal).padEnd(6)}  (${spread}; now ${median(figure.ours)}, then ${median(figure.theirs)})\n`,
      );
    }
  } finally {
    remove(then);
  }
}
