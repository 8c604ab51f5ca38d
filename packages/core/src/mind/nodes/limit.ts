import { reserve, type CellLayout } from '../cells.ts';
import type { Host } from '../host.ts';
import { FAILURE, type Status } from '../status.ts';
import type { TreeNode } from './node.ts';
import type { NodeKindOf } from './node-kind.ts';
import { BY_ITS_CHILD, endsOrFails, Wrapped } from './wrapped.ts';

/** Lets its child start so many times in the agent's life, then fails. */
class Limit extends Wrapped {
  private readonly times: number;
  private readonly used: number;

  constructor(child: TreeNode, times: number, layout: CellLayout) {
    super(child);
    this.times = times;
    this.used = reserve(layout, 1);
  }

  override start(host: Host): Status {
    if (host.memory[this.used] >= this.times) return FAILURE;
    if (this.child.admits(host)) host.memory[this.used]++;
    return this.child.start(host);
  }
}

export const limit: NodeKindOf<'limit'> = {
  ...BY_ITS_CHILD,
  compile: ({ limit: child, times }, compiling) => ({
    kind: 'limit',
    times,
    child: compiling.child(child),
  }),
  make: ({ child, times }, { below, layout }) => new Limit(below(child), times, layout),
  ends: endsOrFails,
};
