import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compiled, nightWatch } from '../testing/demo.fixture.ts';
import { takeSnapshot, type Snapshot } from '../world/handover/snapshot.ts';
import { tick } from '../world/phases/tick.ts';
import { createWorld } from '../world/world.ts';
import { packSnapshot, unpackSnapshot } from './packed-snapshot.ts';

describe('a packed snapshot', () => {
  it('is the snapshot again, at any tick of a busy night', () => {
    const world = createWorld(compiled(nightWatch()), 7);
    for (let i = 0; i < 600; i++) {
      tick(world, i === 10 ? [{ agent: 'gleaner', x: 0.3, y: -1, gait: 'run' }] : []);
      if (i % 60 !== 0) continue;
      const snapshot = takeSnapshot(world);
      const packed = packSnapshot(snapshot);
      expect(packed.tick).toBe(world.tick);
      expect(unpackSnapshot(packed)).toEqual(snapshot);
    }
  });

  it('takes a small part of the room', () => {
    const world = createWorld(compiled(nightWatch()), 7);
    for (let i = 0; i < 300; i++) tick(world);
    const snapshot = takeSnapshot(world);
    expect(packSnapshot(snapshot).bytes.length).toBeLessThan(JSON.stringify(snapshot).length / 6);
  });

  it('keeps every bit of numbers, text of any kind and what is missing', () => {
    const number = fc.oneof(fc.double(), fc.constantFrom(NaN, -0, Infinity, -Infinity, 1e-310));
    const leaf = fc.oneof(number, fc.string({ unit: 'binary' }), fc.boolean(), fc.constant(null));
    const tree = fc.letrec((tie) => ({
      value: fc.oneof(
        { depthSize: 'small' },
        leaf,
        fc.array(tie('value')),
        fc.dictionary(fc.constantFrom('a', 'b', 'places'), tie('value')),
        fc.array(number).map((list) => Float64Array.from(list)),
        fc.array(fc.nat(255)).map((list) => Uint8Array.from(list)),
      ),
    })).value;
    fc.assert(
      fc.property(fc.array(tree), (agents) => {
        const snapshot = { tick: 3, agents } as unknown as Snapshot;
        expect(unpackSnapshot(packSnapshot(snapshot))).toEqual(snapshot);
      }),
    );
  });
});
