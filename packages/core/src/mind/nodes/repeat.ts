import { reserve, type CellLayout } from '../cells.ts';
import type { Host } from '../host.ts';
import { FAILURE, RUNNING, SUCCESS, type Status } from '../status.ts';
import type { TreeNode } from './node.ts';
import type { NodeKindOf } from './node-kind.ts';
import { BY_ITS_CHILD, Wrapped } from './wrapped.ts';

/**
 * Runs its child over and over. A round that began in this decision and is over already is the last
 * of the decision: the next one begins in the decision after, so that nothing spins.
 */
class Repeat extends Wrapped {
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
    if (!this.child.admits(host)) {
      // A round that is refused is none: it is tried again in the next decision.
      host.memory[this.inside] = 0;
      this.child.start(host);
      return RUNNING;
    }
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

export const repeat: NodeKindOf<'repeat'> = {
  ...BY_ITS_CHILD,
  compile: (document, compiling) => {
    const { times = 0, until = null } = document;
    return { kind: 'repeat', times, until, child: compiling.child(document.repeat) };
  },
  make: ({ child, times, until }, { below, layout }) => {
    const result = until === null ? undefined : until === 'success' ? SUCCESS : FAILURE;
    return new Repeat(below(child), times, result, layout);
  },
  ends: ({ child, times, until }, asking) => {
    const ends = asking.ends(child);
    const over = times > 0 && (ends.success || ends.failure);
    return until === null
      ? { success: over, failure: false }
      : { success: ends[until], failure: over };
  },
  leastSeconds: ({ child, times, until }, asking) => {
    const rounds = until === null ? Math.max(1, times) : 1;
    const { body } = child;
    const between = body.kind === 'cooldown' && typeof body.seconds === 'number' ? body.seconds : 0;
    return rounds * asking.leastSeconds(child) + (rounds - 1) * between;
  },
  runsOn: () => true,
};
