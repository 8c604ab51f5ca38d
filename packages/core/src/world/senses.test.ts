import { describe, expect, it } from 'vitest';
import type { ProjectDocument, StateDocument } from '../model/documents.ts';
import { act, cornerProject, KEEN_SIGHT, watch } from '../testing/orchard.fixture.ts';
import type { Input } from './program/program.ts';

/** What hearing, finding and being told bring to a mind, and which of it has the attention. */

const BLIND = { ...KEEN_SIGHT, cones: [{ range: 0.2, halfAngle: 1, gain: 0.01 }] };

function yard(states: StateDocument[], change: (document: ProjectDocument) => void = () => {}) {
  const document = cornerProject({
    machine: { initial: states[0].id, states },
    memory: { spot: { type: 'point' } },
    sight: KEEN_SIGHT,
    ground: { things: { basket: { at: [8.6, 5] } } },
  });
  document.archetypes.keeper.hearing = { threshold: 0.05 };
  document.archetypes.gleaner.gaits.run = { speed: 4, noise: 8 };
  change(document);
  const watched = watch(document);
  const agent = (name: string) => watched.world.agents.find((each) => each.name === name)!;
  return { ...watched, agent, keeper: agent('keeper') };
}

const go = (x: number, y: number, gait: string | null = null): Input => ({
  agent: 'gleaner',
  x,
  y,
  gait,
});
const STAND: StateDocument[] = [{ id: 'stand' }];
const percepts = (entries: { kind: string }[]) =>
  entries.flatMap((entry) =>
    entry.kind === 'percept'
      ? [entry as { sense: string; how: string; x: number } & typeof entry]
      : [],
  );

describe('hearing', () => {
  it('takes in steps of an agent that runs, not of one that walks softly, nor those of friends', () => {
    const states: StateDocument[] = [
      {
        id: 'calm',
        transitions: [{ to: 'listen', when: "heard.kind == 'step' && heard.loudness > 0.1" }],
      },
      { id: 'listen' },
    ];
    const blind = (document: ProjectDocument) => {
      document.archetypes.keeper.sight = BLIND;
    };
    const soft = yard(states, blind);
    soft.run(60, [go(0, 1)]);
    expect(soft.state()).toBe('calm');
    const loud = yard(states, blind);
    loud.run(60, [go(0, 1, 'run')]);
    expect(loud.state()).toBe('listen');
    const friend = yard(states, (document) => {
      blind(document);
      document.factions = { keepers: { toward: { gleaners: 'friendly' } } };
    });
    friend.run(60, [go(0, 1, 'run')]);
    expect(friend.state()).toBe('calm');
  });

  it('raises an event, keeps place and loudness for four seconds, then nothing', () => {
    const { run, keeper, entries } = yard(STAND, (document) => {
      document.archetypes.keeper.sight = BLIND;
    });
    run(1, [act('pickUp')]);
    run(5, [act('throw', [6, 2])]);
    run(60);
    const [heard] = percepts(entries).filter(({ sense }) => sense === 'hearing');
    expect(heard).toMatchObject({ how: 'landing', x: 6 });
    expect(keeper.known.percept(2)).toMatchObject({ x: 6, y: 2 });
    expect(keeper.known.percept(2)!.strength).toBeCloseTo(1 - 5 / 9, 6);
    run(60 * 5);
    expect(keeper.known.percept(2)).toBeNull();
  });
});

describe('finding', () => {
  it('notices a thing out of its place, once', () => {
    const { run, entries } = yard(STAND, (document) => {
      document.grounds.corner.agents.gleaner.at = [8, 5];
      document.archetypes.gleaner.faction = 'keepers';
      document.factions = { keepers: { toward: { keepers: 'neutral' } } };
    });
    run(1, [act('pickUp')]);
    run(30, [go(-1, 0)]);
    run(60, [act('drop')]);
    run(120, [go(1, 0)]);
    const found = percepts(entries).filter(({ sense }) => sense === 'found');
    expect(found.map(({ how }) => how)).toEqual(['thing']);
  });

  it('is shared by the squad: what one has found is nothing new to another', () => {
    const two = (squad: boolean) =>
      yard(STAND, (document) => {
        const { agents } = document.grounds.corner;
        agents.keeper2 = { archetype: 'keeper', at: [2, 7] };
        agents.sleeper = { archetype: 'keeper', at: [6, 6], asleep: true };
        if (!squad) return;
        document.squads = { rounds: { title: 'Rounds' } };
        document.archetypes.keeper.squad = 'rounds';
      });
    const bodies = (watched: ReturnType<typeof two>) => {
      watched.run(30);
      return percepts(watched.entries).filter(({ how }) => how === 'body').length;
    };
    expect(bodies(two(true))).toBe(1);
    expect(bodies(two(false))).toBe(2);
  });

  it('follows a thing in flight back to where it was thrown from', () => {
    const { run, keeper, entries, agent } = yard(STAND, (document) => {
      document.archetypes.keeper.hearing = undefined;
      // It sees the thing, not the thrower, who stands in the dark behind a wall's end.
      document.grounds.corner.walls = [{ at: [6, 2], size: [0.3, 4.4], height: 1.5 }];
    });
    run(1, [act('pickUp')]);
    const { x } = agent('gleaner');
    run(60, [act('throw', [3, 5])]);
    const flights = percepts(entries).filter(({ how }) => how === 'flight');
    expect(flights).toHaveLength(1);
    expect(flights[0].x).toBeCloseTo(x, 6);
    expect(keeper.known.percept(3)).not.toBeNull();
  });

  it('sees nothing in the dark', () => {
    const { run, entries } = yard(STAND, (document) => {
      document.grounds.corner.light = 0.02;
      document.grounds.corner.agents.sleeper = { archetype: 'keeper', at: [6, 6], asleep: true };
    });
    run(60);
    expect(percepts(entries).filter(({ sense }) => sense === 'found')).toEqual([]);
  });
});

describe('being told', () => {
  const shouting = (reach?: number) =>
    yard(
      [
        {
          id: 'calm',
          transitions: [
            { to: 'told', when: "told.kind == 'seen'" },
            {
              to: 'shout',
              when: 'attention.strength > 0.5',
              do: [{ do: 'tellSquad', what: 'seen', place: 'attention.of', of: 'attention.of' }],
            },
          ],
        },
        { id: 'shout' },
        { id: 'told', entry: [{ do: 'remember', key: 'spot', value: 'told.place' }] },
      ],
      (document) => {
        document.squads = { rounds: { title: 'Rounds', delay: 0.5, ...(reach ? { reach } : {}) } };
        document.archetypes.keeper.squad = 'rounds';
        document.grounds.corner.agents.far = { archetype: 'keeper', at: [18, 2], heading: 0 };
      },
    );

  it('reaches the squad after its delay, with place and agent', () => {
    const { run, entries, agent } = shouting();
    run(120);
    const shouted = entries.find((entry) => entry.kind === 'transition' && entry.to === 'shout')!;
    const told = entries.find((entry) => entry.kind === 'transition' && entry.to === 'told')!;
    expect(told.agent).toBe('far');
    expect(told.tick - shouted.tick).toBe(30);
    expect(agent('far').known.percept(4)).toMatchObject({ x: agent('gleaner').x, y: 5 });
  });

  it('does not carry beyond the squad’s reach', () => {
    const { run, entries } = shouting(10);
    run(120);
    expect(entries.some((entry) => entry.kind === 'transition' && entry.to === 'told')).toBe(false);
  });
});

describe('attention', () => {
  const attending = (attention: StateDocument['attention']) => {
    const watched = yard([{ id: 'stand', ...(attention ? { attention } : {}) }], (document) => {
      document.archetypes.gleaner.gaits.run = { speed: 4, noise: 30 };
    });
    watched.run(60, [go(-1, 0, 'run')]);
    const { keeper } = watched;
    return keeper.known.attentionSense < 0
      ? ''
      : ['sight', 'harm', 'hearing', 'found', 'told'][keeper.known.attentionSense];
  };

  it('is with sight before hearing, unless the state says otherwise', () => {
    expect(attending(undefined)).toBe('sight');
    expect(attending(['hearing', 'sight'])).toBe('hearing');
    expect(attending(['told', 'found'])).toBe('');
  });

  it('leaves alone those it is neutral towards, though it knows of them', () => {
    const { run, keeper, world } = yard(STAND, (document) => {
      document.factions = { keepers: { toward: { gleaners: 'neutral' } } };
      document.archetypes.keeper.hearing = undefined;
    });
    run(120);
    const gleaner = world.agents.findIndex(({ name }) => name === 'gleaner');
    expect(keeper.known.awareness(gleaner)).toBe(1);
    expect(keeper.known.attentionSense).toBe(-1);
    expect(keeper.known.attentionStrength).toBe(0);
  });

  it('comes as late as the reaction time, for sounds as for sights', () => {
    const late = (reaction: number) => {
      const watched = yard(
        [
          { id: 'calm', transitions: [{ to: 'listen', when: 'known(heard.place)' }] },
          { id: 'listen' },
        ],
        (document) => {
          document.archetypes.keeper.reaction = reaction;
          document.archetypes.keeper.sight = BLIND;
        },
      );
      watched.run(1, [act('pickUp')]);
      watched.run(120, [act('throw', [6, 2])]);
      return watched.entries.find((entry) => entry.kind === 'enter' && entry.state === 'listen')!
        .tick;
    };
    expect(late(0.5) - late(0)).toBe(30);
  });
});

describe('known and true', () => {
  it('only a cheat tells where an unseen agent is', () => {
    const states: StateDocument[] = [
      {
        id: 'calm',
        entry: [{ do: 'remember', key: 'spot', value: 'self.place' }],
        transitions: [
          { to: 'sure', when: 'cheat.distance(attention.of) < 4 || distance(spot) > 1' },
        ],
      },
      { id: 'sure' },
    ];
    const { run, keeper, world } = yard(states);
    run(20);
    const gleaner = world.agents.findIndex(({ name }) => name === 'gleaner');
    const known = keeper.known.x(gleaner);
    world.agents[gleaner].body.x = 1;
    run(30);
    expect(keeper.known.x(gleaner)).toBe(known);
    expect(keeper.around.x(gleaner)).toBe(1);
  });
});
