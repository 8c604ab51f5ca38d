/** Every kind of finding, with what it means and what to do: the reference reads this one table. */
export const FINDINGS = {
  form: {
    title: 'Invalid structure',
    about: 'A field is missing, unknown, or holds something of the wrong kind.',
    remedy: 'Change the field at the place that is named; the schema says what it takes.',
  },
  expression: {
    title: 'A wrong expression',
    about:
      'An expression has a syntax error, uses an unknown name, or compares values of different units.',
    remedy: 'Change the underlined part. The message proposes the nearest known name.',
  },
  unknownName: {
    title: 'Unknown name',
    about: 'Something names a state, key, gait, tree or mind that does not exist.',
    remedy: 'Choose an existing one, or add the missing one.',
  },
  taken: {
    title: 'A name that is taken',
    about: 'Two things have one name, or a key has a name of the expression language.',
    remedy: 'Rename one of them; every use of it is renamed too.',
  },
  structure: {
    title: 'Parts that do not fit together',
    about: 'States, rows or calls are combined in a way that can’t run.',
    remedy: 'Move, unwrap or enable the named part.',
  },
  parameter: {
    title: 'A value that does not fit',
    about: 'A parameter is missing, out of range, or has no effect there.',
    remedy: 'Change the value, or remove it.',
  },
  place: {
    title: 'A place that can’t be',
    about: 'Something stands outside the ground, in a wall, or where no agent can reach it.',
    remedy: 'Move it on the ground.',
  },
  unreachable: {
    title: 'Never reached',
    about: 'No transition leads to a state, or an earlier row always keeps a row from running.',
    remedy: 'Add a transition to it, change the order, or remove it.',
  },
  empty: {
    title: 'Nothing inside',
    about: 'A choice has no options to pick from.',
    remedy: 'Add an option, or remove the choice.',
  },
  noWayOut: {
    title: 'Never left',
    about: 'Neither a state nor any state around it has a transition to another.',
    remedy: 'Add a transition, or make it final.',
  },
  neverFires: {
    title: 'Never fires',
    about: 'A transition waits for an event that nothing raises, or for a guard that never holds.',
    remedy:
      'Raise the event, change the guard, or move it before the transition that always comes first.',
  },
  neverWritten: {
    title: 'Read but never written',
    about: 'A memory key is read, but nothing ever writes it.',
    remedy: 'Write it with “remember”, or give it a default.',
  },
  coupled: {
    title: 'Numbers that disagree',
    about:
      'Two numbers that depend on each other do not agree, such as a body that stops farther away than its guard asks for.',
    remedy: 'Change one of them; its remedy proposes which.',
  },
  conflict: {
    title: 'Two want the same',
    about:
      'Two actions use one part of the body at once, or two minds mean different things by one key.',
    remedy: 'Give one of them another channel, or run it at another time.',
  },
  unused: {
    title: 'Of no use',
    about: 'A key, tree, set of rules, mind or event that nothing uses.',
    remedy: 'Use it, or remove it.',
  },
  noChildren: {
    title: 'Nothing inside',
    about: 'A row that runs other rows has none.',
    remedy: 'Add rows to it, or remove it.',
  },
  learnsAlways: {
    title: 'Learns without end',
    about: 'A route gains a waypoint in every decision.',
    remedy: 'Add the waypoint once: with a condition that has just come true, a limit or a guard.',
  },
  endless: {
    title: 'Goes on without end',
    about: 'States transition in a loop within one decision, or a repeat never ends within it.',
    remedy: 'Add a duration or a condition in between.',
  },
  bands: {
    title: 'Bands that do not fit together',
    about:
      'Two bands of a number leave a gap where neither holds, or one band is never the largest.',
    remedy: 'Let them overlap where they meet, or remove the one that never counts.',
  },
  tiers: {
    title: 'Harder where it should be easier',
    about:
      'A number is harder in an earlier tier than in a later one, such as a reaction time, a wind-up or damage.',
    remedy: 'Change one of the two, or the order of the tiers.',
  },
  tooMany: {
    title: 'Too many candidates',
    about:
      'An option is scored for the 64 nearest candidates. Here there can be more; the rest are ignored.',
    remedy: 'Score it for fewer: a shorter list, or another stance.',
  },
  cheats: {
    title: 'Knows what it can’t perceive',
    about:
      'A mind reads the true state of the world through `cheat.` instead of what it perceives.',
    remedy: 'Read what the agent perceives, or keep it if it is intended.',
  },
  returnsAtOnce: {
    title: 'Comes again at once',
    about: 'A wave comes again without a delay: a killed agent is replaced in the same tick.',
    remedy: 'Give the wave a delay.',
  },
  guardTooShort: {
    title: 'A guard at the wrong time',
    about: 'A guard has ended, or has not started, when the move it answers can land.',
    remedy: 'Start it later or earlier, hold it longer, or raise it faster.',
  },
  outOfReach: {
    title: 'Never in reach',
    about:
      'A mind keeps its agent farther from its target than its moves reach, or a move passes over all it could hit.',
    remedy: 'Let it go nearer, or give one of its moves a longer reach; begin the move lower.',
  },
  neverReady: {
    title: 'A move that is not ready yet',
    about: 'A mind uses a move again before its cooldown can be over.',
    remedy: 'Wait longer between the two uses, or shorten the cooldown.',
  },
  wideSpread: {
    title: 'Shots that go anywhere',
    about: 'A spread is so wide that few shots hit at half of the reach.',
    remedy: 'Narrow the spread, or shorten the reach.',
  },
  shortBurst: {
    title: 'A burst longer than its move',
    about: 'Shots of a burst would leave after the active part of the move; they never do.',
    remedy: 'Make the move active for longer, or shorten the gap.',
  },
  noHarm: {
    title: 'Enemies that can’t hurt each other',
    about: 'Two enemies have no move that damages the other.',
    remedy: 'Give one a move that damages at the height of the other, or give the other health.',
  },
  cannotWork: {
    title: 'Can’t work',
    about: 'The file is valid, but something in it can’t work: no agent can notice another.',
    remedy: 'Change the named part, such as a sense, a noise or a faction.',
  },
} as const satisfies Record<string, { title: string; about: string; remedy: string }>;

export type FindingCode = keyof typeof FINDINGS;
