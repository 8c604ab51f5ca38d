import type { FlagFunction } from '../../expression/closures.ts';
import type { Host } from '../host.ts';
import { FAILURE, SUCCESS, type Status } from '../status.ts';
import type { Behaviour } from './node.ts';
import type { NodeKindOf } from './node-kind.ts';

class Condition implements Behaviour {
  private readonly test: FlagFunction;

  constructor(test: FlagFunction) {
    this.test = test;
  }

  start(host: Host): Status {
    return this.test(host) ? SUCCESS : FAILURE;
  }
  step(host: Host): Status {
    return this.start(host);
  }
  stop(): void {}
}

export const condition: NodeKindOf<'condition'> = {
  compile: (document, compiling) => {
    const test = compiling.flag(document.condition, 'condition');
    return test && { kind: 'condition', test };
  },
  make: ({ test }, making) => new Condition(making.flag(test)),
  children: () => [],
  ends: ({ test }, asking) => {
    const truth = asking.truth(test);
    return { success: truth !== 'never', failure: truth !== 'always' };
  },
  leastSeconds: () => 0,
  runsOn: () => false,
};
