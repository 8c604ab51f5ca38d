import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { GroundDocument, ProjectDocument } from '../../model/documents.ts';
import { cornerProject, KEEN_SIGHT, programOf } from '../../testing/orchard.fixture.ts';
import { worldHash } from '../../world/handover/snapshot.ts';
import { advance, createRun, revisit, type Run } from '../run.ts';
import { howItNotices } from './noticing.ts';
import { QuestionError, type Statement } from './statement.ts';

/** A keeper at (2, 5) that looks along x, and a gleaner 6 m before it. */
function keen(
  ground: Partial<GroundDocument> = {},
  change: (document: ProjectDocument) => void = () => {},
): ProjectDocument {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    machine: { initial: 'stand', states: [{ id: 'stand' }] },
    ground,
  });
  change(document);
  return document;
}

/** A run whose player goes along x or y from the first tick on, if at all. */
function ran(document: ProjectDocument, ticks = 60, x = 0, y = 0): Run {
  const run = createRun(programOf(document), 1, 1);
  while (run.head < ticks)
    advance(run, run.head === 0 && (x || y) ? [{ agent: 'gleaner', x, y, gait: 'run' }] : []);
  return run;
}

const asked = (run: Run, tick: number, of = 'gleaner') =>
  howItNotices({ run, agent: 'keeper', tick }, of);
const lines = ({ cause }: Statement) => cause.map(({ statement }) => statement);
const failed = ({ cause: [sight] }: Statement) =>
  sight.cause.filter(({ holds }) => !holds).map(({ statement }) => statement);

function awarenessAt(run: Run, tick: number): number {
  const world = revisit(run, tick);
  const { sight } = world.agents.find(({ name }) => name === 'keeper')!.known;
  const gleaner = world.agents.find(({ name }) => name === 'gleaner')!;
  return sight.awareness(sight.find(gleaner.index));
}

describe('how an agent notices another', () => {
  it('says how certain it is, since when, and what sight rests on', () => {
    const run = ran(keen(), 120);
    const answer = asked(run, 30);
    expect(answer).toMatchObject({ statement: 'keeper is curious about gleaner', holds: true });
    expect(lines(answer)[0]).toBe('it is in sight: awareness rises by 1.280 a second');
    expect(answer.cause[0].cause.map(({ statement }) => statement)).toEqual([
      'gleaner is 6.0 m away, of 10 m it sees',
      '0° off where it looks, with cones of 45° to each side up to 10 m',
      '3 of 3 points of gleaner are in plain view, of 2 needed',
      'the light on gleaner is 1.00 of 1',
      'its gait gives away 100 %',
    ]);
    expect(failed(answer)).toEqual([]);
    // 0.3 at 1.28 a second.
    expect(answer.since).toBe(15);
    expect(asked(run, 100).statement).toBe('keeper is certain of gleaner');
    expect(asked(run, 5).statement).toBe('keeper has begun to notice gleaner');
  });

  it.each<{ what: string; document: ProjectDocument; says: string }>([
    {
      what: 'too far',
      document: keen({}, ({ grounds }) => {
        grounds.corner.agents.gleaner.at = [15, 5];
      }),
      says: 'gleaner is 13.0 m away, of 10 m it sees',
    },
    {
      what: 'behind its back',
      document: keen({}, ({ grounds }) => {
        grounds.corner.agents.keeper.heading = 180;
      }),
      says: '180° off where it looks, with cones of 45° to each side up to 10 m',
    },
    {
      what: 'behind a wall',
      document: keen({ walls: [{ at: [4, 3], size: [0.4, 4] }] }),
      says: '0 of 3 points of gleaner are in plain view, of 2 needed',
    },
    {
      what: 'in the dark',
      document: keen({ light: 0 }),
      says: 'the light on gleaner is 0.00 of 1',
    },
  ])('names what keeps who is $what from being seen', ({ document, says }) => {
    const answer = asked(ran(document), 40);
    expect(answer).toMatchObject({ statement: 'keeper notices gleaner', holds: false });
    expect(lines(answer)[0]).toBe('it is in sight');
    expect(failed(answer)).toContain(says);
  });

  it('says it where sight does not even begin', () => {
    const blind = keen({}, ({ archetypes }) => {
      delete archetypes.keeper.sight;
    });
    expect(lines(asked(ran(blind), 5))).toEqual(['it has sight']);
    const friends = keen({}, ({ archetypes }) => {
      archetypes.gleaner.faction = 'keepers';
    });
    expect(lines(asked(ran(friends), 5))).toEqual([
      'gleaner is friendly: friends are not looked at',
    ]);
    const asleep = keen({}, ({ grounds }) => {
      grounds.corner.agents.keeper.asleep = true;
    });
    expect(lines(asked(ran(asleep), 5))).toEqual(['it is awake: sleeping agents sense nothing']);
  });

  it('tells what was sensed of it before, the latest first', () => {
    const run = ran(keen(), 240, 1);
    const percepts = lines(asked(run, 240)).slice(1);
    expect(percepts.map((words) => words.split(',')[0])).toEqual([
      'sight of gleaner: lost',
      'sight of gleaner: curious',
    ]);
  });

  it('rises by what it says: what it says of a tick is what was done in it', () => {
    fc.assert(
      fc.property(
        fc.record({
          at: fc.tuple(fc.integer({ min: 3, max: 13 }), fc.integer({ min: 1, max: 9 })),
          heading: fc.integer({ min: -60, max: 60 }),
          light: fc.double({ min: 0.1, max: 1, noNaN: true }),
          wall: fc.tuple(fc.integer({ min: 4, max: 9 }), fc.integer({ min: 1, max: 7 })),
          way: fc.constantFrom([1, 0], [0, 1], [0, -1], [-1, 0]),
        }),
        ({ at, heading, light, wall, way }) => {
          const document = keen({ light, walls: [{ at: wall, size: [0.2, 1.5] }] });
          // Walls begin at whole metres; no agent is placed in one.
          document.grounds.corner.agents.gleaner.at = [at[0] + 0.6, at[1]];
          document.grounds.corner.agents.keeper.heading = heading;
          const run = createRun(programOf(document), 1, 1);
          while (run.head < 30)
            advance(
              run,
              run.head === 0 ? [{ agent: 'gleaner', x: way[0], y: way[1], gait: null }] : [],
            );
          for (const tick of [3, 11, 29]) {
            const [before, after] = [awarenessAt(run, tick - 1), awarenessAt(run, tick)];
            const said = Number(asked(run, tick).cause[0].values[0]?.value ?? 0);
            if (after >= 1) continue;
            if (said > 0) expect((after - before) * 60).toBeCloseTo(said, 2);
            else expect(after).toBeLessThanOrEqual(before);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('leaves the run alone, and refuses what can’t be asked', () => {
    const run = ran(keen(), 60);
    const hash = worldHash(run.world);
    asked(run, 30);
    expect([run.world.tick, worldHash(run.world)]).toEqual([60, hash]);
    expect(() => asked(run, 30, 'moth')).toThrow(
      new QuestionError('There is no other agent “moth”. There are: gleaner.'),
    );
    expect(() => asked(run, 30, 'keeper')).toThrow(QuestionError);
    expect(() => asked(run, 61)).toThrow('still ahead');
  });
});
