import { compileFlag, type FlagFunction } from '../../expression/closures.ts';
import type { Facts } from '../../expression/facts.ts';
import { reserve, type CellLayout } from '../cells.ts';
import type { Bar, Host, Onlooker, Weighing } from '../host.ts';
import { resetKey, writeKey } from '../memory.ts';
import type { ChoiceProgram, KeyProgram, OptionProgram } from '../program.ts';
import type { Finder } from './candidates.ts';
import { fieldsOf, type Field } from './inputs.ts';
import { endOccasion, isHeeded, isPassedOver, reserveOccasion } from '../heed.ts';
import { OptionScore } from './score.ts';

/**
 * Weighs the options of a choice against each other. Everything that lasts is in the agent's cells; what is
 * needed within one weighing is shared by all agents of the mind, since weighings don't overlap.
 */

/** Scores that are no further apart are equal. */
const TIE = 1e-9;

export interface BoundOption {
  program: OptionProgram;
  guard: FlagFunction | null;
  scorer: OptionScore;
  /** What it is weighed for, with what is looked at. */
  field: Field;
  finder: Finder | null;
  /** Where its candidate stands; null where it has none. */
  key: KeyProgram | null;
  /** Cell: the tick it ended in last; −1 for never. */
  endedAt: number;
  /** Cell of the occasion of a rule of conduct; −1 for other options. */
  occasionAt: number;
}

export class Weigher {
  readonly options: readonly BoundOption[];
  /** Places of the options, those of the highest rank first. */
  private readonly ranked: readonly number[];
  private readonly program: ChoiceProgram;
  private readonly fields: readonly Field[];
  /** The options that compete: option, candidate, score. */
  private count = 0;
  /** Place of what runs with its candidate among those that compete; −1 where it does not. */
  private running = -1;
  private readonly optionOf: Int32Array;
  private readonly aOf: Float64Array;
  private readonly bOf: Float64Array;
  private readonly scoreOf: Float64Array;
  private readonly parts: Float64Array;
  /** The host of the agent that weighs, while its rules of conduct are settled; null while a panel only reads. */
  private settling: Host | null = null;
  private isOccasion = false;
  /** The best score so far, and what a score is asked and given by; in cells, so that nothing is allocated. */
  private readonly best = new Float64Array(1);
  private readonly io = new Float64Array(1);
  readonly result: Weighing = {
    option: -1,
    a: 0,
    b: 0,
    score: 0,
    ties: 0,
    next: -1,
    margin: Infinity,
  };

  constructor(program: ChoiceProgram, layout: CellLayout) {
    this.program = program;
    const fields = fieldsOf(program.options);
    this.fields = [...new Set(fields)];
    this.options = program.options.map((option, place) => ({
      program: option,
      guard: option.guard && compileFlag(option.guard.ir),
      scorer: new OptionScore(program, option, fields[place]),
      field: fields[place],
      finder: fields[place].finder,
      key: option.each?.key ?? null,
      endedAt: reserve(layout, 1, -1),
      occasionAt: option.conduct ? reserveOccasion(layout) : -1,
    }));
    this.ranked = this.options
      .map((_, place) => place)
      .sort((a, b) => program.options[b].rank - program.options[a].rank || a - b);
    const most = program.options.reduce((sum, { each }) => sum + (each ? 1024 : 1), 0);
    this.optionOf = new Int32Array(most);
    this.aOf = new Float64Array(most);
    this.bOf = new Float64Array(most);
    this.scoreOf = new Float64Array(most);
    const rows = program.options.map(({ considerations, grades }) =>
      Math.max(considerations.length, grades.length),
    );
    this.parts = new Float64Array(Math.max(1, ...rows));
  }

  /** Whether an option can't be started yet. */
  private isResting(host: Host, option: BoundOption): boolean {
    const ended = host.memory[option.endedAt];
    return ended >= 0 && host.tick - ended < option.program.cooldownTicks;
  }

  /**
   * Weighs all options; `running` is the place of the one that runs, −1 for none, and `a`, `b` its candidate.
   * Without an onlooker what can't win any more is not worked out; the result is the same.
   */
  weigh(host: Host, running: number, a: number, b: number, onlooker: Onlooker | null): Weighing {
    this.settling = host;
    this.look(host, host, running, a, b, onlooker);
    this.settling = null;
    return this.pick(host);
  }

  /** The same without picking: draws no random number. `facts` replaces the agent’s own facts, for “as if”. */
  look(
    host: Host,
    facts: Facts,
    running: number,
    a: number,
    b: number,
    onlooker: Onlooker | null,
  ): void {
    this.count = 0;
    this.running = -1;
    const { ranked, options, fields } = this;
    for (let i = 0; i < fields.length; i++) fields[i].begin();
    const own = running < 0 ? null : options[running].key;
    const writtenAt = own === null ? -1 : host.memory[own.stamp];
    this.best[0] = -Infinity;
    for (let i = 0; i < ranked.length; i++) {
      const place = ranked[i];
      // An option that competes in a higher rank excludes the lower ranks.
      const outranked =
        this.count > 0 && options[place].program.rank < options[this.optionOf[0]].program.rank;
      if (outranked && onlooker === null) break;
      this.weighOption(host, facts, place, running, a, b, outranked, onlooker);
    }
    // Which candidates were looked at last must leave no trace.
    for (let i = 0; i < options.length; i++) {
      const { key } = options[i];
      if (key === null) continue;
      if (i === running) writeKey(host.memory, key, a, b, writtenAt);
      else resetKey(host.memory, key);
    }
  }

  private weighOption(
    host: Host,
    facts: Facts,
    place: number,
    running: number,
    a: number,
    b: number,
    outranked: boolean,
    onlooker: Onlooker | null,
  ): void {
    const option = this.options[place];
    const { field, key } = option;
    // Cooldown bars a new start, never what runs, nor its turn to another candidate.
    if (place !== running && this.isResting(host, option)) {
      onlooker?.(place, NaN, NaN, 0, 'cooldown', this.parts);
      return;
    }
    this.isOccasion = false;
    const count = field.find(host);
    if (count === 0) onlooker?.(place, NaN, NaN, 0, 'noCandidate', this.parts);
    const { candidates } = field;
    // What is read of it besides the inputs it shares with others.
    const { guard, scorer } = option;
    const readsOwn =
      guard !== null || !scorer.isSteady || scorer.grades.length > 0 || onlooker !== null;
    for (let i = 0; i < count; i++) {
      const ca = key === null ? 0 : candidates.a[i];
      const cb = key === null ? 0 : candidates.b[i];
      if (key !== null && readsOwn) writeKey(host.memory, key, ca, cb, host.tick);
      const runs = place === running && (key === null || (ca === a && cb === b));
      this.weighOne(facts, place, i, runs, ca, cb, outranked, onlooker);
    }
    if (readsOwn) field.leave();
    this.settleOccasion(option, outranked);
  }

  /** The occasion of a rule of conduct is over where its guard holds for no candidate. */
  private settleOccasion({ occasionAt }: BoundOption, outranked: boolean): void {
    if (occasionAt < 0 || outranked || this.isOccasion || this.settling === null) return;
    endOccasion(this.settling.memory, occasionAt);
  }

  /** Whether an option whose guard holds is passed over, as a rule of conduct that is not heeded. */
  private isPassedOver({ occasionAt }: BoundOption, memory: Float64Array, outranked: boolean) {
    if (occasionAt < 0) return false;
    this.isOccasion = true;
    // Lower ranks may not be looked at at all, so nothing is drawn for them.
    if (this.settling !== null && !outranked) return !isHeeded(this.settling, occasionAt);
    return isPassedOver(memory, occasionAt);
  }

  private weighOne(
    facts: Facts,
    place: number,
    candidate: number,
    runs: boolean,
    a: number,
    b: number,
    outranked: boolean,
    onlooker: Onlooker | null,
  ): void {
    const option = this.options[place];
    const { guard, scorer } = option;
    const { minScore, commitment, weighted, margin } = this.program;
    const isAdmitted = guard === null || guard(facts);
    const isPassed = isAdmitted && this.isPassedOver(option, facts.memory, outranked);
    if ((!isAdmitted || isPassed) && onlooker === null) return;
    const bonus = runs ? commitment : 0;
    const within = weighted && margin > TIE ? margin : TIE;
    const { best, io } = this;
    io[0] = Math.max(minScore, best[0] - within - bonus) - TIE;
    scorer.score(facts, candidate, io, onlooker === null ? null : this.parts);
    const score = io[0];
    if (onlooker !== null)
      onlooker(
        place,
        a,
        b,
        score,
        isPassed ? 'conduct' : this.barOf(place, isAdmitted, score, outranked),
        this.parts,
      );
    if (!isAdmitted || isPassed || outranked || !(score > minScore)) return;
    const stands = score + bonus;
    this.optionOf[this.count] = place;
    this.aOf[this.count] = a;
    this.bOf[this.count] = b;
    this.scoreOf[this.count] = stands;
    if (runs) this.running = this.count;
    this.count++;
    if (stands > best[0]) best[0] = stands;
  }

  private barOf(place: number, isAdmitted: boolean, score: number, outranked: boolean): Bar | null {
    if (!isAdmitted) return 'guard';
    if (score > this.program.minScore) return outranked ? 'rank' : null;
    const { considerations } = this.options[place].scorer;
    for (let i = 0; i < considerations.length; i++)
      if (considerations[i].veto && this.parts[i] === 0) return 'veto';
    return 'minScore';
  }

  private pick(host: Host): Weighing {
    const { result, scoreOf, count } = this;
    let best = -Infinity;
    for (let i = 0; i < count; i++) if (scoreOf[i] > best) best = scoreOf[i];
    let ties = 0;
    for (let i = 0; i < count; i++) if (best - scoreOf[i] <= TIE) ties++;
    result.ties = ties;
    const won = count === 0 ? -1 : this.winner(host, best, ties);
    result.option = won < 0 ? -1 : this.optionOf[won];
    result.a = won < 0 ? 0 : this.aOf[won];
    result.b = won < 0 ? 0 : this.bOf[won];
    result.score = won < 0 ? 0 : scoreOf[won];
    result.next = -1;
    result.margin = Infinity;
    for (let i = 0; i < count; i++) {
      const behind = result.score - scoreOf[i];
      if (i === won || behind >= result.margin) continue;
      result.margin = behind;
      result.next = this.optionOf[i];
    }
    return result;
  }

  /** Place among the options that compete. */
  private winner(host: Host, best: number, ties: number): number {
    const { scoreOf, count } = this;
    const { weighted, margin } = this.program;
    if (weighted) {
      let total = 0;
      for (let i = 0; i < count; i++)
        if (best - scoreOf[i] <= margin) total += Math.max(0, scoreOf[i]);
      if (total > 0) {
        let left = host.random() * total;
        let drawn = -1;
        for (let i = 0; i < count && left >= 0; i++) {
          if (best - scoreOf[i] > margin || scoreOf[i] <= 0) continue;
          drawn = i;
          left -= scoreOf[i];
        }
        return drawn;
      }
    }
    // No agent leaves what it does for something no better.
    if (this.running >= 0 && best - scoreOf[this.running] <= TIE) return this.running;
    let skip = ties > 1 ? Math.floor(host.random() * ties) : 0;
    for (let i = 0; i < count; i++) if (best - scoreOf[i] <= TIE && skip-- === 0) return i;
    return -1;
  }
}
