import type { Stance } from '../terms/stances.ts';
import type { Expression, Name } from './documents.ts';
import type { GuardDocument, MoveDocument } from './fight-documents.ts';

/** Who is there: the kinds of agents, the sides they are on, the squads they form. Units as in the open file. */

export interface ArchetypeDocument {
  title: string;
  note?: string;
  faction: Name;
  mind?: Name;
  /** Other minds it has, such as one that only aims. */
  minds?: Name[];
  squad?: Name;
  /** Seconds until what the senses bring reaches the minds. */
  reaction?: number;
  /** Degrees: how far off it aims each time it makes a move, one standard deviation. */
  aimError?: number;
  /** 0 to 1: the probability that it obeys a rule of conduct. */
  obedience?: number;
  body: BodyDocument;
  gaits: Record<Name, number | GaitDocument>;
  gait: Name;
  sight?: SightDocument;
  hearing?: HearingDocument;
  /** Light the body carries about. */
  lantern?: { reach: number; strength: number };
  /** Points that harm takes from; left out: it can't be hurt. */
  health?: number;
  /** Seconds from its death until it respawns at a spawn place; left out: it stays down. */
  respawnDelay?: number;
  /** What it can do in a fight. */
  moves?: Record<Name, MoveDocument>;
  guards?: Record<Name, GuardDocument>;
  /** Metres from the nearest played agent beyond which it rests: no senses, no decisions, no motion. */
  sleepDistance?: number;
  /** Share of its speed that is left while it carries something; left out: all. */
  carryingSpeed?: number;
  /** Metres within which friends hear it call; left out: 12. */
  callReach?: number;
}

export interface BodyDocument {
  radius: number;
  acceleration: number;
  turnRate: number;
  /** Standing; left out: 1.7. The eyes are at 92 % of it. */
  height?: number;
  /** Crouched; left out: 60 % of the height. */
  crouchHeight?: number;
}

export const DEFAULT_BODY_HEIGHT = 1.7;
export const CROUCH_SHARE = 0.6;

/** A way to go; a plain number stands for its speed alone. */
export interface GaitDocument {
  speed: number;
  /** How far its steps are heard, in metres; left out: not at all. */
  noise?: number;
  crouched?: true;
  /** How much of the body’s sight it gives away, 0 to 1; left out: 1, crouched 0.6. */
  visibility?: number;
}

export const CROUCHED_SEEN = 0.6;

export interface SightDocument {
  cones: ConeDocument[];
  /** Awareness lost per second once `grace` seconds have passed without sight. */
  fade: number;
  grace: number;
  curious: number;
  certain: number;
  /** Seconds after the last sight until the last known place is forgotten. */
  forgetAfter: number;
  /** How many of feet, chest and head must be in plain view; left out: 2. */
  points?: number;
}

export const DEFAULT_CLEAR_POINTS = 2;

export interface ConeDocument {
  range: number;
  halfAngle: number;
  gain: number;
}

export interface HearingDocument {
  /** Loudness from 0 to 1 below which nothing is heard. */
  threshold: number;
}

/**
 * Where one placed agent differs from its archetype. Parts are merged field by field: a body
 * with only a radius keeps the archetype's height; cones come as a whole list.
 */
export interface OverridesDocument extends Partial<
  Pick<
    ArchetypeDocument,
    | 'faction'
    | 'mind'
    | 'minds'
    | 'reaction'
    | 'aimError'
    | 'obedience'
    | 'gaits'
    | 'gait'
    | 'health'
    | 'respawnDelay'
    | 'sleepDistance'
    | 'callReach'
    | 'carryingSpeed'
    | 'moves'
    | 'guards'
  >
> {
  body?: Partial<BodyDocument>;
  sight?: Partial<SightDocument>;
  hearing?: Partial<HearingDocument>;
  lantern?: Partial<NonNullable<ArchetypeDocument['lantern']>>;
}

/** Agents that share memory and what they are told. */
export interface SquadDocument {
  title: string;
  note?: string;
  /** Metres within which a member’s words and shared memory reach another; left out: anywhere. */
  reach?: number;
  /** Seconds until what one tells arrives. */
  delay?: number;
  roles?: RoleDocument[];
}

/** A role in a squad, given to the members that it suits best. */
export interface RoleDocument {
  role: Name;
  title?: string;
  /** How many members may have it; left out: any number. */
  slots?: number;
  /** How well it suits a member; who has no score is not considered. */
  score: Expression;
  /** How much better another must be to take it over; left out: 0.1. */
  commitment?: number;
}

export const DEFAULT_STEADY = 0.1;

/** A side. Towards those not named it is hostile, towards its own friendly. */
export interface FactionDocument {
  title?: string;
  note?: string;
  toward?: Record<Name, Stance>;
}
