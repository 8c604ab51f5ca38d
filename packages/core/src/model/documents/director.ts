import {
  choice,
  described,
  list,
  nameOf,
  needed,
  NOTE,
  number,
  part,
  TITLE,
  type PartValues,
  type TypeOf,
} from '../schema/schema.ts';

/** The game around the agents on a ground: its modes by the clock, its scores, and the waves that come. */

export const SCORE_FIELDS = {
  start: number('Starts at', 'points', [-1e9, 1e9], 'when a run begins', { usual: 0 }),
};
/** Points of a run, shown above the ground. */
export const scoreSchema = part({ title: TITLE, ...SCORE_FIELDS });
export type ScoreDocument = TypeOf<typeof scoreSchema>;

export const MODE_FIELDS = { for: needed(number('Lasts', 's', [0.1, 86_400], 'how long')) };
const mode = part({ mode: needed(nameOf('modes')), ...MODE_FIELDS });
export type ModeDocument = TypeOf<typeof mode>;

export const SCHEDULE_FIELDS = {
  afterwards: choice(
    'Afterwards',
    ['again', 'stay', 'end'],
    'after the last mode: the first again, nothing more, or the end of the run',
    { usual: 'again' },
  ),
};
/** Modes by the clock, one after the other from the start of a run. */
export const scheduleSchema = part({ modes: needed(list(mode, 64, 1)), ...SCHEDULE_FIELDS });
export type ScheduleDocument = TypeOf<typeof scheduleSchema>;

export const WAVE_STARTS = ['run', 'director', 'zone'] as const;
export const WAVE_ORDERS = ['turn', 'random', 'farthest'] as const;
export const WAVE_RETURNS = ['last', 'each'] as const;

/** As many agents can belong to one wave. */
export const MOST_OF_A_WAVE = 400;

/** How many of a wave can be alive at once. */
export function poolSize({ maxAlive, count }: { maxAlive?: number; count: number }): number {
  return maxAlive ?? Math.min(MOST_OF_A_WAVE, count);
}

export const WAVE_FIELDS = {
  count: needed(number('Count', '', [1, 10_000], 'come each time', { whole: true })),
  maxAlive: number(
    'Most alive',
    '',
    [1, MOST_OF_A_WAVE],
    'at most; the others wait until one has died',
    { whole: true, usual: ({ count }: PartValues) => poolSize({ count: Number(count) }) },
  ),
  gap: number('Gap', 's', [0, 3600], 'from one arrival to the next', { usual: 1 }),
  times: number('Times', '', [0, 10_000], 'they come; 0 is without end', { whole: true, usual: 1 }),
  delay: number(
    'Delay',
    's',
    [0, 86_400],
    'until they come again; needed where they come more than once',
    { none: 'none' },
  ),
  after: choice(
    'Counted from',
    WAVE_RETURNS,
    'the death of the last one, or for each one its own',
    { usual: 'last' },
  ),
  order: choice(
    'Spawn order',
    WAVE_ORDERS,
    'which of the spawn places: in turn, at random, or the farthest from any player',
    { usual: 'turn' },
  ),
  starts: choice(
    'Starts with',
    WAVE_STARTS,
    'the run, the director, or a played agent that enters the zone',
    { usual: 'run' },
  ),
};
/** Agents of one archetype that come to a ground while a run goes on. */
export const waveSchema = part({
  title: TITLE,
  note: NOTE,
  archetype: needed(nameOf('archetypes')),
  ...WAVE_FIELDS,
  at: described(list(nameOf('spawns'), 64, 1), 'spawn places; left out: all there are'),
  zone: nameOf('zones'),
  squad: nameOf('squads'),
  route: nameOf('routes'),
  home: described(nameOf('zones'), 'the zone they belong to'),
});
export type WaveDocument = TypeOf<typeof waveSchema>;
