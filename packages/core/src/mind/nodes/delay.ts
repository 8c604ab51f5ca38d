import type { NumberFunction } from '../../expression/closures.ts';
import { reserve, type CellLayout } from '../cells.ts';
import type { Host } from '../host.ts';
import { FAILURE, RUNNING, type Status } from '../status.ts';
import type { TreeNode } from './node.ts';
import type { NodeKindOf } from './node-kind.ts';
import { ticksOf } from './ticks.ts';
import { BY_ITS_CHILD, Wrapped } from './wrapped.ts';

/** Starts its child so much later; it runs meanwhile. */
class Delay extends Wrapped {
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

export const delay: NodeKindOf<'delay'> = {
  ...BY_ITS_CHILD,
  compile: ({ delay: child, seconds }, compiling) => ({
    kind: 'delay',
    seconds: compiling.number(seconds, 'seconds', 's'),
    child: compiling.child(child),
  }),
  make: ({ child, seconds }, { below, number, layout }) =>
    new Delay(below(child), number(seconds), layout),
  ends: ({ child, seconds }, asking) => {
    const ends = asking.ends(child);
    return typeof seconds === 'number' ? ends : { ...ends, failure: true };
  },
  leastSeconds: ({ child, seconds }, asking) =>
    (typeof seconds === 'number' ? seconds : 0) + asking.leastSeconds(child),
  runsOn: () => true,
};
