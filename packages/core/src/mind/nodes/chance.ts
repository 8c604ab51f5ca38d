import type { NumberFunction } from '../../expression/closures.ts';
import type { Host } from '../host.ts';
import { FAILURE, type Status } from '../status.ts';
import type { TreeNode } from './node.ts';
import type { NodeKindOf } from './node-kind.ts';
import { BY_ITS_CHILD, endsOrFails, Wrapped } from './wrapped.ts';

/** Draws when it starts: its child with this probability, else failure. */
class Chance extends Wrapped {
  private readonly probability: NumberFunction;

  constructor(child: TreeNode, probability: NumberFunction) {
    super(child);
    this.probability = probability;
  }

  override start(host: Host): Status {
    return host.random() < this.probability(host) ? this.child.start(host) : FAILURE;
  }
}

export const chance: NodeKindOf<'chance'> = {
  ...BY_ITS_CHILD,
  compile: ({ chance: child, probability }, compiling) => {
    const below = compiling.child(child);
    return {
      kind: 'chance',
      probability: compiling.number(probability, 'probability', null),
      child: below,
    };
  },
  make: ({ child, probability }, { below, number }) =>
    new Chance(below(child), number(probability)),
  ends: endsOrFails,
};
