import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { distance } from '../numeric/distance.ts';
import { createStream, nextRandom } from '../numeric/random.ts';
import { brawlInputs, programOfBrawl } from '../testing/brawl.fixture.ts';
import { compiled, demoDocument } from '../testing/demo.fixture.ts';
import { tick } from '../world/phases/tick.ts';
import type { Input, Program } from '../world/program/program.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';
import { createWorld, setRecorder, type World } from '../world/world.ts';
import { entryLine } from './lines.ts';

/**
 * What the demos do is pinned: a recording is inputs and a seed, so that whoever opens one with a later version
 * must see the same. Where a change of meaning is intended, remove the files and run this: they are written anew, and
 * their difference is part of the change.
 */

/** Ticks that one line of a file stands for. */
const STRETCH = 60;

/** Goes up to whoever or whatever is near in turn, and does what comes to mind, by dice of its own. */
function restless(world: World, player: string): Input[] {
  const at = world.tick + 1;
  if (at % 15 !== 1) return [];
  const { agents, things } = world;
  const self = agents.find(({ name }) => name === player)!;
  const luck = createStream(at, player);
  const draw = <T>(from: readonly T[]): T => from[Math.floor(nextRandom(luck) * from.length)];
  const others = [...agents.filter((other) => other !== self && !other.away), ...things]
    .map(({ x, y }) => ({ x, y, away: distance(x, y, self.x, self.y) }))
    .sort((a, b) => a.away - b.away)
    .slice(0, 3);
  const { x, y, away } = draw(others);
  const moves = self.archetype.moves.map(({ name }) => name);
  const guards = self.archetype.guards.map(({ name }) => name);
  const gaits = world.statics.program.gaits.filter((_, i) => self.archetype.paces[i] > 0);
  const act = draw([
    'pickUp',
    'pickUp',
    'drop',
    'throw',
    'use',
    'call',
    undefined,
    ...(moves.length > 0 ? (['strike', 'strike', 'strike', 'dodge'] as const) : []),
    ...(guards.length > 0 ? (['guard', 'lower'] as const) : []),
  ] as const);
  const move = act === 'guard' ? draw(guards) : act === 'strike' ? draw(moves) : undefined;
  return [
    {
      agent: player,
      x: away > 0 ? (x - self.x) / away : 0,
      y: away > 0 ? (y - self.y) / away : 0,
      gait: draw(gaits),
      ...(act ? { act } : {}),
      ...(act === 'throw' ? { at: [x, y] as [number, number] } : {}),
      ...(move ? { move } : {}),
    },
  ];
}

/** A line for each stretch: a digest of all entries and of where everybody is, and how many entries there are of each kind. */
function* linesOf(
  program: Program,
  seed: number,
  ticks: number,
  player: (world: World) => Input[],
): Generator<string> {
  const world = createWorld(program, seed);
  let entries: LedgerEntry[] = [];
  setRecorder(world, (entry) => entries.push(entry));
  while (world.tick < ticks) {
    tick(world, player(world));
    if (world.tick % STRETCH > 0) continue;
    const counts: Record<string, number> = {};
    for (const { kind } of entries) counts[kind] = (counts[kind] ?? 0) + 1;
    const hash = createHash('sha256');
    for (const entry of entries) hash.update(entryLine(entry));
    for (const { name, x, y, health } of world.agents)
      hash.update([name, x.toFixed(6), y.toFixed(6), health.toFixed(6)].join());
    const kinds = Object.keys(counts).sort();
    const stretch = `seed ${seed}, ticks ${world.tick - STRETCH + 1} to ${world.tick}`;
    yield `${stretch}: ${hash.digest('hex').slice(0, 10)} ${kinds.map((kind) => `${kind} ${counts[kind]}`).join(', ')}`;
    entries = [];
  }
}

/** Compares as it goes, so that the first stretch that differs ends it. */
function expectPinned(name: string, runs: readonly Iterable<string>[]): void {
  const file = path.join(import.meta.dirname, 'pinned-runs', `${name}.txt`);
  if (!existsSync(file) && !process.env.CI) {
    writeFileSync(file, runs.flatMap((run) => [...run]).join('\n') + '\n');
    return;
  }
  const pinned = readFileSync(file, 'utf8').trimEnd().split('\n');
  for (const run of runs) for (const line of run) expect(line).toBe(pinned.shift());
  expect(pinned).toEqual([]);
}

const DEMOS = [
  'keepers-duel',
  'windfall',
  'night-watch',
  'hive-day',
  'bell-hours',
  'harvest-night',
] as const;

describe('a run, by its seed and inputs, goes as it went', () => {
  it('in a brawl', () => {
    const program = programOfBrawl();
    const players = (world: World) => brawlInputs(program, world.tick + 1);
    expectPinned('brawl', [linesOf(program, 1, 600, players)]);
  });

  it.each(DEMOS)('in %s', (name) => {
    const document = demoDocument(name);
    const program = compiled(document);
    const player = (world: World) => restless(world, document.start.play!);
    expectPinned(
      name,
      [1, 2].map((seed) => linesOf(program, seed, 600, player)),
    );
  });
});
