import type { Reason } from '../../terms/reasons.ts';
import { SENSES, SIGHT } from '../../terms/senses.ts';
import { FRIENDLY, HOSTILE } from '../../terms/stances.ts';
import type { Facts, GameFacts } from '../../expression/facts.ts';
import type { MindRecorder } from '../../mind/host.ts';
import { addToKey, resetKey, writeKey } from '../../mind/memory.ts';
import type { RunnableMind, RunnableStack } from '../../mind/machine/mind.ts';
import type { KeyProgram } from '../../mind/program.ts';
import { createBody, type Body } from '../../motion/body.ts';
import { LEGS_MOVING, type LegsStatus } from '../../motion/legs.ts';
import { hashText, type RandomStream } from '../../numeric/random.ts';
import type { Percept } from '../../senses/percept.ts';
import { EYE_SHARE } from '../../senses/sight.ts';
import { Tracks, type Track } from '../../senses/tracks.ts';
import {
  GATE_OPEN,
  stanceToward,
  type AgentProgram,
  distanceToBox,
  isInBox,
  type ArchetypeProgram,
  type Program,
} from '../program/program.ts';
import type { Statics } from '../program/statics.ts';
import { begin, type AgentRun, type Arriving, type Life, type Sensation } from './agent-run.ts';
import { createFight, moveNamed, whyNotBegin, type Fight } from './fight.ts';
import { Elsewhere } from './elsewhere.ts';
import { lightAt } from './light.ts';
import { impactOn, moveOfOpponent, opponentOf, phaseOfOpponent } from './opponents.ts';
import type { SharedWrite, Surroundings } from './surroundings.ts';

const NOTHING = new Float64Array(0);
/** Where a place is handed over; one for all agents, since it is read at once. */
export const PLACE = new Float64Array(2);
const NO_MINDS: RunnableMind[] = [];
const NO_PERCEPTS: readonly (Percept | null)[] = SENSES.map(() => null);
const NO_LIFE: Life = { health: NaN, diedAt: -1, touching: -1 };
const NO_FIGHT = createFight({ moves: [] });
const NO_STREAM = new Uint32Array(4);
/** Height of a body that lies. */
const LYING = 0.4;
/** A goal this close to a place takes it. */
const TAKEN_WITHIN = 0.8;

/**
 * All that one agent is, and what can be asked of it: its body, senses and memory. A class, because
 * expressions read it many times a tick and engines are fastest on one fixed shape.
 */
export class AgentState implements AgentRun, Facts {
  // What a decision reads comes first: fields that stand side by side come into the cache together.
  readonly minds: readonly RunnableMind[];
  memory: Float64Array;
  readonly body: Body = createBody(0, 0, 0, 0);
  /** What of sight has reached the minds: {@link sight} itself, or what that was a reaction time ago. */
  tracked = new Tracks();
  attended = -1;
  /** The sense that has the attention; −1 for none. */
  heeded = -1;
  /** What the attention is on; set again whenever the senses have brought something. */
  attentionOf = -1;
  attentionX = NaN;
  attentionY = NaN;
  attentionStrength = 0;
  percepts: (Percept | null)[] = NO_PERCEPTS.slice();
  /** How many of them are something. */
  perceived = 0;
  tick = 0;
  /** Whether any event waits in `inboxes`. */
  hasEvents = false;
  readonly placed: AgentProgram;
  readonly statics: Statics;
  readonly ticksPerSecond: number;
  recorder: MindRecorder | null = null;
  /** Shifts the decisions of minds that think at intervals. */
  readonly stagger: number;
  readonly place = PLACE;
  readonly index: number;
  readonly name: string;
  readonly program: Program;
  readonly archetype: ArchetypeProgram;
  readonly stack: RunnableStack | null;
  squadMemory: Float64Array = NOTHING;
  worldMemory: Float64Array = NOTHING;
  /** What sight holds now. */
  readonly sight = this.tracked;
  late: Sensation[] = [];
  arriving: Arriving[] = [];
  stream: RandomStream = NO_STREAM;
  gait = 0;
  asleep = false;
  away = false;
  resting = false;
  refused: Reason | null = null;
  carried = -1;
  /** Who it shares what it has found with: its squad, else itself; index of {@link Surroundings.found}. */
  readonly finder: number;
  role = -1;
  surroundings!: Surroundings;
  inboxes: string[][] = [];
  speech = '';
  spokenAt = -1;
  reason: Reason | null = null;
  /** By mind. */
  recorders: MindRecorder[] | null = null;
  #elsewhere: Elsewhere | null = null;
  /** What harm has to do with; last, and in one field, since a decision hardly ever reads it. */
  life: Life = NO_LIFE;
  fight: Fight = NO_FIGHT;

  /** `memory` is where its cells stand: room for as many as its stack of minds takes. */
  constructor(statics: Statics, index: number, seed: number, memory: Float64Array) {
    const { program } = statics;
    const placed = program.agents[index];
    const archetype = program.archetypes[placed.archetype];
    this.index = index;
    this.name = placed.name;
    this.program = program;
    this.placed = placed;
    this.archetype = archetype;
    this.statics = statics;
    this.stack = archetype.stack < 0 ? null : statics.stacks[archetype.stack];
    this.minds = this.stack?.minds ?? NO_MINDS;
    this.stagger = hashText(placed.name);
    this.memory = memory;
    this.finder = placed.squad >= 0 ? placed.squad : program.squads.length + index;
    this.ticksPerSecond = program.ticksPerSecond;
    const { heading, asleep, away } = placed;
    const [x, y] = away ? [NaN, NaN] : [placed.x, placed.y];
    begin(this, { x, y, heading, asleep, away, played: index === program.play, seed });
  }

  get x(): number {
    return this.body.x;
  }
  get y(): number {
    return this.body.y;
  }
  get heading(): number {
    return this.body.heading;
  }
  get vx(): number {
    return this.body.vx;
  }
  get vy(): number {
    return this.body.vy;
  }
  /** Whether a player drives it; its minds rest meanwhile. */
  get isPlayed(): boolean {
    return !Number.isNaN(this.body.steerX);
  }
  get postX(): number {
    return this.placed.post.x;
  }
  get postY(): number {
    return this.placed.post.y;
  }
  get postHeading(): number {
    return this.placed.post.heading;
  }
  get route(): number {
    return this.placed.route;
  }
  get game(): GameFacts {
    return this.surroundings.game;
  }
  get homeX(): number {
    return this.zoneX(this.placed.home);
  }
  get homeY(): number {
    return this.zoneY(this.placed.home);
  }
  fromHome(): number {
    return this.fromHomeAt(this.body.x, this.body.y);
  }
  /** The same from another place. */
  fromHomeAt(x: number, y: number): number {
    const home = this.program.ground.zones[this.placed.home];
    return home ? distanceToBox(home, x, y) : NaN;
  }
  get health(): number {
    return this.life.health;
  }
  get isDead(): boolean {
    return this.life.diedAt >= 0;
  }
  get aware(): boolean {
    return this.tracked.length > 0 || this.perceived > 0;
  }
  get crouched(): boolean {
    return this.archetype.crouched[this.gait];
  }
  /** Metres, as the body holds itself now. */
  get height(): number {
    if (this.asleep) return LYING;
    return this.crouched ? this.archetype.crouchHeight : this.archetype.height;
  }
  get eye(): number {
    return this.height * EYE_SHARE;
  }
  /** How much the posture gives away, 0 to 1. */
  get posture(): number {
    return this.archetype.visibility[this.gait];
  }
  get legs(): LegsStatus {
    return this.body.legs;
  }
  get attentionSense(): number {
    return this.heeded;
  }
  get attentionAge(): number {
    const at =
      this.heeded === SIGHT ? this.tracked.seenAt(this.attended) : this.percepts[this.heeded]?.tick;
    return at === undefined ? NaN : (this.tick - at) / this.ticksPerSecond;
  }
  /** Highest awareness by sight. */
  get awarenessShown(): number {
    return this.tracked.awareness(this.attended);
  }

  /** Goes as fast as its gait and what it carries let it. */
  settlePace(): void {
    const { speeds, carryingSpeed } = this.archetype;
    this.body.pace = (speeds[this.gait] ?? NaN) * (this.carried >= 0 ? carryingSpeed : 1);
  }

  deliver(events: readonly string[]): void {
    if (events.length === 0) return;
    for (const inbox of this.inboxes) inbox.push(...events);
    this.hasEvents = true;
  }

  /** For keeping, and for those who only show it: copies. */
  get tracks(): Track[] {
    return this.sight.list();
  }
  get noticed(): Track[] {
    return this.tracked.list();
  }
  track(agent: number): Track | null {
    const track = this.tracked.find(agent);
    return track < 0 ? null : this.tracked.at(track);
  }

  seconds(): number {
    return this.tick / this.ticksPerSecond;
  }
  /** The array a key stands in. */
  cellsOf(key: KeyProgram): Float64Array {
    if (key.scope === 'squad') return this.squadMemory;
    return key.scope === 'world' ? this.worldMemory : this.memory;
  }
  keyAge(key: number): number {
    const program = this.stack!.program.keys[key];
    const written = this.cellsOf(program)[program.stamp];
    return written < 0 ? NaN : (this.tick - written) / this.ticksPerSecond;
  }
  sees(agent: number): boolean {
    return this.tracked.isVisible(this.tracked.find(agent));
  }
  awareness(agent: number): number {
    return this.tracked.awareness(this.tracked.find(agent));
  }
  knownX(agent: number): number {
    return this.tracked.x(this.tracked.find(agent));
  }
  knownY(agent: number): number {
    return this.tracked.y(this.tracked.find(agent));
  }

  knownSpeedX(agent: number): number {
    return this.tracked.vx(this.tracked.find(agent));
  }
  knownSpeedY(agent: number): number {
    return this.tracked.vy(this.tracked.find(agent));
  }

  percept(sense: number): Percept | null {
    return this.percepts[sense];
  }
  perceptAge(sense: number): number {
    const percept = this.percepts[sense];
    return percept === null ? NaN : (this.tick - percept.tick) / this.ticksPerSecond;
  }
  #stance(agent: number): number {
    const other = this.surroundings.agents[agent];
    if (!other) return -1;
    return stanceToward(this.program, this.archetype.side, other.archetype.side);
  }
  isHostile(agent: number): boolean {
    return this.#stance(agent) === HOSTILE;
  }
  isFriendly(agent: number): boolean {
    return this.#stance(agent) === FRIENDLY;
  }
  trueX(agent: number): number {
    return this.surroundings.agents[agent]?.x ?? NaN;
  }
  trueY(agent: number): number {
    return this.surroundings.agents[agent]?.y ?? NaN;
  }
  thingX(thing: number): number {
    return this.surroundings.things[thing]?.x ?? NaN;
  }
  thingY(thing: number): number {
    return this.surroundings.things[thing]?.y ?? NaN;
  }
  thingWeight(thing: number): number {
    return this.program.ground.things[thing]?.weight ?? NaN;
  }
  isOpen(gate: number): boolean {
    return this.surroundings.gates[gate] === GATE_OPEN;
  }
  inZone(zone: number): boolean {
    return this.isZoneAt(zone, this.body.x, this.body.y);
  }
  zoneX(zone: number): number {
    const box = this.program.ground.zones[zone];
    return box ? box.x + box.width / 2 : NaN;
  }
  zoneY(zone: number): number {
    const box = this.program.ground.zones[zone];
    return box ? box.y + box.height / 2 : NaN;
  }
  /** Whether a place is in the zone. */
  isZoneAt(zone: number, x: number, y: number): boolean {
    const box = this.program.ground.zones[zone];
    return box !== undefined && isInBox(box, x, y);
  }
  light(): number {
    return lightAt(this.surroundings, this.body.x, this.body.y);
  }
  get tier(): number {
    return this.program.tier;
  }
  get healthShare(): number {
    return this.life.health / this.archetype.health;
  }
  get lastResult(): number {
    return this.fight.lastResult;
  }
  /** Where its target is, as far as it knows; a player sees for itself. Null for no target. */
  sightOf(agent: number): { x: number; y: number; vx: number; vy: number } | null {
    if (this.isPlayed) return this.surroundings.agents[agent]?.body ?? null;
    return this.track(agent);
  }
  #since(tick: number): number {
    return tick < 0 ? NaN : (this.tick - tick) / this.ticksPerSecond;
  }
  sinceHit(): number {
    return this.#since(this.fight.hitAt);
  }
  sinceLanded(): number {
    return this.#since(this.fight.landedAt);
  }
  cooldownLeft(word: number): number {
    const ready = this.fight.readyAt[moveNamed(this, word)];
    return ready === undefined ? NaN : Math.max(0, ready - this.tick) / this.ticksPerSecond;
  }
  isReady(word: number): boolean {
    const move = moveNamed(this, word);
    // What is guarded by it must not lose its guard by beginning.
    return (move >= 0 && this.fight.move === move) || whyNotBegin(this, move) === null;
  }
  canReach(word: number, agent: number): boolean {
    return this.reachesFrom(word, agent, this.body.x, this.body.y);
  }
  /** The same from another place. */
  reachesFrom(word: number, agent: number, x: number, y: number): boolean {
    const move = this.archetype.moves[moveNamed(this, word)];
    const track = this.tracked.find(agent);
    if (!move || track < 0) return false;
    const { radius } = this.surroundings.agents[agent].archetype;
    const [dx, dy] = [this.tracked.x(track) - x, this.tracked.y(track) - y];
    const reach = this.archetype.radius + move.advance + move.reach + radius;
    return dx * dx + dy * dy <= reach * reach;
  }
  moveOf(agent: number, inTruth: boolean): number {
    return moveOfOpponent(this, agent, inTruth);
  }
  phaseOf(agent: number, inTruth: boolean): number {
    return phaseOfOpponent(this, agent, inTruth);
  }
  guardOf(agent: number, inTruth: boolean): number {
    return opponentOf(this, agent, inTruth)?.seen.guard ?? -1;
  }
  healthOf(agent: number, inTruth: boolean): number {
    return opponentOf(this, agent, inTruth)?.seen.health ?? NaN;
  }
  impactIn(agent: number, inTruth: boolean): number {
    const { x, y, vx, vy } = this.body;
    return impactOn(this, agent, inTruth, x, y, vx, vy);
  }
  stanceTo(agent: number): number {
    return this.#stance(agent);
  }
  isGone(agent: number): boolean {
    const other = this.surroundings.agents[agent];
    return !other || other.isDead || other.away;
  }
  isLoose(index: number): boolean {
    const thing = this.surroundings.things[index];
    return thing !== undefined && thing.carrier < 0 && thing.flight === 0;
  }
  canStandAt(x: number, y: number): boolean {
    return !this.surroundings.ground.isBlocked(x, y, this.archetype.radius);
  }
  elsewhere(x: number, y: number): Facts {
    this.#elsewhere ??= new Elsewhere(this, this);
    return this.#elsewhere.moveTo(x, y);
  }
  locate(agent: number): boolean {
    const track = this.tracked.find(agent);
    if (track < 0) return false;
    PLACE[0] = this.tracked.x(track);
    PLACE[1] = this.tracked.y(track);
    return true;
  }

  /** The others of its squad. */
  mates(): AgentState[] {
    const { agents, statics } = this.surroundings;
    return (statics.members[this.placed.squad] ?? []).flatMap((index) =>
      index === this.index ? [] : [agents[index]],
    );
  }
  /** Whether no squad mate is on its way to a place, or stands there. */
  isFree(x: number, y: number): boolean {
    return !this.mates().some(({ body }) => {
      const moving = body.legs === LEGS_MOVING;
      const dx = (moving ? body.goalX : body.x) - x;
      const dy = (moving ? body.goalY : body.y) - y;
      return dx * dx + dy * dy < TAKEN_WITHIN * TAKEN_WITHIN;
    });
  }
  /** Metres from the edge of the body to a place. */
  awayFrom(x: number, y: number): number {
    const dx = x - this.body.x;
    const dy = y - this.body.y;
    return Math.sqrt(dx * dx + dy * dy) - this.archetype.radius;
  }
  /** Who uses a channel: the cell of the action that took it last; 0 for none. */
  owner(channel: number): number {
    return this.memory[this.stack!.channels + channel];
  }
  take(channel: number, owner: number): void {
    this.memory[this.stack!.channels + channel] = owner;
  }

  /** Does a write to memory; false where the value is missing and nothing was written. */
  apply(write: SharedWrite): boolean {
    return this.applyTo(this.cellsOf(this.stack!.program.keys[write.key]), write);
  }
  /** The same to cells that are laid out like those the key is in. */
  applyTo(cells: Float64Array, { key, how, a, b }: SharedWrite): boolean {
    const program = this.stack!.program.keys[key];
    if (how === 'remember') return writeKey(cells, program, a, b, this.tick);
    if (how === 'add') return addToKey(cells, program, a, b, this.tick);
    resetKey(cells, program);
    return true;
  }
}

/** Whether what an agent would share with a squad is its own: it has none, or one whose words carry only so far. */
export function sharesAlone({ squad }: AgentProgram, { squads }: Program): boolean {
  return squad < 0 || squads[squad].reach >= 0;
}
