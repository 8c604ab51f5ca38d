import type { NumberFunction } from '../../expression/closures.ts';
import type { Host } from '../host.ts';
import { FAILURE, type Status } from '../status.ts';
import type { TreeNode } from './node.ts';
import type { NodeKindOf } from './node-kind.ts';
import { BY_ITS_CHILD, endsOrFails, Wrapped } from './wrapped.ts';

/** Draws when it starts: its child with probability p, else failure. */
class Chance extends Wrapped {
  private readonly p: NumberFunction;

  constructor(child: TreeNode, p: NumberFunction) {
    super(child);
    this.p = p;
  }

  override start(host: Host): Status {
    return host.random() < this.p(host) ? this.child.start(host) : FAILURE;
  }
}

export const chance: NodeKindOf<'chance'> = {
  ...BY_ITS_CHILD,
  compile: ({ chance: child, probability: p }, compiling) => {
    const below = compiling.child(child);
    return { kind: 'chance', probability: compiling.number(p, 'p', null), child: below };
  },
  make: ({ child, probability: p }, { below, number }) => new Chance(below(child), number(p)),
  ends: endsOrFails,
};
