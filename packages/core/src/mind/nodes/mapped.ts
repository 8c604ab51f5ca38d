import type { Host } from '../host.ts';
import { FAILURE, RUNNING, SUCCESS, type Status } from '../status.ts';
import type { TreeNode } from './node.ts';
import type { NodeKindOf } from './node-kind.ts';
import { BY_ITS_CHILD, Wrapped } from './wrapped.ts';

/** Invert, succeed and fail: the child's result, as another. */
class Mapped extends Wrapped {
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

export const invert: NodeKindOf<'invert'> = {
  ...BY_ITS_CHILD,
  compile: (document, compiling) => ({ kind: 'invert', child: compiling.child(document.invert) }),
  make: ({ child }, { below }) => new Mapped(below(child), FAILURE, SUCCESS),
  ends: ({ child }, asking) => {
    const { success, failure } = asking.ends(child);
    return { success: failure, failure: success };
  },
  // How soon a node can fail is not worked out.
  leastSeconds: () => 0,
};

export const succeed: NodeKindOf<'succeed'> = {
  ...BY_ITS_CHILD,
  compile: (document, compiling) => ({ kind: 'succeed', child: compiling.child(document.succeed) }),
  make: ({ child }, { below }) => new Mapped(below(child), SUCCESS, SUCCESS),
  ends: ({ child }, asking) => {
    const { success, failure } = asking.ends(child);
    return { success: success || failure, failure: false };
  },
};

export const fail: NodeKindOf<'fail'> = {
  ...BY_ITS_CHILD,
  compile: (document, compiling) => ({ kind: 'fail', child: compiling.child(document.fail) }),
  make: ({ child }, { below }) => new Mapped(below(child), FAILURE, FAILURE),
  ends: ({ child }, asking) => {
    const { success, failure } = asking.ends(child);
    return { success: false, failure: success || failure };
  },
  leastSeconds: () => 0,
};
