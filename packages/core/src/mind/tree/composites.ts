import type { NumberFunction } from '../../expression/closures.ts';
import { reserve, type CellLayout } from '../cells.ts';
import type { Host } from '../host.ts';
import { FAILURE, RUNNING, SUCCESS, type Status } from '../status.ts';
import type { Behaviour, TreeNode } from './node.ts';

/** The nodes with several children. */

/**
 * Sequence and selector: one goes on with the next child on success, the other on failure, and both
 * resume at the child that runs. With `restart` they begin again at the first child each decision.
 */
abstract class Ordered implements Behaviour {
  private readonly current: number;
  private readonly goOn: Status;
  private readonly restart: boolean;
  protected readonly children: readonly TreeNode[];

  constructor(children: readonly TreeNode[], goOn: Status, restart: boolean, layout: CellLayout) {
    this.children = children;
    this.goOn = goOn;
    this.restart = restart;
    this.current = reserve(layout, 1);
  }

  protected passed(_host: Host, _child: number): void {}

  /** The child that takes over from the running one, −1 for none. */
  protected preempting(_host: Host, _running: number): number {
    return -1;
  }

  /** Starts children from `first` until one decides. */
  private from(host: Host, first: number): Status {
    const { children } = this;
    for (let i = first; i < children.length; i++) {
      const status = children[i].start(host);
      if (status === RUNNING) host.memory[this.current] = i;
      if (status !== this.goOn) return status;
      this.passed(host, i);
    }
    return this.goOn;
  }

  start(host: Host): Status {
    return this.from(host, 0);
  }

  step(host: Host): Status {
    const running = host.memory[this.current];
    if (this.restart) return this.again(host, running);
    const preempting = this.preempting(host, running);
    if (preempting >= 0) {
      this.children[running].stop(host);
      return this.from(host, preempting);
    }
    const status = this.children[running].step(host);
    if (status !== this.goOn) return status;
    this.passed(host, running);
    return this.from(host, running + 1);
  }

  private again(host: Host, running: number): Status {
    for (let i = 0; i < running; i++) {
      const status = this.children[i].start(host);
      if (status === this.goOn) continue;
      this.children[running].stop(host);
      if (status === RUNNING) host.memory[this.current] = i;
      return status;
    }
    const status = this.children[running].step(host);
    return status === this.goOn ? this.from(host, running + 1) : status;
  }

  stop(host: Host): void {
    this.children[host.memory[this.current]].stop(host);
  }
}

export class Sequence extends Ordered {
  constructor(children: readonly TreeNode[], restart: boolean, layout: CellLayout) {
    super(children, SUCCESS, restart, layout);
  }
}

/**
 * A child whose guard preempts takes over from a later one when the guard turns true: it must have
 * been false at some decision since the selector went past it, or a child that fails at once would cut
 * its siblings off forever.
 */
export class Selector extends Ordered {
  /** For each child that preempts, the cell that says whether its guard has been false; −1 for others. */
  private readonly armed: number[];
  private readonly watches: boolean;

  constructor(children: readonly TreeNode[], restart: boolean, layout: CellLayout) {
    super(children, FAILURE, restart, layout);
    this.armed = children.map((child) => (child.preempts ? reserve(layout, 1) : -1));
    this.watches = children.some((child) => child.preempts);
  }

  protected override passed(host: Host, child: number): void {
    const armed = this.armed[child];
    if (armed >= 0) host.memory[armed] = this.children[child].guard!(host) ? 0 : 1;
  }

  protected override preempting(host: Host, running: number): number {
    if (!this.watches) return -1;
    for (let i = 0; i < running; i++) {
      const armed = this.armed[i];
      if (armed < 0) continue;
      if (!this.children[i].guard!(host)) host.memory[armed] = 1;
      else if (host.memory[armed] === 1) return i;
    }
    return -1;
  }
}

/** All children each decision, until so many have succeeded or failed; the rest are stopped, the last first. */
export class Parallel implements Behaviour {
  private readonly children: readonly TreeNode[];
  private readonly successes: number;
  private readonly failures: number;

  constructor(children: readonly TreeNode[], successes: number, failures: number) {
    this.children = children;
    this.successes = successes;
    this.failures = failures;
  }

  start(host: Host): Status {
    for (const child of this.children) child.start(host);
    return this.outcome(host);
  }

  step(host: Host): Status {
    for (const child of this.children) if (child.status(host) === RUNNING) child.step(host);
    return this.outcome(host);
  }

  private outcome(host: Host): Status {
    let successes = 0;
    let failures = 0;
    for (const child of this.children) {
      const status = child.status(host);
      if (status === SUCCESS) successes++;
      else if (status === FAILURE) failures++;
    }
    if (successes >= this.successes) {
      this.stop(host);
      return SUCCESS;
    }
    const over = successes + failures === this.children.length;
    if (failures < this.failures && !over) return RUNNING;
    this.stop(host);
    return FAILURE;
  }

  stop(host: Host): void {
    for (let i = this.children.length - 1; i >= 0; i--) {
      if (this.children[i].status(host) === RUNNING) this.children[i].stop(host);
    }
  }
}

/** Draws one child by weight when it starts and keeps it. A weight that is missing or below 0 counts as 0; with none above 0 it fails. */
export class WeightedRandom implements Behaviour {
  private readonly children: readonly TreeNode[];
  private readonly weights: readonly NumberFunction[];
  private readonly drawn: number;

  constructor(
    children: readonly TreeNode[],
    weights: readonly NumberFunction[],
    layout: CellLayout,
  ) {
    this.children = children;
    this.weights = weights;
    this.drawn = reserve(layout, 1);
  }

  start(host: Host): Status {
    let total = 0;
    for (const weight of this.weights) total += positive(weight(host));
    if (total === 0) return FAILURE;
    let left = host.random() * total;
    let drawn = -1;
    for (let i = 0; i < this.weights.length && left >= 0; i++) {
      const weight = positive(this.weights[i](host));
      if (weight === 0) continue;
      drawn = i;
      left -= weight;
    }
    host.memory[this.drawn] = drawn;
    return this.children[drawn].start(host);
  }

  step(host: Host): Status {
    return this.children[host.memory[this.drawn]].step(host);
  }

  stop(host: Host): void {
    this.children[host.memory[this.drawn]].stop(host);
  }
}

function positive(weight: number): number {
  return weight > 0 ? weight : 0;
}
