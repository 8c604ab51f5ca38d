/**
 * What an expression may read: one agent's memory, senses and body, as they stand when minds decide.
 * Numbers only, so that reading them makes no garbage: a missing number is NaN, a missing agent or
 * route is −1, texts and routes are indices into the program's tables.
 */
export interface Facts {
  /** The agent's own cells; its memory keys stand at their slots. */
  readonly memory: Float64Array;
  readonly squadMemory: Float64Array;
  readonly worldMemory: Float64Array;
  readonly x: number;
  readonly y: number;
  /** Radians. */
  readonly heading: number;
  readonly vx: number;
  readonly vy: number;
  readonly postX: number;
  readonly postY: number;
  readonly route: number;
  readonly attentionOf: number;
  readonly attentionX: number;
  readonly attentionY: number;
  readonly attentionStrength: number;
  /** Seconds since the run began. */
  seconds(): number;
  /** Seconds since the key with this index was last written; NaN if it never was or is forgotten. */
  keyAge(key: number): number;
  sees(agent: number): boolean;
  /** 0 to 1. */
  awareness(agent: number): number;
  /** Last known place; NaN where there is none. */
  knownX(agent: number): number;
  knownY(agent: number): number;
}
