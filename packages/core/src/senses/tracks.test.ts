import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distance } from '../numeric/distance.ts';
import { sightKind } from './sight.ts';
import { NOTHING_SEEN, Tracks, type Track } from './tracks.ts';

const kind = sightKind({
  cones: [{ range: 10, halfAngle: 1, gain: 1 }],
  fade: 0.5,
  graceTicks: 30,
  curious: 0.3,
  certain: 0.8,
  forgetTicks: 60,
  points: 1,
});

const share = fc.constantFrom(0, 0.25, 0.5, 1);
// A place is always a place: who has none is not seen.
const place = fc.double({ min: -50, max: 50, noNaN: true });
const trackOf = (of: number) =>
  fc
    .record({
      heeded: fc.boolean(),
      awareness: share,
      strength: share,
      seenAt: fc.integer({ min: 0, max: 200 }),
      x: place,
      y: place,
      vx: place,
      vy: place,
      seen: fc.constantFrom(NOTHING_SEEN, { move: 3, movedAt: 9, guard: -1, health: 4 }),
    })
    .map((track): Track => ({ of, ...track, visible: track.strength > 0 }));

/** Tracks of different agents, in any order. */
const tracks = fc
  .uniqueArray(fc.integer({ min: 0, max: 40 }), { maxLength: 20 })
  .chain((agents) => fc.tuple(...agents.map(trackOf)));

function held(list: readonly Track[]): Tracks {
  const made = new Tracks();
  made.set(list);
  return made;
}

describe('what is known by sight', () => {
  it('comes out as it was put in, also after more was held before, and is found by agent', () => {
    fc.assert(
      fc.property(tracks, tracks, (before, list) => {
        const made = held(before);
        made.set(list);
        expect(made.list()).toEqual(list);
        for (let agent = 0; agent <= 40; agent++)
          expect(made.find(agent)).toBe(list.findIndex(({ of }) => of === agent));
      }),
    );
  });

  it('loses who is forgotten, and keeps all others in their order', () => {
    fc.assert(
      fc.property(tracks, fc.integer({ min: 0, max: 300 }), (list, tick) => {
        const made = held(list);
        made.forget(kind, tick);
        const kept = list.filter(
          ({ awareness, seenAt }) => awareness > 0 || tick - seenAt <= kind.forgetTicks,
        );
        expect(made.list()).toEqual(kept);
      }),
    );
  });

  it('has the attention on the most aware who is heeded, then on the latest seen, the nearest, the lower agent', () => {
    fc.assert(
      fc.property(tracks, (list) => {
        const away = ({ x, y }: Track) => distance(x, y, 3, 4);
        const best = list
          .filter(({ heeded, awareness }) => heeded && awareness > 0)
          .sort(
            (a, b) =>
              b.awareness - a.awareness || b.seenAt - a.seenAt || away(a) - away(b) || a.of - b.of,
          )[0];
        expect(held(list).attended(3, 4)).toBe(best ? list.indexOf(best) : -1);
      }),
    );
  });

  it('begins with nothing known, rises while seen, and fades once the grace time is over', () => {
    const made = held([]);
    const track = made.begin(7, true, 100);
    expect(made.at(track)).toMatchObject({ of: 7, awareness: 0, visible: false, seenAt: 100 });
    made.update(track, kind, 0.6, 101, 0.5);
    expect(made.awareness(track)).toBeCloseTo(0.3, 12);
    expect(made.isVisible(track)).toBe(true);
    made.update(track, kind, 0, 101 + kind.graceTicks, 0.5);
    expect(made.isVisible(track)).toBe(false);
    expect(made.awareness(track)).toBeCloseTo(0.3, 12);
    made.update(track, kind, 0, 102 + kind.graceTicks, 0.5);
    expect(made.awareness(track)).toBeCloseTo(0.05, 12);
    expect(made.seenAt(track)).toBe(101);
  });
});
