import { because } from '../../../terms/reasons.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkProject } from '../../../findings/check-project.ts';
import type { ProjectDocument, WaveDocument } from '../../../model/documents.ts';
import { beetles, gameProject, kill, present } from '../../../testing/director.fixture.ts';
import { KEEN_SIGHT, programOf, watch } from '../../../testing/orchard.fixture.ts';
import { restoreSnapshot, takeSnapshot, worldHash } from '../../handover/snapshot.ts';
import { swapProgram } from '../../handover/swap.ts';
import { tick } from '../../phases/tick.ts';
import { createWorld, setRecorder, type World } from '../../world.ts';
import { whyNoAgentComes } from '../../readout/game.ts';

/** Who comes to a ground while a run goes on, and leaves it. */

const comings = (entries: ReturnType<typeof watch>['entries']) =>
  entries.flatMap((entry) =>
    entry.kind === 'came' ? [`${entry.tick} ${entry.agent} ${entry.at}`] : [],
  );

const changes = (entries: ReturnType<typeof watch>['entries']) =>
  entries.flatMap((entry) =>
    entry.kind === 'wave' ? [`${entry.tick} ${entry.how} ${entry.times}`] : [],
  );

/** A director that does nothing. */
const RESTS = { activity: { do: 'wait', seconds: 1 } };

describe('a wave', () => {
  it('brings one after the other, a gap apart, through its places in turn', () => {
    const { entries, run } = watch(gameProject({ wave: { gap: 0.5 } }));
    run(200);
    expect(comings(entries)).toEqual([
      '1 beetles.1 East gap',
      '31 beetles.2 West gap',
      '61 beetles.3 East gap',
    ]);
  });

  it('brings each as at the start of a run, with its own luck going on', () => {
    const wave = { count: 1, times: 2, delay: 0.1, gap: 0 };
    const { world, run } = watch(gameProject({ wave }));
    const [beetle] = beetles(world);
    const first = beetle.stream.slice();
    run(90);
    const [luck, memory] = [beetle.stream.slice(), beetle.memory.slice()];
    expect(memory[0]).toBe(2);
    kill(world, 'beetles.1');
    run(7);
    expect(present(world)).toEqual(['beetles.1']);
    expect(beetle.self.health).toBe(10);
    expect(beetle.memory[0]).toBeLessThan(2);
    expect(luck).not.toEqual(first);
    expect(beetle.stream).toEqual(luck);
  });

  it('keeps no more alive than it may, says what holds it up, and goes on when there is room for one', () => {
    const { world, entries, run } = watch(gameProject({ wave: { count: 4, maxAlive: 2, gap: 0 } }));
    run(100);
    expect(present(world)).toEqual(['beetles.1', 'beetles.2']);
    expect(whyNoAgentComes(world, 0)).toBe('2 are alive, and no more may be at once, for 1.6 s');
    expect(changes(entries)).toEqual(['1 comes 1', '3 held 1']);
    kill(world, 'beetles.1');
    run(1);
    expect(comings(entries).at(-1)).toBe('101 beetles.1 East gap');
    kill(world, 'beetles.2');
    run(2);
    for (const name of present(world)) kill(world, name);
    run(2);
    expect(changes(entries).at(-1)).toMatch(/over 1$/);
    expect(whyNoAgentComes(world, 0)).toMatch(/it is over/);
  });

  it('comes again a delay after the last one has died, to the tick, as often as it may', () => {
    const wave = { count: 2, times: 2, delay: 1, gap: 0 };
    const { world, entries, run } = watch(gameProject({ wave }));
    run(20);
    kill(world, 'beetles.1');
    run(100);
    expect(changes(entries)).toEqual(['1 comes 1']);
    kill(world, 'beetles.2');
    run(200);
    // Seen to be gone in the tick after the blow, and a second on.
    expect(changes(entries)).toEqual(['1 comes 1', '181 comes 2']);
    expect(comings(entries)[2]).toMatch(/^181 /);
    for (const name of present(world)) kill(world, name);
    run(100);
    expect(changes(entries).at(-1)).toMatch(/over 2$/);
    expect(present(world)).toEqual([]);
  });

  it('comes again in the same tick whether a delay counts from the last death or from each', () => {
    const cameAt = (after: WaveDocument['after']) => {
      const wave = { count: 1, times: 2, delay: 0.5, gap: 0, after };
      const document = gameProject({ wave });
      // A death within a tick, by a blow, as in a game.
      document.archetypes.beetle.health = 1;
      const { world, entries, run } = watch(document);
      run(9);
      world.effects.push(() => kill(world, 'beetles.1'));
      run(60);
      return comings(entries).map((line) => line.split(' ')[0]);
    };
    expect(cameAt('last')).toEqual(['1', '40']);
    expect(cameAt('each')).toEqual(['1', '40']);
  });

  it('brings each again a delay after its own death, where that is what it counts from', () => {
    const wave: Partial<WaveDocument> = { count: 2, times: 2, delay: 0.5, after: 'each', gap: 0 };
    const { world, entries, run } = watch(gameProject({ wave }));
    run(10);
    kill(world, 'beetles.2');
    run(60);
    expect(comings(entries).at(-1)).toBe('40 beetles.2 East gap');
    kill(world, 'beetles.1');
    run(60);
    kill(world, 'beetles.1');
    kill(world, 'beetles.2');
    run(100);
    expect(comings(entries)).toHaveLength(4);
    expect(changes(entries).at(-1)).toMatch(/over/);
  });

  it('leaves its dead where they fell until they are needed, or for their time', () => {
    const document = gameProject({ wave: { count: 1 } });
    const { world, entries, run } = watch(document);
    run(10);
    kill(world, 'beetles.1');
    run(200);
    expect(beetles(world)[0]).toMatchObject({ away: false, isDead: true });
    document.archetypes.beetle.respawnDelay = 0.5;
    const timed = watch(document);
    timed.run(10);
    kill(timed.world, 'beetles.1');
    timed.run(29);
    expect(beetles(timed.world)[0].away).toBe(false);
    timed.run(1);
    expect(beetles(timed.world)[0].away).toBe(true);
    expect(timed.entries.filter(({ kind }) => kind === 'left')).toMatchObject([{ tick: 40 }]);
    expect(entries.some(({ kind }) => kind === 'left')).toBe(false);
  });

  it('waits where there is no room, says where, and comes as soon as there is', () => {
    const document = gameProject({ wave: { count: 1, at: ['west'] } });
    document.grounds.corner.agents.keeper.at = [1, 2.2];
    const { world, entries, run } = watch(document);
    run(30);
    expect(present(world)).toEqual([]);
    expect(entries).toContainEqual(
      expect.objectContaining({ how: 'held', reason: because('waveNoRoom', 'West gap') }),
    );
    world.agents.find(({ name }) => name === 'keeper')!.body.x = 6;
    run(1);
    expect(present(world)).toEqual(['beetles.1']);
  });

  it('starts when a played agent enters its zone', () => {
    const { world, run } = watch(gameProject({ wave: { starts: 'zone', zone: 'middle' } }));
    run(20);
    expect(present(world)).toEqual([]);
    expect(whyNoAgentComes(world, 0)).toMatch(/no played agent has entered/);
    run(60, [{ agent: 'gleaner', x: 1, y: 0, gait: null }]);
    expect(present(world).length).toBeGreaterThan(0);
  });

  it('takes the place farthest from an agent that is played, where it is to', () => {
    const { entries, run } = watch(gameProject({ wave: { order: 'farthest', gap: 1, count: 2 } }));
    run(130);
    expect(comings(entries).map((line) => line.split(' ').slice(2).join(' '))).toEqual([
      'East gap',
      'East gap',
    ]);
  });
});

describe('why no agent of a wave comes', () => {
  it('is said in each of its times', () => {
    const wave = { count: 2, times: 2, delay: 1, gap: 0.5 };
    const { world, run } = watch(gameProject({ wave }));
    const at = (ticks: number) => {
      run(ticks - world.tick);
      return whyNoAgentComes(world, 0);
    };
    expect(at(7)).toBe('the next comes in 0.4 s');
    expect(at(31)).toBe('all 2 have come, and 2 of them are alive');
    kill(world, 'beetles.1');
    expect(whyNoAgentComes(world, 0)).toBe('all 2 have come, and 1 of them are alive');
    kill(world, 'beetles.2');
    expect(at(44)).toBe('they come again in 0.8 s');
    run(60);
    for (const name of present(world)) kill(world, name);
    run(60);
    for (const name of present(world)) kill(world, name);
    expect(at(200)).toBe('it is over: all who were to come have come');
  });

  it('counts down to each that comes again by itself', () => {
    const wave = { count: 1, times: 0, delay: 1, after: 'each' as const };
    const { world, run } = watch(gameProject({ wave }));
    run(10);
    kill(world, 'beetles.1');
    run(15);
    expect(whyNoAgentComes(world, 0)).toBe('the next comes again in 0.8 s');
  });

  it.each([
    ['director', 'the director has not started it yet'],
    ['zone', 'no played agent has entered the zone that starts it'],
  ] as const)('waits for the %s', (starts, words) => {
    const project = gameProject({
      wave: { starts, ...(starts === 'zone' ? { zone: 'shed' } : {}) },
      director: RESTS,
    });
    project.grounds.corner.zones = { shed: { at: [17, 7], size: [1, 1] } };
    const { world, run } = watch(project);
    run(5);
    expect(whyNoAgentComes(world, 0)).toBe(words);
  });
});

describe('the place one comes in at', () => {
  it('is drawn by the luck of each where it is by luck, among those with room', () => {
    const places = Array.from({ length: 12 }, (_, seed) => {
      const { entries, run } = watch(
        gameProject({ wave: { count: 4, gap: 2, order: 'random' } }),
        seed + 1,
      );
      run(400);
      return comings(entries).map((line) => line.split(' ').slice(2).join(' '));
    });
    expect(new Set(places.flat())).toEqual(new Set(['East gap', 'West gap']));
    expect(new Set(places.map((each) => each.join())).size).toBeGreaterThan(4);
  });

  it('is the first of those that are to be farthest, where no agent is played', () => {
    const project = gameProject({ wave: { count: 2, order: 'farthest', gap: 0.5 } });
    delete project.start.play;
    const { entries, run } = watch(project);
    run(60);
    expect(comings(entries).map((line) => line.split(' ')[2])).toEqual(['East', 'East']);
  });

  it('is that of the one who has lain dead the longest, where no agent is away', () => {
    const { world, entries, run } = watch(
      gameProject({ wave: { count: 9, maxAlive: 3, gap: 0.5 } }),
    );
    run(200);
    for (const name of ['beetles.3', 'beetles.1', 'beetles.2']) {
      world.waves[0].due = world.tick + 100;
      kill(world, name);
      run(5);
    }
    run(400);
    expect(comings(entries).map((line) => line.split(' ')[1])).toEqual([
      'beetles.1',
      'beetles.2',
      'beetles.3',
      'beetles.3',
      'beetles.1',
      'beetles.2',
    ]);
  });
});

describe('an agent that is away', () => {
  it('is seen, heard and touched by no agent, and decides nothing', () => {
    const document = gameProject({ wave: { starts: 'director' }, director: RESTS });
    document.archetypes.keeper.sight = KEEN_SIGHT;
    const { world, entries, run } = watch(document);
    run(120);
    for (const { x, y, away, tracks } of beetles(world)) {
      expect([x, y, away]).toEqual([NaN, NaN, true]);
      expect(tracks).toEqual([]);
    }
    expect(entries.filter(({ agent }) => agent.startsWith('beetles'))).toEqual([]);
    const keeper = world.agents.find(({ name }) => name === 'keeper')!;
    expect(keeper.tracks.some(({ of }) => world.agents[of].name.startsWith('beetles'))).toBe(false);
  });

  it('changes nothing for other agents: neither what they do nor their luck', () => {
    const others = (document: ProjectDocument) => {
      const { world, entries, run } = watch(document, 9);
      run(300, [{ agent: 'gleaner', x: -1, y: 0.2, gait: 'run' }]);
      const told = entries.filter(({ agent }) => !agent.startsWith('beetles') && agent !== '');
      const states = takeSnapshot(world).agents.filter(({ name }) => !name.startsWith('beetles'));
      return { told, places: states.map(({ name, body, stream }) => [name, body, stream]) };
    };
    const wandering = (wave?: Partial<WaveDocument>) => {
      const document = gameProject(wave ? { wave } : {});
      document.minds.keeper = document.minds.beetle;
      return document;
    };
    expect(others(wandering({ starts: 'zone', zone: 'corner', count: 40 }))).toEqual(
      others(wandering()),
    );
  });
});

describe('an agent that is away where others fight', () => {
  it('is met by no strike and nothing that flies', () => {
    const fought = (wave: boolean) => {
      const document = gameProject(
        wave ? { wave: { starts: 'zone', zone: 'corner', count: 20 } } : {},
      );
      document.archetypes.keeper.moves = {
        sweep: {
          windUp: 0.2,
          active: 0.1,
          recovery: 0.2,
          reach: 3,
          arc: 180,
          damage: 3,
          hits: 'one',
        },
        thorn: {
          kind: 'thrown',
          windUp: 0.2,
          active: 0.1,
          recovery: 0.2,
          speed: 9,
          reach: 12,
          damage: 2,
        },
      };
      document.archetypes.keeper.sight = KEEN_SIGHT;
      document.archetypes.gleaner.health = 90;
      document.minds.keeper = {
        title: 'Keeper',
        trees: {
          main: {
            root: {
              sequence: [
                { do: 'strike', move: 'thorn', at: 'attention.of' },
                { do: 'moveTo', to: 'attention.of', within: 2 },
                { do: 'strike', move: 'sweep', at: 'attention.of' },
              ],
            },
          },
        },
        activity: { tree: 'main' },
      };
      const { entries, run } = watch(document, 3);
      run(600);
      return entries.filter(({ kind }) => kind === 'hit' || kind === 'harm');
    };
    const without = fought(false);
    expect(without.length).toBeGreaterThan(4);
    expect(fought(true)).toEqual(without);
  });
});

describe('where they are put', () => {
  it('is never in a wall, a body or a closed gate', () => {
    const spot = fc.tuple(fc.integer({ min: 1, max: 18 }), fc.integer({ min: 1, max: 8 }));
    fc.assert(
      fc.property(
        fc.array(spot, { minLength: 1, maxLength: 6 }),
        fc.array(spot, { maxLength: 12 }),
        fc.array(spot, { maxLength: 4 }),
        fc.constantFrom('turn' as const, 'random' as const, 'farthest' as const),
        fc.integer({ min: 1, max: 1000 }),
        (spawns, walls, gates, order, seed) => {
          const document = gameProject({
            wave: { count: 12, gap: 0, order },
            ground: {
              spawns: Object.fromEntries(spawns.map((at, i) => [`spawn${i}`, { at }])),
              walls: walls.map(([x, y]) => ({ at: [x + 0.3, y + 0.2], size: [0.8, 0.5] })),
              gates: Object.fromEntries(
                gates.map(([x, y], i) => [`gate${i}`, { at: [x, y - 0.4], size: [0.3, 1] }]),
              ),
            },
          });
          const { program } = checkProject(document);
          fc.pre(program !== null);
          const world = createWorld(program!, seed);
          setRecorder(world, (entry) => {
            if (entry.kind !== 'came') return;
            const own = world.agents.find(({ name }) => name === entry.agent)!;
            expect(world.ground.isBlocked(entry.x, entry.y, own.archetype.radius)).toBe(false);
            for (const other of world.agents)
              if (other !== own && !other.away && !other.isDead)
                expect(other.awayFrom(entry.x, entry.y)).toBeGreaterThanOrEqual(
                  own.archetype.radius,
                );
          });
          for (let i = 0; i < 40; i++) tick(world);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('a wave under edits and rewinds', () => {
  const wave: Partial<WaveDocument> = { count: 3, maxAlive: 2, times: 0, delay: 0.4, gap: 0.3 };
  const killing = (world: World, at: number) => {
    if (at % 70 === 69) for (const name of present(world).slice(0, 1)) kill(world, name);
  };

  it('comes back from a snapshot at any tick as it was', () => {
    for (const at of [1, 20, 69, 71, 150, 333]) {
      const { world } = watch(gameProject({ wave }), 5);
      for (let i = 0; i < at; i++) {
        tick(world);
        killing(world, i);
      }
      const other = createWorld(world.statics.program, 5);
      restoreSnapshot(other, structuredClone(takeSnapshot(world)));
      for (let i = at; i < at + 120; i++) {
        for (const each of [world, other]) {
          tick(each);
          killing(each, i);
        }
      }
      expect(worldHash(other)).toBe(worldHash(world));
    }
  });

  it('goes on under an edit that changes nothing, and after going back, as if nothing had been', () => {
    const document = gameProject({ wave: { gap: 0.4, times: 3, delay: 0.5 } });
    const ahead = (world: World, from: number) => {
      for (let i = from; i < from + 120; i++) {
        tick(world);
        killing(world, i);
      }
      return worldHash(world);
    };
    for (const at of [1, 24, 70, 71, 150, 333]) {
      const { world } = watch(document, 5);
      for (let i = 0; i < at; i++) {
        tick(world);
        killing(world, i);
      }
      const past = structuredClone(takeSnapshot(world));
      const edited = createWorld(world.statics.program, 5);
      restoreSnapshot(edited, past);
      const under = swapProgram(edited, programOf(structuredClone(document)), 2, 5);
      const uninterrupted = ahead(world, at);
      expect(ahead(under, at), `edited at ${at}`).toBe(uninterrupted);
      restoreSnapshot(world, past);
      expect(ahead(world, at), `back to ${at}`).toBe(uninterrupted);
    }
  });

  it('that is made larger while it comes brings as many more; those who are there stay', () => {
    const { world, run } = watch(gameProject({ wave: { count: 2, gap: 0.2 } }));
    run(60);
    expect(present(world)).toHaveLength(2);
    const before = beetles(world).map(({ x }) => x);
    const larger = swapProgram(
      world,
      programOf(gameProject({ wave: { count: 5, gap: 0.2 } })),
      2,
      1,
    );
    expect(
      beetles(larger)
        .slice(0, 2)
        .map(({ x }) => x),
    ).toEqual(before);
    for (let i = 0; i < 60; i++) tick(larger);
    expect(present(larger)).toHaveLength(5);
  });

  it('that is over and made larger goes on', () => {
    const { world, run } = watch(gameProject({ wave: { count: 1 } }));
    run(5);
    kill(world, 'beetles.1');
    run(5);
    expect(world.waves[0].isOver).toBe(true);
    const larger = swapProgram(world, programOf(gameProject({ wave: { count: 2 } })), 2, 1);
    for (let i = 0; i < 70; i++) tick(larger);
    expect(present(larger)).toHaveLength(1);
  });

  it('that is made smaller than are alive takes those away who are too many, and says so', () => {
    const { world, entries, run } = watch(gameProject({ wave: { count: 4, gap: 0.5 } }));
    run(130);
    const smaller = swapProgram(world, programOf(gameProject({ wave: { count: 2 } })), 2, 1);
    expect(present(smaller)).toEqual(['beetles.1', 'beetles.2']);
    expect(entries.filter(({ kind }) => kind === 'left').map(({ agent }) => agent)).toEqual([
      'beetles.3',
      'beetles.4',
    ]);
  });
});

describe('a wave that can’t be', () => {
  const found = (document: ProjectDocument) =>
    checkProject(document).findings.map(({ path, message }) => `${path}: ${message}`);

  it.each<[string, Partial<WaveDocument>, RegExp]>([
    [
      'of no archetype there is',
      { archetype: 'moth' },
      /beetles\.archetype: There is no archetype “moth”/,
    ],
    [
      'at no place there is',
      { at: ['north'] },
      /beetles\.at\[0\]: There is no spawn place “north”/,
    ],
    ['that comes again at an unknown time', { times: 3 }, /beetles\.times: .*Give it a “delay”/],
    ['that starts in no zone', { starts: 'zone' }, /beetles\.starts: .*“zone”/],
    ['at home nowhere', { home: 'hive' }, /beetles\.home: There is no zone “hive”/],
  ])('%s is an error at its place', (_, wave, words) => {
    expect(found(gameProject({ wave })).join('\n')).toMatch(words);
  });

  it('on a ground without spawn places is an error', () => {
    expect(found(gameProject({ wave: {}, ground: { spawns: {} } })).join('\n')).toMatch(
      /waves\.beetles: “beetles” has no place to come in/,
    );
  });
});
