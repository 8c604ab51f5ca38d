import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import {
  createStatics,
  createWorld,
  decodeProgram,
  decodeSnapshot,
  encodeSnapshot,
  InputError,
  restoreSnapshot,
  setRecorder,
  swapProgram,
  takeSnapshot,
  tick,
  TickError,
  worldHash,
  type Input,
  type Snapshot,
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

/** A world that has run for a while, at night, with everything that can be on its way. */
function running(ticks = 300) {
  const world = createWorld(shipped(), 3);
  for (let i = 0; i < ticks; i++)
    tick(world, i === 5 ? [{ agent: 'gleaner', x: 0, y: -1, gait: 'run' }] : []);
  return world;
}

describe('a save', () => {
  it('survives being written to a file, to the last bit', () => {
    const world = running();
    const text = encodeSnapshot(takeSnapshot(world));
    const other = createWorld(shipped(), 3);
    restoreSnapshot(other, decodeSnapshot(text));
    expect(worldHash(other)).toBe(worldHash(world));
    for (let i = 0; i < 120; i++) for (const each of [world, other]) tick(each);
    expect(worldHash(other)).toBe(worldHash(world));
  });

  it.each([
    ['no JSON', () => '{', /^This is no saved run/],
    ['cut off', (text: string) => text.slice(0, -20), /^This is no saved run/],
    ['a program', () => encodeProgram(compiled(nightWatch())), /^This is no saved run\. Load/],
    ['changed', (text: string) => text.replace('"tick":300', '"tick":301'), /damaged or not whole/],
    [
      'of another version',
      (text: string) => text.replace('"version":1', '"version":7'),
      /is of version 7; this runtime reads version 1/,
    ],
  ])('is refused where it is %s', (_, change, words) => {
    expect(() => decodeSnapshot(change(encodeSnapshot(takeSnapshot(running()))))).toThrow(words);
  });

  it('that is not whole or of another program leaves the world as it was', () => {
    const world = running();
    const hash = worldHash(world);
    const whole = takeSnapshot(running(200));
    const changed = (change: (snapshot: Snapshot) => void) => {
      const other = structuredClone(whole);
      change(other);
      return other;
    };
    const broken: [Snapshot, RegExp][] = [
      [{} as Snapshot, /no snapshot/],
      [changed(({ agents }) => agents.pop()), /has \d+ agents, the program/],
      [changed(({ agents }) => (agents[2].name = 'nobody')), /“nobody” where the program has/],
      [
        changed(({ agents }) => delete (agents.at(-1)! as Partial<(typeof agents)[0]>).body),
        /“body” of “\w+” is missing/,
      ],
      [
        changed(({ agents }) => (agents.at(-1)!.memory = new Float64Array(3))),
        /“memory” of “\w+” is missing, or is of another program/,
      ],
      [changed((snapshot) => delete (snapshot as Partial<Snapshot>).gates), /“gates” is missing/],
      // As plain JSON would write it.
      [JSON.parse(JSON.stringify(whole)) as Snapshot, /is not whole/],
    ];
    for (const [snapshot, words] of broken) {
      expect(() => restoreSnapshot(world, snapshot)).toThrow(words);
      expect(worldHash(world)).toBe(hash);
    }
  });
});

describe('input', () => {
  const input = (more: Partial<Input>): Input => ({
    agent: 'gleaner',
    x: 0,
    y: 0,
    gait: null,
    ...more,
  });

  it.each<[Partial<Input>, RegExp]>([
    [{ agent: 'nobody' }, /^There is no agent “nobody”\.$/],
    [{ x: NaN }, /has x NaN/],
    [{ y: Infinity }, /y Infinity/],
    [{ gait: 'gallop' }, /the gait “gallop”\. It takes “/],
    [{ act: 'dance' as never }, /the act “dance”\. It takes one of pickUp/],
    [{ at: [1, NaN] }, /for “at”\. It takes a place/],
    [{ place: [NaN, 1] }, /for “place”\. It takes a place/],
    [{ place: 'here' as never }, /"here" for “place”/],
    [{ control: 'someone' as never }, /the control “someone”/],
  ])('that makes no sense is refused by name and changes nothing: %j', (wrong, words) => {
    const world = running(60);
    const hash = worldHash(world);
    expect(() => tick(world, [input({ x: 1 }), input(wrong)])).toThrow(words);
    expect(() => tick(world, [input(wrong)])).toThrow(InputError);
    expect(worldHash(world)).toBe(hash);
  });
});

describe('a recorder', () => {
  it('that throws ends the tick: the error says where, and a snapshot of before goes on as ever', () => {
    const world = running(60);
    const kept = takeSnapshot(world);
    setRecorder(world, () => {
      throw new Error('The disk is full.');
    });
    expect(() => {
      for (let i = 0; i < 600; i++) tick(world);
    }).toThrow(TickError);
    setRecorder(world, null);
    restoreSnapshot(world, kept);
    const other = running(60);
    for (let i = 0; i < 60; i++) for (const each of [world, other]) tick(each);
    expect(worldHash(world)).toBe(worldHash(other));
  });

  it('may look at the world, and can’t run it on', () => {
    const world = running(60);
    let said = '';
    setRecorder(world, () => {
      takeSnapshot(world);
      try {
        tick(world);
      } catch (error) {
        said = (error as Error).message;
      }
    });
    for (let i = 0; i < 600; i++) tick(world);
    expect(said).toMatch(/can’t run the world on/);
    expect(world.tick).toBe(660);
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
