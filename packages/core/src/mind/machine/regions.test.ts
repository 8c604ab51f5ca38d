import { describe, expect, it } from 'vitest';
import type { StateDocument, TransitionDocument } from '../../model/documents.ts';
import { story } from '../../testing/orchard.fixture.ts';
import { readMind } from '../../world/readout/readout.ts';
import { machine, said, say, talker } from './talkers.fixture.ts';

describe('parallel states', () => {
  const regions = (): StateDocument =>
    talker('both', {
      kind: 'parallel',
      states: [
        talker('p', {
          initial: 'p1',
          states: [talker('p1', { transitions: [{ to: 'p2', after: 0.2 }] }), talker('p2')],
        }),
        talker('q', { initial: 'q1', states: [talker('q1'), talker('q2')] }),
      ],
    });

  it('enters all regions and moves in each by itself', () => {
    const { run, entries } = machine([regions()]);
    run(15);
    expect(said(entries)).toBe('+both +p +p1 +q +q1 -p1 +p2');
  });

  it('leaves all regions when one of them leaves the parent', () => {
    const both = regions();
    both.states![1].states![0].transitions = [{ to: 'out', after: 0.5 }];
    const { run, entries } = machine([both, talker('out')]);
    run(40);
    expect(said(entries)).toBe('+both +p +p1 +q +q1 -p1 +p2 -q1 -q -p2 -p -both +out');
  });

  it('is done when all its regions are', () => {
    const both = regions();
    both.states![0].states![1].kind = 'final';
    delete both.states![0].states![1].exit;
    both.states![1].states![0].transitions = [{ to: 'q2', after: 0.5 }];
    both.states![1].states![1].kind = 'final';
    both.transitions = [{ to: 'out', on: 'done' }];
    const { run, state, entries } = machine([both, talker('out')]);
    run(20);
    expect(story(entries)).not.toContain('enter out');
    run(20);
    expect(state()).toBe('out');
  });
});

describe('regions that want different things at once', () => {
  /** One region has `one`, the other `other`, on the same event; what is around has `around`. */
  const both = (
    one: TransitionDocument[],
    other: TransitionDocument[],
    around: TransitionDocument[] = [],
  ) => {
    const { run, entries, world } = machine([
      talker('both', {
        kind: 'parallel',
        entry: [...say('+both'), { do: 'raise', event: 'bell' }],
        transitions: around,
        states: [
          talker('p', {
            initial: 'p1',
            states: [talker('p1', { transitions: one }), talker('p2')],
          }),
          talker('q', {
            initial: 'q1',
            states: [talker('q1', { transitions: other }), talker('q2')],
          }),
        ],
      }),
      talker('out'),
      talker('away'),
    ]);
    run(1);
    entries.length = 0;
    run(3);
    return { said: said(entries), active: readMind(world, 'keeper', null)!.active };
  };
  const bell = (more: Partial<TransitionDocument>): TransitionDocument => ({ on: 'bell', ...more });

  it('both move where neither leaves what the other is in, in the order of the regions', () => {
    const { said: words, active } = both(
      [bell({ to: 'p2', do: say('one') })],
      [bell({ to: 'q2', do: say('other') })],
    );
    expect(words).toBe('-q1 -p1 one other +p2 +q2');
    expect(active).toEqual(['both', 'p', 'p2', 'q', 'q2']);
  });

  it('the earlier goes where one leaves them all and the other does not', () => {
    expect(both([bell({ to: 'out' })], [bell({ to: 'q2' })]).active).toEqual(['out']);
    expect(both([bell({ to: 'p2' })], [bell({ to: 'out' })]).active).toEqual([
      'both',
      'p',
      'p2',
      'q',
      'q1',
    ]);
  });

  it('the earlier goes where both leave them all', () => {
    expect(both([bell({ to: 'out' })], [bell({ to: 'away' })]).active).toEqual(['out']);
  });

  it('what is from further inside goes before what is around, whichever region has it', () => {
    const out = [bell({ to: 'out' })];
    const moved = ['both', 'p', 'p1', 'q', 'q2'];
    expect(both([], [bell({ to: 'q2' })], out).active).toEqual(moved);
    expect(both([bell({ to: 'p2' })], [], out).active).toEqual(['both', 'p', 'p2', 'q', 'q1']);
    expect(both([bell({ to: 'p2' })], [bell({ to: 'q2' })], out).active).toEqual([
      'both',
      'p',
      'p2',
      'q',
      'q2',
    ]);
  });

  it('what is around goes once, where no region has anything', () => {
    const { said: words, active } = both([], [], [bell({ to: 'out', do: say('gone') })]);
    expect(words).toBe('-q1 -q -p1 -p -both gone +out');
    expect(active).toEqual(['out']);
  });

  it('what is around goes before what is inside, where it is urgent', () => {
    const out = [bell({ to: 'out', urgent: true })];
    expect(both([bell({ to: 'p2' })], [bell({ to: 'q2' })], out).active).toEqual(['out']);
  });

  it('one that leads nowhere takes nothing from another', () => {
    const { said: words, active } = both([bell({ do: say('hm') })], [bell({ to: 'out' })]);
    expect(words).toBe('-q1 -q -p1 -p -both hm +out');
    expect(active).toEqual(['out']);
    expect(both([bell({ to: 'out' })], [bell({ do: say('hm') })]).active).toEqual(['out']);
  });

  it('one into another region leaves both, and enters that one there', () => {
    const { active } = both([bell({ to: 'q2' })], []);
    expect(active).toEqual(['both', 'p', 'p1', 'q', 'q2']);
  });
});
