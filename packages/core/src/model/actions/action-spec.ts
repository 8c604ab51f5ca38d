import type { Channel } from '../../terms/channels.ts';
import type { GroundView } from '../../terms/views.ts';

/** What is said of an action in the table of actions. */

export type ParameterKind =
  | 'number'
  | 'place'
  | 'agent'
  | 'thing'
  | 'gate'
  | 'route'
  | 'gait'
  | 'key'
  | 'list'
  | 'value'
  | 'text'
  | 'word'
  | 'mode'
  | 'event'
  | 'move'
  | 'guard'
  | 'wave'
  | 'score'
  | 'group'
  | 'pattern';

export interface ParameterSpec {
  /** `place` takes a point or an agent; `group` the name of an archetype, faction, squad or wave; `value` whatever type the named key has; `pattern` one of `options`. */
  kind: ParameterKind;
  required: boolean;
  options?: readonly string[];
  unit?: 'm' | 's' | 'deg' | 'm/s';
  minimum?: number;
  maximum?: number;
  /** Used where the parameter is left out. */
  default?: number | string;
  about: string;
}

export interface ActionSpec {
  title: string;
  channel: Channel | null;
  /** The views of grounds on which it makes sense; left out: all. */
  views?: readonly GroundView[];
  /** Whether it goes on over several ticks. One that does belongs under "while here", not on entry or exit. */
  lasts: boolean;
  about: string;
  succeeds: string;
  /** Whether it fails in ordinary use. A value that is not known, or a taken part of the body, ends any that lasts. */
  canFail: boolean;
  /** When it fails, in words. */
  fails: string;
  /** For the reference: one in use, in a mind that has what `examples.ts` has. */
  example: { do: string } & Record<string, string | number | boolean>;
  parameters: Record<string, ParameterSpec>;
}
