import { describe, expect, it } from 'vitest';
import { checkProject } from '../findings/check-project.ts';
import type { MindDocument, ProjectDocument, RuleDocument } from '../model/documents.ts';
import { gameProject, kill, present, type Game } from '../testing/director.fixture.ts';
import { act, interruptedAndNot, programOf, watch } from '../testing/orchard.fixture.ts';
import { worldHash } from './handover/snapshot.ts';
import { swapProgram } from './handover/swap.ts';
import { tick } from './phases/tick.ts';

/** The mind of a ground: the clock, scores, what it does to those on the ground, and how a run ends. */

/** A director of a few rules. */
function rules(rows: RuleDocument[], memory?: MindDocument['memory']): Partial<MindDocument> {
  return { memory, activity: { rules: 'referee' }, rules: { referee: { rows } } };
}

type Entries = ReturnType<typeof watch>['entries'];

const modes = (entries: Entries) =>
  entries.flatMap((entry) => (entry.kind === 'mode' ? [`${entry.tick} ${entry.mode}`] : []));

const scores = (entries: Entries) =>
  entries.flatMap((entry) => (entry.kind === 'score' ? [`${entry.tick} ${entry.value}`] : []));

const results = (entries: Entries) => entries.filter(({ kind }) => kind === 'result');

const DAY: Game['ground'] = {
  schedule: {
    modes: [
      { mode: 'foraging', for: 2 },
      { mode: 'guarding', for: 1 },
    ],
  },
};

describe('a schedule', () => {
  it('goes through its modes to the tick, again and again, and announces each to every agent', () => {
    const document = gameProject({ ground: DAY });
    document.minds.keeper = {
      title: 'Keeper',
      machine: {
        initial: 'calm',
        states: [
          { id: 'calm', transitions: [{ to: 'roused', on: 'mode.guarding' }] },
          { id: 'roused', transitions: [{ to: 'calm', on: 'mode.foraging' }] },
        ],
      },
    };
    const { entries, run } = watch(document);
    run(400);
    expect(modes(entries)).toEqual([
      '1 foraging',
      '121 guarding',
      '181 foraging',
      '301 guarding',
      '361 foraging',
    ]);
    const turns = entries.flatMap((entry) =>
      entry.kind === 'transition' ? [`${entry.tick} ${entry.to}`] : [],
    );
    expect(turns).toEqual(['121 roused', '181 calm', '301 roused', '361 calm']);
  });

  it('can be asked by every agent: the mode that holds, and how long it still does', () => {
    const document = gameProject({ ground: DAY });
    document.minds.keeper = {
      title: 'Keeper',
      machine: {
        initial: 'a',
        states: [
          { id: 'a', transitions: [{ to: 'b', when: "mode == 'guarding' && timeLeft < 0.5" }] },
          { id: 'b' },
        ],
      },
    };
    const { entries, run } = watch(document);
    run(200);
    expect(entries.find(({ kind }) => kind === 'transition')?.tick).toBe(152);
  });

  it('stands still while another mode is laid over it, and goes on where it stood', () => {
    const director = rules([
      { when: 'time >= 0.5', edge: true, do: [{ do: 'setMode', mode: 'hiding', seconds: 0.75 }] },
    ]);
    const { entries, run } = watch(gameProject({ ground: DAY, director }));
    run(300);
    // From tick 30 on for 45 ticks; the two seconds of the first mode are its own all the same.
    expect(modes(entries)).toEqual([
      '1 foraging',
      '30 hiding',
      '75 foraging',
      `${121 + 45} guarding`,
      `${181 + 45} foraging`,
    ]);
  });

  it('stays in its last mode, or ends the run, where it says so', () => {
    const staying = watch(
      gameProject({ ground: { schedule: { ...DAY.schedule!, afterwards: 'stay' } } }),
    );
    staying.run(400);
    expect(modes(staying.entries)).toEqual(['1 foraging', '121 guarding']);
    const ending = watch(
      gameProject({ ground: { schedule: { ...DAY.schedule!, afterwards: 'end' } } }),
    );
    ending.run(400);
    expect(results(ending.entries)).toMatchObject([{ tick: 181, how: 'over' }]);
  });

  it('lets the director say how it went, when the time is over', () => {
    const director: Partial<MindDocument> = {
      machine: {
        initial: 'plays',
        states: [
          {
            id: 'plays',
            transitions: [
              {
                on: 'schedule.over',
                internal: true,
                do: [{ do: 'end', result: 'won', words: 'You held out.' }],
              },
            ],
          },
        ],
      },
    };
    const ground = { schedule: { ...DAY.schedule!, afterwards: 'end' as const } };
    const { entries, run } = watch(gameProject({ ground, director }));
    run(400);
    expect(results(entries)).toMatchObject([{ tick: 181, how: 'won', words: 'You held out.' }]);
  });

  it('goes on under an edit with what was left of its mode', () => {
    const { world, run } = watch(gameProject({ ground: DAY }));
    run(150);
    expect(world.schedule).toMatchObject({ at: 1, left: 31 });
    const [foraging, guarding] = DAY.schedule!.modes;
    const edited = (list: typeof DAY.schedule) =>
      programOf(gameProject({ ground: { schedule: list } }));
    const more = swapProgram(
      world,
      edited({ modes: [{ mode: 'resting', for: 9 }, foraging, guarding] }),
      2,
      1,
    );
    expect(more.schedule).toMatchObject({ at: 2, left: 31 });
    const shorter = swapProgram(
      world,
      edited({ modes: [foraging, { ...guarding, for: 0.25 }] }),
      2,
      1,
    );
    expect(shorter.schedule).toMatchObject({ at: 1, left: 15 });
    const gone = swapProgram(world, edited({ modes: [foraging] }), 2, 1);
    tick(gone);
    expect(gone.schedule).toMatchObject({ at: 0, left: 120 });
  });
});

describe('a score', () => {
  const TOUCH: RuleDocument = {
    when: "inZone(middle, 'gleaners') > 0",
    edge: true,
    do: [{ do: 'addScore', score: 'touches' }],
  };
  const playing = () =>
    watch(
      gameProject({
        ground: { scores: { touches: { start: 3 } } },
        director: rules([TOUCH]),
      }),
    );

  it('stays as it is where the points are nothing', () => {
    const nothing: RuleDocument = {
      when: 'true',
      edge: true,
      do: [{ do: 'addScore', score: 'touches', points: '1 / 0' }],
    };
    const { world, entries, run } = watch(
      gameProject({
        ground: { scores: { touches: { start: 3 } } },
        director: rules([nothing]),
      }),
    );
    run(10);
    expect([...world.scores]).toEqual([3]);
    expect(entries.filter(({ kind }) => kind === 'score')).toEqual([]);
  });

  it('gets one point a touch, however long that lasts', () => {
    const { entries, run } = playing();
    run(1);
    run(90, [{ agent: 'gleaner', x: 1, y: 0, gait: null }]);
    run(60, [{ agent: 'gleaner', x: 0, y: 0, gait: null }]);
    run(120, [{ agent: 'gleaner', x: -1, y: 0, gait: null }]);
    run(120, [{ agent: 'gleaner', x: 1, y: 0, gait: null }]);
    expect(scores(entries).map((line) => line.split(' ')[1])).toEqual(['4', '5']);
  });

  it('is the same in two runs of one seed, and comes back from a snapshot', () => {
    const [a, b] = [playing(), playing()];
    for (const { run } of [a, b]) run(200, [{ agent: 'gleaner', x: 1, y: 0, gait: null }]);
    expect(worldHash(a.world)).toBe(worldHash(b.world));
    expect(a.world.scores).toEqual([4]);
    const document = gameProject({
      wave: { gap: 0.2 },
      ground: { ...DAY, scores: { touches: {} } },
      director: rules([TOUCH]),
    });
    for (const at of [30, 119, 185]) {
      const [restored, uninterrupted] = interruptedAndNot(document, at);
      expect(restored).toBe(uninterrupted);
    }
  });

  it('can be asked by every agent, and is kept under an edit', () => {
    const { world, run } = playing();
    run(150, [{ agent: 'gleaner', x: 1, y: 0, gait: null }]);
    const edited = gameProject({ ground: { scores: { baskets: {}, touches: { start: 3 } } } });
    expect(swapProgram(world, programOf(edited), 2, 1).scores).toEqual([0, 4]);
  });
});

describe('what a director does', () => {
  it('shows before any agent decides: an event it announces is taken in the same tick', () => {
    const document = gameProject({
      director: rules([
        {
          when: 'time >= 0.5',
          edge: true,
          do: [
            { do: 'announce', event: 'bell.rings', to: 'keepers' },
            { do: 'announce', event: 'moths.come', to: 'gleaners' },
          ],
        },
      ]),
    });
    document.minds.keeper = {
      title: 'Keeper',
      machine: {
        initial: 'a',
        states: [
          {
            id: 'a',
            transitions: [
              { to: 'b', on: 'bell' },
              { to: 'c', on: 'moths' },
            ],
          },
          { id: 'b' },
          { id: 'c' },
        ],
      },
    };
    const { entries, run } = watch(document);
    run(60);
    const rung = entries.find(({ kind }) => kind === 'announced')!;
    expect(entries).toContainEqual(
      expect.objectContaining({ kind: 'enter', state: 'b', tick: rung.tick }),
    );
    expect(entries.some((entry) => entry.kind === 'enter' && entry.state === 'c')).toBe(false);
  });

  it('brings waves, knows who comes and dies, and sends away', () => {
    const director: Partial<MindDocument> = {
      machine: {
        initial: 'waits',
        states: [
          {
            id: 'waits',
            transitions: [{ to: 'plays', after: 0.5, do: [{ do: 'bring', wave: 'beetles' }] }],
          },
          {
            id: 'plays',
            transitions: [
              { on: 'arrived.beetles', internal: true, do: [{ do: 'addScore', score: 'came' }] },
              { on: 'died.beetle', internal: true, do: [{ do: 'addScore', score: 'died' }] },
              { to: 'ends', when: "score('died') == 1 && alive('beetle') == 2" },
            ],
          },
          { id: 'ends', entry: [{ do: 'sendAway', group: 'beetles' }] },
        ],
      },
    };
    const { world, entries, run } = watch(
      gameProject({
        director,
        wave: { starts: 'director', gap: 0.2 },
        ground: { scores: { came: {}, died: {} } },
      }),
    );
    run(20);
    expect(present(world)).toEqual([]);
    run(60);
    expect(present(world)).toHaveLength(3);
    expect(world.scores).toEqual([3, 0]);
    kill(world, 'beetles.2');
    run(3);
    expect(world.scores).toEqual([3, 1]);
    expect(present(world)).toEqual([]);
    expect(entries.filter(({ kind }) => kind === 'left')).toHaveLength(2 + 1);
    expect(world.waves[0].isOver).toBe(true);
  });

  it.each(['beetle', 'beetles', 'pests'])(
    'sends away a wave and those still to come by the name %s: its own, its archetype’s, its faction’s',
    (group) => {
      const director = rules([
        { when: 'time >= 0.3', edge: true, do: [{ do: 'sendAway', group }] },
      ]);
      const document = gameProject({ director, wave: { gap: 0.25 } });
      document.archetypes.beetle.faction = 'pests';
      const { world, entries, run } = watch(document);
      run(100);
      expect(present(world)).toEqual([]);
      const told = entries.flatMap((entry) => (entry.kind === 'wave' ? [entry.how] : []));
      expect(told).toEqual(['comes', 'calledOff']);
    },
  );

  it('adds to no score once it has ended the run, also in that tick', () => {
    const director = rules([
      {
        when: 'time >= 0.3',
        edge: true,
        do: [
          { do: 'addScore', score: 'came' },
          { do: 'end', result: 'won', words: 'Enough.' },
          { do: 'addScore', score: 'came' },
        ],
      },
    ]);
    const { world, entries, run } = watch(
      gameProject({ director, ground: { scores: { came: {} } } }),
    );
    run(60);
    expect(world.scores).toEqual([1]);
    expect(entries.filter(({ kind }) => kind === 'score')).toHaveLength(1);
  });

  it('called off in mid-arrival, a wave is over, and can be brought again from its beginning', () => {
    const director = rules([
      { when: 'time >= 0.3', edge: true, do: [{ do: 'sendAway', group: 'beetles' }] },
      { when: 'time >= 1', edge: true, do: [{ do: 'bring', wave: 'beetles' }] },
      { when: 'time >= 1.1', edge: true, do: [{ do: 'bring', wave: 'beetles' }] },
    ]);
    const { world, entries, run } = watch(gameProject({ director, wave: { gap: 0.25 } }));
    run(50);
    expect(present(world)).toEqual([]);
    run(60);
    expect(present(world)).toEqual(['beetles.1', 'beetles.2', 'beetles.3']);
    const told = entries.flatMap((entry) => (entry.kind === 'wave' ? [entry.how] : []));
    expect(told).toEqual(['comes', 'calledOff', 'comes']);
  });

  it('counts what is on the ground', () => {
    const { world, run } = watch(
      gameProject({
        ground: {
          things: {
            windfall: { kind: 'fruit', at: [10, 4], weight: 0.5 },
            pear: { kind: 'fruit', at: [11, 5], weight: 1.25 },
            stone: { kind: 'stone', at: [15, 5] },
          },
          scores: { weight: {}, things: {}, players: {} },
        },
        director: rules([
          {
            when: 'time > 0',
            edge: true,
            do: [
              { do: 'addScore', score: 'weight', points: 'weightIn(middle)' },
              { do: 'addScore', score: 'things', points: 'thingsIn(middle)' },
              { do: 'addScore', score: 'players', points: 'players' },
            ],
          },
        ]),
      }),
    );
    run(2);
    expect(world.scores).toEqual([1, 2, 1.75]);
  });

  it('changes the light evenly, and moves gates unless an agent stands in them', () => {
    const document = gameProject({
      ground: { light: 1, gates: { wicket: { at: [5, 4.5], size: [0.3, 1] } } },
      director: rules([
        { when: 'time >= 0.5', edge: true, do: [{ do: 'setLight', to: 0.5, seconds: 1 }] },
        { when: 'time >= 0.5', edge: true, do: [{ do: 'setGate', gate: 'wicket', to: 'locked' }] },
      ]),
    });
    const { world, run } = watch(document);
    const light = () => world.agents.find(({ name }) => name === 'keeper')!.here.light();
    run(30);
    expect(light()).toBe(1);
    run(30);
    expect(light()).toBe(0.75);
    run(100);
    expect(light()).toBe(0.5);
    expect(world.gates).toEqual([2]);
  });

  it('knows who enters a zone, each time, and not who stands there from the start', () => {
    const document = gameProject({
      ground: { scores: { entered: {}, stood: {} } },
      director: {
        machine: {
          initial: 'a',
          states: [
            {
              id: 'a',
              transitions: [
                {
                  on: 'entered.middle.gleaner',
                  internal: true,
                  do: [{ do: 'addScore', score: 'entered' }],
                },
                { on: 'entered.corner', internal: true, do: [{ do: 'addScore', score: 'stood' }] },
              ],
            },
          ],
        },
      },
    });
    document.grounds.corner.agents.keeper.at = [1, 9];
    const { world, run } = watch(document);
    run(90, [{ agent: 'gleaner', x: 1, y: 0, gait: null }]);
    expect(world.scores).toEqual([1, 0]);
    run(120, [{ agent: 'gleaner', x: -1, y: 0, gait: null }]);
    run(90, [{ agent: 'gleaner', x: 1, y: 0, gait: null }]);
    expect(world.scores).toEqual([2, 0]);
    const swapped = swapProgram(world, programOf(document), 2, 1);
    expect(worldHash(swapped)).toBe(worldHash(world));
    expect(checkProject(document).findings).toEqual([]);
  });

  it('knows what is taken', () => {
    const { world, run } = watch(
      gameProject({
        ground: { scores: { taken: {} }, things: { pear: { kind: 'fruit', at: [8.5, 5] } } },
        director: {
          machine: {
            initial: 'a',
            states: [
              {
                id: 'a',
                transitions: [
                  { on: 'taken.fruit', internal: true, do: [{ do: 'addScore', score: 'taken' }] },
                ],
              },
            ],
          },
        },
      }),
    );
    run(1);
    run(3, [act('pickUp')]);
    expect(world.scores).toEqual([1]);
  });
});

describe('a call', () => {
  it('is heard by friends in reach in the same tick, and by no other agent', () => {
    const document = gameProject({});
    document.archetypes.gleaner.callReach = 8;
    const friend = { ...document.archetypes.keeper, faction: 'gleaners', mind: 'friend' };
    document.archetypes.friend = friend;
    document.minds.friend = document.minds.keeper = {
      title: 'Friend',
      memory: { spot: { type: 'point' } },
      machine: {
        initial: 'a',
        states: [
          {
            id: 'a',
            transitions: [
              {
                to: 'comes',
                on: 'told.call',
                do: [{ do: 'remember', key: 'spot', value: 'told.place' }],
              },
            ],
          },
          { id: 'comes', activity: { do: 'moveTo', to: 'spot' } },
        ],
      },
    };
    Object.assign(document.grounds.corner.agents, {
      near: { archetype: 'friend', at: [14, 5] },
      far: { archetype: 'friend', at: [18, 5] },
    });
    const { entries, run } = watch(document);
    run(5);
    run(5, [act('call')]);
    const heard = entries.filter((entry) => entry.kind === 'percept' && entry.sense === 'told');
    expect(heard).toMatchObject([
      { tick: 6, agent: 'near', how: 'call', of: 'gleaner', x: 8, y: 5 },
    ]);
    expect(entries).toContainEqual(
      expect.objectContaining({ tick: 6, agent: 'near', kind: 'enter', state: 'comes' }),
    );
  });
});

describe('an end', () => {
  const director = rules([
    {
      when: 'time >= 0.5',
      edge: true,
      do: [
        { do: 'end', result: 'lost', words: 'The press is gone.' },
        { do: 'end', result: 'won', words: 'The harvest is in.' },
      ],
    },
  ]);

  it('is the first that is said; from then on everything stands still, and only ticks are counted', () => {
    const document = gameProject({ director, wave: { gap: 0.1 } });
    const { world, entries, run } = watch(document);
    run(40, [{ agent: 'gleaner', x: 1, y: 0, gait: null }]);
    expect(world.result).toEqual({ how: 'lost', words: 'The press is gone.', tick: 30 });
    const place = world.agents.map(({ x, y }) => [x, y]);
    const told = entries.length;
    run(60, [{ agent: 'gleaner', x: -1, y: 0, gait: null }]);
    expect(world.agents.map(({ x, y }) => [x, y])).toEqual(place);
    expect(entries).toHaveLength(told);
    expect(world.tick).toBe(100);
  });
});

describe('a director that can’t be', () => {
  const found = (document: ProjectDocument) =>
    checkProject(document).findings.map(({ path, message }) => `${path}: ${message}`);

  it('with legs is an error where it uses them', () => {
    const director = { activity: { do: 'moveTo', to: 'self.post' } };
    expect(found(gameProject({ director }))).toContainEqual(
      expect.stringMatching(
        /^minds\.referee\.activity: A director has no body: it can’t do “moveTo”/,
      ),
    );
  });

  it('is no keeper: what it does and asks is for no other mind', () => {
    const document = gameProject({ wave: {} });
    document.minds.keeper = {
      title: 'Keeper',
      machine: {
        initial: 'a',
        states: [
          {
            id: 'a',
            entry: [{ do: 'bring', wave: 'beetles' }],
            transitions: [{ to: 'a', when: "alive('beetle') > 1" }],
          },
        ],
      },
    };
    const told = found(document).join('\n');
    expect(told).toMatch(/entry\[0\]: Only the mind of a ground’s director can do “bring”/);
    expect(told).toMatch(/transitions\[0\]\.when: “alive” is for the mind of a director to ask/);
  });

  it('speaks of waves, scores and names there are', () => {
    const director = rules([
      { when: "alive('beatles') > 0", do: [{ do: 'bring', wave: 'moths' }] },
      { when: "score('press') > 0", do: [{ do: 'addScore', score: 'hits' }] },
    ]);
    const told = found(gameProject({ director, wave: {} })).join('\n');
    expect(told).toMatch(
      /There is no archetype, faction, squad or wave “beatles”. Did you mean “beetles”/,
    );
    expect(told).toMatch(/There is no wave “moths”/);
    expect(told).toMatch(/There is no score “press”/);
    expect(told).toMatch(/There is no score “hits”/);
  });

  it('is one mind of the project', () => {
    expect(found(gameProject({ ground: { director: 'umpire' } })).join()).toMatch(
      /grounds\.corner\.director: There is no mind “umpire”/,
    );
  });

  it('has its name for itself', () => {
    const document = gameProject({ director: { activity: { do: 'wait', seconds: 1 } } });
    document.grounds.corner.agents.director = { archetype: 'keeper', at: [15, 5] };
    expect(found(document).join()).toMatch(/agents\.director: “director” is what the director/);
  });

  it('as the mind of a body is found', () => {
    const document = gameProject({ director: rules([{ when: 'players == 0', do: [] }]) });
    document.archetypes.keeper.mind = 'referee';
    expect(found(document).join()).toMatch(/archetypes\.keeper: “Keeper” has the mind “Referee”/);
  });

  it('that never brings a wave which waits for it is found, and one that comes again at once', () => {
    const told = found(
      gameProject({
        director: { activity: { do: 'wait', seconds: 1 } },
        wave: { starts: 'director', times: 2, delay: 0 },
      }),
    ).join('\n');
    expect(told).toMatch(/waves\.beetles\.starts: .*never brings it/);
    expect(told).toMatch(/waves\.beetles\.delay: .*without a delay/);
    const sound = gameProject({
      director: rules([{ when: 'time > 1', edge: true, do: [{ do: 'bring', wave: 'beetles' }] }]),
      wave: { starts: 'director', times: 2, delay: 1 },
    });
    expect(found(sound)).toEqual([]);
  });

  it('a place to come in that lies in a wall is found', () => {
    const walls = [{ at: [18.5, 4] as [number, number], size: [1, 2] as [number, number] }];
    expect(found(gameProject({ wave: {}, ground: { walls } })).join()).toMatch(
      /waves\.beetles: There is no room for a “Beetle” \(radius 0\.3 m\) at “East gap”/,
    );
  });

  it('what it announces and what the clock says is heard: nothing waits in vain', () => {
    const document = gameProject({ ground: DAY });
    document.minds.keeper = {
      title: 'Keeper',
      machine: {
        initial: 'a',
        states: [
          { id: 'a', transitions: [{ to: 'b', on: 'mode.guarding' }] },
          { id: 'b', transitions: [{ to: 'a', on: 'mode.sleeping' }] },
        ],
      },
    };
    const told = found(document);
    expect(told).toHaveLength(1);
    expect(told[0]).toMatch(/states\[1\]\.transitions\[0\].*mode\.sleeping/);
  });
});
