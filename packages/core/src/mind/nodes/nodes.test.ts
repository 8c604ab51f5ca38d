import { because } from '../../terms/reasons.ts';
import { describe, expect, it } from 'vitest';
import type { MindDocument, NodeDocument } from '../../model/documents.ts';
import { cornerProject, KEEN_SIGHT, story, watch } from '../../testing/orchard.fixture.ts';

/** What trees do, told by what their actions say and by the ledger. */

const say = (text: string) => ({ do: 'say', text });
const wait = (seconds: number) => ({ do: 'wait', seconds });
const flag = (name: string): NodeDocument => ({ condition: name });

/** A keeper that is in state `act` with this tree, and goes to `good` or `bad` by how it ends. */
function growing(root: NodeDocument, rest: Partial<MindDocument> = {}, seed?: number) {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    memory: {
      bell: { type: 'flag' },
      tally: { type: 'number', default: 0 },
    },
    machine: {
      initial: 'act',
      states: [
        {
          id: 'act',
          activity: { tree: 'root' },
          transitions: [
            { to: 'good', on: 'done.success' },
            { to: 'bad', on: 'done.failure' },
          ],
        },
        { id: 'good' },
        { id: 'bad' },
      ],
    },
  });
  Object.assign(document.minds.keeper, rest);
  document.minds.keeper.trees = { root: { root }, ...rest.trees };
  return watch(document, seed);
}

function said(entries: Parameters<typeof story>[0]): string {
  return story(entries)
    .filter((line) => line.startsWith('say '))
    .map((line) => line.slice(4))
    .join(' ');
}

/** Runs for a while and gives the state it ends in, and what was said. */
function outcome(root: NodeDocument, ticks = 30): string {
  const { run, state, entries } = growing(root);
  run(ticks);
  return `${said(entries)} ${state()}`.trim();
}

describe('nodes whose result is there at once', () => {
  const yes = flag('true');
  const no = flag('false');
  it.each<[string, NodeDocument, string]>([
    [
      'a sequence goes on while its children succeed',
      { sequence: [say('a'), say('b')] },
      'a b good',
    ],
    ['a sequence fails with its first failure', { sequence: [say('a'), no, say('b')] }, 'a bad'],
    ['a selector stops at its first success', { selector: [no, say('a'), say('b')] }, 'a good'],
    ['a selector fails when all have', { selector: [no, no] }, 'bad'],
    ['invert', { invert: no }, 'good'],
    ['succeed', { succeed: no }, 'good'],
    ['fail', { fail: yes }, 'bad'],
    ['a guard that does not hold fails its node', { ...say('a'), when: 'false' }, 'bad'],
    ['a guard that holds lets it start', { ...say('a'), when: 'true' }, 'a good'],
    ['parallel needs all by default', { parallel: [yes, say('a'), yes] }, 'a good'],
    ['parallel fails with one by default', { parallel: [yes, no, say('a')] }, 'a bad'],
    ['parallel with one success to go', { parallel: [no, yes], successes: 1, failures: 2 }, 'good'],
    [
      'parallel when all are over and it is not decided',
      { parallel: [no, yes], successes: 2, failures: 2 },
      'bad',
    ],
    ['repeat a number of times', { repeat: say('a'), times: 3 }, 'a a a good'],
    ['repeat until failure', { repeat: { sequence: [say('a'), no] }, until: 'failure' }, 'a good'],
    ['repeat until what never comes', { repeat: say('a'), times: 2, until: 'failure' }, 'a a bad'],
    ['chance 0', { chance: say('a'), probability: 0 }, 'bad'],
    ['chance 1', { chance: say('a'), probability: 1 }, 'a good'],
    [
      'random with one weight above 0',
      {
        random: [
          { ...say('a'), weight: 0 },
          { ...say('b'), weight: 2 },
        ],
      },
      'b good',
    ],
    ['random with no weight above 0', { random: [{ ...say('a'), weight: 0 }] }, 'bad'],
    ['random with a weight that is missing', { random: [{ ...say('a'), weight: '1 / 0' }] }, 'bad'],
    ['a timeout whose time is missing', { timeout: say('a'), seconds: '1 / 0' }, 'bad'],
    ['an empty sequence succeeds', { sequence: [] }, 'good'],
    ['an empty selector fails', { selector: [] }, 'bad'],
  ])('%s', (_, root, wanted) => {
    expect(outcome(root)).toBe(wanted);
  });
});

describe('nodes that run on', () => {
  it('a sequence resumes at the child that runs', () => {
    const { run, entries, state } = growing({ sequence: [say('a'), wait(0.2), say('b')] });
    run(12);
    expect(said(entries)).toBe('a');
    run(2);
    expect([said(entries), state()]).toEqual(['a b', 'good']);
  });

  it('a restarting selector looks at the first child again each decision', () => {
    const root = (restart: boolean): NodeDocument => ({
      selector: [{ sequence: [flag('time > 0.1'), say('a')] }, wait(9)],
      ...(restart ? { restart: true } : {}),
    });
    expect(outcome(root(false))).toBe('act');
    const { run, entries, state } = growing(root(true));
    run(20);
    expect(state()).toBe('good');
    expect(story(entries)).toContain('stopped wait in act row 5');
  });

  it('a restarting sequence ends what runs when an earlier child fails', () => {
    const root: NodeDocument = { sequence: [flag('time < 0.1'), wait(9)], restart: true };
    const { run, entries, state } = growing(root);
    run(20);
    expect(state()).toBe('bad');
    expect(story(entries).filter((line) => line.includes('wait'))).toEqual([
      'begin wait in act row 3',
      'stopped wait in act row 3',
    ]);
  });

  it('parallel runs all and stops the rest, the last first', () => {
    const { run, entries, state } = growing({
      parallel: [wait(0.1), wait(5), { do: 'turn', by: 90 }],
      successes: 1,
    });
    run(20);
    expect(state()).toBe('good');
    expect(story(entries).slice(1, 9)).toEqual([
      'begin root in act',
      'begin wait in act row 2',
      'begin wait in act row 3',
      'begin turn in act row 4',
      'success wait in act row 2',
      'stopped turn in act row 4',
      'stopped wait in act row 3',
      'success root in act',
    ]);
  });

  it('a repeat whose child is over at once yields until the next decision', () => {
    const { run, entries } = growing({ repeat: say('a') });
    run(5);
    expect(said(entries)).toBe('a a a a a');
  });

  it('a repeat goes straight on after a round that took time', () => {
    const { run, entries } = growing({ repeat: { sequence: [wait(0.05), say('a')] } });
    run(10);
    const begun = entries.filter(({ kind }) => kind === 'begin').map(({ tick }) => tick);
    expect(begun).toEqual([1, 1, 4, 7, 10]);
  });

  it('a limit counts starts over the whole life, also after the state was left', () => {
    const { run, entries } = growing(
      { limit: say('a'), times: 2 },
      {
        machine: {
          initial: 'act',
          states: [
            { id: 'act', activity: { tree: 'root' }, transitions: [{ to: 'rest', on: 'done' }] },
            { id: 'rest', transitions: [{ to: 'act', after: 0.1 }] },
          ],
        },
      },
    );
    run(60);
    expect(said(entries)).toBe('a a');
  });

  it('a cooldown counts from the end of its child', () => {
    const root: NodeDocument = {
      repeat: { succeed: { cooldown: { sequence: [wait(0.1), say('a')] }, seconds: 0.2 } },
    };
    const { run, entries } = growing(root);
    run(60);
    const ticks = entries.filter(({ kind }) => kind === 'say').map(({ tick }) => tick);
    // 6 ticks of waiting from the first decision, 12 of cooling, then again.
    expect(ticks).toEqual([7, 25, 43]);
  });

  it('a timeout stops what takes too long, and lets pass what ends in time', () => {
    const late = growing({ timeout: wait(1), seconds: 0.5 });
    late.run(30);
    expect(late.state()).toBe('act');
    late.run(1);
    expect(late.state()).toBe('bad');
    expect(story(late.entries)).toContain('stopped wait in act row 2');
    const just = growing({ timeout: wait(0.5), seconds: 0.5 });
    just.run(31);
    expect(just.state()).toBe('good');
  });

  it('a delay waits before its child, and a stop in that time stops nothing', () => {
    const { run, entries } = growing({ delay: say('a'), seconds: 0.2 });
    run(12);
    expect(said(entries)).toBe('');
    run(1);
    expect(said(entries)).toBe('a');
    const cut = growing({ timeout: { delay: wait(1), seconds: 0.5 }, seconds: 0.2 });
    cut.run(20);
    expect(cut.state()).toBe('bad');
    expect(story(cut.entries).filter((line) => line.includes('wait'))).toEqual([]);
  });

  it('stops a running child three deep exactly once, before the state’s exit', () => {
    const { run, entries } = growing(
      { sequence: [{ selector: [{ repeat: { succeed: { do: 'turn', by: 360 } } }] }] },
      {
        machine: {
          initial: 'act',
          states: [
            {
              id: 'act',
              activity: { tree: 'root' },
              exit: [say('leaving')],
              transitions: [{ to: 'out', after: 0.3 }],
            },
            { id: 'out' },
          ],
        },
      },
    );
    run(40);
    const lines = story(entries);
    expect(lines.slice(lines.indexOf('act#1 → out'))).toEqual([
      'act#1 → out',
      'stopped turn in act row 5',
      'stopped root in act',
      'say leaving',
      'exit act',
      'enter out',
    ]);
    expect(lines.filter((line) => line.includes('turn'))).toHaveLength(2);
  });
});

describe('guards', () => {
  const bellRings = (from: number, to: number): string => `time > ${from} && time < ${to}`;

  it('holds: a guard that turns false stops the node, which fails', () => {
    const { run, entries, state } = growing({
      selector: [{ ...wait(9), when: 'time < 0.2', holds: true }, say('over')],
    });
    run(20);
    expect(state()).toBe('good');
    expect(story(entries)).toContain('stopped wait in act row 2');
    expect(said(entries)).toBe('over');
  });

  it('without holds the guard is looked at only before the start', () => {
    expect(outcome({ selector: [{ ...wait(9), when: 'time < 0.2' }, say('over')] })).toBe('act');
  });

  it('preempts: takes over from a later sibling when the guard turns true', () => {
    const { run, entries } = growing({
      selector: [
        { ...wait(9), when: bellRings(0.2, 9), preempts: true },
        { do: 'turn', by: 360 },
      ],
    });
    run(20);
    expect(story(entries).filter((line) => line.includes('row'))).toEqual([
      'begin turn in act row 3',
      'stopped turn in act row 3',
      'begin wait in act row 2',
    ]);
  });

  it('preempts and holds in one: comes and goes with the guard', () => {
    const { run, entries } = growing({
      repeat: {
        selector: [
          { ...wait(9), when: bellRings(0.2, 0.4), preempts: true, holds: true },
          { do: 'turn', by: 360 },
        ],
      },
    });
    run(40);
    expect(story(entries).filter((line) => line.includes('row'))).toEqual([
      'begin turn in act row 4',
      'stopped turn in act row 4',
      'begin wait in act row 3',
      'stopped wait in act row 3',
      'begin turn in act row 4',
    ]);
  });

  it('a preempting child that fails at once does not cut its sibling off while its guard stays true', () => {
    const { run, entries } = growing({
      selector: [
        { sequence: [flag('false')], when: bellRings(0.1, 9), preempts: true },
        { do: 'turn', by: 360 },
      ],
    });
    run(40);
    const turns = story(entries).filter((line) => line.includes('turn'));
    // Cut once, when the guard turned true; not again.
    expect(turns).toEqual([
      'begin turn in act row 4',
      'stopped turn in act row 4',
      'begin turn in act row 4',
    ]);
  });
});

describe('subtrees', () => {
  it('bind their parameters where they are called', () => {
    const { run, entries, memory } = growing(
      {
        sequence: [
          { tree: 'add', with: { by: 2 } },
          { tree: 'add', with: { by: 'tally * 10' } },
        ],
      },
      {
        trees: {
          add: {
            parameters: { by: 'number' },
            root: { do: 'remember', key: 'tally', value: 'tally + by' },
          },
        } as MindDocument['trees'],
      },
    );
    run(2);
    expect(memory().tally).toBe('22');
    expect(said(entries)).toBe('');
  });

  it('read a parameter again each time, as the expression it stands for', () => {
    const { run, state } = growing(
      { tree: 'until', with: { what: 'time > 0.5' } },
      {
        trees: {
          until: {
            parameters: { what: 'flag' },
            root: { repeat: { condition: 'what' }, until: 'success' },
          },
        } as MindDocument['trees'],
      },
    );
    run(30);
    expect(state()).toBe('act');
    run(2);
    expect(state()).toBe('good');
  });
});

describe('a mind that is one tree', () => {
  it('starts again in the decision after its end', () => {
    const document = cornerProject({});
    const { keeper } = document.minds;
    keeper.activity = { tree: 'root' };
    keeper.trees = { root: { root: { sequence: [say('a'), wait(0.05)] } } };
    const { run, entries } = watch(document);
    run(12);
    const ticks = entries.filter(({ kind }) => kind === 'say').map(({ tick }) => tick);
    expect(ticks).toEqual([1, 5, 9]);
  });
});

describe('channels', () => {
  it('an action that takes the legs ends the one that had them, and says so', () => {
    const { run, entries, state } = growing({
      parallel: [
        { do: 'moveTo', to: 'attention.place' },
        { delay: { do: 'moveTo', to: 'self.post', within: 5 }, seconds: 0.5 },
      ],
      successes: 1,
      failures: 2,
    });
    run(90);
    expect(state()).toBe('good');
    const ends = entries.filter((entry) => entry.kind === 'end' && entry.row !== undefined);
    expect(ends).toMatchObject([
      { row: 1, ending: 'failure', reason: because('channelTaken', 'legs') },
      { row: 3, ending: 'success' },
    ]);
  });
});

describe('reasons', () => {
  it('are told of the action that failed, never of one that failed before', () => {
    const { run, entries } = growing({
      sequence: [
        { succeed: { do: 'followRoute', route: 'self.route' } },
        { succeed: { timeout: { do: 'moveTo', to: 'self.post' }, seconds: 0 } },
        flag('false'),
      ],
    });
    run(5);
    const ends = entries.flatMap((entry) =>
      entry.kind === 'end' ? [[entry.action, entry.ending, entry.reason]] : [],
    );
    expect(ends).toEqual([
      ['followRoute', 'failure', because('noRoute')],
      ['moveTo', 'success', undefined],
      ['root', 'failure', undefined],
    ]);
  });
});

it('the reason of an action that takes no time is not taken for that of what fails after it', () => {
  const { run, entries } = growing({
    sequence: [
      { succeed: { do: 'tellSquad', what: 'thief', place: 'self.place' } },
      { succeed: { timeout: { do: 'wait', seconds: 9 }, seconds: 0.01 } },
      flag('false'),
    ],
  });
  run(5);
  const ends = entries.flatMap((entry) =>
    entry.kind === 'end' ? [[entry.action, entry.reason]] : [],
  );
  expect(ends).toEqual([
    ['wait', undefined],
    ['root', undefined],
  ]);
});

describe('chance', () => {
  const lucky: NodeDocument = {
    repeat: {
      random: [
        { ...say('a'), weight: 3 },
        { ...say('b'), weight: 1 },
      ],
    },
  };

  it('draws by weight, the same with the same seed and otherwise with another', () => {
    const heard = (seed: number) => {
      const { run, entries } = growing(lucky, {}, seed);
      run(400);
      return said(entries);
    };
    const words = heard(1).split(' ');
    expect(words).toHaveLength(400);
    // Three in four: within four standard deviations.
    const share = words.filter((word) => word === 'a').length / 400;
    expect(Math.abs(share - 0.75)).toBeLessThan((4 * Math.sqrt(0.75 * 0.25)) / 20);
    expect(heard(1)).toBe(words.join(' '));
    expect(heard(2)).not.toBe(words.join(' '));
  });
});

describe('a parallel that can no longer succeed', () => {
  it('fails at once, and stops what runs', () => {
    const { run, entries } = growing({
      parallel: [
        { fail: { do: 'wait', seconds: 0.05 } },
        { do: 'wait', seconds: 5 },
        { do: 'wait', seconds: 5 },
      ],
      successes: 3,
      failures: 2,
    });
    run(10);
    const ends = entries.flatMap((entry) => (entry.kind === 'end' ? [entry.ending] : []));
    expect(ends).toContain('failure');
    expect(ends.filter((ending) => ending === 'stopped')).toHaveLength(2);
  });
});

describe('what was refused by its own guard has not started', () => {
  const refused = (node: object): NodeDocument =>
    ({ repeat: { selector: [{ ...node }, { do: 'wait', seconds: 0.05 }] } }) as NodeDocument;
  const barred = { ...say('in'), when: 'time > 0.5' };

  it('so it uses up none of a limit', () => {
    const { run, entries } = growing(refused({ limit: barred, times: 1 }));
    run(120);
    expect(said(entries)).toBe('in');
  });

  it('so no cooldown follows it', () => {
    const { run, entries } = growing(refused({ cooldown: barred, seconds: 60 }));
    run(120);
    expect(said(entries)).toBe('in');
  });

  it('so it is no round of a repeat, which tries again in the next decision', () => {
    const { run, entries } = growing({ repeat: barred, times: 2 });
    run(20);
    expect(said(entries)).toBe('');
    expect(entries.some(({ kind }) => kind === 'end')).toBe(false);
    run(40);
    expect(said(entries)).toBe('in in');
  });
});

it('a cooldown whose time is not known fails, as a timeout and a delay do', () => {
  for (const kind of ['cooldown', 'timeout', 'delay']) {
    const { run, entries } = growing({ [kind]: say('in'), seconds: '1 / 0' } as never);
    run(5);
    expect([kind, said(entries)]).toEqual([kind, '']);
  }
});
