import { describe, expect, it } from 'vitest';
import type { MindDocument, ProjectDocument } from '../model/documents.ts';
import { cornerProject, KEEN_SIGHT, story, watch } from '../testing/orchard.fixture.ts';
import { readMind } from './readout/readout.ts';
import { restoreSnapshot, takeSnapshot, worldHash } from './handover/snapshot.ts';
import { tick } from './phases/tick.ts';
import { createWorld } from './world.ts';

/** Minds among others: memory they share, several on one agent, when they decide, and how late they know. */

const say = (text: string) => [{ do: 'say', text }];

/** Two more keepers, in the squad `west`, with the first. */
function squad(mind: Partial<MindDocument>): ProjectDocument {
  const document = cornerProject({ sight: KEEN_SIGHT });
  Object.assign(document.minds.keeper, mind);
  document.squads = { west: { title: 'West' }, east: { title: 'East' } };
  document.archetypes.keeper.squad = 'west';
  document.grounds.corner.agents = {
    ...document.grounds.corner.agents,
    keeper2: { archetype: 'keeper', at: [2, 8] },
    keeper3: { archetype: 'keeper', at: [2, 2], squad: 'east' },
  };
  return document;
}

const memoryOf = (world: ReturnType<typeof watch>['world'], agent: string) =>
  Object.fromEntries(readMind(world, agent, null)!.memory.map(({ key, value }) => [key, value]));

describe('memory that is shared', () => {
  it('is written when all have decided: no agent is ahead by the order of names', () => {
    const { world, run } = watch(
      squad({
        memory: {
          turns: { type: 'number', scope: 'squad', default: 0 },
          saw: { type: 'number', default: -1 },
        },
        machine: {
          initial: 'a',
          states: [
            {
              id: 'a',
              entry: [
                { do: 'remember', key: 'saw', value: 'turns' },
                { do: 'remember', key: 'turns', value: 'turns + 1' },
              ],
              transitions: [{ to: 'a', after: 0.1 }],
            },
          ],
        },
      }),
    );
    run(1);
    // Both members of the squad read 0 and wrote 1; the other squad has a tally of its own.
    expect(['keeper', 'keeper2', 'keeper3'].map((name) => memoryOf(world, name))).toEqual([
      { saw: '0', turns: '1' },
      { saw: '0', turns: '1' },
      { saw: '0', turns: '1' },
    ]);
    run(6);
    expect(memoryOf(world, 'keeper2')).toEqual({ saw: '1', turns: '2' });
  });

  it('keeps the later of two writes in one tick, and the ledger says so', () => {
    const { world, run, entries } = watch(
      squad({
        memory: { mark: { type: 'number', scope: 'squad' } },
        machine: {
          initial: 'a',
          states: [
            { id: 'a', entry: [{ do: 'remember', key: 'mark', value: 'distance(self.post) + 7' }] },
          ],
        },
      }),
    );
    run(1);
    expect(memoryOf(world, 'keeper').mark).toBe('7');
    expect(entries.filter(({ kind }) => kind === 'overwrote')).toEqual([
      { tick: 1, agent: 'keeper2', kind: 'overwrote', key: 'mark', of: 'keeper' },
    ]);
  });

  it('of the world is everyone’s, forgets by itself, and survives a snapshot', () => {
    const { world, run, entries } = watch(
      squad({
        memory: {
          bell: { type: 'flag', scope: 'world', forgetAfter: 0.2 },
          seen: { type: 'list of point', scope: 'world', capacity: 2 },
        },
        machine: {
          initial: 'a',
          states: [
            {
              id: 'a',
              entry: [
                { do: 'remember', key: 'bell', value: 'true' },
                { do: 'add', key: 'seen', value: 'self.place' },
              ],
            },
          ],
        },
      }),
    );
    run(1);
    expect(memoryOf(world, 'keeper3')).toEqual({ bell: 'true', seen: '2 of 2, last (2, 2)' });
    const other = createWorld(world.statics.program, 1);
    restoreSnapshot(other, structuredClone(takeSnapshot(world)));
    expect(memoryOf(other, 'keeper')).toEqual(memoryOf(world, 'keeper'));
    run(20);
    expect(memoryOf(world, 'keeper').bell).toBe('false');
    expect(entries.filter(({ kind }) => kind === 'forgot')).toMatchObject([
      { agent: '', key: 'bell', of: 'world' },
    ]);
    for (let i = 0; i < 20; i++) tick(other);
    expect(worldHash(other)).toBe(worldHash(world));
  });

  it('without a squad is the agent’s alone', () => {
    const document = squad({
      memory: { tally: { type: 'number', scope: 'squad', default: 0 } },
      machine: {
        initial: 'a',
        states: [{ id: 'a', entry: [{ do: 'remember', key: 'tally', value: 'tally + 1' }] }],
      },
    });
    delete document.archetypes.keeper.squad;
    const { world, run } = watch(document);
    run(2);
    expect(memoryOf(world, 'keeper').tally).toBe('1');
    expect(memoryOf(world, 'keeper2').tally).toBe('1');
  });
});

describe('lists', () => {
  it('drop their oldest entry when full, and answer for what they hold', () => {
    const document = cornerProject({
      memory: {
        marks: { type: 'list of number', capacity: 3 },
        places: { type: 'list of point' },
        sum: { type: 'number', default: 0 },
      },
      machine: {
        initial: 'a',
        states: [
          {
            id: 'a',
            entry: [
              ...[1, 2, 3, 4].map((value) => ({ do: 'add', key: 'marks', value: `${value}` })),
              { do: 'add', key: 'places', value: 'self.post' },
              { do: 'add', key: 'places', value: 'attention.place' },
            ],
            transitions: [
              {
                to: 'good',
                when: 'count(marks) == 3 && !has(marks, 1) && has(marks, 4) && last(marks) == 4 && count(places) == 1 && distance(nearest(places)) == 0 && distance(last(places)) < 0.1 && distance(nearest(places, self.place)) == 0',
              },
            ],
          },
          { id: 'good', entry: [{ do: 'forget', key: 'marks' }] },
        ],
      },
    });
    const { run, state, memory } = watch(document);
    run(2);
    expect(state()).toBe('good');
    expect(memory()).toMatchObject({ marks: 'empty', places: '1 of 16, last (2, 5)' });
  });
});

describe('several minds on one agent', () => {
  /** The keeper walks by one mind and talks by another; both know its quarry. */
  const both = () => {
    const document = cornerProject({ sight: KEEN_SIGHT });
    const memory = { quarry: { type: 'agent' as const } };
    document.minds.keeper = {
      title: 'Walks',
      memory,
      channels: ['legs'],
      machine: {
        initial: 'stand',
        states: [
          {
            id: 'stand',
            transitions: [
              {
                to: 'go',
                when: 'attention.strength > 0.5',
                do: [{ do: 'remember', key: 'quarry', value: 'attention.of' }],
              },
            ],
          },
          { id: 'go', activity: { do: 'moveTo', to: 'quarry', within: 1 } },
        ],
      },
    };
    document.minds.mouth = {
      title: 'Talks',
      memory,
      channels: ['voice'],
      machine: {
        initial: 'mute',
        states: [
          { id: 'mute', transitions: [{ to: 'loud', when: 'known(quarry)' }] },
          { id: 'loud', entry: say('You there!') },
        ],
      },
    };
    document.archetypes.keeper.minds = ['mouth'];
    return document;
  };

  it('decide in the order of the archetype, over one memory of their own', () => {
    const { run, entries } = watch(both());
    run(60);
    const when = (words: (entry: (typeof entries)[number]) => boolean) => entries.find(words)!.tick;
    const wrote = when(({ kind }) => kind === 'memory');
    // The second mind reads in the same tick what the first has written.
    expect(when((entry) => entry.kind === 'say')).toBe(wrote);
    expect(entries.find((entry) => entry.kind === 'enter' && entry.state === 'mute')).toMatchObject(
      {
        mind: 'mouth',
      },
    );
    expect(
      entries.find((entry) => entry.kind === 'enter' && entry.state === 'go'),
    ).not.toHaveProperty('mind');
  });

  it('come back from a snapshot together', () => {
    const { world, run } = watch(both());
    run(40);
    const other = createWorld(world.statics.program, 1);
    restoreSnapshot(other, structuredClone(takeSnapshot(world)));
    for (let i = 0; i < 60; i++) {
      tick(world);
      tick(other);
    }
    expect(worldHash(other)).toBe(worldHash(world));
  });
});

describe('cadence', () => {
  const clock = (cadence: MindDocument['cadence']): ProjectDocument => {
    const document = squad({
      cadence,
      machine: {
        initial: 'a',
        states: [
          { id: 'a', entry: say('a'), transitions: [{ to: 'b', when: 'true' }] },
          { id: 'b', entry: say('b'), transitions: [{ to: 'a', when: 'time > 0' }] },
        ],
      },
    });
    return document;
  };

  it('at an interval: each agent at its own times, so that not all think at once', () => {
    const { run, entries } = watch(clock({ every: 0.1 }));
    run(61);
    const ticks = (agent: string) => [
      ...new Set(
        entries
          .filter((entry) => entry.agent === agent && entry.kind === 'say')
          .map(({ tick: at }) => at),
      ),
    ];
    const all = ['keeper', 'keeper2', 'keeper3'].map(ticks);
    for (const list of all) {
      expect(list.length).toBeGreaterThanOrEqual(10);
      list.forEach((at, i) => expect(i === 0 ? 6 : at - list[i - 1]).toBe(6));
    }
    expect(new Set(all.map(([first]) => first)).size).toBeGreaterThan(1);
  });

  it('a late interval mind still counts “for” and “after” in time, not in decisions', () => {
    const document = cornerProject({
      machine: {
        initial: 'a',
        states: [
          { id: 'a', transitions: [{ to: 'b', when: 'time > 0.5', for: 0.5 }] },
          { id: 'b', transitions: [{ to: 'c', after: 0.5 }] },
          { id: 'c' },
        ],
      },
    });
    document.minds.keeper.cadence = { every: 0.25 };
    const { run, entries } = watch(document);
    run(200);
    const [held, after] = entries
      .filter(({ kind }) => kind === 'transition')
      .map(({ tick: at }) => at);
    // Never early, and at most one interval late for seeing the guard and one for the time.
    expect(held).toBeGreaterThanOrEqual(61);
    expect(held).toBeLessThanOrEqual(61 + 30);
    expect(after - held).toBeGreaterThanOrEqual(30);
    expect(after - held).toBeLessThanOrEqual(45);
  });

  it('on event: decides when an event waits or what it does ends, and at the start', () => {
    const document = cornerProject({
      sight: KEEN_SIGHT,
      machine: {
        initial: 'a',
        states: [
          { id: 'a', transitions: [{ to: 'b', when: 'time > 0.05' }] },
          {
            id: 'b',
            activity: { do: 'wait', seconds: 0.5 },
            transitions: [
              { to: 'c', on: 'done' },
              { to: 'd', when: 'time > 9' },
            ],
          },
          { id: 'c' },
          { id: 'd' },
        ],
      },
    });
    document.minds.keeper.cadence = { on: 'event' };
    const { run, entries } = watch(document);
    run(120);
    const percept = entries.find(({ kind }) => kind === 'percept')!.tick;
    const took = entries.filter(({ kind }) => kind === 'transition');
    // Nothing happens until sight raises an event; then the end of the wait is what ends it.
    expect(took.map(({ tick: at }) => at)).toEqual([percept, percept + 30]);
    expect(took[1]).toMatchObject({ to: 'c' });
  });

  it('skips decisions while an uninterrupted action runs, says so once, and then decides with its result', () => {
    const document = cornerProject({
      machine: {
        initial: 'a',
        states: [
          {
            id: 'a',
            activity: { do: 'wait', seconds: 0.5, uninterrupted: true },
            transitions: [
              { to: 'early', when: 'time > 0.1' },
              { to: 'over', on: 'done' },
            ],
          },
          { id: 'early', entry: say('early') },
          { id: 'over', entry: say('over') },
        ],
      },
    });
    const { run, entries } = watch(document);
    run(40);
    expect(entries.filter(({ kind }) => kind === 'skipped')).toEqual([
      { tick: 2, agent: 'keeper', kind: 'skipped', action: 'wait' },
    ]);
    // The decision after is a whole one, in which guards come before the waiting “done”.
    expect(story(entries).slice(-5)).toEqual([
      'success wait in a',
      'a#1 → early',
      'exit a',
      'enter early',
      'say early',
    ]);
    expect(entries.find(({ kind }) => kind === 'transition')!.tick).toBe(31);
  });
});

describe('reaction time', () => {
  it('brings what the senses hold, and their events, so much later', () => {
    const seen = (reaction: number) => {
      const document = cornerProject({
        sight: KEEN_SIGHT,
        machine: {
          initial: 'a',
          states: [
            {
              id: 'a',
              transitions: [
                { to: 'b', when: 'attention.strength > 0.5' },
                { on: 'sight.certain', do: say('Sure.') },
              ],
            },
            { id: 'b', transitions: [{ on: 'sight.certain', do: say('Sure.') }] },
          ],
        },
      });
      document.archetypes.keeper.reaction = reaction;
      const { run, entries } = watch(document);
      run(120);
      return {
        moved: entries.find(({ kind }) => kind === 'transition')!.tick,
        sure: entries.find(({ kind }) => kind === 'say')!.tick,
        sensed: entries.find((entry) => entry.kind === 'percept' && entry.how === 'certain')!.tick,
      };
    };
    const [quick, slow] = [seen(0), seen(0.25)];
    expect(slow.sensed).toBe(quick.sensed);
    expect(slow.moved - quick.moved).toBe(15);
    expect(slow.sure - quick.sure).toBe(15);
  });
});

describe('luck', () => {
  it('adding an agent changes no other agent’s', () => {
    const document = squad({
      activity: { tree: 'dice' },
      trees: {
        dice: {
          root: {
            random: [
              { do: 'say', text: 'a' },
              { do: 'say', text: 'b' },
            ],
          },
        },
      },
    });
    const heard = (from: ProjectDocument) => {
      const { run, entries } = watch(from);
      run(60);
      return entries
        .flatMap((entry) => (entry.agent === 'keeper2' && entry.kind === 'say' ? [entry.text] : []))
        .join('');
    };
    const before = heard(document);
    expect(before).toMatch(/a.*b/);
    document.grounds.corner.agents.aaron = { archetype: 'keeper', at: [15, 8] };
    expect(heard(document)).toBe(before);
  });
});
