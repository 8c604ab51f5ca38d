import { reserve, type CellLayout } from '../cells.ts';
import type { Host } from '../host.ts';
import type { NodeProgram } from '../program.ts';
import { FAILURE, RUNNING, SUCCESS, type Status } from '../status.ts';
import type { Behaviour, TreeNode } from './node.ts';
import type { Asking, Ends, NodeKindOf } from './node-kind.ts';

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

class Sequence extends Ordered {
  constructor(children: readonly TreeNode[], restart: boolean, layout: CellLayout) {
    super(children, SUCCESS, restart, layout);
  }
}

/**
 * A child whose guard preempts takes over from a later one when the guard turns true: it must have
 * been false at some decision since the selector went past it, or a child that fails at once would cut
 * its siblings off forever.
 */
class Selector extends Ordered {
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

/** Which end lets it go on to the next child, and which decides at once. */
function endsInOrder(
  children: readonly NodeProgram[],
  goOn: keyof Ends,
  decide: keyof Ends,
  asking: Asking,
): Ends {
  const result = { success: false, failure: false };
  for (const child of children) {
    const ends = asking.ends(child);
    if (ends[decide]) result[decide] = true;
    if (!ends[goOn]) return result;
  }
  result[goOn] = true;
  return result;
}

export const sequence: NodeKindOf<'sequence'> = {
  compile: ({ sequence: children, restart = false }, compiling) => ({
    kind: 'sequence',
    restart,
    children: compiling.children(children),
  }),
  make: ({ children, restart }, { below, layout }) =>
    new Sequence(children.map(below), restart, layout),
  children: ({ children }) => children,
  ends: ({ children }, asking) => endsInOrder(children, 'success', 'failure', asking),
  leastSeconds: ({ children }, asking) =>
    children.reduce((sum, child) => sum + asking.leastSeconds(child), 0),
  runsOn: () => false,
};

export const selector: NodeKindOf<'selector'> = {
  compile: ({ selector: children, restart = false }, compiling) => ({
    kind: 'selector',
    restart,
    children: compiling.children(children),
  }),
  make: ({ children, restart }, { below, layout }) =>
    new Selector(children.map(below), restart, layout),
  children: ({ children }) => children,
  ends: ({ children }, asking) => endsInOrder(children, 'failure', 'success', asking),
  leastSeconds: ({ children }, asking) => Math.min(...children.map(asking.leastSeconds)),
  runsOn: () => false,
};
