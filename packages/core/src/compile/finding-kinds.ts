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
      'An expression can’t be read, names what is not there, or compares what has other units.',
    remedy: 'Change the part that is underlined. The nearest name that is known is proposed.',
  },
  unknownName: {
    title: 'Unknown name',
    about: 'A state, tree, key, gait or mind is named that is not there.',
    remedy: 'Choose one that is there, or declare the one that is named.',
  },
  taken: {
    title: 'A name that is taken',
    about: 'Two things have one name, or a key has a name of the expression language.',
    remedy: 'Give one of them another name; it changes wherever it is used.',
  },
  structure: {
    title: 'Parts that do not go together',
    about: 'States, rows or calls are put together in a way that can’t run.',
    remedy: 'Move, unwrap or switch on what is named.',
  },
  parameter: {
    title: 'A value that does not fit',
    about: 'A parameter is missing, out of its bounds, or of no use where it stands.',
    remedy: 'Change the value, or take it away.',
  },
  place: {
    title: 'A place that can’t be',
    about: 'Something stands outside of the ground, in a wall, or where it can’t be reached.',
    remedy: 'Move it on the ground.',
  },
  unreachable: {
    title: 'Never reached',
    about: 'No way leads to a state, or a row comes after one that never lets it be reached.',
    remedy: 'Lead a transition there, change the order, or take it away.',
  },
  noWayOut: {
    title: 'Never left',
    about: 'A state has no transition to another, nor has any state around it.',
    remedy: 'Add a transition, or make it final.',
  },
  neverFires: {
    title: 'Never fires',
    about:
      'A transition waits for what never comes: an event nothing raises, a test that never holds.',
    remedy: 'Raise the event, change the guard, or put it before the transition that comes first.',
  },
  neverWritten: {
    title: 'Read but never written',
    about: 'A key of memory is read, and nothing ever gives it a value.',
    remedy: 'Remember something under it, or give it a default.',
  },
  coupled: {
    title: 'Numbers that disagree',
    about:
      'Two numbers that belong together do not: a body stops farther away than its guard asks for.',
    remedy: 'Change one of them; a remedy proposes which.',
  },
  conflict: {
    title: 'Two want the same',
    about:
      'Two actions use one part of the body at once, or two minds mean different things by one key.',
    remedy: 'Give one another channel, or another time.',
  },
  unused: {
    title: 'Of no use',
    about: 'A key, tree, set of rules, mind or event that nothing uses.',
    remedy: 'Use it, or take it away.',
  },
  noChildren: {
    title: 'Nothing inside',
    about: 'A row that runs other rows has none.',
    remedy: 'Put rows in, or take it away.',
  },
  learnsAlways: {
    title: 'Learns without end',
    about: 'A route gets a waypoint in each decision.',
    remedy: 'Let it learn once: with an edge, a limit or a guard.',
  },
  endless: {
    title: 'Goes on without end',
    about:
      'States lead on to each other within one decision, or a repeat never lets the decision end.',
    remedy: 'Put a time or a test in between.',
  },
  bands: {
    title: 'Bands that do not fit together',
    about:
      'Between two bands of a number lies a gap where none of them holds, or one of them is never the largest.',
    remedy: 'Let them overlap where they meet, or take away the one that never counts.',
  },
  tiers: {
    title: 'Harder where it should be easier',
    about:
      'A number is harder in an earlier tier than in a later one: a reaction, a wind-up, a damage.',
    remedy: 'Change one of the two, or the order of the tiers.',
  },
  tooMany: {
    title: 'More than are weighed',
    about:
      'An option is weighed for the nearest 64 candidates. Here there can be more; the others are left out.',
    remedy: 'Weigh it for fewer: a shorter list, or another stance.',
  },
  cheats: {
    title: 'Knows what it can’t perceive',
    about: 'A mind asks for what is true, by `cheat.`, and not for what it perceives.',
    remedy: 'Ask for what is perceived, or leave it where it is meant.',
  },
  returnsAtOnce: {
    title: 'Comes again at once',
    about: 'A wave comes again without a delay: a killed agent is replaced in the same tick.',
    remedy: 'Give the wave a delay.',
  },
  guardTooShort: {
    title: 'A guard at the wrong time',
    about: 'A guard is over, or does not cover yet, when the move it answers can land.',
    remedy: 'Begin it later or earlier, hold it longer, or raise it faster.',
  },
  outOfReach: {
    title: 'Never in reach',
    about: 'A mind comes no nearer to those it fights than its moves reach.',
    remedy: 'Let it go nearer, or give one of its moves more reach.',
  },
  neverReady: {
    title: 'A move that is not ready yet',
    about: 'A move is wanted once more before its cooldown can be over.',
    remedy: 'Wait longer between the two, or shorten the cooldown.',
  },
  wideSpread: {
    title: 'Shots that go anywhere',
    about: 'A spread is so wide that hardly a shot meets anybody at half of the reach.',
    remedy: 'Narrow the spread, or shorten the reach.',
  },
  noHarm: {
    title: 'Enemies that can’t hurt each other',
    about: 'Two that fight have no move that takes any health of the other.',
    remedy: 'Give one a move that damages at the height of the other, or give the other health.',
  },
  cannotWork: {
    title: 'Can’t work',
    about: 'The file is valid, but something in it can’t work: no agent can notice another.',
    remedy: 'Change what is named: a sense, a noise, a faction.',
  },
} as const satisfies Record<string, { title: string; about: string; remedy: string }>;

export type FindingCode = keyof typeof FINDINGS;
