import type { Facts, Standpoint } from '../../expression/facts.ts';
import { EYE_SHARE } from '../../senses/sight.ts';
import { distanceToBox, isInBox } from '../program/program.ts';
import type { AgentState } from './agent-state.ts';
import { impactOn, wouldReach } from './forecast.ts';
import { lightAt } from './light.ts';
import { trueOpponent } from './opponents.ts';

/** What depends on a place, for an agent that is at it or might be. */
abstract class From implements Standpoint {
  abstract readonly x: number;
  abstract readonly y: number;
  protected abstract readonly vx: number;
  protected abstract readonly vy: number;
  protected readonly agent: AgentState;

  constructor(agent: AgentState) {
    this.agent = agent;
  }

  abstract sees(agent: number): boolean;

  light(): number {
    return lightAt(this.agent.surroundings, this.x, this.y);
  }
  inZone(zone: number): boolean {
    const box = this.agent.program.ground.zones[zone];
    return box !== undefined && isInBox(box, this.x, this.y);
  }
  fromHome(): number {
    const { placed, program } = this.agent;
    const home = program.ground.zones[placed.home];
    return home ? distanceToBox(home, this.x, this.y) : NaN;
  }
  canReach(word: number, target: number): boolean {
    return wouldReach(this.agent, word, target, this.x, this.y, this.vx, this.vy);
  }
  impactIn(other: number, inTruth: boolean): number {
    const { known, surroundings, tick } = this.agent;
    const track = inTruth ? null : known.track(other);
    const opponent = inTruth ? trueOpponent(surroundings, other) : track;
    const late = track?.visible ? tick - track.seenAt : 0;
    return impactOn(this.agent, other, opponent, this.x, this.y, this.vx, this.vy, late);
  }
}

/** Where the agent's body is. */
export class Here extends From {
  get x(): number {
    return this.agent.body.x;
  }
  get y(): number {
    return this.agent.body.y;
  }
  get vx(): number {
    return this.agent.body.vx;
  }
  get vy(): number {
    return this.agent.body.vy;
  }
  sees(agent: number): boolean {
    const { tracked } = this.agent.known;
    return tracked.isVisible(tracked.find(agent));
  }
}

/** Heights looked at, as shares of a standing body: chest and head. */
const LOOKED_AT = [0.6, 0.95];
const heights = LOOKED_AT.slice();

/** Where it might stand, at rest. */
class There extends From {
  x = NaN;
  y = NaN;
  readonly vx = 0;
  readonly vy = 0;

  /** Whether nothing that is too high stands between there and the last known place. */
  sees(agent: number): boolean {
    const { known, surroundings, archetype } = this.agent;
    const [toX, toY] = [known.x(agent), known.y(agent)];
    if (toX !== toX) return false;
    const other = surroundings.agents[agent];
    for (let i = 0; i < LOOKED_AT.length; i++) heights[i] = LOOKED_AT[i] * other.archetype.height;
    const eye = archetype.height * EYE_SHARE;
    return surroundings.ground.clearPoints(this.x, this.y, eye, toX, toY, heights) > 0;
  }
}

/**
 * The facts of an agent as if it stood elsewhere: distances, angles, light, zones and lines of sight are those
 * of there. Nothing moves, and no agent’s random numbers are drawn on.
 */
export class Elsewhere implements Facts {
  readonly here: There;
  readonly known: Facts['known'];
  readonly self: Facts['self'];
  readonly around: Facts['around'];
  readonly #agent: AgentState;
  #inner: Elsewhere | null = null;

  constructor(agent: AgentState) {
    this.#agent = agent;
    this.here = new There(agent);
    this.known = agent.known;
    this.self = agent.self;
    this.around = agent.around;
  }

  get memory(): Float64Array {
    return this.#agent.memory;
  }
  get squadMemory(): Float64Array {
    return this.#agent.squadMemory;
  }
  get worldMemory(): Float64Array {
    return this.#agent.worldMemory;
  }

  moveTo(x: number, y: number): this {
    this.here.x = x;
    this.here.y = y;
    return this;
  }
  at(x: number, y: number): Facts {
    this.#inner ??= new Elsewhere(this.#agent);
    return this.#inner.moveTo(x, y);
  }
}
