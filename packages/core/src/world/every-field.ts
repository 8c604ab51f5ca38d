import type { AgentRun } from './state/agent-run.ts';
import type { AgentState } from './state/agent-state.ts';
import type { Known } from './state/known.ts';
import type { WorldRun } from './state/world-run.ts';
import type { World } from './world.ts';

/**
 * The fields of agents and worlds that are not part of a run's state, and why. Together with the tables
 * of the state these name every field that can change: a new one that stands in neither does not compile.
 */

type Equal<A, B> =
  (<T>() => T extends A ? 1 : 2) extends <T>() => T extends B ? 1 : 2 ? true : false;

/** Names of the fields that can be assigned; methods and read-only fields left out. */
type Changeable<T> = {
  [K in keyof T]-?: T[K] extends (...args: never[]) => unknown
    ? never
    : Equal<{ [P in K]: T[K] }, { readonly [P in K]: T[K] }> extends true
      ? never
      : K;
}[keyof T];

export const AGENT_FIELDS_NOT_KEPT: Readonly<
  Record<Exclude<Changeable<AgentState> | Changeable<Known>, keyof AgentRun>, string>
> = {
  tracked: 'is kept as what was noticed',
  attended: 'follows from what has been noticed',
  attentionSense: 'follows from what has been noticed and the active states',
  attentionOf: 'follows from what is heeded',
  attentionX: 'follows from what is heeded',
  attentionY: 'follows from what is heeded',
  attentionStrength: 'follows from what is heeded',
  perceived: 'counts the percepts',
  hasEvents: 'follows from the inboxes',
  tick: 'is the world’s',
  squadMemory: 'is one of the world’s arrays',
  worldMemory: 'is the world’s array',
  surroundings: 'is the world',
  around: 'asks the world',
  recorder: 'watches, and changes nothing',
  recorders: 'watch, and change nothing',
  reason: 'is reported in the decision in which it arises',
};

export const WORLD_FIELDS_NOT_KEPT: Readonly<Record<Exclude<keyof World, keyof WorldRun>, string>> =
  {
    statics: 'follows from the program',
    agents: 'have a table of their own',
    around: 'asks the world',
    ground: 'follows from the program and how the gates stand',
    places: 'follow from where the bodies are',
    claims: 'follow from where the bodies are and go',
    isDeciding: 'holds within the phase of minds',
    routes: 'follow from the program and what has been learned',
    outbox: 'is empty between ticks',
    effects: 'are done within a tick',
    bodies: 'are the agents’',
    light: 'is worked out when it is asked for',
    looks: 'follow from the fights',
    lookedAt: 'says for which tick the looks are known',
    litAt: 'says for which tick the light is known',
    recorder: 'watches, and changes nothing',
    awarenessRecorded: 'is what the recorder was told last',
    isTicking: 'holds within a tick',
    acting: 'says how far a phase has come, for reports of failures',
    decideFor: 'stands in for compiled minds and has no state of the run',
  };
