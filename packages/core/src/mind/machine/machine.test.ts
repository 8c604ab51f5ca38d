import { describe, expect, it } from 'vitest';
import { checkProject } from '../../findings/check-project.ts';
import type { MachineDocument, StateDocument } from '../../model/documents.ts';
import { cornerProject, story, watch } from '../../testing/orchard.fixture.ts';
import { readMind } from '../../world/readout/readout.ts';
import { machine, said, say, talker } from './talkers.fixture.ts';

describe('entering and leaving', () => {
  it('enters outermost first and leaves innermost first', () => {
    const { run, entries } = machine([
      talker('a', {
        initial: 'b',
        states: [talker('b', { initial: 'c', states: [talker('c')] })],
        transitions: [{ to: 'x', after: 1 }],
      }),
      talker('x', { initial: 'y', states: [talker('y')] }),
    ]);
    run(62);
    expect(said(entries)).toBe('+a +b +c -c -b -a +x +y');
  });

  it('leaves two levels and enters three, transition actions between', () => {
    const { run, entries } = machine([
      talker('a', {
        initial: 'b',
        states: [talker('b', { transitions: [{ to: 'z', after: 0.5, do: say('over') }] })],
      }),
      talker('x', {
        initial: 'y',
        states: [talker('y', { initial: 'w', states: [talker('w'), talker('z')] })],
      }),
    ]);
    run(40);
    expect(said(entries)).toBe('+a +b -b -a over +x +y +z');
  });

  it('completes the exit of a state that goes to itself before its entry', () => {
    const { run, entries } = machine([
      talker('a', { transitions: [{ to: 'a', after: 0.5, do: say('again') }] }),
    ]);
    run(32);
    expect(said(entries)).toBe('+a -a again +a');
  });

  it('leaves nothing on a transition without a target', () => {
    const { run, entries } = machine([
      talker('a', {
        entry: [...say('+a'), { do: 'raise', event: 'bell' }],
        transitions: [{ on: 'bell', do: say('ping') }],
      }),
    ]);
    run(20);
    expect(said(entries)).toBe('+a ping');
  });

  it('keeps the source on an internal transition, and leaves it on an external one', () => {
    const states = (internal: boolean) => [
      talker('a', {
        initial: 'b',
        states: [
          talker('b', { entry: [...say('+b'), { do: 'raise', event: 'bell' }] }),
          talker('c'),
        ],
        transitions: [{ to: 'c', on: 'bell', ...(internal ? { internal } : {}) }],
      }),
    ];
    const inner = machine(states(true));
    inner.run(10);
    expect(said(inner.entries)).toBe('+a +b -b +c');
    const outer = machine(states(false));
    outer.run(10);
    expect(said(outer.entries)).toBe('+a +b -b -a +a +c');
  });
});

describe('which transition is taken', () => {
  it('takes the first that holds, in the order written', () => {
    const { run, state } = machine([
      {
        id: 'a',
        transitions: [
          { to: 'b', when: 'time > 0.5' },
          { to: 'c', when: 'time > 0.2' },
          { to: 'd', when: 'time > 0.2' },
        ],
      },
      { id: 'b' },
      { id: 'c' },
      { id: 'd' },
    ]);
    run(20);
    expect(state()).toBe('c');
  });

  it('prefers the state’s own to those around it, but an urgent one of the outside to both', () => {
    const states = (urgent: boolean): StateDocument[] => [
      {
        id: 'a',
        initial: 'b',
        states: [
          { id: 'b', transitions: [{ to: 'inside', when: 'time > 0.1' }] },
          { id: 'inside' },
        ],
        transitions: [{ to: 'outside', when: 'time > 0.1', ...(urgent ? { urgent } : {}) }],
      },
      { id: 'outside' },
    ];
    const calm = machine(states(false));
    calm.run(7);
    expect(story(calm.entries)).toContain('b#1 → inside');
    const hit = machine(states(true));
    hit.run(7);
    expect(story(hit.entries)).not.toContain('b#1 → inside');
    expect(hit.state()).toBe('outside');
  });

  it('goes on through states that are left at once, in one tick', () => {
    const { run, entries, state } = machine([
      talker('a', { transitions: [{ to: 'b', when: 'time > 0.1' }] }),
      talker('b', { transitions: [{ to: 'c', when: 'time > 0.1' }] }),
      talker('c'),
    ]);
    run(7);
    expect(state()).toBe('c');
    const ticks = entries.filter(({ kind }) => kind === 'transition').map((entry) => entry.tick);
    expect(ticks).toEqual([7, 7]);
  });
});

describe('time', () => {
  const held = (seconds: number): StateDocument[] => [
    {
      id: 'a',
      transitions: [{ to: 'b', when: `time >= 0.5 && time < ${0.5 + seconds}`, for: 1.5 }],
    },
    { id: 'b' },
  ];

  it('holds a guard that was true for 1.5 s, not one that was true for a tick less', () => {
    const enough = machine(held(1.5 + 1.5 / 60));
    enough.run(200);
    expect(enough.state()).toBe('b');
    const short = machine(held(1.5 - 0.5 / 60));
    short.run(200);
    expect(short.state()).toBe('a');
  });

  it('counts “for” again after a break', () => {
    const { run, state } = machine([
      { id: 'a', transitions: [{ to: 'b', when: 'time % 1 > 0.1', for: 0.95 }] },
      { id: 'b' },
    ]);
    run(600);
    expect(state()).toBe('a');
  });

  it('fires “after” to the tick', () => {
    const { run, state } = machine([
      { id: 'a', transitions: [{ to: 'b', after: 0.5 }] },
      { id: 'b' },
    ]);
    run(30);
    expect(state()).toBe('a');
    run(1);
    expect(state()).toBe('b');
  });
});

describe('history', () => {
  const rooms = (kind: 'history' | 'deepHistory'): StateDocument[] => [
    {
      id: 'room',
      initial: 'a',
      states: [
        { id: 'a', transitions: [{ to: 'c', after: 0.1 }] },
        { id: 'b', initial: 'c0', states: [{ id: 'c0' }, { id: 'c' }] },
        { id: 'past', kind },
      ],
      transitions: [{ to: 'away', when: 'time > 0.5 && time < 0.52' }],
    },
    { id: 'away', transitions: [{ to: 'past', after: 0.5 }] },
  ];

  it('brings back the child that was active last', () => {
    const { run, state } = machine(rooms('history'));
    run(80);
    expect(state()).toBe('c0');
  });

  it('brings back everything below, if deep', () => {
    const { run, state } = machine(rooms('deepHistory'));
    run(80);
    expect(state()).toBe('c');
  });

  it('enters the state’s first child before there is a past', () => {
    const { run, state } = machine(
      [
        { id: 'away', transitions: [{ to: 'past', after: 0.1 }] },
        {
          id: 'room',
          initial: 'a',
          states: [{ id: 'a' }, { id: 'b' }, { id: 'past', kind: 'history' }],
        },
      ],
      'away',
    );
    run(10);
    expect(state()).toBe('a');
  });
});

describe('activities and done', () => {
  it('tells the state that owns the activity how it ended, and no other', () => {
    const { run, state, entries } = machine([
      {
        id: 'a',
        initial: 'b',
        states: [
          {
            id: 'b',
            activity: { do: 'wait', seconds: 0.5 },
            transitions: [
              { to: 'good', on: 'done.success' },
              { to: 'bad', on: 'done.failure' },
            ],
          },
        ],
        transitions: [{ to: 'bad', on: 'done' }],
      },
      { id: 'good' },
      { id: 'bad' },
    ]);
    run(40);
    expect(state()).toBe('good');
    expect(story(entries)).toEqual([
      'enter a',
      'enter b',
      'begin wait in b',
      'success wait in b',
      'b#1 → good',
      'exit b',
      'exit a',
      'enter good',
    ]);
  });

  it('tells of failure', () => {
    const { run, state } = machine([
      {
        id: 'a',
        activity: { do: 'followRoute', route: 'self.route' },
        transitions: [{ to: 'b', on: 'done.failure' }],
      },
      { id: 'b' },
    ]);
    run(2);
    expect(state()).toBe('b');
  });

  it('stops activities before exit actions, the inner one first, each once', () => {
    const { run, entries } = machine([
      {
        id: 'a',
        initial: 'b',
        activity: { do: 'moveTo', to: 'self.post' },
        exit: say('-a'),
        states: [{ id: 'b', activity: { do: 'wait', seconds: 9 }, exit: say('-b') }],
        transitions: [{ to: 'c', after: 0.5 }],
      },
      { id: 'c' },
    ]);
    run(33);
    const lines = story(entries);
    expect(lines.slice(lines.indexOf('a#1 → c'))).toEqual([
      'a#1 → c',
      'stopped wait in b',
      'say -b',
      'exit b',
      'say -a',
      'exit a',
      'enter c',
    ]);
  });

  it('never starts the activity of a state that is only passed through', () => {
    const { run, entries } = machine([
      { id: 'a', transitions: [{ to: 'b', when: 'time > 0.1' }] },
      {
        id: 'b',
        activity: { do: 'wait', seconds: 1 },
        transitions: [{ to: 'c', when: 'time > 0.1' }],
      },
      { id: 'c' },
    ]);
    run(10);
    expect(story(entries).filter((line) => line.includes('wait'))).toEqual([]);
  });

  it('is done when a final state is entered', () => {
    const { run, state } = machine([
      {
        id: 'a',
        initial: 'b',
        states: [
          { id: 'b', transitions: [{ to: 'end', after: 0.2 }] },
          { id: 'end', kind: 'final' },
        ],
        transitions: [{ to: 'c', on: 'done' }],
      },
      { id: 'c' },
    ]);
    run(14);
    expect(state()).toBe('c');
  });
});

describe('events', () => {
  it('raises an event for the next tick, matched word by word', () => {
    const { run, entries, state } = machine([
      {
        id: 'a',
        entry: [{ do: 'raise', event: 'bell.rung' }],
        transitions: [
          { to: 'no', on: 'bell.rung.twice' },
          { to: 'b', on: 'bell' },
        ],
      },
      { id: 'b' },
      { id: 'no' },
    ]);
    run(1);
    expect(state()).toBe('a');
    run(1);
    expect(state()).toBe('b');
    expect(entries.find(({ kind }) => kind === 'transition')).toMatchObject({
      tick: 2,
      on: 'bell.rung',
    });
  });
});

describe('a history that remembers nothing', () => {
  const house = (states: StateDocument[], kind?: 'parallel'): MachineDocument => ({
    initial: 'out',
    states: [
      { id: 'out', transitions: [{ to: 'past', after: 0.1 }] },
      { id: 'house', ...(kind ? { kind } : { initial: 'a' }), states },
    ],
  });

  it('in a parallel enters all its regions', () => {
    const { run, world } = watch(
      cornerProject({
        machine: house([{ id: 'a' }, { id: 'b' }, { id: 'past', kind: 'history' }], 'parallel'),
      }),
    );
    run(30);
    expect(readMind(world, 'keeper', null)!.active).toEqual(['house', 'a', 'b']);
  });

  it.each<[string, MachineDocument, string]>([
    ['a compound that begins with it', house([{ id: 'a', kind: 'history' }, { id: 'past' }]), 'a'],
    [
      'one that names itself',
      house([{ id: 'a' }, { id: 'past', kind: 'history', initial: 'past' }]),
      'past',
    ],
    [
      'two that name each other',
      house([
        { id: 'a' },
        { id: 'past', kind: 'history', initial: 'other' },
        { id: 'other', kind: 'deepHistory', initial: 'past' },
      ]),
      'past',
    ],
    ['a compound that holds nothing else', house([{ id: 'a', kind: 'history' }]), 'a'],
  ])('is an error in %s, with its place', (_, broken, id) => {
    if (id === 'a') broken.states[0].transitions = [{ to: 'house', after: 0.1 }];
    const { program, findings } = checkProject(cornerProject({ machine: broken }));
    expect(program).toBeNull();
    expect(findings).toContainEqual(
      expect.objectContaining({
        severity: 'error',
        message: expect.stringContaining(`“${id}” begins with itself`),
        path: expect.stringMatching(/states\[1\]\.states\[\d\]\.initial$/),
      }),
    );
  });
});
