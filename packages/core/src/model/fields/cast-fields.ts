import { STANCES } from '../../terms/stances.ts';
import {
  CROUCH_SHARE,
  CROUCHED_SEEN,
  DEFAULT_BODY_HEIGHT,
  DEFAULT_CLEAR_POINTS,
  DEFAULT_STEADY,
} from '../cast-documents.ts';
import { lightFields, type ChoiceSpec, type FieldSpecs } from './field-spec.ts';

/** The fields of archetypes, squads and factions. */

/** What it does worse than it could, on purpose. */
export const IMPERFECTION_FIELDS = {
  reaction: {
    kind: 'number',
    label: 'Reaction',
    unit: 's',
    minimum: 0,
    maximum: 5,
    usual: 0,
    about: 'how long until what the senses bring reaches the minds',
  },
  aimError: {
    kind: 'number',
    label: 'Aim error',
    unit: '°',
    minimum: 0,
    maximum: 45,
    usual: 0,
    about: 'how far off it aims each time it makes a move, one standard deviation',
  },
  obedience: {
    kind: 'number',
    label: 'Obedience',
    unit: '',
    minimum: 0,
    maximum: 1,
    usual: 1,
    about: 'how likely it obeys a rule of conduct, drawn each time the rule begins to apply',
  },
} as const satisfies FieldSpecs;

export const ARCHETYPE_FIELDS = {
  health: {
    kind: 'number',
    label: 'Health',
    unit: 'points',
    minimum: 1,
    maximum: 1_000_000,
    none: 'can’t be hurt',
    about: 'what damage takes from; at 0 it dies',
  },
  respawnDelay: {
    kind: 'number',
    label: 'Respawn delay',
    unit: 's',
    minimum: 0.1,
    maximum: 3600,
    none: 'stays down',
    about: 'how long after its death it begins again at a spawn place',
  },
  sleepDistance: {
    kind: 'number',
    label: 'Sleep distance',
    unit: 'm',
    minimum: 1,
    maximum: 10_000,
    none: 'never sleeps',
    about: 'farther than this from every played agent it does not sense, decide or move',
  },
  carryingSpeed: {
    kind: 'number',
    label: 'Carrying speed',
    unit: '',
    minimum: 0.05,
    maximum: 1,
    usual: 1,
    about: 'share of its speed that is left while it carries something',
  },
  callReach: {
    kind: 'number',
    label: 'Call reach',
    unit: 'm',
    minimum: 1,
    maximum: 1000,
    usual: 12,
    about: 'how far friends hear it when its player makes it call',
  },
} as const satisfies FieldSpecs;

export const BODY_FIELDS = {
  radius: {
    kind: 'number',
    label: 'Radius',
    unit: 'm',
    minimum: 0.1,
    maximum: 3,
    required: true,
    about: 'of the circle that the body is',
  },
  height: {
    kind: 'number',
    label: 'Height',
    unit: 'm',
    minimum: 0.2,
    maximum: 6,
    usual: DEFAULT_BODY_HEIGHT,
    about: 'standing; the eyes are at 92 % of it',
  },
  crouchHeight: {
    kind: 'number',
    label: 'Crouched height',
    unit: 'm',
    minimum: 0.1,
    maximum: 6,
    usual: ({ height = DEFAULT_BODY_HEIGHT }) => Number((Number(height) * CROUCH_SHARE).toFixed(2)),
    about: 'crouched; left out, 60 % of the height',
  },
  acceleration: {
    kind: 'number',
    label: 'Acceleration',
    unit: 'm/s²',
    minimum: 0.1,
    maximum: 200,
    required: true,
    about: 'how fast its velocity changes',
  },
  turnRate: {
    kind: 'number',
    label: 'Turn rate',
    unit: '°/s',
    minimum: 1,
    maximum: 3600,
    required: true,
    about: 'how fast it turns',
  },
} as const satisfies FieldSpecs;

export const GAIT_FIELDS = {
  speed: {
    kind: 'number',
    label: 'Speed',
    unit: 'm/s',
    minimum: 0,
    maximum: 30,
    required: true,
    about: 'how fast it goes',
  },
  noise: {
    kind: 'number',
    label: 'Steps are heard',
    unit: 'm',
    minimum: 0,
    maximum: 100,
    usual: 0,
    about: 'how far its steps are heard',
  },
  crouched: { kind: 'flag', label: 'Crouched', about: 'whether the body is held low' },
  visibility: {
    kind: 'number',
    label: 'Visibility',
    unit: '',
    minimum: 0,
    maximum: 1,
    usual: ({ crouched }) => (crouched === true ? CROUCHED_SEEN : 1),
    about: 'how much of the body’s visibility it gives away; left out 1, crouched 0.6',
  },
} as const satisfies FieldSpecs;

export const CONE_FIELDS = {
  range: {
    kind: 'number',
    label: 'Range',
    unit: 'm',
    minimum: 0.1,
    maximum: 500,
    required: true,
    about: 'how far it sees',
  },
  halfAngle: {
    kind: 'number',
    label: 'Half-angle',
    unit: '°',
    minimum: 1,
    maximum: 180,
    required: true,
    about: 'how far to either side of the heading',
  },
  gain: {
    kind: 'number',
    label: 'Gain',
    unit: '/s',
    minimum: 0,
    maximum: 100,
    required: true,
    about: 'awareness gained right before the eyes in full light',
  },
} as const satisfies FieldSpecs;

export const MOST_CONES = 8;

export const SIGHT_FIELDS = {
  curious: {
    kind: 'number',
    label: 'Curious from',
    unit: '',
    minimum: 0,
    maximum: 1,
    required: true,
    about: 'the awareness at which `sight.curious` is raised',
  },
  certain: {
    kind: 'number',
    label: 'Certain from',
    unit: '',
    minimum: 0,
    maximum: 1,
    required: true,
    about: 'the awareness at which `sight.certain` is raised',
  },
  grace: {
    kind: 'number',
    label: 'Grace time',
    unit: 's',
    minimum: 0,
    maximum: 600,
    required: true,
    about: 'how long awareness stays when sight is lost',
  },
  fade: {
    kind: 'number',
    label: 'Awareness fades',
    unit: '/s',
    minimum: 0,
    maximum: 100,
    required: true,
    about: 'awareness lost once the grace time has passed without sight',
  },
  forgetAfter: {
    kind: 'number',
    label: 'Forgets the place after',
    unit: 's',
    minimum: 0,
    maximum: 3600,
    required: true,
    about: 'how long after the last sight the last known place is forgotten',
  },
  points: {
    kind: 'number',
    label: 'Clear points',
    unit: '',
    minimum: 1,
    maximum: 3,
    whole: true,
    usual: DEFAULT_CLEAR_POINTS,
    about: 'how many of feet, chest and head must be in plain view',
  },
} as const satisfies FieldSpecs;

export const HEARING_FIELDS = {
  threshold: {
    kind: 'number',
    label: 'Hearing threshold',
    unit: '',
    minimum: 0,
    maximum: 1,
    required: true,
    about: 'the loudness below which nothing is heard',
  },
} as const satisfies FieldSpecs;

export const LANTERN_FIELDS = lightFields(50, 'right beside it');

export const SQUAD_FIELDS = {
  reach: {
    kind: 'number',
    label: 'Reach',
    unit: 'm',
    minimum: 0,
    maximum: 10_000,
    none: 'anywhere',
    about: 'how far a member’s words and shared memory reach',
  },
  delay: {
    kind: 'number',
    label: 'Delay',
    unit: 's',
    minimum: 0,
    maximum: 60,
    usual: 0,
    about: 'how long until what one tells arrives',
  },
} as const satisfies FieldSpecs;

export const ROLE_FIELDS = {
  slots: {
    kind: 'number',
    label: 'Slots',
    unit: '',
    minimum: 1,
    maximum: 1000,
    whole: true,
    none: 'any number',
    about: 'how many members may have it',
  },
  commitment: {
    kind: 'number',
    label: 'Commitment',
    unit: '',
    minimum: 0,
    maximum: 1000,
    usual: DEFAULT_STEADY,
    about: 'how much better another must be to take it over',
  },
} as const satisfies FieldSpecs;

export const STANCE: ChoiceSpec = {
  kind: 'choice',
  label: 'Stance',
  options: STANCES,
  about: 'left out: friendly to its own faction, hostile to the others',
};
