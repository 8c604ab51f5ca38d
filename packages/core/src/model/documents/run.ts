import { PLAYER_ACTS } from '../../terms/player-acts.ts';
import {
  EXPRESSION,
  choice,
  described,
  flag,
  list,
  nameOf,
  needed,
  NOTE,
  number,
  part,
  record,
  text,
  TITLE,
  word,
  type TextSchema,
  type TypeOf,
} from '../schema/schema.ts';
import { HEADING, placeSchema, type Name } from './shared.ts';

/** What runs are made from and held against: input, set-ups, tiers, breakpoints and limits of findings. */

export const SEED = number(
  'Seed',
  '',
  [0, Number.MAX_SAFE_INTEGER],
  'where every random draw of a run comes from',
  { whole: true, none: 'as the project says' },
);

/** A direction of the legs along one axis. */
const STEERING = number('Direction', '', [-1, 1], 'of the legs', { usual: 0 });

/** What an agent is made to do from a tick on, until the next for the same agent. */
const input = part({
  tick: needed(number('Tick', 'ticks', [1, 10_000_000], 'in which it is done', { whole: true })),
  agent: needed(nameOf('agents')),
  x: STEERING,
  y: STEERING,
  gait: described(nameOf('gaits'), 'left out: the archetype’s own'),
  act: word(PLAYER_ACTS),
  at: described(placeSchema, 'where a throw, or a thrown move, is aimed at'),
  move: described(nameOf('moves', 'guards'), 'the move or guard of a strike, guard or dodge'),
  place: described(placeSchema, 'puts the body down elsewhere, and does nothing else'),
  control: described(
    word(['player', 'minds']),
    'hands the agent over to the player, or back to its minds',
  ),
});
export type InputDocument = TypeOf<typeof input>;

/** Input that was recorded once and is given again, tick by tick: a scripted player. */
export const playerSchema = part({
  title: needed(TITLE),
  note: NOTE,
  seed: described(
    SEED,
    'the run it was recorded in; the same edit with these gives the same run again',
  ),
  inputs: needed(list(input, 50_000)),
});
export type PlayerDocument = TypeOf<typeof playerSchema>;

/** Another way to begin: who starts where, who is played. What is left out is as on the ground. */
export const setupSchema = part({
  title: needed(TITLE),
  note: NOTE,
  play: nameOf('agents'),
  seed: SEED,
  player: described(nameOf('players'), 'a scripted player that gives the input'),
  agents: record(part({ at: placeSchema, heading: HEADING }), 'agents'),
});
export type SetupDocument = TypeOf<typeof setupSchema>;

/** How a run begins: the ground, who is played by the keyboard, and the seed. */
export const startSchema = part({
  ground: needed(nameOf('grounds')),
  play: nameOf('agents'),
  seed: SEED,
  player: described(nameOf('players'), 'a scripted player that gives the input'),
  tier: described(nameOf('tiers'), 'the tier it begins with; left out: the first'),
});
export type StartDocument = TypeOf<typeof startSchema>;

/** What a number is in a tier. */
export const TIER_CHANGE_FIELDS = {
  value: number('Value', '', [-1_000_000, 1_000_000], 'what it is there', { none: 'a factor' }),
  factor: number('Factor', '', [0, 1000], 'what it is multiplied with there', { none: 'a value' }),
};
const TIER_PATH: TextSchema = { ...text(1, 300), language: 'path' };
/** One number, by its path from the whole document, such as `archetypes.keeper.reaction`: a value, or a factor. */
const tierChange = part({ path: needed(TIER_PATH), ...TIER_CHANGE_FIELDS });
export type TierChangeDocument = TypeOf<typeof tierChange>;

/** A level of difficulty: numbers of the project that differ in it. */
export const tierSchema = part({
  name: needed(nameOf('tiers')),
  title: TITLE,
  note: NOTE,
  changes: list(tierChange, 200),
});
export type TierDocument = TypeOf<typeof tierSchema>;

/** Where a run stops by itself: kinds of what happens, with what each takes as `of`. */
export const BREAKPOINT_KINDS = {
  enter: { title: 'a state is entered', of: ['state'] },
  exit: { title: 'a state is left', of: ['state'] },
  transition: { title: 'a transition is taken', of: ['state', 'number'] },
  ended: { title: 'a row ends', of: ['state', 'row', 'success, failure or stopped'] },
  picked: { title: 'an option is picked', of: ['choice', 'option'] },
  move: { title: 'a move begins', of: ['move'] },
  hit: { title: 'a move hits or misses', of: ['move', 'result'] },
  percept: { title: 'something is perceived', of: ['sense', 'what', 'agent'] },
  memory: { title: 'memory is written', of: ['key', 'value'] },
  condition: { title: 'a condition comes true', of: [] },
} as const satisfies Record<string, { title: string; of: readonly string[] }>;
export type BreakpointKind = keyof typeof BREAKPOINT_KINDS;

export const BREAKPOINT_FIELDS = {
  on: needed(
    choice('When', Object.keys(BREAKPOINT_KINDS) as BreakpointKind[], 'what is to happen'),
  ),
  after: number(
    'From which time on',
    '',
    [1, 1_000_000],
    'how often it must have happened in the run for the run to stop',
    { whole: true, usual: 1 },
  ),
  off: flag('Off', 'it stops nothing'),
};
/** Stops the run at the end of the tick in which what it names happens. */
export const breakpointSchema = part({
  ...BREAKPOINT_FIELDS,
  of: described(
    text(undefined, 200),
    'what of that kind: parts with colons between them, such as `chase` or `chase:2`; a part left out or empty is any',
  ),
  when: described(EXPRESSION, 'for `condition`: a flag that an agent’s first mind can read'),
  agent: described(
    nameOf('agents'),
    'which agents it watches: one, or all of a kind; left out: all',
  ),
  archetype: nameOf('archetypes'),
  note: NOTE,
});
export type BreakpointDocument = TypeOf<typeof breakpointSchema>;
/** A breakpoint in words: “Warden 2: a state is entered, chase”. */
export function breakpointWords(
  { on, of, when, agent, archetype, after = 1 }: BreakpointDocument,
  titleOf: (name: Name) => string = (name) => name,
): string {
  const watched = agent === undefined ? (archetype ?? '') : titleOf(agent);
  const what = on === 'condition' ? `${when ?? ''} comes true` : BREAKPOINT_KINDS[on].title;
  return [
    watched && `${watched}: `,
    what,
    of && on !== 'condition' && `, ${of.split(':').filter(Boolean).join(' ')}`,
    after > 1 && `, from time ${after} on`,
  ]
    .filter(Boolean)
    .join('');
}
