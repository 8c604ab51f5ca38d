import type { Host } from '../host.ts';
import type { NodeProgram } from '../program.ts';
import type { Status } from '../status.ts';
import type { Behaviour, TreeNode } from './node.ts';
import type { Asking, Ends } from './node-kind.ts';

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

interface Body {
  child: NodeProgram;
}

/** Decorator defaults: a kind that acts only through its child, unless it says otherwise. */
export const BY_ITS_CHILD = {
  children: ({ child }: Body): readonly NodeProgram[] => [child],
  leastSeconds: ({ child }: Body, asking: Asking): number => asking.leastSeconds(child),
  runsOn: (): boolean => false,
};

/** The ends of a node that can fail whatever its child comes to. */
export function endsOrFails({ child }: Body, asking: Asking): Ends {
  return { ...asking.ends(child), failure: true };
}
