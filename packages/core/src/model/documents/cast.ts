import { STANCES } from '../../terms/stances.ts';
import {
  choice,
  either,
  EXPRESSION,
  flag,
  list,
  nameOf,
  needed,
  NOTE,
  number,
  part,
  partly,
  record,
  TITLE,
  type PartValues,
  type TypeOf,
} from '../schema/schema.ts';
import { guardSchema, moveSchema } from './fight.ts';
import { lightFields } from './shared.ts';

/** The cast: the archetypes of agents, the factions they belong to, the squads they form. */

export const DEFAULT_BODY_HEIGHT = 1.7;
export const CROUCH_SHARE = 0.6;
export const CROUCHED_SEEN = 0.6;
export const DEFAULT_CLEAR_POINTS = 2;
export const DEFAULT_STEADY = 0.1;
export const MOST_CONES = 8;

export const BODY_FIELDS = {
  radius: needed(number('Radius', 'm', [0.1, 3], 'of the circle that the body is')),
  acceleration: needed(number('Acceleration', 'm/s²', [0.1, 200], 'how fast its velocity changes')),
  turnRate: needed(number('Turn rate', '°/s', [1, 3600], 'how fast it turns')),
  height: number('Height', 'm', [0.2, 6], 'standing; the eyes are at 92 % of it', {
    usual: DEFAULT_BODY_HEIGHT,
  }),
  crouchHeight: number('Crouched height', 'm', [0.1, 6], 'crouched; left out, 60 % of the height', {
    usual: ({ height = DEFAULT_BODY_HEIGHT }: PartValues) =>
      Number((Number(height) * CROUCH_SHARE).toFixed(2)),
  }),
};
const body = part(BODY_FIELDS);
export type BodyDocument = TypeOf<typeof body>;

export const GAIT_FIELDS = {
  speed: needed(number('Speed', 'm/s', [0, 30], 'how fast it goes')),
  noise: number('Steps are heard', 'm', [0, 100], 'how far its steps are heard', { usual: 0 }),
  crouched: flag('Crouched', 'whether the body is held low'),
  visibility: number(
    'Visibility',
    '',
    [0, 1],
    'how much of the body’s visibility it gives away; left out 1, crouched 0.6',
    { usual: ({ crouched }: PartValues) => (crouched === true ? CROUCHED_SEEN : 1) },
  ),
};
const fullGait = part(GAIT_FIELDS, { tag: 'speed' });
export type GaitDocument = TypeOf<typeof fullGait>;
/** A way to go; a plain number stands for its speed alone. */
const gait = either([GAIT_FIELDS.speed, fullGait], (value) =>
  typeof value === 'object' ? fullGait : GAIT_FIELDS.speed,
);

export const CONE_FIELDS = {
  range: needed(number('Range', 'm', [0.1, 500], 'how far it sees')),
  halfAngle: needed(number('Half-angle', '°', [1, 180], 'how far to either side of the heading')),
  gain: needed(
    number('Gain', '/s', [0, 100], 'awareness gained right before the eyes in full light'),
  ),
};
const cone = part(CONE_FIELDS);
export type ConeDocument = TypeOf<typeof cone>;

export const SIGHT_FIELDS = {
  curious: needed(
    number('Curious from', '', [0, 1], 'the awareness at which `sight.curious` is raised'),
  ),
  certain: needed(
    number('Certain from', '', [0, 1], 'the awareness at which `sight.certain` is raised'),
  ),
  grace: needed(number('Grace time', 's', [0, 600], 'how long awareness stays when sight is lost')),
  fade: needed(
    number(
      'Awareness fades',
      '/s',
      [0, 100],
      'awareness lost once the grace time has passed without sight',
    ),
  ),
  forgetAfter: needed(
    number(
      'Forgets the place after',
      's',
      [0, 3600],
      'how long after the last sight the last known place is forgotten',
    ),
  ),
  points: number(
    'Clear points',
    '',
    [1, 3],
    'how many of feet, chest and head must be in plain view',
    { whole: true, usual: DEFAULT_CLEAR_POINTS },
  ),
};
const sight = part({
  cones: needed(list(cone, MOST_CONES, 1)),
  fade: SIGHT_FIELDS.fade,
  grace: SIGHT_FIELDS.grace,
  curious: SIGHT_FIELDS.curious,
  certain: SIGHT_FIELDS.certain,
  forgetAfter: SIGHT_FIELDS.forgetAfter,
  points: SIGHT_FIELDS.points,
});
export type SightDocument = TypeOf<typeof sight>;

export const HEARING_FIELDS = {
  threshold: needed(
    number('Hearing threshold', '', [0, 1], 'the loudness below which nothing is heard'),
  ),
};
const hearing = part(HEARING_FIELDS);
export type HearingDocument = TypeOf<typeof hearing>;

export const LANTERN_FIELDS = lightFields(50, 'right beside it');
/** Light the body carries about. */
const lantern = part(LANTERN_FIELDS);

/** What it does worse than it could, on purpose. */
export const IMPERFECTION_FIELDS = {
  reaction: number(
    'Reaction',
    's',
    [0, 5],
    'how long until what the senses bring reaches the minds',
    { usual: 0 },
  ),
  aimError: number(
    'Aim error',
    '°',
    [0, 45],
    'how far off it aims each time it makes a move, one standard deviation',
    { usual: 0 },
  ),
  obedience: number(
    'Obedience',
    '',
    [0, 1],
    'how likely it obeys a rule of conduct, drawn each time the rule begins to apply',
    { usual: 1 },
  ),
};

export const ARCHETYPE_FIELDS = {
  health: number('Health', 'points', [1, 1_000_000], 'what damage takes from; at 0 it dies', {
    none: 'can’t be hurt',
  }),
  respawnDelay: number(
    'Respawn delay',
    's',
    [0.1, 3600],
    'how long after its death it begins again at a spawn place',
    { none: 'stays down' },
  ),
  sleepDistance: number(
    'Sleep distance',
    'm',
    [1, 10_000],
    'farther than this from every played agent it does not sense, decide or move',
    { none: 'never sleeps' },
  ),
  carryingSpeed: number(
    'Carrying speed',
    '',
    [0.05, 1],
    'share of its speed that is left while it carries something',
    { usual: 1 },
  ),
  callReach: number(
    'Call reach',
    'm',
    [1, 1000],
    'how far friends hear it when its player makes it call',
    { usual: 12 },
  ),
};

/** Other minds it has, such as one that only aims. */
const minds = list(nameOf('minds'), 4);
const fighting = { moves: record(moveSchema, 'moves'), guards: record(guardSchema, 'guards') };

export const archetypeSchema = part({
  title: needed(TITLE),
  note: NOTE,
  faction: needed(nameOf('factions')),
  mind: nameOf('minds'),
  minds,
  squad: nameOf('squads'),
  ...IMPERFECTION_FIELDS,
  body: needed(body),
  gaits: needed(record(gait, 'gaits')),
  gait: needed(nameOf('gaits')),
  sight,
  hearing,
  lantern,
  ...ARCHETYPE_FIELDS,
  ...fighting,
});
export interface ArchetypeDocument extends TypeOf<typeof archetypeSchema> {}

/**
 * Where one placed agent differs from its archetype. Parts are merged field by field: a body
 * with only a radius keeps the archetype's height; cones come as a whole list.
 */
export const overridesSchema = part({
  faction: nameOf('factions'),
  mind: nameOf('minds'),
  minds,
  ...IMPERFECTION_FIELDS,
  body: partly(body),
  gaits: record(gait, 'gaits'),
  gait: nameOf('gaits'),
  sight: partly(sight),
  hearing: partly(hearing),
  lantern: partly(lantern),
  ...ARCHETYPE_FIELDS,
  ...fighting,
});
export interface OverridesDocument extends TypeOf<typeof overridesSchema> {}

export const ROLE_FIELDS = {
  slots: number('Slots', '', [1, 1000], 'how many members may have it', {
    whole: true,
    none: 'any number',
  }),
  commitment: number(
    'Commitment',
    '',
    [0, 1000],
    'how much better another must be to take it over',
    {
      usual: DEFAULT_STEADY,
    },
  ),
};
/** A role in a squad, given to the members that it suits best. A member without a score is not considered. */
const role = part({
  role: needed(nameOf('roles')),
  title: TITLE,
  slots: ROLE_FIELDS.slots,
  score: needed(EXPRESSION),
  commitment: ROLE_FIELDS.commitment,
});
export type RoleDocument = TypeOf<typeof role>;

export const SQUAD_FIELDS = {
  reach: number('Reach', 'm', [0, 10_000], 'how far a member’s words and shared memory reach', {
    none: 'anywhere',
  }),
  delay: number('Delay', 's', [0, 60], 'how long until what one tells arrives', { usual: 0 }),
};
/** Agents that share memory and what they are told. */
export const squadSchema = part({
  title: needed(TITLE),
  note: NOTE,
  ...SQUAD_FIELDS,
  roles: list(role, 16),
});
export type SquadDocument = TypeOf<typeof squadSchema>;

const stance = choice(
  'Stance',
  STANCES,
  'left out: friendly to its own faction, hostile to the others',
);
export const factionSchema = part({ title: TITLE, note: NOTE, toward: record(stance, 'factions') });
export type FactionDocument = TypeOf<typeof factionSchema>;
