import type { NumberFunction } from '../../expression/closures.ts';
import type { Facts } from '../../expression/facts.ts';
import type { Host } from '../host.ts';
import { writeKey } from '../memory.ts';
import type { EachProgram, KeyProgram } from '../program.ts';
import { createCandidates, makeFinder, type Candidates, type Finder } from './candidates.ts';
import { shareOfRange } from './curves.ts';

/** What is looked at, and the range that becomes 0 to 1. */
export interface Input {
  input: NumberFunction;
  from: number;
  to: number;
}

/**
 * Options that are weighed for the same candidates, or for none: the candidates are found once a weighing, and
 * what several of the options look at is read once for each candidate. Expressions change nothing, so reading
 * them less often changes nothing either. One for all agents of a mind, since weighings don't overlap.
 */
export class Field {
  readonly candidates: Candidates = createCandidates();
  readonly finder: Finder | null;
  private readonly inputs: Input[] = [];
  private readonly places = new Map<string, number>();
  /** In whose cells a candidate must stand while inputs are read. */
  private readonly keys: KeyProgram[] = [];
  /** By candidate, then by input. */
  private values = new Float64Array(0);
  private known = new Uint8Array(0);
  private isFound = false;
  /** The candidate that stands where inputs look for it; −1 for none. */
  private turned = -1;
  private host: Host | null = null;

  constructor(each: EachProgram | null) {
    this.finder = each && makeFinder(each);
    // Without candidates there is one row of inputs.
    if (each === null) this.candidates.count = 1;
  }

  /** The place of an input; options that look at the same in the same range share it. */
  placeOf(source: string, input: Input, key: KeyProgram | null): number {
    const id = `${input.from} ${input.to} ${source}`;
    const known = this.places.get(id);
    if (known !== undefined) return known;
    this.places.set(id, this.inputs.length);
    if (key !== null && !this.keys.includes(key)) this.keys.push(key);
    return this.inputs.push(input) - 1;
  }

  /** What was read before is not known any more. */
  begin(): void {
    this.isFound = false;
    this.turned = -1;
  }

  /** An option has put candidates of its own where inputs look for them. */
  leave(): void {
    this.turned = -1;
  }

  /** Finds the candidates, once a weighing; how many there are. */
  find(host: Host): number {
    const { candidates, inputs } = this;
    if (this.isFound) return candidates.count;
    this.isFound = true;
    this.host = host;
    if (this.finder !== null) {
      candidates.count = 0;
      this.finder.find(host, candidates);
    }
    const size = candidates.count * inputs.length;
    if (this.values.length < size) {
      this.values = new Float64Array(size);
      this.known = new Uint8Array(size);
    }
    this.known.fill(0, 0, size);
    return candidates.count;
  }

  /** Puts an input, as a share of its range, into a cell: 0 to 1; NaN where it is nothing. */
  readInto(
    cells: Float64Array,
    cell: number,
    facts: Facts,
    candidate: number,
    place: number,
  ): void {
    const at = candidate * this.inputs.length + place;
    if (this.known[at] === 0) this.read(facts, candidate, place, at);
    cells[cell] = this.values[at];
  }

  private read(facts: Facts, candidate: number, place: number, at: number): void {
    if (this.turned !== candidate) this.turnTo(candidate);
    const { input, from, to } = this.inputs[place];
    const value = input(facts);
    this.known[at] = 1;
    this.values[at] = value - value === 0 ? shareOfRange(value, from, to) : NaN;
  }

  /** Puts a candidate where inputs look for it. */
  private turnTo(candidate: number): void {
    const { memory, tick } = this.host!;
    const { a, b } = this.candidates;
    for (let i = 0; i < this.keys.length; i++)
      writeKey(memory, this.keys[i], a[candidate], b[candidate], tick);
    this.turned = candidate;
  }
}

/** The fields of a choice’s options: one for each kind of candidate. */
export function fieldsOf(options: readonly { each: EachProgram | null }[]): Field[] {
  const known = new Map<string, Field>();
  return options.map(({ each }) => {
    // The name counts too: by it sources say the same.
    const id = each === null ? '' : JSON.stringify([each.name, each.key.type, each.of]);
    let field = known.get(id);
    if (!field) known.set(id, (field = new Field(each)));
    return field;
  });
}
