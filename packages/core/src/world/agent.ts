import type { Host, LegsStatus, MindRecorder } from '../mind/host.ts';
import { addToKey, resetKey, writeKey } from '../mind/memory.ts';
import type { RunnableMind, RunnableStack } from '../mind/mind.ts';
import type { KeyProgram } from '../mind/program.ts';
import { commandLegs, createBody, stopLegs, type Body } from '../motion/body.ts';
import { createStream, hashText, nextRandom, type RandomStream } from '../numeric/random.ts';
import { attendedTrack, type Track } from '../senses/sight.ts';
import type { AgentProgram, ArchetypeProgram, Program } from './program.ts';
import type { Statics } from './statics.ts';

const NOTHING = new Float64Array(0);
/** Where a place is handed over; one for all agents, since it is read at once. */
const PLACE = new Float64Array(2);
const NO_MINDS: RunnableMind[] = [];

/** What a mind wants written to memory it shares; done after all minds have decided. */
export interface SharedWrite {
  agent: Agent;
  /** Index among the keys of the agent's stack. */
  key: number;
  how: 'remember' | 'add' | 'forget';
  a: number;
  b: number;
}

/** What the senses brought at one tick, on its way to the minds. */
export interface Sensation {
  tracks: Track[];
  events: string[];
}

/**
 * One agent: its body, senses and mind, and the face it shows to that mind. A class, because
 * expressions read it many times a tick and engines are fastest on one fixed shape.
 */
export class Agent implements Host {
  // What a decision reads comes first: fields that stand side by side come into the cache together.
  readonly minds: readonly RunnableMind[];
  memory: Float64Array;
  body: Body;
  /** What of the senses has reached the minds: `tracks`, or what they were a reaction time ago. */
  noticed: Track[] = [];
  attended = -1;
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
  /** What is written when all have decided; one list for all agents of a world. */
  outbox: SharedWrite[] = [];
  /** What the senses hold now. */
  tracks: Track[] = this.noticed;
  /** Sensations on their way, the oldest first. */
  late: Sensation[] = [];
  stream: RandomStream;
  gait: number;
  /** By mind: events that wait for its next decision. */
  inboxes: string[][];
  speech = '';
  spokenAt = -1;
  reason = '';
  /** By mind. */
  recorders: MindRecorder[] | null = null;

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
    this.body = createBody(placed.x, placed.y, placed.heading, archetype.paces[archetype.gait]);
    this.memory = memory;
    if (this.stack) memory.set(this.stack.initial);
    this.inboxes = this.minds.map(() => []);
    this.gait = archetype.gait;
    this.stream = createStream(seed, `agent ${placed.name}`);
    this.ticksPerSecond = program.ticksPerSecond;
    if (index === program.play) {
      this.body.steerX = 0;
      this.body.steerY = 0;
    }
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
  get postX(): number {
    return this.placed.x;
  }
  get postY(): number {
    return this.placed.y;
  }
  get route(): number {
    return this.placed.route;
  }
  get aware(): boolean {
    return this.noticed.length > 0;
  }
  get legs(): LegsStatus {
    return this.body.legs;
  }
  get attentionOf(): number {
    return this.attended < 0 ? -1 : this.noticed[this.attended].of;
  }
  get attentionX(): number {
    return this.attended < 0 ? NaN : this.noticed[this.attended].x;
  }
  get attentionY(): number {
    return this.attended < 0 ? NaN : this.noticed[this.attended].y;
  }
  get attentionStrength(): number {
    return this.attended < 0 ? 0 : this.noticed[this.attended].awareness;
  }

  /** Passes what the senses hold, and the events they raise, on to the minds. */
  notice(events: readonly string[]): void {
    const { reactionTicks } = this.archetype;
    if (reactionTicks === 0) {
      this.noticed = this.tracks;
      this.deliver(events);
    } else {
      this.late.push({ tracks: this.tracks.map((track) => ({ ...track })), events: [...events] });
      if (this.late.length > reactionTicks) {
        const due = this.late.shift()!;
        this.noticed = due.tracks;
        this.deliver(due.events);
      }
    }
    this.attend();
  }

  attend(): void {
    this.attended = attendedTrack(this.noticed);
  }

  deliver(events: readonly string[]): void {
    if (events.length === 0) return;
    for (const inbox of this.inboxes) inbox.push(...events);
    this.hasEvents = true;
  }

  track(agent: number): Track | undefined {
    const { noticed } = this;
    for (let i = 0; i < noticed.length; i++) if (noticed[i].of === agent) return noticed[i];
    return undefined;
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
    return this.track(agent)?.visible ?? false;
  }
  awareness(agent: number): number {
    return this.track(agent)?.awareness ?? 0;
  }
  knownX(agent: number): number {
    return this.track(agent)?.x ?? NaN;
  }
  knownY(agent: number): number {
    return this.track(agent)?.y ?? NaN;
  }

  locate(agent: number): boolean {
    const track = this.track(agent);
    if (track === undefined) return false;
    PLACE[0] = track.x;
    PLACE[1] = track.y;
    return true;
  }

  routePoints(route: number): Float64Array {
    return this.statics.routePoints[route];
  }
  routeWait(route: number): number {
    return this.program.ground.routes[route].waitTicks;
  }
  routeEnd(route: number): 'loop' | 'stop' | 'thereAndBack' {
    return this.program.ground.routes[route].end;
  }
  goTo(x: number, y: number, within: number): void {
    commandLegs(this.body, x, y, within);
  }
  stopLegs(): void {
    stopLegs(this.body);
  }
  setGait(gait: number): void {
    this.gait = gait;
    this.body.pace = this.archetype.paces[gait];
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
  /** Who uses a channel: the cell of the action that took it last; 0 for nobody. */
  owner(channel: number): number {
    return this.memory[this.stack!.channels + channel];
  }
  take(channel: number, owner: number): void {
    this.memory[this.stack!.channels + channel] = owner;
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
    if (this.stack!.program.keys[write.key].scope !== 'self') this.outbox.push(write);
    else if (this.apply(write)) this.recorder?.remembered(write.key);
  }

  /** Does a write; false where the value is missing and nothing was written. */
  apply({ key, how, a, b }: SharedWrite): boolean {
    const program = this.stack!.program.keys[key];
    const cells = this.cellsOf(program);
    if (how === 'remember') return writeKey(cells, program, a, b, this.tick);
    if (how === 'add') return addToKey(cells, program, a, b, this.tick);
    resetKey(cells, program);
    return true;
  }
}
