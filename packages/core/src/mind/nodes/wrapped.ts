import type { Host } from '../host.ts';
import type { Status } from '../status.ts';
import type { Behaviour, TreeNode } from './node.ts';

/** A node that leaves the running of its child to the child. */
export abstract class Wrapped implements Behaviour {
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
