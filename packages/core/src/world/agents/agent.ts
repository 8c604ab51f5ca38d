import { because, type NoPath, type Reason } from '../../terms/reasons.ts';
import type { GateState, ResultName } from '../../model/documents.ts';
import type { Host, SearchPlan } from '../../mind/host.ts';
import { commandLegs, stopLegs } from '../../motion/body.ts';
import { nextRandom } from '../../numeric/random.ts';
import * as booking from '../mechanics/game/booking.ts';
import * as game from '../mechanics/game/game.ts';
import { moveGate } from '../mechanics/hands/gates.ts';
import * as hands from '../mechanics/hands/hands.ts';
import { learn } from '../mechanics/ways/learned.ts';
import { tell } from '../mechanics/telling/messages.ts';
import * as moves from '../mechanics/fighting/moves.ts';
import { bringWave } from '../mechanics/game/waves.ts';
import { GATE_STATUS } from '../program/program.ts';
import { AgentState, PLACE } from '../state/agent-state.ts';
import { guardNamed, guardOf, moveNamed } from '../state/fight.ts';
import type { SharedWrite } from '../state/surroundings.ts';

/** One agent as its minds meet it: what can be asked of it, and what it can be told to do. */
export class Agent extends AgentState implements Host {
  routePoints(route: number): Float64Array {
    return this.surroundings.routes[route];
  }
  routeWait(route: number): number {
    return this.program.ground.routes[route].waitTicks;
  }
  routeEnd(route: number): 'loop' | 'stop' | 'thereAndBack' {
    return this.program.ground.routes[route].end;
  }
  goTo(x: number, y: number, within: number, settles = false): void {
    commandLegs(this.body, x, y, within, this.tick, settles);
  }
  get trouble(): NoPath | '' {
    return this.body.trouble;
  }
  stopLegs(): void {
    stopLegs(this.body);
  }
  setGait(gait: number): void {
    this.gait = gait;
    this.settlePace();
  }
  turnTo(angle: number): void {
    this.body.eyes = angle;
  }
  freeEyes(): void {
    this.body.eyes = NaN;
  }
  say(text: string): void {
    this.speech = text;
    this.spokenAt = this.tick;
    this.recorder?.said(text);
  }
  raise(event: string): void {
    this.deliver([event]);
  }
  later(effect: () => void): void {
    this.surroundings.effects.push(effect);
  }
  makeNoise(what: number, reach: number): void {
    const { x, y } = this.body;
    this.surroundings.noises.push({ what, x, y, reach, maker: this.index, thing: -1 });
  }
  freeWay(x: number, y: number): number {
    const { body, archetype, surroundings } = this;
    return surroundings.ground.freeShare(body.x, body.y, x, y, archetype.radius);
  }
  learn(route: number, x: number, y: number): void {
    const { surroundings } = this;
    this.later(() => learn(surroundings, route, x, y));
  }
  tell(what: number, x: number, y: number, of: number): Reason | null {
    if (this.placed.squad < 0) return because('noSquad');
    this.later(() => tell(this.surroundings, this, what, x, y, of));
    return null;
  }
  /** Does what hands do when all have decided; gives why it can't be as things stand. */
  #byHand(trouble: Reason | null, work: () => Reason | null): Reason | null {
    this.refused = null;
    if (trouble) return trouble;
    this.later(() => {
      this.refused = work();
    });
    return null;
  }
  pickUp(thing: number): Reason | null {
    const around = this.surroundings;
    return this.#byHand(hands.whyNotPickUp(around, this, thing), () =>
      hands.pickUp(around, this, thing),
    );
  }
  drop(): Reason | null {
    return this.#byHand(hands.whyNotRelease(this), () => hands.drop(this.surroundings, this));
  }
  throwAt(x: number, y: number): Reason | null {
    return this.#byHand(hands.whyNotRelease(this), () =>
      hands.throwAt(this.surroundings, this, x, y),
    );
  }
  use(gate: number): Reason | null {
    const around = this.surroundings;
    return this.#byHand(hands.whyNotUse(around, this, gate), () => hands.use(around, this, gate));
  }
  wake(agent: number): Reason | null {
    const around = this.surroundings;
    return this.#byHand(hands.whyNotWake(around, this, agent), () =>
      hands.wake(around, this, agent),
    );
  }
  strike(word: number, target: number, way: number): Reason | null {
    const move = moveNamed(this, word);
    return moves.beginMove(this.surroundings, this, move, target, this.heading + way);
  }
  isStriking(word: number, since: number): boolean {
    const { fight } = this;
    if (fight.brokenAt >= since) {
      this.reason = fight.brokenBy;
      return false;
    }
    return fight.startedAt === since && this.archetype.moves[fight.move]?.word === word;
  }
  breakOff(): void {
    moves.breakMove(this.surroundings, this, because('turnedElsewhere'));
  }
  raiseGuard(word: number): Reason | null {
    return moves.raiseGuard(this, guardNamed(this, word));
  }
  isGuarding(word: number): boolean {
    if (guardOf(this)?.word === word) return true;
    this.reason = this.fight.loweredBy;
    return false;
  }
  lowerGuard(): void {
    moves.lowerGuard(this);
  }
  isAsleep(agent: number): boolean {
    return this.surroundings.agents[agent]?.asleep ?? false;
  }
  search(plan: SearchPlan): void {
    this.later(() => {
      booking.joinSearch(this.surroundings, this, plan);
      booking.bookPlace(this.surroundings, this);
    });
  }
  searchPlace(): boolean {
    return booking.putPlace(this.surroundings, this, PLACE);
  }
  leavePlace(done: boolean): void {
    this.later(() => booking.leavePlace(this.surroundings, this, done));
  }
  surround(agent: number, places: number, distance: number, x: number, y: number): void {
    this.later(() => booking.bookSlot(this.surroundings, this, agent, places, distance, x, y));
  }
  slotAround(agent: number, distance: number): boolean {
    return booking.putSlot(this.surroundings, this, agent, distance, PLACE);
  }
  leaveSlot(): void {
    this.later(() => booking.leaveSlot(this.surroundings, this));
  }
  get obedience(): number {
    return this.archetype.obedience;
  }

  bring(wave: number): Reason | null {
    const index = this.program.director.waves.findIndex(({ word }) => word === wave);
    return bringWave(this.surroundings, index);
  }
  sendAway(group: number): Reason | null {
    return game.sendAway(this.surroundings, group);
  }
  announce(event: string, group: number): void {
    game.announce(this.surroundings, event, group);
  }
  addScore(score: number, points: number): Reason | null {
    return game.addScore(this.surroundings, score, points) ? null : because('pointsUnknown');
  }
  setMode(mode: number, ticks: number): void {
    game.setMode(this.surroundings, mode, ticks);
  }
  setLight(to: number, ticks: number): void {
    game.setLight(this.surroundings, Math.max(0, Math.min(1, to)), ticks);
  }
  setGate(gate: number, to: GateState): Reason | null {
    return moveGate(this.surroundings, gate, GATE_STATUS[to]);
  }
  end(how: ResultName, words: string): void {
    game.end(this.surroundings, how, words);
  }

  random(): number {
    return nextRandom(this.stream);
  }
  remember(key: number, a: number, b: number): void {
    this.#write({ agent: this, key, how: 'remember', a, b });
  }
  add(key: number, a: number, b: number): void {
    this.#write({ agent: this, key, how: 'add', a, b });
  }
  forget(key: number): void {
    this.#write({ agent: this, key, how: 'forget', a: 0, b: 0 });
  }

  /** The agent's own memory is written at once, what it shares when all have decided. */
  #write(write: SharedWrite): void {
    if (this.stack!.program.keys[write.key].scope !== 'self') this.surroundings.outbox.push(write);
    else if (this.apply(write)) this.recorder?.remembered(write.key);
    else this.recorder?.kept(write.key);
  }
}
