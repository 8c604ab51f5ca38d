import { EYE_SHARE } from '../../senses/sight.ts';
import type { Facts, GameFacts, PerceptFacts } from '../../expression/facts.ts';
import type { AgentState } from './agent-state.ts';
import { impactOn } from './opponents.ts';
import { lightAt } from './light.ts';

/** Heights looked at, as shares of a standing body: chest and head. */
const LOOKED_AT = [0.6, 0.95];
const heights = LOOKED_AT.slice();

/**
 * What an agent would be able to tell if it stood elsewhere. Distances, angles, light, zones and lines of
 * sight are those of there; what it knows, remembers and is stays as it is. Nothing moves, and no agent’s random numbers
 * is drawn on.
 */
export class Elsewhere implements Facts {
  x = 0;
  y = 0;
  private readonly agent: AgentState;
  private readonly from: Facts;
  private inner: Elsewhere | null = null;

  constructor(agent: AgentState, from: Facts) {
    this.agent = agent;
    this.from = from;
  }

  moveTo(x: number, y: number): this {
    this.x = x;
    this.y = y;
    return this;
  }

  elsewhere(x: number, y: number): Facts {
    this.inner ??= new Elsewhere(this.agent, this);
    return this.inner.moveTo(x, y);
  }

  light(): number {
    return lightAt(this.agent.surroundings, this.x, this.y);
  }
  inZone(zone: number): boolean {
    return this.agent.isZoneAt(zone, this.x, this.y);
  }
  /** Whether nothing that is too high stands between there and the last known place. */
  sees(agent: number): boolean {
    const [toX, toY] = [this.knownX(agent), this.knownY(agent)];
    if (toX !== toX) return false;
    const other = this.agent.surroundings.agents[agent];
    for (let i = 0; i < LOOKED_AT.length; i++) heights[i] = LOOKED_AT[i] * other.archetype.height;
    const eye = this.agent.archetype.height * EYE_SHARE;
    const { ground } = this.agent.surroundings;
    return ground.clearPoints(this.x, this.y, eye, toX, toY, heights) > 0;
  }

  canReach(move: number, agent: number): boolean {
    return this.agent.reachesFrom(move, agent, this.x, this.y);
  }
  impactIn(agent: number, inTruth: boolean): number {
    return impactOn(this.agent, agent, inTruth, this.x, this.y, 0, 0);
  }

  zoneX(zone: number): number {
    return this.from.zoneX(zone);
  }
  zoneY(zone: number): number {
    return this.from.zoneY(zone);
  }
  fromHome(): number {
    return this.agent.fromHomeAt(this.x, this.y);
  }
  get game(): GameFacts {
    return this.from.game;
  }
  get homeX(): number {
    return this.from.homeX;
  }
  get homeY(): number {
    return this.from.homeY;
  }
  get tier(): number {
    return this.from.tier;
  }
  get healthShare(): number {
    return this.from.healthShare;
  }
  get lastResult(): number {
    return this.from.lastResult;
  }
  sinceHit(): number {
    return this.from.sinceHit();
  }
  sinceLanded(): number {
    return this.from.sinceLanded();
  }
  cooldownLeft(move: number): number {
    return this.from.cooldownLeft(move);
  }
  isReady(move: number): boolean {
    return this.from.isReady(move);
  }
  moveOf(agent: number, inTruth: boolean): number {
    return this.from.moveOf(agent, inTruth);
  }
  phaseOf(agent: number, inTruth: boolean): number {
    return this.from.phaseOf(agent, inTruth);
  }
  guardOf(agent: number, inTruth: boolean): number {
    return this.from.guardOf(agent, inTruth);
  }
  healthOf(agent: number, inTruth: boolean): number {
    return this.from.healthOf(agent, inTruth);
  }
  get memory(): Float64Array {
    return this.from.memory;
  }
  get squadMemory(): Float64Array {
    return this.from.squadMemory;
  }
  get worldMemory(): Float64Array {
    return this.from.worldMemory;
  }
  get heading(): number {
    return this.from.heading;
  }
  get vx(): number {
    return this.from.vx;
  }
  get vy(): number {
    return this.from.vy;
  }
  get postX(): number {
    return this.from.postX;
  }
  get postY(): number {
    return this.from.postY;
  }
  get route(): number {
    return this.from.route;
  }
  get attentionOf(): number {
    return this.from.attentionOf;
  }
  get attentionX(): number {
    return this.from.attentionX;
  }
  get attentionY(): number {
    return this.from.attentionY;
  }
  get attentionStrength(): number {
    return this.from.attentionStrength;
  }
  get attentionSense(): number {
    return this.from.attentionSense;
  }
  get attentionAge(): number {
    return this.from.attentionAge;
  }
  get carried(): number {
    return this.from.carried;
  }
  get health(): number {
    return this.from.health;
  }
  get role(): number {
    return this.from.role;
  }
  get crouched(): boolean {
    return this.from.crouched;
  }
  seconds(): number {
    return this.from.seconds();
  }
  keyAge(key: number): number {
    return this.from.keyAge(key);
  }
  awareness(agent: number): number {
    return this.from.awareness(agent);
  }
  knownX(agent: number): number {
    return this.from.knownX(agent);
  }
  knownY(agent: number): number {
    return this.from.knownY(agent);
  }
  knownSpeedX(agent: number): number {
    return this.from.knownSpeedX(agent);
  }
  knownSpeedY(agent: number): number {
    return this.from.knownSpeedY(agent);
  }
  percept(sense: number): PerceptFacts | null {
    return this.from.percept(sense);
  }
  perceptAge(sense: number): number {
    return this.from.perceptAge(sense);
  }
  isHostile(agent: number): boolean {
    return this.from.isHostile(agent);
  }
  isOpen(gate: number): boolean {
    return this.from.isOpen(gate);
  }
  isFree(x: number, y: number): boolean {
    return this.from.isFree(x, y);
  }
  trueX(agent: number): number {
    return this.from.trueX(agent);
  }
  trueY(agent: number): number {
    return this.from.trueY(agent);
  }
  thingWeight(thing: number): number {
    return this.from.thingWeight(thing);
  }
  thingX(thing: number): number {
    return this.from.thingX(thing);
  }
  thingY(thing: number): number {
    return this.from.thingY(thing);
  }
}
