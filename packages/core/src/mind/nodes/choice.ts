import { because } from '../../terms/reasons.ts';
import type { Facts } from '../../expression/facts.ts';
import { reserve } from '../cells.ts';
import type { Host, Onlooker, Weighing } from '../host.ts';
import { resetKey, writeKey } from '../memory.ts';
import type { ChoiceProgram } from '../program.ts';
import { FAILURE, RUNNING, type Status } from '../status.ts';
import { Weigher } from '../weigh/weigher.ts';
import type { Making, NodeKindOf } from './node-kind.ts';
import { isRunning, type Behaviour, type TreeNode } from './node.ts';

const NONE = -1;
const NOTHING_WORTH_DOING = because('nothingWorthDoing');

/** Runs the option that is worth most, and weighs them again and again. */
export class Choice implements Behaviour {
  readonly program: ChoiceProgram;
  readonly weigher: Weigher;
  private readonly nodes: readonly TreeNode[];
  private readonly state: number;
  private readonly row: number;
  /** Cells: place of the option that runs, the tick it was picked in, the tick of the last weighing, 1 once the ledger knows that nothing runs. */
  private readonly runningAt: number;
  private readonly pickedAt: number;
  private readonly weighedAt: number;
  private readonly idleAt: number;

  constructor(program: ChoiceProgram, { grove, layout, row, below }: Making) {
    this.program = program;
    this.state = grove.state;
    this.row = row;
    this.runningAt = reserve(layout, 1, NONE);
    this.pickedAt = reserve(layout, 1, -1);
    this.weighedAt = reserve(layout, 1, -1);
    this.idleAt = reserve(layout, 1, 0);
    this.weigher = new Weigher(program, layout);
    this.nodes = program.options.map(({ node }) => below(node));
  }

  /** Place of the option that runs; −1 for none. */
  running(memory: Float64Array): number {
    return memory[this.runningAt];
  }

  start(host: Host): Status {
    host.memory[this.runningAt] = NONE;
    return this.turnTo(host, this.weigh(host));
  }

  step(host: Host): Status {
    const { memory } = host;
    const running = memory[this.runningAt];
    if (running === NONE) {
      if (!this.isDue(host)) return RUNNING;
      const weighing = this.weigh(host);
      const isStillIdle = weighing.option < 0 && memory[this.idleAt] === 1;
      return isStillIdle ? RUNNING : this.turnTo(host, weighing);
    }
    const isLost = this.isLost(host, running);
    if (isLost || (this.isDue(host) && this.mayLeave(host))) {
      const weighing = this.weigh(host);
      if (isLost || !this.isSame(host, running, weighing)) {
        this.halt(host, running, weighing.option === running);
        return this.turnTo(host, weighing);
      }
    }
    const status = this.nodes[running].step(host);
    if (status === RUNNING) return RUNNING;
    this.end(host, running);
    if (this.program.once) return status;
    return this.turnTo(host, this.weigh(host));
  }

  stop(host: Host): void {
    const running = host.memory[this.runningAt];
    if (running !== NONE) this.halt(host, running);
  }

  private weigh(host: Host): Weighing {
    const { memory } = host;
    const running = memory[this.runningAt];
    const key = running === NONE ? null : this.weigher.options[running].key;
    memory[this.weighedAt] = host.tick;
    return this.weigher.weigh(
      host,
      running,
      key === null ? 0 : memory[key.slot],
      key?.type === 'point' ? memory[key.slot + 1] : 0,
      // The recorder needs the runner-up.
      host.recorder === null ? null : host.recorder.looksOn(this.program),
    );
  }

  /** The tick it was weighed in last; −1 for never. */
  lastWeighed(memory: Float64Array): number {
    return memory[this.weighedAt];
  }

  /** Shows what each option is worth now, or if things stood as `facts` say; changes nothing. */
  look(host: Host, facts: Facts, onlooker: Onlooker): void {
    const { memory } = host;
    const running = memory[this.runningAt];
    const key = running === NONE ? null : this.weigher.options[running].key;
    const [a, b] = key === null ? [0, 0] : [memory[key.slot], memory[key.slot + 1]];
    this.weigher.look(host, facts, running, a, key?.type === 'point' ? b : 0, onlooker);
  }

  private isDue(host: Host): boolean {
    return host.tick - host.memory[this.weighedAt] >= this.program.everyTicks;
  }

  /** Whether what runs has run for as long as it must. */
  private mayLeave(host: Host): boolean {
    return host.tick - host.memory[this.pickedAt] >= this.program.minDurationTicks;
  }

  /** Whether what runs has lost its guard or its target. */
  private isLost(host: Host, running: number): boolean {
    const { guard, finder, key } = this.weigher.options[running];
    if (finder !== null && key !== null) {
      const { memory } = host;
      const b = key.type === 'point' ? memory[key.slot + 1] : 0;
      if (!finder.isThere(host, memory[key.slot], b)) return true;
    }
    return guard !== null && !guard(host);
  }

  private isSame({ memory }: Host, running: number, { option, a, b }: Weighing): boolean {
    if (option !== running) return false;
    const { key } = this.weigher.options[running];
    if (key === null) return true;
    return memory[key.slot] === a && (key.type !== 'point' || memory[key.slot + 1] === b);
  }

  /** Begins what has won. What ends at once leaves nothing running until the next decision. */
  private turnTo(host: Host, weighing: Weighing): Status {
    const { memory } = host;
    const { option, a, b } = weighing;
    host.recorder?.picked(this.state, this.row, this.program, weighing);
    memory[this.idleAt] = option < 0 ? 1 : 0;
    if (option < 0) {
      if (!this.program.once) return RUNNING;
      host.reason = NOTHING_WORTH_DOING;
      return FAILURE;
    }
    const { key } = this.weigher.options[option];
    if (key !== null) writeKey(memory, key, a, b, host.tick);
    memory[this.runningAt] = option;
    memory[this.pickedAt] = host.tick;
    const status = this.nodes[option].start(host);
    if (status === RUNNING) return RUNNING;
    this.end(host, option);
    if (this.program.once) return status;
    memory[this.weighedAt] = host.tick - this.program.everyTicks;
    return RUNNING;
  }

  /** Breaks off what runs. Where only its candidate changes, the option is not left: it doesn't have to rest. */
  private halt(host: Host, running: number, goesOn = false): void {
    if (isRunning(host, this.nodes[running].at)) this.nodes[running].stop(host);
    this.end(host, running, !goesOn);
  }

  private end({ memory, tick }: Host, running: number, isLeft = true): void {
    const { key, endedAt } = this.weigher.options[running];
    if (key !== null) resetKey(memory, key);
    if (isLeft) memory[endedAt] = tick;
    memory[this.runningAt] = NONE;
  }
}

export const choice: NodeKindOf<'choice'> = {
  compile: (document, compiling) => {
    const compiled = compiling.choice(document);
    return compiled && { kind: 'choice', choice: compiled };
  },
  make: ({ choice: program }, making) => {
    const made = new Choice(program, making);
    making.grove.choices.set(making.row, made);
    return made;
  },
  children: ({ choice: { options } }) => options.map(({ node }) => node),
  ends: ({ choice: { once, options } }, asking) => {
    if (!once) return { success: false, failure: false };
    return { success: options.some(({ node }) => asking.ends(node).success), failure: true };
  },
  leastSeconds: ({ choice: { once, options } }, asking) =>
    once ? Math.min(...options.map(({ node }) => asking.leastSeconds(node))) : Infinity,
  runsOn: ({ choice: { once } }) => !once,
};
