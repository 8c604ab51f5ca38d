import type {
  ActivityDocument,
  Expression,
  MindDocument,
  NodeDocument,
  RuleDocument,
} from './documents.ts';
import { nodeWords } from './node-text.ts';
import { childrenOfNode, kindOfNode, type NodeKindName } from './nodes.ts';

/** One row of what a state does, as it is written; subtrees are opened where they are called. */
export interface OutlineRow {
  depth: number;
  kind: NodeKindName | 'do' | 'rule' | 'else';
  /** What it is, without what is inside it. */
  name: string;
  details: string;
  title?: string;
  note?: string;
  guard?: { when: Expression; modes: string };
  /** Name of the tree or rules it is written in. */
  within: string;
}

function addNode(
  rows: OutlineRow[],
  mind: MindDocument,
  node: NodeDocument,
  depth: number,
  calls: readonly string[],
): void {
  const kind = kindOfNode(node);
  const { title, note, when } = node;
  const modes = [node.holds && 'holds', node.preempts && 'preempts'].filter(Boolean).join(', ');
  rows.push({
    depth,
    kind,
    ...nodeWords(node),
    ...(title === undefined ? {} : { title }),
    ...(note === undefined ? {} : { note }),
    ...(when === undefined ? {} : { guard: { when, modes } }),
    within: calls[calls.length - 1],
  });
  if ('tree' in node) addTree(rows, mind, String(node.tree), depth + 1, calls);
  if ('rules' in node) addRules(rows, mind, String(node.rules), depth + 1);
  for (const child of childrenOfNode(node)) addNode(rows, mind, child, depth + 1, calls);
}

function addTree(
  rows: OutlineRow[],
  mind: MindDocument,
  name: string,
  depth: number,
  calls: readonly string[],
): void {
  const tree = mind.trees?.[name];
  if (tree && !calls.includes(name)) addNode(rows, mind, tree.root, depth, [...calls, name]);
}

function addRule(rows: OutlineRow[], rule: RuleDocument, depth: number, within: string): void {
  const { title, note } = rule;
  rows.push({
    depth,
    kind: 'rule',
    name: rule.edge ? 'Once' : 'While',
    details: rule.when,
    ...(title === undefined ? {} : { title }),
    ...(note === undefined ? {} : { note }),
    within,
  });
  const add = (actions: RuleDocument['do'], at: number) => {
    for (const action of actions ?? [])
      rows.push({ depth: at, kind: 'do', ...nodeWords(action), within });
  };
  add(rule.do, depth + 1);
  for (const inner of rule.rows ?? []) addRule(rows, inner, depth + 1, within);
  if (!rule.else) return;
  rows.push({ depth, kind: 'else', name: 'Else', details: '', within });
  add(rule.else, depth + 1);
}

function addRules(rows: OutlineRow[], mind: MindDocument, name: string, depth: number): void {
  for (const rule of mind.rules?.[name]?.rows ?? []) addRule(rows, rule, depth, name);
}

/**
 * The rows of an activity from top to bottom, as the running activity counts them; empty for a single
 * action. What is called but missing is left out.
 */
export function outlineOf(mind: MindDocument, activity: ActivityDocument): OutlineRow[] {
  const rows: OutlineRow[] = [];
  if ('tree' in activity) addTree(rows, mind, String(activity.tree), 0, []);
  if ('rules' in activity) {
    const name = String(activity.rules);
    rows.push({
      depth: 0,
      kind: 'rules',
      name: 'Rules',
      details: mind.rules?.[name]?.title ?? name,
      within: name,
    });
    addRules(rows, mind, name, 1);
  }
  return rows;
}
