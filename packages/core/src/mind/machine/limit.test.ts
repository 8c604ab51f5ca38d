import { describe, expect, it } from 'vitest';
import type { MindDocument, StateDocument } from '../../model/documents.ts';
import { cornerProject, programOf, story, watch } from '../../testing/orchard.fixture.ts';
import { swapProgram } from '../../world/handover/swap.ts';
import { MOST_WAITING_EVENTS } from '../../world/phases/minds.ts';
import { tick } from '../../world/phases/tick.ts';
import { leafState } from '../../world/readout/picture.ts';

function project(states: StateDocument[], cadence?: MindDocument['cadence']) {
  const document = cornerProject({ machine: { initial: states[0].id, states } });
  document.minds.keeper.cadence = cadence;
  return document;
}

/** States `c0`, `c1` … (or another letter) that each lead on at once; the last leads to `last`. */
function chain(length: number, last: StateDocument, letter = 'c'): StateDocument[] {
  const links = Array.from({ length }, (_, i): StateDocument => ({
    id: `${letter}${i}`,
    transitions: [{ to: i === length - 1 ? last.id : `${letter}${i + 1}`, when: 'true' }],
  }));
  return [...links, last];
}

const waits = { activity: { do: 'wait', seconds: 1 } };

describe('a decision of more than 32 steps', () => {
  it('ends, and names the states that went round', () => {
    const { run, entries } = watch(
      project([
        { id: 'a', transitions: [{ to: 'b', when: 'time > 0.1' }] },
        { id: 'b', transitions: [{ to: 'a', when: 'time > 0.1' }] },
      ]),
    );
    run(7);
    expect(entries.filter(({ kind }) => kind === 'transition')).toHaveLength(32);
    expect(story(entries)).toContain('cycle a b');
  });

  it('goes on in the next, and begins nothing in between', () => {
    const states = chain(40, { id: 'z', ...waits });
    Object.assign(states[32], waits);
    const { run, entries, state } = watch(project(states));
    run(1);
    expect(state()).toBe('c32');
    run(1);
    expect(state()).toBe('z');
    expect(story(entries).filter((line) => line.startsWith('begin'))).toEqual(['begin wait in z']);
  });

  it('keeps the ends and the events that wait, in their order', () => {
    const { run, state } = watch(
      project([
        {
          id: 'work',
          entry: [
            { do: 'raise', event: 'bell' },
            { do: 'raise', event: 'gong' },
          ],
          transitions: [{ to: 'c0', on: 'bell' }],
        },
        ...chain(40, {
          id: 'house',
          initial: 'over',
          states: [{ id: 'over', kind: 'final' }],
          transitions: [{ to: 'd0', on: 'done' }],
        }),
        ...chain(40, { id: 'ready', transitions: [{ to: 'home', on: 'gong' }] }, 'd'),
        { id: 'home' },
      ]),
    );
    run(5);
    expect(state()).toBe('home');
  });

  it('keeps an end that another region of a parallel was still to see to', () => {
    const { run, state } = watch(
      project([
        {
          id: 'both',
          kind: 'parallel',
          states: [
            { id: 'long', initial: 'c0', states: chain(40, { id: 'rest' }) },
            {
              id: 'short',
              initial: 'inner',
              states: [
                {
                  id: 'inner',
                  initial: 'over',
                  states: [{ id: 'over', kind: 'final' }],
                  transitions: [{ to: 'seen', on: 'done' }],
                },
                { id: 'seen', transitions: [{ to: 'home', when: 'time > 0.1' }] },
              ],
            },
          ],
        },
        { id: 'home' },
      ]),
    );
    run(10);
    expect(state()).toBe('home');
  });

  it('goes on in the next tick also where the mind waits for events', () => {
    const { run, state } = watch(project(chain(40, { id: 'z' }), { on: 'event' }));
    run(2);
    expect(state()).toBe('z');
  });

  it('goes on with its ends under an edit', () => {
    const both = (rest: StateDocument[]) =>
      project([
        {
          id: 'house',
          initial: 'over',
          states: [{ id: 'over', kind: 'final' }],
          entry: [{ do: 'raise', event: 'bell' }],
          transitions: [
            { to: 'house', when: 'time < 0.02' },
            { to: 'seen', on: 'done' },
          ],
        },
        { id: 'seen' },
        ...rest,
      ]);
    const { world, run } = watch(both([]));
    run(1);
    const after = swapProgram(world, programOf(both([{ id: 'other' }])), 2, 1);
    tick(after);
    const keeper = after.agents.find(({ name }) => name === 'keeper')!;
    expect(keeper.minds[0].program.machine.states[leafState(keeper)].id).toBe('seen');
  });

  it('never lets events multiply: those for which there is no room are dropped, and the ledger tells', () => {
    const twice = [
      { do: 'raise', event: 'bell' },
      { do: 'raise', event: 'bell' },
    ];
    const { run, entries, world } = watch(
      project([{ id: 'a', entry: twice, transitions: [{ to: 'a', on: 'bell' }] }]),
    );
    run(60);
    const perTick = new Map<number, number>();
    for (const { kind, tick: at } of entries)
      if (kind === 'transition') perTick.set(at, (perTick.get(at) ?? 0) + 1);
    expect(Math.max(...perTick.values())).toBe(32);
    expect(story(entries)).toContain('cycle a');
    expect(entries).toContainEqual(expect.objectContaining({ kind: 'dropped', events: 32 }));
    const keeper = world.agents.find(({ name }) => name === 'keeper')!;
    expect(keeper.inboxes[0]).toHaveLength(MOST_WAITING_EVENTS);
  });

  it('is also one of more than 256 transitions: many regions that go round take no more than that', () => {
    const { run, entries } = watch(
      project([
        {
          id: 'all',
          kind: 'parallel',
          states: Array.from({ length: 60 }, (_, i): StateDocument => ({
            id: `r${i}`,
            initial: `a${i}`,
            states: [
              { id: `a${i}`, transitions: [{ to: `b${i}`, when: 'true' }] },
              { id: `b${i}`, transitions: [{ to: `a${i}`, when: 'true' }] },
            ],
          })),
        },
      ]),
    );
    run(3);
    const taken = [1, 2, 3].map(
      (at) => entries.filter((entry) => entry.kind === 'transition' && entry.tick === at).length,
    );
    expect(taken).toEqual([240, 240, 240]);
  });
});
