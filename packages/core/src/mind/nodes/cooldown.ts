import type { NumberFunction } from '../../expression/closures.ts';
import { reserve, type CellLayout } from '../cells.ts';
import type { Host } from '../host.ts';
import { FAILURE, RUNNING, type Status } from '../status.ts';
import type { TreeNode } from './node.ts';
import type { NodeKindOf } from './node-kind.ts';
import { ticksOf } from './ticks.ts';
import { BY_ITS_CHILD, endsOrFails, Wrapped } from './wrapped.ts';

/** Fails for so long after its child has ended or was stopped, and where the time is not known. */
class Cooldown extends Wrapped {
  private readonly seconds: NumberFunction;
  private readonly readyAt: number;

  constructor(child: TreeNode, seconds: NumberFunction, layout: CellLayout) {
    super(child);
    this.seconds = seconds;
    this.readyAt = reserve(layout, 1);
  }

  override start(host: Host): Status {
    const ticks = ticksOf(host, this.seconds);
    if (ticks - ticks !== 0 || host.tick < host.memory[this.readyAt]) return FAILURE;
    const admitted = this.child.admits(host);
    const status = this.child.start(host);
    return admitted ? this.cooling(host, status) : status;
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

export const cooldown: NodeKindOf<'cooldown'> = {
  ...BY_ITS_CHILD,
  compile: ({ cooldown: child, seconds }, compiling) => ({
    kind: 'cooldown',
    seconds: compiling.number(seconds, 'seconds', 's'),
    child: compiling.child(child),
  }),
  make: ({ child, seconds }, { below, number, layout }) =>
    new Cooldown(below(child), number(seconds), layout),
  ends: endsOrFails,
};
