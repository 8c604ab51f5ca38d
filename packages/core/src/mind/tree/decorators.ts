import type { FlagFunction, NumberFunction } from '../../expression/closures.ts';
import { reserve, type CellLayout } from '../cells.ts';
import type { Host } from '../host.ts';
import { FAILURE, RUNNING, SUCCESS, type Status } from '../status.ts';
import type { Behaviour, TreeNode } from './node.ts';

/** The nodes with one child, and the condition, which has none. */

export class Condition implements Behaviour {
  private readonly test: FlagFunction;

  constructor(test: FlagFunction) {
    this.test = test;
  }

  start(host: Host): Status {
    return this.test(host) ? SUCCESS : FAILURE;
  }
  step(host: Host): Status {
    return this.start(host);
  }
  stop(): void {}
}

/** A node that leaves the running of its child to the child. */
abstract class Wrapped implements Behaviour {
  protected readonly child: TreeNode;

  constructor(child: TreeNode) {
    this.child = child;
  }

  start(host: Host): Status {
    return this.child.start(host);
  }
  step(host: Host): Status {
    return this.child.step(host);
  }
  stop(host: Host): void {
    this.child.stop(host);
  }
}

export class Subtree extends Wrapped {}

/** Invert, succeed and fail: the child's result, as another. */
export class Mapped extends Wrapped {
  private readonly results: readonly [Status, Status, Status];

  constructor(child: TreeNode, success: Status, failure: Status) {
    super(child);
    this.results = [RUNNING, success, failure];
  }

  override start(host: Host): Status {
    return this.results[this.child.start(host)];
  }
  override step(host: Host): Status {
    return this.results[this.child.step(host)];
  }
}

/**
 * Runs its child over and over. A round that began in this decision and is over already is the last
 * of the decision: the next one begins in the decision after, so that nothing spins.
 */
export class Repeat extends Wrapped {
  private readonly times: number;
  private readonly until: Status | undefined;
  /** Rounds done. */
  private readonly rounds: number;
  /** 1 while the child runs, 0 between two rounds. */
  private readonly inside: number;

  constructor(child: TreeNode, times: number, until: Status | undefined, layout: CellLayout) {
    super(child);
    this.times = times;
    this.until = until;
    this.rounds = reserve(layout, 2);
    this.inside = this.rounds + 1;
  }

  override start(host: Host): Status {
    host.memory[this.rounds] = 0;
    return this.round(host);
  }

  /** Begins a round. */
  private round(host: Host): Status {
    const status = this.child.start(host);
    host.memory[this.inside] = status === RUNNING ? 1 : 0;
    return status === RUNNING ? RUNNING : this.over(host, status);
  }

  /** What a round's end means for the whole. */
  private over(host: Host, status: Status): Status {
    if (status === this.until) return SUCCESS;
    const rounds = ++host.memory[this.rounds];
    if (this.times === 0 || rounds < this.times) return RUNNING;
    return this.until === undefined ? SUCCESS : FAILURE;
  }

  override step(host: Host): Status {
    if (host.memory[this.inside] === 0) return this.round(host);
    const status = this.child.step(host);
    if (status === RUNNING) return RUNNING;
    host.memory[this.inside] = 0;
    const whole = this.over(host, status);
    return whole === RUNNING ? this.round(host) : whole;
  }

  override stop(host: Host): void {
    if (host.memory[this.inside] === 1) this.child.stop(host);
  }
}

/** Lets its child start so many times in the agent's life, then fails. */
export class Limit extends Wrapped {
  private readonly times: number;
  private readonly used: number;

  constructor(child: TreeNode, times: number, layout: CellLayout) {
    super(child);
    this.times = times;
    this.used = reserve(layout, 1);
  }

  override start(host: Host): Status {
    if (host.memory[this.used] >= this.times) return FAILURE;
    host.memory[this.used]++;
    return this.child.start(host);
  }
}

function ticksOf(host: Host, seconds: NumberFunction): number {
  return Math.round(seconds(host) * host.ticksPerSecond);
}

/** Fails for so long after its child has ended or was stopped. */
export class Cooldown extends Wrapped {
  private readonly seconds: NumberFunction;
  private readonly readyAt: number;

  constructor(child: TreeNode, seconds: NumberFunction, layout: CellLayout) {
    super(child);
    this.seconds = seconds;
    this.readyAt = reserve(layout, 1);
  }

  override start(host: Host): Status {
    if (host.tick < host.memory[this.readyAt]) return FAILURE;
    return this.cooling(host, this.child.start(host));
  }
  override step(host: Host): Status {
    return this.cooling(host, this.child.step(host));
  }
  override stop(host: Host): void {
    this.child.stop(host);
    this.cooling(host, FAILURE);
  }

  private cooling(host: Host, status: Status): Status {
    if (status === RUNNING) return RUNNING;
    const ticks = ticksOf(host, this.seconds);
    host.memory[this.readyAt] = ticks > 0 ? host.tick + ticks : 0;
    return status;
  }
}

/** Stops its child and fails when it has run for so long. */
export class Timeout extends Wrapped {
  private readonly seconds: NumberFunction;
  private readonly deadline: number;

  constructor(child: TreeNode, seconds: NumberFunction, layout: CellLayout) {
    super(child);
    this.seconds = seconds;
    this.deadline = reserve(layout, 1);
  }

  override start(host: Host): Status {
    const ticks = ticksOf(host, this.seconds);
    if (ticks - ticks !== 0) return FAILURE;
    host.memory[this.deadline] = host.tick + ticks;
    return this.child.start(host);
  }

  override step(host: Host): Status {
    const status = this.child.step(host);
    if (status !== RUNNING || host.tick < host.memory[this.deadline]) return status;
    this.child.stop(host);
    return FAILURE;
  }
}

/** Starts its child so much later; it runs meanwhile. */
export class Delay extends Wrapped {
  private readonly seconds: NumberFunction;
  /** Tick the child is due in; 0 once it has begun. */
  private readonly due: number;

  constructor(child: TreeNode, seconds: NumberFunction, layout: CellLayout) {
    super(child);
    this.seconds = seconds;
    this.due = reserve(layout, 1);
  }

  override start(host: Host): Status {
    const ticks = ticksOf(host, this.seconds);
    if (ticks - ticks !== 0) return FAILURE;
    host.memory[this.due] = ticks > 0 ? host.tick + ticks : 0;
    return ticks > 0 ? RUNNING : this.child.start(host);
  }

  override step(host: Host): Status {
    const due = host.memory[this.due];
    if (due === 0) return this.child.step(host);
    if (host.tick < due) return RUNNING;
    host.memory[this.due] = 0;
    return this.child.start(host);
  }

  override stop(host: Host): void {
    if (host.memory[this.due] === 0) this.child.stop(host);
  }
}

/** Draws when it starts: its child with probability p, else failure. */
export class Chance extends Wrapped {
  private readonly p: NumberFunction;

  constructor(child: TreeNode, p: NumberFunction) {
    super(child);
    this.p = p;
  }

  override start(host: Host): Status {
    return host.random() < this.p(host) ? this.child.start(host) : FAILURE;
  }
}
