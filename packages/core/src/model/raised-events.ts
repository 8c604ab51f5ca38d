import { THING_KINDS } from './documents/ground.ts';
import type { NamedPart } from './names/named-parts.ts';
import { SENSE_KINDS, SENSES, type Sense } from '../terms/senses.ts';

/** Which events come up by themselves, and which by what minds do: findings and completion read it. */

export interface RaisedEvent {
  event: string;
  about: string;
}

/** Raised by the ends of activities and by the legs. */
export const RAISED_BY_ENDS: readonly RaisedEvent[] = [
  { event: 'done.success', about: 'what it does here has succeeded' },
  { event: 'done.failure', about: 'what it does here has failed' },
  { event: 'stuck', about: 'the legs come no nearer to their goal' },
];

export const RAISED_BY_SENSES: readonly RaisedEvent[] = SENSES.flatMap((sense) =>
  SENSE_KINDS[sense].raises.map((what) => ({
    event: `${sense}.${what}`,
    about: SENSE_KINDS[sense].title,
  })),
);

/** Actions by which others get an event: the sense it comes by, and the parameter that says the word. */
export const SAYING_ACTIONS: Readonly<Record<string, { sense: Sense; word: string }>> = {
  makeNoise: { sense: 'hearing', word: 'kind' },
  tellSquad: { sense: 'told', word: 'what' },
};

/** Raised for every agent when a mode begins. */
export function raisedByModes(modes: readonly string[]): RaisedEvent[] {
  return modes.map((mode) => ({ event: `mode.${mode}`, about: `the mode “${mode}” begins` }));
}

/** By the first word of an event: the parts of the document that the words after it name. */
export const NAMED_IN_EVENTS: Readonly<Record<string, readonly NamedPart[]>> = {
  mode: ['modes'],
  died: ['archetypes'],
  broken: ['archetypes'],
  entered: ['zones', 'archetypes'],
  arrived: ['waves'],
  over: ['waves'],
};

/** Raised for the director alone. */
export function raisedForDirector(
  archetypes: readonly string[],
  waves: readonly string[],
  zones: readonly string[],
): RaisedEvent[] {
  return [
    ...archetypes.flatMap((name) => [
      { event: `died.${name}`, about: 'an agent has died' },
      { event: `broken.${name}`, about: 'a move of an agent was broken off' },
    ]),
    ...zones.flatMap((zone) =>
      archetypes.map((name) => ({
        event: `entered.${zone}.${name}`,
        about: 'an agent has entered the zone',
      })),
    ),
    ...THING_KINDS.map((kind) => ({ event: `taken.${kind}`, about: 'a thing was picked up' })),
    ...waves.flatMap((wave) => [
      { event: `arrived.${wave}`, about: 'one of a wave has come' },
      { event: `over.${wave}`, about: 'all of a wave have come and died' },
    ]),
    { event: 'schedule.over', about: 'the last mode is over, and the run ends with it' },
  ];
}
