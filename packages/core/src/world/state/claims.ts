import {
  collectNeighbours,
  createNeighbours,
  fillNeighbours,
  type Neighbours,
} from '../../ground/neighbours.ts';
import { distance } from '../../numeric/distance.ts';
import { LEGS_MOVING } from '../../motion/legs.ts';
import type { Body } from '../../motion/body.ts';
import type { Statics } from '../program/statics.ts';
import type { AgentState } from './agent-state.ts';

/**
 * The places that members of squads have taken: where each stands, or is on its way to. They are filed once a
 * tick, before the minds decide, so that all ask about the same facts, in whatever order they decide.
 */
export interface Claims {
  /** By agent. */
  places: { x: number; y: number; since: number }[];
  file: Neighbours;
  /** Whether they are filed for the decisions that are under way. */
  isFiled: boolean;
}

/** Within so many metres of a place it is taken. */
const TAKEN_WITHIN = 0.8;
/** An agent that stands at a place has it before all that are on the way. */
const STANDS = -1;

export function createClaims({ program: { ground, agents } }: Statics): Claims {
  return {
    places: agents.map(() => ({ x: NaN, y: NaN, since: STANDS })),
    file: createNeighbours(ground.width, ground.height, agents.length, 2),
    isFiled: false,
  };
}

/** Takes in what each member of a squad stands at or makes for now. */
export function fileClaims(
  claims: Claims,
  agents: readonly { body: Body }[],
  { inSquads }: Statics,
): void {
  for (const agent of inSquads) {
    const { legs, x, y, goalX, goalY, goalSince } = agents[agent].body;
    const place = claims.places[agent];
    const isMoving = legs === LEGS_MOVING;
    place.x = isMoving ? goalX : x;
    place.y = isMoving ? goalY : y;
    place.since = isMoving ? goalSince : STANDS;
  }
  fillNeighbours(claims.file, claims.places, inSquads);
}

const near: number[] = [];

/**
 * Whether no squad mate of an agent has taken a place: none stands there or has been on its way there for longer
 * than the agent; of two who set out in one tick the nearer one has it.
 */
export function isFree(agent: AgentState, x: number, y: number): boolean {
  const { claims, statics, agents } = agent.surroundings;
  const { squad } = agent.placed;
  if (squad < 0) return true;
  if (!claims.isFiled) fileClaims(claims, agents, statics);
  const own = claims.places[agent.index];
  const isOwn = distance(own.x, own.y, x, y) < TAKEN_WITHIN;
  const since = isOwn ? own.since : Infinity;
  const count = collectNeighbours(claims.file, x, y, TAKEN_WITHIN, near);
  for (let i = 0; i < count; i++) {
    const other = agents[near[i]];
    if (other === agent || other.placed.squad !== squad) continue;
    const place = claims.places[near[i]];
    if (!(distance(place.x, place.y, x, y) < TAKEN_WITHIN) || place.since > since) continue;
    if (place.since === STANDS || place.since < since) return false;
    if (distance(other.x, other.y, x, y) < distance(agent.x, agent.y, x, y)) return false;
  }
  return true;
}
