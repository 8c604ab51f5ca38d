import { distance } from '../numeric/distance.ts';
import type { SightKind } from './sight.ts';

/** What one agent knows of another by sight. */
export interface Track {
  of: number;
  /** Whether it can have the attention: neutral agents are known and left alone. */
  heeded: boolean;
  awareness: number;
  /** Awareness gained per second in this tick; 0 while out of sight. */
  strength: number;
  /** In sight this tick. */
  visible: boolean;
  seenAt: number;
  x: number;
  y: number;
  /** Metres a second, as it was seen to go. */
  vx: number;
  vy: number;
  /** What it was seen to do in a fight. */
  seen: SeenFighting;
}

/** What others can see of an agent that fights; −1 for nothing. */
export interface SeenFighting {
  /** Index of the word for the move, and the tick it was begun in. */
  move: number;
  movedAt: number;
  /** Index of the word for the guard it holds. */
  guard: number;
  /** Points; NaN for an agent that can’t be hurt. */
  health: number;
}

export const NOTHING_SEEN: SeenFighting = { move: -1, movedAt: -1, guard: -1, health: NaN };

/** Where the numbers of a track stand in its row. */
const AWARENESS = 0;
const STRENGTH = 1;
const SEEN_AT = 2;
const X = 3;
const Y = 4;
const VX = 5;
const VY = 6;
const HEEDED = 7;
const ROW = 8;

/**
 * All that one agent knows by sight. In a battle every agent knows dozens, and all of them change in every
 * tick: side by side in one array their numbers take a fraction of the time that objects of their own take.
 * Of place −1, which belongs to no agent, a number is NaN, awareness 0 and sight false.
 */
export class Tracks {
  length = 0;
  #of = new Int32Array(0);
  #rows = new Float64Array(0);
  readonly #seen: SeenFighting[] = [];
  /** Where the last one was found: most questions are about it once more, or about the next. */
  #last = 0;

  /** Place of the track of an agent; −1 for none. */
  find(agent: number): number {
    const of = this.#of;
    const last = this.#last;
    for (let i = last; i < this.length && i < last + 2; i++)
      if (of[i] === agent) return (this.#last = i);
    for (let i = 0; i < this.length; i++) if (of[i] === agent) return (this.#last = i);
    return -1;
  }

  of(i: number): number {
    return this.#of[i];
  }
  awareness(i: number): number {
    return i < 0 ? 0 : this.#rows[ROW * i + AWARENESS];
  }
  isVisible(i: number): boolean {
    return i >= 0 && this.#rows[ROW * i + STRENGTH] > 0;
  }
  seenAt(i: number): number {
    return i < 0 ? NaN : this.#rows[ROW * i + SEEN_AT];
  }
  x(i: number): number {
    return i < 0 ? NaN : this.#rows[ROW * i + X];
  }
  y(i: number): number {
    return i < 0 ? NaN : this.#rows[ROW * i + Y];
  }
  vx(i: number): number {
    return i < 0 ? NaN : this.#rows[ROW * i + VX];
  }
  vy(i: number): number {
    return i < 0 ? NaN : this.#rows[ROW * i + VY];
  }

  /** What it was seen to do in a fight. */
  seen(i: number): SeenFighting {
    return this.#seen[i];
  }

  at(i: number): Track {
    return {
      of: this.#of[i],
      heeded: this.#rows[ROW * i + HEEDED] === 1,
      awareness: this.awareness(i),
      strength: this.#rows[ROW * i + STRENGTH],
      visible: this.isVisible(i),
      seenAt: this.seenAt(i),
      x: this.x(i),
      y: this.y(i),
      vx: this.vx(i),
      vy: this.vy(i),
      seen: this.#seen[i],
    };
  }

  /** A copy of all of them. */
  list(): Track[] {
    return Array.from({ length: this.length }, (_, i) => this.at(i));
  }

  /** Holds these from now on, and no others. */
  set(list: readonly Track[]): void {
    this.#shorten(0);
    for (const track of list) {
      const at = ROW * this.begin(track.of, track.heeded, track.seenAt);
      this.#rows[at + AWARENESS] = track.awareness;
      this.#rows[at + STRENGTH] = track.strength;
      this.#rows[at + X] = track.x;
      this.#rows[at + Y] = track.y;
      this.#rows[at + VX] = track.vx;
      this.#rows[at + VY] = track.vy;
      this.#seen[this.length - 1] = track.seen;
    }
  }

  /** Holds what another holds, and no more. */
  copyFrom(other: Tracks): void {
    const { length } = other;
    while (this.#of.length < length) this.#grow();
    for (let i = 0; i < length; i++) {
      this.#of[i] = other.#of[i];
      this.#seen[i] = other.#seen[i];
    }
    for (let i = 0; i < ROW * length; i++) this.#rows[i] = other.#rows[i];
    this.#shorten(length);
  }

  /** A new track of an agent about which nothing is known yet; returns its place. */
  begin(of: number, heeded: boolean, tick: number): number {
    const i = this.length++;
    if (i >= this.#of.length) this.#grow();
    this.#of[i] = of;
    const rows = this.#rows;
    rows[ROW * i + AWARENESS] = 0;
    rows[ROW * i + STRENGTH] = 0;
    rows[ROW * i + SEEN_AT] = tick;
    rows[ROW * i + X] = NaN;
    rows[ROW * i + Y] = NaN;
    rows[ROW * i + VX] = 0;
    rows[ROW * i + VY] = 0;
    rows[ROW * i + HEEDED] = Number(heeded);
    this.#seen[i] = NOTHING_SEEN;
    return i;
  }

  #grow(): void {
    const size = Math.max(4, 2 * this.#of.length);
    const [of, rows] = [new Int32Array(size), new Float64Array(ROW * size)];
    of.set(this.#of);
    rows.set(this.#rows);
    this.#of = of;
    this.#rows = rows;
  }

  #shorten(length: number): void {
    this.length = length;
    if (this.#seen.length !== length) this.#seen.length = length;
  }

  /** Brings one up to this tick: it is seen with this `strength`, or not where that is 0. Awareness rises, or fades once the grace time is over. */
  update(i: number, kind: SightKind, strength: number, tick: number, dt: number): void {
    const rows = this.#rows;
    const at = ROW * i;
    rows[at + STRENGTH] = strength;
    if (strength > 0) {
      rows[at + SEEN_AT] = tick;
      rows[at + AWARENESS] = Math.min(1, rows[at + AWARENESS] + strength * dt);
    } else if (tick - rows[at + SEEN_AT] > kind.graceTicks) {
      rows[at + AWARENESS] = Math.max(0, rows[at + AWARENESS] - kind.fade * dt);
    }
  }

  /** Where it is seen, how it goes, and what it does in a fight. */
  place(i: number, x: number, y: number, vx: number, vy: number, seen: SeenFighting): void {
    const rows = this.#rows;
    const at = ROW * i;
    rows[at + X] = x;
    rows[at + Y] = y;
    rows[at + VX] = vx;
    rows[at + VY] = vy;
    this.#seen[i] = seen;
  }

  /** Whether nothing is left worth keeping: unaware, and the last known place is too old. */
  isForgotten(i: number, kind: SightKind, tick: number): boolean {
    return this.awareness(i) === 0 && tick - this.seenAt(i) > kind.forgetTicks;
  }

  /** Lets go of all that are forgotten; the others stay in their order. */
  forget(kind: SightKind, tick: number): void {
    let kept = 0;
    for (let i = 0; i < this.length; i++) {
      if (this.isForgotten(i, kind, tick)) continue;
      this.#of[kept] = this.#of[i];
      this.#rows.copyWithin(ROW * kept, ROW * i, ROW * (i + 1));
      this.#seen[kept++] = this.#seen[i];
    }
    this.#shorten(kept);
  }

  /**
   * Place of the track attention falls on, for one who stands at (x, y): the most aware, on equal terms the latest
   * seen, then the nearest, then the lower agent; −1 for none.
   */
  attended(x: number, y: number): number {
    const rows = this.#rows;
    let best = -1;
    for (let i = 0; i < this.length; i++) {
      const awareness = rows[ROW * i + AWARENESS];
      if (awareness <= 0 || rows[ROW * i + HEEDED] === 0) continue;
      const most = best < 0 ? 0 : rows[ROW * best + AWARENESS];
      if (awareness > most || (awareness === most && this.#isPreferred(i, best, x, y))) best = i;
    }
    return best;
  }

  #isPreferred(i: number, rival: number, x: number, y: number): boolean {
    const [at, before] = [this.seenAt(i), this.seenAt(rival)];
    if (at !== before) return at > before;
    const own = distance(this.x(i), this.y(i), x, y);
    const theirs = distance(this.x(rival), this.y(rival), x, y);
    return own === theirs ? this.#of[i] < this.#of[rival] : own < theirs;
  }
}
