import type { Host, LegsStatus, MindRecorder } from '../mind/host.ts';
import {
  createMindState,
  forgetKey,
  writeKey,
  type MindState,
  type RunnableMind,
} from '../mind/mind.ts';
import { commandLegs, createBody, stopLegs, type Body } from '../motion/body.ts';
import { createStream, type RandomStream } from '../numeric/random.ts';
import { attendedTrack, type Track } from '../senses/sight.ts';
import type { AgentProgram, ArchetypeProgram, Program } from './program.ts';
import type { Statics } from './statics.ts';

const NO_MEMORY = new Float64Array(0);

/**
 * One agent: its body, senses and mind, and the face it shows to that mind. A class, because
 * expressions read it many times a tick and engines are fastest on one fixed shape.
 */
export class Agent implements Host {
  readonly index: number;
  readonly name: string;
  readonly program: Program;
  readonly placed: AgentProgram;
  readonly archetype: ArchetypeProgram;
  readonly statics: Statics;
  readonly mind: RunnableMind | null;
  body: Body;
  mindState: MindState | null;
  memory: Float64Array;
  tracks: Track[] = [];
  attended = -1;
  stream: RandomStream;
  gait: number;
  /** Events that wait for the next decision, and those raised since. */
  inbox: string[] = [];
  speech = '';
  spokenAt = -1;
  tick = 0;
  recorder: MindRecorder | null = null;
  readonly ticksPerSecond: number;

  constructor(statics: Statics, index: number, seed: number) {
    const { program } = statics;
    const placed = program.agents[index];
    const archetype = program.archetypes[placed.archetype];
    this.index = index;
    this.name = placed.name;
    this.program = program;
    this.placed = placed;
    this.archetype = archetype;
    this.statics = statics;
    this.mind = archetype.mind < 0 ? null : statics.minds[archetype.mind];
    this.body = createBody(placed.x, placed.y, placed.heading, archetype.paces[archetype.gait]);
    this.mindState = this.mind && createMindState(this.mind);
    this.memory = this.mindState?.memory ?? NO_MEMORY;
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
  get legs(): LegsStatus {
    return this.body.legs;
  }
  get attentionOf(): number {
    return this.attended < 0 ? -1 : this.tracks[this.attended].of;
  }
  get attentionX(): number {
    return this.attended < 0 ? NaN : this.tracks[this.attended].x;
  }
  get attentionY(): number {
    return this.attended < 0 ? NaN : this.tracks[this.attended].y;
  }
  get attentionStrength(): number {
    return this.attended < 0 ? 0 : this.tracks[this.attended].awareness;
  }

  attend(): void {
    this.attended = attendedTrack(this.tracks);
  }

  track(agent: number): Track | undefined {
    for (let i = 0; i < this.tracks.length; i++)
      if (this.tracks[i].of === agent) return this.tracks[i];
    return undefined;
  }

  seconds(): number {
    return this.tick / this.ticksPerSecond;
  }
  keyAge(key: number): number {
    const written = this.mindState!.writtenAt[key];
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
    this.inbox.push(event);
  }
  remember(key: number, a: number, b: number): void {
    if (writeKey(this.mind!, this.mindState!, key, a, b, this.tick)) this.recorder?.remembered(key);
  }
  forget(key: number): void {
    forgetKey(this.mind!, this.mindState!, key);
    this.recorder?.remembered(key);
  }
}
