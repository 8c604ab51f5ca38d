import {
  described,
  list,
  needed,
  NOTE,
  number,
  part,
  record,
  TITLE,
  word,
  type TypeOf,
} from '../schema/schema.ts';
import { archetypeSchema, factionSchema, squadSchema } from './cast.ts';
import { bandSetSchema } from './choice.ts';
import { groundSchema } from './ground.ts';
import { mindSchema } from './mind.ts';
import { observationLimitsSchema } from './observation-limits.ts';
import { breakpointSchema, playerSchema, setupSchema, startSchema, tierSchema } from './run.ts';

/**
 * The open file: one project as one JSON document. Lengths in metres, times in seconds, angles in
 * degrees; x right, y down, heading 0 = +x, clockwise positive. Order carries meaning in arrays and
 * nowhere else. Any object may also hold `x-…` fields, which are kept and never read.
 */

export const PROJECT_FORMAT = 'crooked-lantern/project';
export const PROJECT_VERSION = 2;
export const DEFAULT_TICKS_PER_SECOND = 60;

export const PROJECT_FIELDS = {
  ticksPerSecond: number(
    'Ticks per second',
    '',
    [10, 120],
    'how many steps a second is divided into',
    { whole: true, usual: DEFAULT_TICKS_PER_SECOND },
  ),
};

/** Names that must exist elsewhere are checked by the compiler, not here. */
export const projectSchema = part({
  format: needed(word([PROJECT_FORMAT])),
  version: needed(word([PROJECT_VERSION])),
  title: needed(TITLE),
  note: NOTE,
  ...PROJECT_FIELDS,
  minds: needed(record(mindSchema, 'minds')),
  archetypes: needed(record(archetypeSchema, 'archetypes')),
  grounds: needed(record(groundSchema, 'grounds')),
  squads: record(squadSchema, 'squads'),
  factions: record(factionSchema, 'factions'),
  players: record(playerSchema, 'players'),
  setups: record(setupSchema, 'setups'),
  bands: described(record(bandSetSchema, 'bandSets'), 'names for parts of numbers, for all minds'),
  tiers: described(list(tierSchema, 8), 'levels of difficulty, the easiest first'),
  breakpoints: described(record(breakpointSchema, 'breakpoints'), 'where a run stops by itself'),
  observationLimits: described(
    observationLimitsSchema,
    'from when on what happens in a run is an observation; what is left out is as usual',
  ),
  start: needed(startSchema),
});
export interface ProjectDocument extends TypeOf<typeof projectSchema> {}
