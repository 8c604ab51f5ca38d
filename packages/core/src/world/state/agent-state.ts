import type { Reason } from '../../terms/reasons.ts';
import { FRIENDLY } from '../../terms/stances.ts';
import type { Around, Facts } from '../../expression/facts.ts';
import type { MindRecorder } from '../../mind/host.ts';
import { addToKey, resetKey, writeKey } from '../../mind/memory.ts';
import type { RunnableMind, RunnableStack } from '../../mind/machine/mind.ts';
import type { KeyProgram } from '../../mind/program.ts';
import { createBody, type Body } from '../../motion/body.ts';
import type { LegsStatus } from '../../motion/legs.ts';
import { hashText, type RandomStream } from '../../numeric/random.ts';
import type { Percept } from '../../senses/percept.ts';
import { EYE_SHARE } from '../../senses/sight.ts';
import { Tracks, type Track } from '../../senses/tracks.ts';
import {
  stanceToward,
  type AgentProgram,
  type ArchetypeProgram,
  type Program,
} from '../program/program.ts';
import type { Statics } from '../program/statics.ts';
import { begin, type AgentRun, type Arriving, type Life, type Sensation } from './agent-run.ts';
import { createFight, type Fight } from './fight.ts';
import { Known } from './known.ts';
import { OwnSelf } from './self.ts';
import { Elsewhere, Here } from './standpoint.ts';
import type { SharedWrite, Surroundings } from './surroundings.ts';

const NOTHING = new Float64Array(0);
/** Where a place is handed over; one for all agents, since it is read at once. */
export const PLACE = new Float64Array(2);
const NO_MINDS: RunnableMind[] = [];
const NO_LIFE: Life = { health: NaN, diedAt: -1, touching: -1 };
const NO_FIGHT = createFight({ moves: [] });
const NO_STREAM = new Uint32Array(4);
/** Height of a body that lies. */
const LYING = 0.4;

/**
 * One agent in a run: its state, and the parts that answer what can be asked of it. A class, because
 * expressions read it many times a tick and engines are fastest on one fixed shape.
 */
export class AgentState implements AgentRun, Facts {
  // What a decision reads comes first: fields that stand side by side come into the cache together.
  readonly minds: readonly RunnableMind[];
  memory: Float64Array;
  readonly body: Body = createBody(0, 0, 0, 0);
  readonly known = new Known(this);
  readonly here = new Here(this);
  readonly self = new OwnSelf(this);
  around!: Around;
  /** A heading with its cosine and sine, as last looked in: they take long to work out, and most agents keep their heading. */
  readonly face = new Float64Array([NaN, 0, 0]);
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
  /** Whether a player drives it; its minds rest meanwhile. */
  get isPlayed(): boolean {
    return !Number.isNaN(this.body.steerX);
  }
  get postHeading(): number {
    return this.placed.post.heading;
  }
  get isDead(): boolean {
    return this.life.diedAt >= 0;
  }
  /** What is on its way, as plain data. */
  get late(): Sensation[] {
    return this.known.late.map((late) => ({ ...late, tracks: late.tracks.list() }));
  }
  set late(late: Sensation[]) {
    this.known.late.length = 0;
    for (const { tracks: list, ...rest } of late) {
      const tracks = new Tracks();
      tracks.set(list);
      this.known.late.push({ ...rest, tracks });
    }
  }
  get percepts(): (Percept | null)[] {
    return this.known.percepts;
  }
  set percepts(percepts: (Percept | null)[]) {
    this.known.percepts = percepts;
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

  /** Copies, for snapshots and for views. */
  get tracks(): Track[] {
    return this.known.sight.list();
  }
  get noticed(): Track[] {
    return this.known.tracked.list();
  }
  /** The array a key stands in. */
  cellsOf(key: KeyProgram): Float64Array {
    if (key.scope === 'squad') return this.squadMemory;
    return key.scope === 'world' ? this.worldMemory : this.memory;
  }
  stanceTo(agent: number): number {
    const other = this.surroundings.agents[agent];
    if (!other) return -1;
    return stanceToward(this.program, this.archetype.side, other.archetype.side);
  }
  isFriendly(agent: number): boolean {
    return this.stanceTo(agent) === FRIENDLY;
  }
  /** Where its target is, as far as it knows; a player sees for itself. Null for no target. */
  sightOf(agent: number): { x: number; y: number; vx: number; vy: number } | null {
    if (this.isPlayed) return this.surroundings.agents[agent]?.body ?? null;
    return this.known.track(agent);
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
  at(x: number, y: number): Facts {
    this.#elsewhere ??= new Elsewhere(this);
    return this.#elsewhere.moveTo(x, y);
  }
  locate(agent: number): boolean {
    const { tracked } = this.known;
    const track = tracked.find(agent);
    if (track < 0) return false;
    PLACE[0] = tracked.x(track);
    PLACE[1] = tracked.y(track);
    return true;
  }

  /** The others of its squad. */
  mates(): AgentState[] {
    const { agents, statics } = this.surroundings;
    return (statics.members[this.placed.squad] ?? []).flatMap((index) =>
      index === this.index ? [] : [agents[index]],
    );
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
