import type { Self } from '../../expression/facts.ts';
import { HOSTILE } from '../../terms/stances.ts';
import type { AgentState } from './agent-state.ts';
import { isFree } from './claims.ts';
import { moveNamed, whyNotBegin } from './fight.ts';

/** What an agent is: its body, its moves, its place among others. */
export class OwnSelf implements Self {
  readonly #agent: AgentState;

  constructor(agent: AgentState) {
    this.#agent = agent;
  }

  get heading(): number {
    return this.#agent.body.heading;
  }
  get vx(): number {
    return this.#agent.body.vx;
  }
  get vy(): number {
    return this.#agent.body.vy;
  }
  get postX(): number {
    return this.#agent.placed.post.x;
  }
  get postY(): number {
    return this.#agent.placed.post.y;
  }
  get homeX(): number {
    return this.#agent.around.zoneX(this.#agent.placed.home);
  }
  get homeY(): number {
    return this.#agent.around.zoneY(this.#agent.placed.home);
  }
  get route(): number {
    return this.#agent.placed.route;
  }
  get crouched(): boolean {
    return this.#agent.crouched;
  }
  get carried(): number {
    return this.#agent.carried;
  }
  get role(): number {
    return this.#agent.role;
  }
  get health(): number {
    return this.#agent.life.health;
  }
  get healthShare(): number {
    return this.#agent.life.health / this.#agent.archetype.health;
  }
  get lastResult(): number {
    return this.#agent.fight.lastResult;
  }
  #since(tick: number): number {
    return tick < 0 ? NaN : (this.#agent.tick - tick) / this.#agent.ticksPerSecond;
  }
  sinceHit(): number {
    return this.#since(this.#agent.fight.hitAt);
  }
  sinceLanded(): number {
    return this.#since(this.#agent.fight.landedAt);
  }
  cooldownLeft(word: number): number {
    const { fight, tick, ticksPerSecond } = this.#agent;
    const ready = fight.readyAt[moveNamed(this.#agent, word)];
    return ready === undefined ? NaN : Math.max(0, ready - tick) / ticksPerSecond;
  }
  isReady(word: number): boolean {
    const move = moveNamed(this.#agent, word);
    // What is guarded by it must not lose its guard by beginning.
    return (
      (move >= 0 && this.#agent.fight.move === move) || whyNotBegin(this.#agent, move) === null
    );
  }
  isHostile(agent: number): boolean {
    return this.#agent.stanceTo(agent) === HOSTILE;
  }
  isFree(x: number, y: number): boolean {
    return isFree(this.#agent, x, y);
  }
}
