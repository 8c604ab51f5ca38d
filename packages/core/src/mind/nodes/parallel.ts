import type { Host } from '../host.ts';
import { FAILURE, RUNNING, SUCCESS, type Status } from '../status.ts';
import type { Behaviour, TreeNode } from './node.ts';
import type { NodeKindOf } from './node-kind.ts';

/** All children each decision, until so many have succeeded or failed; the rest are stopped, the last first. */
class Parallel implements Behaviour {
  private readonly children: readonly TreeNode[];
  private readonly successes: number;
  private readonly failures: number;

  constructor(children: readonly TreeNode[], successes: number, failures: number) {
    this.children = children;
    this.successes = successes;
    this.failures = failures;
  }

  start(host: Host): Status {
    for (const child of this.children) child.start(host);
    return this.outcome(host);
  }

  step(host: Host): Status {
    for (const child of this.children) if (child.status(host) === RUNNING) child.step(host);
    return this.outcome(host);
  }

  private outcome(host: Host): Status {
    let successes = 0;
    let failures = 0;
    for (const child of this.children) {
      const status = child.status(host);
      if (status === SUCCESS) successes++;
      else if (status === FAILURE) failures++;
    }
    if (successes >= this.successes) {
      this.stop(host);
      return SUCCESS;
    }
    const running = this.children.length - successes - failures;
    // Where too few are left to succeed it is decided, whatever becomes of them.
    if (failures < this.failures && successes + running >= this.successes) return RUNNING;
    this.stop(host);
    return FAILURE;
  }

  stop(host: Host): void {
    for (let i = this.children.length - 1; i >= 0; i--) {
      if (this.children[i].status(host) === RUNNING) this.children[i].stop(host);
    }
  }
}

export const parallel: NodeKindOf<'parallel'> = {
  compile: (document, compiling) => {
    const children = compiling.children(document.parallel);
    const { successes = Math.max(1, children.length), failures = 1 } = document;
    return { kind: 'parallel', successes, failures, children };
  },
  make: ({ children, successes, failures }, { below }) =>
    new Parallel(children.map(below), successes, failures),
  children: ({ children }) => children,
  ends: ({ children, successes }, asking) => {
    const all = children.map(asking.ends);
    return {
      success: all.filter(({ success }) => success).length >= successes,
      failure: successes > all.length || all.some(({ failure }) => failure),
    };
  },
  leastSeconds: ({ children, successes }, asking) => {
    const times = children.map(asking.leastSeconds).sort((a, b) => a - b);
    return times[successes - 1] ?? Infinity;
  },
  runsOn: () => false,
};
