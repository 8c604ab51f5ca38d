import type { NodeKindOf } from './node-kind.ts';
import { Wrapped } from './wrapped.ts';

class Subtree extends Wrapped {}

export const tree: NodeKindOf<'tree'> = {
  compile: (document, compiling) => {
    const child = compiling.called(document);
    return child && { kind: 'tree', child };
  },
  make: ({ child }, { below }) => new Subtree(below(child)),
  children: ({ child }) => [child],
  ends: ({ child }, asking) => asking.ends(child),
  leastSeconds: ({ child }, asking) => asking.leastSeconds(child),
  runsOn: () => false,
};
