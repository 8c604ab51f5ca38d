/** What can be noticed of a run while it goes on, with what it means and what usually puts it right: the reference reads this table. */
export const OBSERVATIONS = {
  flicker: {
    title: 'Flickers',
    about:
      'A mind goes back and forth between two states, whose guards meet, or a choice between two options or candidates.',
    remedy:
      'Put a gap between the two numbers, or let one have to hold for a while; give a choice commitment.',
  },
  stuck: {
    title: 'Stuck',
    about: 'A body is on its way and gets no further, or there is no way.',
    remedy: 'Give it another goal, more room, or let what moves it fail after a time.',
  },
  crowding: {
    title: 'Crowding',
    about: 'Several bodies press on each other in one place.',
    remedy: 'Let them surround, keep their distance, or book places.',
  },
  jitter: {
    title: 'Jitters',
    about: 'A body turns back and forth on the spot.',
    remedy: 'Stop farther away from the goal, or give one goal at a time.',
  },
  nearMiss: {
    title: 'Near misses',
    about: 'A move misses its target by the same few centimetres again and again.',
    remedy: 'Give it more reach, or begin it nearer.',
  },
  tie: {
    title: 'Ties',
    about: 'Options of a choice score the same again and again, so the pick is random.',
    remedy: 'Add a consideration in which they differ, or a commitment to what was picked.',
  },
  overwritten: {
    title: 'Taken over',
    about: 'Two parts of a mind move the same part of the body, or two agents write the same key.',
    remedy: 'Give them other channels or other times, or let one of them write.',
  },
  starved: {
    title: 'Starved',
    about:
      'Decisions are due, and none is made, since an action that lets nothing interrupt it runs.',
    remedy: 'Make the action shorter, or interruptible.',
  },
  endless: {
    title: 'Endless steps',
    about:
      'Within one decision states lead on to each other in a circle, or more events come than are read.',
    remedy: 'Put a time or a test in between.',
  },
  notFinite: {
    title: 'Nothing to remember',
    about:
      'Something was to be remembered and was nothing, or a body is nowhere: the key keeps what it had.',
    remedy: 'Look for a division by zero, or a distance to an unknown agent.',
  },
  targetGone: {
    title: 'Target gone',
    about: 'Memory still holds a dead agent.',
    remedy: 'Forget the key when they die, or ask whether they live.',
  },
  repeated: {
    title: 'Fires again and again',
    about:
      'The same is said, raised or done in one decision after another, as by a rule that fires while its test holds.',
    remedy: 'Let it fire on the edge, or give it a cooldown.',
  },
  waiting: {
    title: 'Waits for what does not come',
    about: 'A state can only be left by events, and none of them has come since it was entered.',
    remedy: 'Raise the event, or add a transition after a time.',
  },
  ended: {
    title: 'Stays after its end',
    about:
      'A state stays although its tree or choice has ended or its action has failed, and does nothing since.',
    remedy: 'Add a transition on done, or put what it does into a repeat.',
  },
  oldGoal: {
    title: 'An old goal',
    about: 'A body walks to a place it remembers, while what it attends to is elsewhere.',
    remedy:
      'Write the key again when something is noticed, or add a transition on what is noticed.',
  },
} as const satisfies Record<string, { title: string; about: string; remedy: string }>;

export type ObservationKind = keyof typeof OBSERVATIONS;
