import type { Knowledge } from '../../expression/facts.ts';
import { SENSES, SIGHT } from '../../terms/senses.ts';
import type { Percept } from '../../senses/percept.ts';
import { Tracks, type Track } from '../../senses/tracks.ts';
import type { AgentState } from './agent-state.ts';
import { Opponents, type Opponent } from './opponents.ts';
import type { Surroundings } from './surroundings.ts';

/** What the senses brought at one tick, on its way to the minds. */
export interface LateSensation {
  /** The tick it reaches them in. */
  due: number;
  tracks: Tracks;
  events: string[];
  percepts: Percept[];
}

/** What an agent knows: what its senses have brought to its minds, and what of it has their attention. */
export class Known extends Opponents implements Knowledge {
  /** What of sight has reached the minds: {@link sight} itself, or what that was a reaction time ago. */
  tracked = new Tracks();
  /** What sight holds now. */
  readonly sight = this.tracked;
  /** Place among the tracks of the agent that sight is most aware of; −1 for none. */
  attended = -1;
  /** The sense that has the attention; −1 for none. */
  attentionSense = -1;
  /** What the attention is on; set again whenever the senses have brought something. */
  attentionOf = -1;
  attentionX = NaN;
  attentionY = NaN;
  attentionStrength = 0;
  /** By sense: what it brought last, for as long as that counts. */
  percepts: (Percept | null)[] = SENSES.map(() => null);
  /** How many of them are something. */
  perceived = 0;
  /** What is on its way to the minds, the oldest first. */
  readonly late: LateSensation[] = [];
  /** Tracks of what has arrived, to be filled again: most ticks bring something. */
  readonly #spare: Tracks[] = [];
  readonly #agent: AgentState;

  constructor(agent: AgentState) {
    super();
    this.#agent = agent;
  }

  /** Puts what sight holds now, and what the other senses bring, on its way. */
  delay(due: number, events: readonly string[], percepts: readonly Percept[]): void {
    const tracks = this.#spare.pop() ?? new Tracks();
    tracks.copyFrom(this.sight);
    this.late.push({ due, tracks, events: events.slice(), percepts: percepts.slice() });
  }
  /** Takes the oldest of what is on its way into {@link tracked}, and returns it. */
  arrive(): LateSensation {
    const arrived = this.late.shift()!;
    this.tracked.copyFrom(arrived.tracks);
    this.#spare.push(arrived.tracks);
    return arrived;
  }

  /** Whether anything has been noticed at all. */
  get aware(): boolean {
    return this.tracked.length > 0 || this.perceived > 0;
  }
  get attentionAge(): number {
    const at =
      this.attentionSense === SIGHT
        ? this.tracked.seenAt(this.attended)
        : this.percepts[this.attentionSense]?.tick;
    return at === undefined ? NaN : this.#since(at);
  }
  /** Highest awareness by sight. */
  get awarenessShown(): number {
    return this.tracked.awareness(this.attended);
  }

  #since(tick: number): number {
    return (this.#agent.tick - tick) / this.#agent.ticksPerSecond;
  }
  keyAge(key: number): number {
    const program = this.#agent.stack!.program.keys[key];
    const written = this.#agent.cellsOf(program)[program.stamp];
    return written < 0 ? NaN : this.#since(written);
  }
  awareness(agent: number): number {
    return this.tracked.awareness(this.tracked.find(agent));
  }
  x(agent: number): number {
    return this.tracked.x(this.tracked.find(agent));
  }
  y(agent: number): number {
    return this.tracked.y(this.tracked.find(agent));
  }
  speedX(agent: number): number {
    return this.tracked.vx(this.tracked.find(agent));
  }
  speedY(agent: number): number {
    return this.tracked.vy(this.tracked.find(agent));
  }
  percept(sense: number): Percept | null {
    return this.percepts[sense];
  }
  perceptAge(sense: number): number {
    const percept = this.percepts[sense];
    return percept === null ? NaN : this.#since(percept.tick);
  }

  protected get world(): Surroundings {
    return this.#agent.surroundings;
  }
  /** As it was last seen. */
  protected opponent(agent: number): Opponent | null {
    return this.track(agent);
  }
  track(agent: number): Track | null {
    const track = this.tracked.find(agent);
    return track < 0 ? null : this.tracked.at(track);
  }
}
