import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import {
  createStatics,
  createWorld,
  decodeProgram,
  restoreSnapshot,
  swapProgram,
  takeSnapshot,
  tick,
  worldHash,
} from './runtime.ts';
import { CORRIDOR } from './testing/corridor.fixture.ts';
import { compiled, nightWatch } from './testing/demo.fixture.ts';
import { encodeProgram } from './world/program/encoding.ts';

/** A program as a game has it: read from text. */
const shipped = () => decodeProgram(encodeProgram(compiled(nightWatch())));

describe('a game', () => {
  it('brings a ground of its own, which every world of the program is on', () => {
    const program = shipped();
    const world = createWorld(program, 7, createStatics(program, undefined, CORRIDOR));
    const before = world.agents.map(({ y }) => y);
    for (let i = 0; i < 120; i++) tick(world);
    // In a corridor no agent leaves the line.
    expect(world.agents.map(({ y }) => y)).toEqual(before);
    const edited = swapProgram(world, shipped(), 2, 7);
    for (let i = 0; i < 60; i++) tick(edited);
    expect(edited.agents.map(({ y }) => y)).toEqual(before);
    const above = createWorld(program, 7);
    for (let i = 0; i < 120; i++) tick(above);
    expect(above.agents.map(({ y }) => y)).not.toEqual(before);
  });

  it('saves and loads a run, and goes on as it would have', () => {
    const world = createWorld(shipped(), 3);
    for (let i = 0; i < 90; i++) tick(world);
    const kept = structuredClone(takeSnapshot(world));
    const other = createWorld(shipped(), 3);
    restoreSnapshot(other, kept);
    for (let i = 0; i < 90; i++) {
      tick(world);
      tick(other);
    }
    expect(worldHash(other)).toBe(worldHash(world));
  });
});

describe('the runtime', () => {
  const SOURCE = import.meta.dirname;
  const text = readFileSync(path.join(SOURCE, 'runtime.ts'), 'utf8');
  const members = [...text.matchAll(/^export (?:type )?\{([^}]*)\} from '([^']+)'/gm)].flatMap(
    ([, names, file]) =>
      names
        .split(',')
        .map((name) => name.replace('type ', '').trim())
        .filter(Boolean)
        .map((name) => ({ name, file: path.join(SOURCE, file) })),
  );

  it.each(members)('says what $name is, above its declaration', ({ name, file }) => {
    const declared = new RegExp(
      String.raw`(\*/\n)export (?:declare )?(?:abstract )?(?:function|const|class|interface|type) ${name}\b`,
    );
    expect(readFileSync(file, 'utf8')).toMatch(declared);
  });
});
