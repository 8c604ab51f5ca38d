import { number, part, type TypeOf, type TypeOfFields } from '../schema/schema.ts';

/** From when on what happens in a run is an observation: how often, and how many seconds. */

const times = (label: string, usual: number, about: string) =>
  number(label, '', [2, 1000], about, { whole: true, usual });
const seconds = (label: string, usual: number, about: string) =>
  number(label, 's', [0.1, 25], about, { usual });

export const OBSERVATION_LIMITS = {
  flickers: times('Flickers', 4, 'this many times it goes from one state to another and back'),
  flickerWithin: seconds('Flickers within', 3, 'in this many seconds'),
  crowds: times('Crowds', 3, 'this many bodies stand so close that they touch'),
  crowdsFor: seconds('Crowds for', 2, 'for this many seconds'),
  jitters: times('Jitters', 6, 'this many times a body turns back on its way'),
  jittersWithin: seconds('Jitters within', 2, 'in this many seconds'),
  misses: times('Near misses', 3, 'this many times a move misses by the same few centimetres'),
  missesWithin: seconds('Near misses within', 20, 'in this many seconds'),
  ties: times('Ties', 3, 'this many times two options of a choice score the same'),
  tiesWithin: seconds('Ties within', 10, 'in this many seconds'),
  taken: times(
    'Commands taken over',
    4,
    'this many times something else takes the channel of an action',
  ),
  takenWithin: seconds('Commands taken over within', 5, 'in this many seconds'),
  starvedFor: seconds(
    'Starved for',
    3,
    'for this many seconds no decision is made, while one is due',
  ),
  goneFor: seconds('Target gone for', 2, 'memory holds a dead agent for this many seconds'),
  fires: times('Fires', 5, 'this many consecutive decisions do the same'),
  waitsFor: seconds(
    'Waits for',
    20,
    'for this many seconds a state waits for an event that never came',
  ),
  endedFor: seconds(
    'Stays after its end for',
    5,
    'for this many seconds a state stays whose activity has ended',
  ),
  oldFor: seconds(
    'Old goal for',
    2,
    'for this many seconds a body walks to a remembered place of that age, while its attention is on another',
  ),
};
export type ObservationLimits = Required<TypeOfFields<typeof OBSERVATION_LIMITS>>;

export const observationLimitsSchema = part(OBSERVATION_LIMITS);
export type ObservationLimitsDocument = TypeOf<typeof observationLimitsSchema>;

/** The limits of a project: what it says, else what is usual. */
export function limitsOf(document: ObservationLimitsDocument = {}): ObservationLimits {
  const usual = Object.fromEntries(
    Object.entries(OBSERVATION_LIMITS).map(([name, spec]) => [name, spec.usual]),
  );
  return { ...usual, ...document } as ObservationLimits;
}
