import type { NumberFunction } from '../../expression/closures.ts';
import { reserve, type CellLayout } from '../cells.ts';
import type { Host } from '../host.ts';
import { FAILURE, type Status } from '../status.ts';
import type { Behaviour, TreeNode } from './node.ts';
import type { NodeKindOf } from './node-kind.ts';

/** Draws one child by weight when it starts and keeps it. A weight that is missing or below 0 counts as 0; with none above 0 it fails. */
class WeightedRandom implements Behaviour {
  private readonly children: readonly TreeNode[];
  private readonly weights: readonly NumberFunction[];
  private readonly drawn: number;

  constructor(
    children: readonly TreeNode[],
    weights: readonly NumberFunction[],
    layout: CellLayout,
  ) {
    this.children = children;
    this.weights = weights;
    this.drawn = reserve(layout, 1);
  }

  start(host: Host): Status {
    let total = 0;
    for (const weight of this.weights) total += positive(weight(host));
    if (total === 0) return FAILURE;
    let left = host.random() * total;
    let drawn = -1;
    for (let i = 0; i < this.weights.length && left >= 0; i++) {
      const weight = positive(this.weights[i](host));
      if (weight === 0) continue;
      drawn = i;
      left -= weight;
    }
    host.memory[this.drawn] = drawn;
    return this.children[drawn].start(host);
  }

  step(host: Host): Status {
    return this.children[host.memory[this.drawn]].step(host);
  }

  stop(host: Host): void {
    this.children[host.memory[this.drawn]].stop(host);
  }
}

function positive(weight: number): number {
  return weight > 0 ? weight : 0;
}

export const random: NodeKindOf<'random'> = {
  compile: ({ random: children }, compiling) => ({
    kind: 'random',
    weights: children.map(({ weight }, i) =>
      compiling.number(weight ?? 1, `random[${i}].weight`, null),
    ),
    children: compiling.children(children),
  }),
  make: ({ children, weights }, { below, number, layout }) =>
    new WeightedRandom(children.map(below), weights.map(number), layout),
  children: ({ children }) => children,
  ends: () => ({ success: true, failure: true }),
  leastSeconds: ({ children }, asking) => Math.min(...children.map(asking.leastSeconds)),
  runsOn: () => false,
};
