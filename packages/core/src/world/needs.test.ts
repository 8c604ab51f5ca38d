import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkProject } from '../findings/check-project.ts';
import type { MemoryKeyDocument, ProjectDocument } from '../model/documents.ts';
import { cornerProject, programOf, watch } from '../testing/orchard.fixture.ts';
import { restoreSnapshot, takeSnapshot, worldHash } from './handover/snapshot.ts';
import { swapProgram } from './handover/swap.ts';
import { tick } from './phases/tick.ts';
import { createWorld, type World } from './world.ts';

/** Numbers in memory that change by themselves. */

/** A keeper that gets hungry, and eats as soon as it is hungry enough. */
function hungry(hunger: Partial<MemoryKeyDocument>, eatsAt = 2): ProjectDocument {
  return cornerProject({
    memory: { hunger: { type: 'number', default: 0, ...hunger } },
    machine: {
      initial: 'waits',
      states: [
        { id: 'waits', transitions: [{ to: 'eats', when: `hunger >= ${eatsAt}` }] },
        {
          id: 'eats',
          entry: [{ do: 'remember', key: 'hunger', value: '0 - 5' }],
          transitions: [{ to: 'waits', when: `hunger < ${eatsAt}` }],
        },
      ],
    },
  });
}

function hungerIn(world: World): number {
  const keeper = world.agents.find(({ name }) => name === 'keeper')!;
  return keeper.memory[keeper.stack!.ownKeys.find(({ name }) => name === 'hunger')!.slot];
}

describe('a number that changes by itself', () => {
  it('is, after an hour, to the last bit what adding a tick’s share each tick comes to', () => {
    const { world } = watch(hungry({ rate: 0.0007, max: 2 }, 3));
    let expected = 0;
    for (let i = 0; i < 3600 * 60; i++) {
      tick(world);
      expected = Math.min(2, expected + 0.0007 / 60);
    }
    expect(hungerIn(world)).toBe(expected);
    expect(expected).toBe(2);
  });

  it('stays between its least and its greatest, whatever is written, and the ledger says when it gets there', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -50, max: 50, noNaN: true }),
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.double({ min: -2, max: 2, noNaN: true }),
        (change, a, b) => {
          const [least, greatest] = [Math.min(a, b), Math.max(a, b)];
          const { world, entries } = watch(
            hungry({ rate: change, min: least, max: greatest, default: least }, greatest),
          );
          for (let i = 0; i < 90; i++) {
            tick(world);
            expect(hungerIn(world)).toBeGreaterThanOrEqual(least);
            expect(hungerIn(world)).toBeLessThanOrEqual(greatest);
          }
          for (const entry of entries)
            if (entry.kind === 'reached')
              expect(entry.value).toBe(entry.end === 'min' ? least : greatest);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('is decided upon in the tick in which it gets there, once; the ledger keeps its turns alone', () => {
    const { world, entries } = watch(hungry({ rate: 1, min: -1, max: 2 }));
    for (let i = 0; i < 60 * 6; i++) tick(world);
    const told = entries.filter(({ kind }) => kind === 'reached' || kind === 'memory');
    // Two seconds up, then from −1 three seconds up: adding sixtieths may come a tick late.
    expect(told).toMatchObject([
      { kind: 'reached', key: 'hunger', end: 'max', value: 2 },
      { kind: 'memory', key: 'hunger', value: '-1' },
      { kind: 'reached', key: 'hunger', end: 'max', value: 2 },
      { kind: 'memory', key: 'hunger', value: '-1' },
    ]);
    expect(told[0].tick).toBe(told[1].tick);
    expect(told[2].tick).toBe(told[3].tick);
    expect(Math.abs(told[2].tick - told[0].tick - 180)).toBeLessThanOrEqual(1);
  });

  it('is carried over to an edit with what it has come to, and changes as the edit says from there', () => {
    const { world } = watch(hungry({ rate: 0.5 }, 100));
    for (let i = 0; i < 60; i++) tick(world);
    const before = hungerIn(world);
    const edited = swapProgram(world, programOf(hungry({ rate: -1 }, 100)), 2, 1);
    expect(hungerIn(edited)).toBe(before);
    tick(edited);
    expect(hungerIn(edited)).toBe(before - 1 / 60);
  });

  it('comes back from a snapshot', () => {
    const { world } = watch(hungry({ rate: 0.5 }));
    for (let i = 0; i < 100; i++) tick(world);
    const other = createWorld(world.statics.program, 1);
    restoreSnapshot(other, structuredClone(takeSnapshot(world)));
    for (let i = 0; i < 300; i++) {
      tick(world);
      tick(other);
    }
    expect(worldHash(other)).toBe(worldHash(world));
  });

  it('goes on in sleepers, and stands still in the dead', () => {
    const { world } = watch(hungry({ rate: 0.5 }, 100));
    const keeper = world.agents.find(({ name }) => name === 'keeper')!;
    keeper.asleep = true;
    tick(world);
    expect(hungerIn(world)).toBe(0.5 / 60);
    keeper.life = { ...keeper.life, diedAt: 1 };
    tick(world);
    expect(hungerIn(world)).toBe(0.5 / 60);
  });

  it('that is shared changes once a tick, however many share it', () => {
    const document = hungry({ rate: 60, scope: 'world' }, 1000);
    document.grounds.corner.agents!.keeper2 = { archetype: 'keeper', at: [2, 8] };
    const { world } = watch(document);
    for (let i = 0; i < 5; i++) tick(world);
    const key = world.statics.program.worldKeys.keys[0];
    expect(world.worldMemory[key.slot]).toBe(5);
  });

  it('has an age that counts from what was written', () => {
    const document = hungry({ rate: 1, min: -1 }, 100);
    const { machine } = document.minds.keeper;
    machine!.states[0].transitions = [{ to: 'eats', when: 'age(hunger) > 0.5', after: 0.1 }];
    const { entries, run } = watch(document);
    run(120);
    expect(entries.some(({ kind }) => kind === 'memory')).toBe(false);
  });
});

describe('what can’t be', () => {
  it.each<[string, Partial<MemoryKeyDocument>, string, RegExp]>([
    ['a least above the greatest', { min: 2, max: 1 }, 'min', /above its maximum/],
    ['a change from nothing', { rate: 1, default: undefined }, 'rate', /at first/],
    ['a beginning out of bounds', { min: 1, default: 0 }, 'default', /not between/],
    ['a text that changes', { type: 'text', default: 'a', rate: 1 }, 'rate', /Only a number/],
  ])('%s is an error at its place', (_, key, field, words) => {
    const { program, findings } = checkProject(hungry(key));
    expect(program).toBeNull();
    const found = findings.find(({ path }) => path === `minds.keeper.memory.hunger.${field}`);
    expect(found?.message).toMatch(words);
  });

  it('a guard beyond what a need can come to is found', () => {
    const { findings } = checkProject(hungry({ rate: 1, max: 1 }));
    const told = findings.filter(({ path }) => path.includes('transitions'));
    expect(told.map(({ message }) => message).join()).toMatch(/never/);
  });
});
