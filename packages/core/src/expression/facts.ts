/**
 * What an expression may read: one agent and what it knows, as they stand when minds decide. Numbers only,
 * so that reading them makes no garbage: a missing number is NaN, a missing agent or route is −1, texts and
 * routes are indices into the program's tables.
 */
export interface Facts {
  /** The agent's own cells; its memory keys stand at their slots. */
  readonly memory: Float64Array;
  readonly squadMemory: Float64Array;
  readonly worldMemory: Float64Array;
  readonly here: Standpoint;
  readonly known: Knowledge;
  readonly self: Self;
  readonly around: Around;
  /** The same facts as if this body stood there: only {@link Standpoint} differs. Good until it is asked for again. */
  at(x: number, y: number): Facts;
}

/** What depends on where the agent stands. */
export interface Standpoint {
  readonly x: number;
  readonly y: number;
  /** 0 to 1. */
  light(): number;
  /** Whether the place is in the zone. */
  inZone(zone: number): boolean;
  /** Metres outside of its home; 0 in it, NaN for none. */
  fromHome(): number;
  sees(agent: number): boolean;
  /** Whether a move (the word for it) would reach the last known place of an agent from here. */
  canReach(move: number, agent: number): boolean;
  /** Seconds until what an agent is seen to do, or does in truth, can hit this body, as both go on; NaN where it can’t. */
  impactIn(agent: number, inTruth: boolean): number;
}

/** What other agents do in a fight: indices of the words for their move, the part it is in, their guard; −1 for none. */
export interface Fighters {
  moveOf(agent: number): number;
  phaseOf(agent: number): number;
  guardOf(agent: number): number;
  /** Points; NaN for no agent. */
  healthOf(agent: number): number;
}

/** What the agent knows: what its senses have brought, and what of it has the attention. Fighters are as they were last seen. */
export interface Knowledge extends Fighters {
  /** Whether anything has been noticed at all. */
  readonly aware: boolean;
  /** Agents that have been noticed, and what is known of where they are: by their places in the list, −1 for one who is not in it. */
  readonly tracked: {
    readonly length: number;
    of(i: number): number;
    find(agent: number): number;
    x(i: number): number;
    y(i: number): number;
  };
  readonly attentionOf: number;
  readonly attentionX: number;
  readonly attentionY: number;
  readonly attentionStrength: number;
  /** Index among the senses; −1 for none. */
  readonly attentionSense: number;
  readonly attentionAge: number;
  /** Seconds since the key with this index was last written; NaN if it never was or is forgotten. */
  keyAge(key: number): number;
  /** 0 to 1. */
  awareness(agent: number): number;
  /** Last known place; NaN where there is none. */
  x(agent: number): number;
  y(agent: number): number;
  /** Metres a second, as it was last seen to go. */
  speedX(agent: number): number;
  speedY(agent: number): number;
  /** What a sense other than sight brought last and still counts; by the sense's index. */
  percept(sense: number): PerceptFacts | null;
  /** Seconds; NaN where there is none. */
  perceptAge(sense: number): number;
}

/** What the agent is: its body, its moves, its place among others. */
export interface Self {
  /** Radians. */
  readonly heading: number;
  readonly vx: number;
  readonly vy: number;
  readonly postX: number;
  readonly postY: number;
  /** The middle of the zone it belongs to; NaN for none. */
  readonly homeX: number;
  readonly homeY: number;
  readonly route: number;
  readonly crouched: boolean;
  /** What it carries, its role in the squad; −1 for none. */
  readonly carried: number;
  readonly role: number;
  readonly health: number;
  /** Share of its health left, 0 to 1; NaN for an agent that can’t be hurt. */
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
  isHostile(agent: number): boolean;
  /** Whether no other member of the squad stands there or is on the way there. */
  isFree(x: number, y: number): boolean;
}

/** What is true of the world, whatever any agent knows of it. */
export interface Around extends Fighters {
  /** Seconds since the run began. */
  seconds(): number;
  /** Index of the text that is the name of the active tier; −1 for none. */
  readonly tier: number;
  isOpen(gate: number): boolean;
  /** The middle of a zone; NaN for none. */
  zoneX(zone: number): number;
  zoneY(zone: number): number;
  x(agent: number): number;
  y(agent: number): number;
  thingX(thing: number): number;
  thingY(thing: number): number;
  /** Kilograms; NaN for no thing. */
  thingWeight(thing: number): number;
  readonly game: GameFacts;
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
