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
  /** Index among the senses; −1 for none. */
  readonly attentionSense: number;
  readonly attentionAge: number;
  /** What it carries, its part in the squad; −1 for none. */
  readonly carried: number;
  readonly health: number;
  readonly role: number;
  readonly crouched: boolean;
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
  /** Metres a second, as it was last seen to go. */
  knownSpeedX(agent: number): number;
  knownSpeedY(agent: number): number;
  /** What a sense other than sight brought last and still counts; by the sense's index. */
  percept(sense: number): PerceptFacts | null;
  /** Seconds; NaN where there is none. */
  perceptAge(sense: number): number;
  isHostile(agent: number): boolean;
  isOpen(gate: number): boolean;
  /** Whether this body is in the zone. */
  inZone(zone: number): boolean;
  /** The middle of a zone; NaN for none. */
  zoneX(zone: number): number;
  zoneY(zone: number): number;
  /** At this body, 0 to 1. */
  light(): number;
  /** Whether no other member of the squad stands there or is on the way there. */
  isFree(x: number, y: number): boolean;
  /** Where things and agents are in truth, whatever is known of it. */
  trueX(agent: number): number;
  trueY(agent: number): number;
  thingX(thing: number): number;
  thingY(thing: number): number;
  /** Kilograms; NaN for no thing. */
  thingWeight(thing: number): number;
  /** Index of the text that is the name of the active tier; −1 for none. */
  readonly tier: number;
  /** Share of its health left, 0 to 1; NaN for who can’t be hurt. */
  readonly healthShare: number;
  /** Index of the word for what came of its last move; −1 for none. */
  readonly lastResult: number;
  /** Seconds since it was hit, and since it landed a hit; NaN for never. */
  sinceHit(): number;
  sinceLanded(): number;
  /** By the word for a move of its own. Seconds until it can be made again; NaN for one it has not. */
  cooldownLeft(move: number): number;
  /** Whether the move could be begun now, or is being made. */
  isReady(move: number): boolean;
  /** Whether the move would reach the last known place of an agent from here. */
  canReach(move: number, agent: number): boolean;
  /** What an agent is seen to do, or does in truth: indices of the words for its move, the part it is in, its guard; −1 for none. */
  moveOf(agent: number, inTruth: boolean): number;
  phaseOf(agent: number, inTruth: boolean): number;
  guardOf(agent: number, inTruth: boolean): number;
  /** Points, as last seen; NaN for no agent. */
  healthOf(agent: number, inTruth: boolean): number;
  /** Seconds until what an agent is seen to do can hit this body, as both go on; NaN where it can’t. */
  impactIn(agent: number, inTruth: boolean): number;
  /** What is true of the game around it. */
  readonly game: GameFacts;
  /** The middle of the zone it belongs to; NaN for none. */
  readonly homeX: number;
  readonly homeY: number;
  /** Metres outside of its home; 0 in it, NaN for none. */
  fromHome(): number;
  /** The same facts as if this body stood there: what is known stays what it is. Good until it is asked for again. */
  elsewhere(x: number, y: number): Facts;
}

/** The game around those on a ground: modes, scores, and how many agents there are by name. Names come as indices of texts. */
export interface GameFacts {
  /** −1 for none. */
  mode(): number;
  /** Seconds; NaN where the mode does not end by itself. */
  timeLeft(): number;
  /** Points; NaN where there is no such score. */
  score(word: number): number;
  players(): number;
  alive(group: number): number;
  toCome(wave: number): number;
  inZone(zone: number, group: number): number;
  thingsIn(zone: number): number;
  /** Kilograms. */
  weightIn(zone: number): number;
}

/** What can be asked about a percept; −1 for no agent and no thing. */
export interface PerceptFacts {
  readonly what: number;
  readonly of: number;
  readonly thing: number;
  readonly x: number;
  readonly y: number;
  readonly strength: number;
}
