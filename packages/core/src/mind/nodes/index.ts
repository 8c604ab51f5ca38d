import type { NodeBodyProgram, NodeKind, NodeProgram } from '../program.ts';
import { chance } from './chance.ts';
import { choice } from './choice.ts';
import { condition } from './condition.ts';
import { cooldown } from './cooldown.ts';
import { delay } from './delay.ts';
import { action } from './leaf.ts';
import { limit } from './limit.ts';
import { fail, invert, succeed } from './mapped.ts';
import type { NodeKindOf } from './node-kind.ts';
import { selector, sequence } from './ordered.ts';
import { parallel } from './parallel.ts';
import { random } from './random.ts';
import { repeat } from './repeat.ts';
import { rules } from './rules.ts';
import { tree } from './subtree.ts';
import { timeout } from './timeout.ts';

/** Every kind of node; one that is missing here does not compile. */
const KINDS: { readonly [K in NodeKind]: NodeKindOf<K> } = {
  do: action,
  condition,
  sequence,
  selector,
  parallel,
  random,
  invert,
  succeed,
  fail,
  repeat,
  limit,
  cooldown,
  timeout,
  delay,
  chance,
  tree,
  rules,
  choice,
};

/** What there is to know of a kind of node. */
export function nodeKind<K extends NodeKind>(kind: K): NodeKindOf<K> {
  return KINDS[kind];
}

/** What there is to know of a node's kind, to be asked of that node. */
export function kindOfBody(body: NodeBodyProgram): NodeKindOf<NodeKind> {
  return KINDS[body.kind] as NodeKindOf<NodeKind>;
}

/** The nodes directly below one, in order. */
export function childrenOf({ body }: NodeProgram): readonly NodeProgram[] {
  return kindOfBody(body).children(body);
}
