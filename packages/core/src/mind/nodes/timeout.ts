import type { NumberFunction } from '../../expression/closures.ts';
import { reserve, type CellLayout } from '../cells.ts';
import type { Host } from '../host.ts';
import { FAILURE, RUNNING, type Status } from '../status.ts';
import type { TreeNode } from './node.ts';
import type { NodeKindOf } from './node-kind.ts';
import { ticksOf } from './ticks.ts';
import { BY_ITS_CHILD, endsOrFails, Wrapped } from './wrapped.ts';

/** Stops its child and fails when it has run for so long. */
class Timeout extends Wrapped {
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

export const timeout: NodeKindOf<'timeout'> = {
  ...BY_ITS_CHILD,
  compile: ({ timeout: child, seconds }, compiling) => ({
    kind: 'timeout',
    seconds: compiling.number(seconds, 'seconds', 's'),
    child: compiling.child(child),
  }),
  make: ({ child, seconds }, { below, number, layout }) =>
    new Timeout(below(child), number(seconds), layout),
  ends: endsOrFails,
};
