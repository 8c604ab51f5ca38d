import { describe, expect, it } from 'vitest';
import { checkDocument } from '../../findings/check-project.ts';
import type { ProjectDocument } from '../../model/documents.ts';
import { serialiseProject } from '../../model/file/serialise.ts';
import { cornerProject } from '../../testing/orchard.fixture.ts';
import { applyCommand } from '../apply-command.ts';
import { CommandError, type DocumentCommand, type MindPart } from '../commands/commands.ts';
import { eventsFor, mentionsOf, mindsSharingKey } from './mentions.ts';

function project(): ProjectDocument {
  const document = cornerProject({
    memory: { quarry: { type: 'agent' }, seen: { type: 'list of point' } },
    machine: {
      initial: 'watch',
      states: [
        {
          id: 'watch',
          entry: [{ do: 'remember', key: 'quarry', value: 'attention.of' }],
          activity: { tree: 'duty', with: { far: 'distance(quarry)' } },
          transitions: [
            { to: 'room', when: "known(quarry) && 'quarry' == 'quarry'", do: [{ do: 'stop' }] },
            { to: 'inner', after: 3, do: [{ do: 'raise', event: 'tired' }] },
          ],
        },
        {
          id: 'room',
          initial: 'inner',
          states: [{ id: 'inner', transitions: [{ to: 'watch', after: 1 }] }],
        },
      ],
    },
  });
  const { keeper } = document.minds;
  keeper.trees = {
    duty: {
      parameters: { far: 'number' },
      root: {
        sequence: [
          { do: 'add', key: 'seen', value: 'lastSeen(quarry)', when: 'far > 1' } as never,
          { rules: 'habits' },
        ],
      },
    },
    // Its parameter hides the key.
    other: { parameters: { quarry: 'agent' }, root: { condition: 'known(quarry)' } },
  };
  keeper.rules = { habits: { rows: [{ when: 'count(seen) > 2', do: [{ do: 'stop' }] }] } };
  return document;
}

const document = project();
const apply = (command: DocumentCommand, to: ProjectDocument = document) =>
  applyCommand(to, command);
const rename = (part: MindPart, name: string, to: string, of: ProjectDocument = document) =>
  apply({ command: 'renameInMind', mind: 'keeper', part, name, to }, of);
const text = (of: ProjectDocument) => serialiseProject(of);

describe('renaming', () => {
  it('reaches breakpoints of agents with the mind, and of all where no other mind has that name', () => {
    const stopped = project();
    stopped.minds.other = {
      title: 'Other',
      machine: { initial: 'inner', states: [{ id: 'inner' }, { id: 'room' }] },
    };
    stopped.breakpoints = {
      b0: { on: 'enter', of: 'watch' },
      b1: { on: 'transition', of: 'watch:2', agent: 'keeper' },
      b2: { on: 'exit', of: 'room', agent: 'keeper' },
      b3: { on: 'exit', of: 'room' },
      b4: { on: 'memory', of: 'quarry:gleaner' },
      b5: { on: 'condition', when: 'known(quarry)' },
      b6: { on: 'percept', of: 'watch' },
    };
    const of = (after: ProjectDocument) =>
      Object.values(after.breakpoints!).map((each) => each.of ?? each.when);
    expect(of(rename('states', 'watch', 'guard', stopped))).toEqual([
      'guard',
      'guard:2',
      'room',
      'room',
      'quarry:gleaner',
      'known(quarry)',
      'watch',
    ]);
    // Another mind has a room too: what is of all agents stays.
    expect(of(rename('states', 'room', 'hall', stopped)).slice(2, 4)).toEqual(['hall', 'room']);
    expect(of(rename('memory', 'quarry', 'prey', stopped)).slice(4, 6)).toEqual([
      'prey:gleaner',
      'known(prey)',
    ]);
  });

  it('reaches a key in expressions, actions and arguments, and nothing that only looks like it', () => {
    const { keeper } = rename('memory', 'quarry', 'prey').minds;
    expect(keeper.memory).toHaveProperty('prey');
    const [watch] = keeper.machine!.states;
    expect(watch.entry![0]).toMatchObject({ key: 'prey' });
    expect(watch.activity).toEqual({ tree: 'duty', with: { far: 'distance(prey)' } });
    expect(watch.transitions![0].when).toBe("known(prey) && 'quarry' == 'quarry'");
    expect(JSON.stringify(keeper.trees!.duty)).toContain('lastSeen(prey)');
    expect(keeper.trees!.other.root).toEqual({ condition: 'known(quarry)' });
  });

  it.each<[MindPart, string, string]>([
    ['memory', 'seen', 'places'],
    ['states', 'inner', 'deep'],
    ['states', 'watch', 'stand'],
    ['trees', 'duty', 'work'],
    ['rules', 'habits', 'ways'],
  ])('of %s is taken back by renaming %s the other way', (part, name, to) => {
    const there = rename(part, name, to);
    expect(text(there)).not.toBe(text(document));
    expect(text(rename(part, to, name, there))).toBe(text(document));
    const errors = checkDocument(there).findings.filter(({ severity }) => severity === 'error');
    expect(errors).toEqual([]);
  });

  it('reaches a parameter in its tree and at the calls', () => {
    const command = { command: 'renameParameter', mind: 'keeper', tree: 'duty' } as const;
    const { keeper } = apply({ ...command, name: 'far', to: 'range' }).minds;
    expect(keeper.trees!.duty.parameters).toEqual({ range: 'number' });
    expect(JSON.stringify(keeper.trees!.duty.root)).toContain('range > 1');
    expect(keeper.machine!.states[0].activity).toEqual({
      tree: 'duty',
      with: { range: 'distance(quarry)' },
    });
    expect(() => apply({ ...command, name: 'far', to: 'quarry' })).toThrow(/would hide/);
  });

  it('of a mind reaches archetypes and what agents have of their own', () => {
    const own = project();
    const [agent] = Object.values(
      own.grounds.corner?.agents ?? own.grounds[own.start.ground].agents,
    );
    agent.overrides = { mind: 'keeper' };
    const renamed = apply({ command: 'rename', part: 'minds', name: 'keeper', to: 'guard' }, own);
    expect(text(renamed)).not.toMatch(/"minds?": "keeper"/);
    expect(
      text(apply({ command: 'rename', part: 'minds', name: 'guard', to: 'keeper' }, renamed)),
    ).toBe(text(own));
  });

  it('keeps what several minds share one key, in all of them and in what squads score', () => {
    const shared = project();
    const memory = { alarm: { type: 'flag' as const, scope: 'squad' as const } };
    shared.minds.keeper.memory = { ...shared.minds.keeper.memory, ...memory };
    shared.minds.helper = {
      title: 'Helper',
      memory,
      rules: { call: { rows: [{ when: 'alarm', do: [{ do: 'stop' }] }] } },
      activity: { rules: 'call' },
    };
    // Another's own key of the same name is another key.
    shared.minds.loner = { ...shared.minds.helper, memory: { alarm: { type: 'flag' } } };
    shared.squads = { night: { roles: [{ role: 'caller', score: 'alarm ? 1 : 0' }] } } as never;
    expect(mindsSharingKey(shared, 'keeper', 'alarm')).toEqual(['helper', 'keeper']);
    const renamed = rename('memory', 'alarm', 'warned', shared);
    expect(renamed.minds.helper.rules!.call.rows[0].when).toBe('warned');
    expect(renamed.minds.loner).toEqual(shared.minds.loner);
    expect(renamed.squads!.night.roles![0].score).toBe('warned ? 1 : 0');
  });

  it.each<[DocumentCommand, RegExp]>([
    [
      { command: 'renameInMind', mind: 'keeper', part: 'memory', name: 'quarry', to: 'seen' },
      /already/,
    ],
    [
      { command: 'renameInMind', mind: 'keeper', part: 'memory', name: 'quarry', to: 'far' },
      /hide/,
    ],
    [
      { command: 'renameInMind', mind: 'keeper', part: 'states', name: 'nobody', to: 'x' },
      /no state/,
    ],
    [
      { command: 'renameInMind', mind: 'keeper', part: 'trees', name: 'duty', to: 'Big' },
      /usable name/,
    ],
    [
      { command: 'renameInMind', mind: 'nobody', part: 'trees', name: 'duty', to: 'big' },
      /no tree/,
    ],
    [{ command: 'rename', part: 'minds', name: 'nobody', to: 'x' }, /no mind/],
  ])('is refused in words: %j', (command, words) => {
    expect(() => apply(command)).toThrow(CommandError);
    expect(() => apply(command)).toThrow(words);
  });
});

describe('who uses what', () => {
  it('tells reading from writing, with the place in the text', () => {
    const mentions = mentionsOf(document, 'keeper', 'memory', 'quarry');
    expect(mentions.map(({ how, at }) => [how, at?.[0]])).toEqual([
      ['writes', undefined],
      ['reads', 9],
      ['reads', 6],
      ['reads', 9],
    ]);
    expect(
      mentionsOf(document, 'keeper', 'states', 'inner').map(({ path }) => path.at(-1)),
    ).toEqual(['to', 'initial']);
    expect(mentionsOf(document, 'keeper', 'trees', 'other')).toEqual([]);
  });

  it('knows what is raised, by whom or by the world, each event once', () => {
    const noisy = project();
    noisy.minds.helper = {
      title: 'Helper',
      rules: {
        shout: { rows: [{ when: 'time > 1', do: [{ do: 'makeNoise', kind: 'horn', reach: 9 }] }] },
      },
      activity: { rules: 'shout' },
    };
    const events = eventsFor(noisy, 'keeper');
    expect(events).toContainEqual({ event: 'tired', about: 'raised by Keeper' });
    expect(events).toContainEqual({ event: 'hearing.horn', about: 'raised by Helper' });
    // What another raises for itself is no event here.
    expect(eventsFor(noisy, 'helper').map(({ event }) => event)).not.toContain('tired');
    const names = events.map(({ event }) => event);
    expect(names).toEqual([...new Set(names)]);
    for (const event of ['done', 'done.failure', 'stuck', 'sight', 'sight.certain', 'found.body'])
      expect(names).toContain(event);
  });
});
