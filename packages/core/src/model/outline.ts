import type {
  ActionDocument,
  ActivityDocument,
  MindDocument,
  Name,
  NodeDocument,
  RuleDocument,
} from './documents.ts';
import { childrenOfNode, kindOfNode, nodeSpec, type NodeKindName } from './documents.ts';

/**
 * What a state does as rows from top to bottom. The running activity counts the rows in the same order
 * (`compile/compile-tree.ts`, `compile/compile-rules.ts`).
 */

interface RowPlace {
  depth: number;
  /** Where it is written, from the whole document. */
  path: readonly (string | number)[];
  /** Its number in the running activity; null where it, or something around it, is switched off. */
  row: number | null;
  /** Rows below it, calls opened among them. */
  below: number;
  /** The option it is what is done for. */
  option?: string;
  /** Name of the tree or rules it is written in. */
  within: Name;
}

type Entry =
  | { kind: NodeKindName | 'do'; node: NodeDocument }
  | { kind: 'rule'; rule: RuleDocument }
  | { kind: 'else' }
  /** The rules themselves, where a state does nothing but these. */
  | { kind: 'set'; rules: Name }
  /** The same of a choice. */
  | { kind: 'options'; choice: Name };

export type OutlineRow = RowPlace & Entry;

class Outliner {
  readonly rows: OutlineRow[] = [];
  private readonly name: Name;
  private readonly mind: MindDocument;
  private counted = 0;

  constructor(name: Name, mind: MindDocument) {
    this.name = name;
    this.mind = mind;
  }

  /** Adds a row, then by `inside` those below it. */
  private add(
    entry: Entry,
    place: Pick<RowPlace, 'depth' | 'path' | 'within'> & { off: boolean },
    inside: (off: boolean) => void,
  ): void {
    const { off, ...rest } = place;
    const row: OutlineRow = { ...entry, ...rest, row: off ? null : this.counted, below: 0 };
    if (!off) this.counted++;
    this.rows.push(row);
    const before = this.rows.length;
    inside(off);
    row.below = this.rows.length - before;
  }

  node(
    node: NodeDocument,
    path: RowPlace['path'],
    depth: number,
    calls: readonly Name[],
    offAround = false,
  ): void {
    const kind = kindOfNode(node);
    const place = {
      depth,
      path,
      within: calls[calls.length - 1].replace('?', ''),
      off: offAround || !!node.off,
    };
    this.add({ kind, node }, place, (off) => {
      if ('tree' in node) this.tree(String(node.tree), depth + 1, calls, off);
      if ('rules' in node) this.ruleSet(String(node.rules), depth + 1, off);
      if ('choice' in node) this.choice(String(node.choice), depth + 1, calls, off);
      const many = kind !== 'do' && Object.values(nodeSpec(kind).fields)[0].kind === 'nodes';
      childrenOfNode(node).forEach((child, i) => {
        this.node(child, many ? [...path, kind, i] : [...path, kind], depth + 1, calls, off);
      });
    });
  }

  tree(name: Name, depth: number, calls: readonly Name[], off = false): void {
    const tree = this.mind.trees?.[name];
    if (!tree || calls.includes(name)) return;
    this.node(tree.root, ['minds', this.name, 'trees', name, 'root'], depth, [...calls, name], off);
  }

  /** What each option does, as a row under the option’s name. */
  choice(name: Name, depth: number, calls: readonly Name[], off = false): void {
    const mark = `?${name}`;
    if (calls.includes(mark)) return;
    (this.mind.choices?.[name]?.options ?? []).forEach((option, i) => {
      if (!option.does) return;
      const path = ['minds', this.name, 'choices', name, 'options', i, 'does'];
      const at = this.rows.length;
      this.node(option.does, path, depth, [...calls, mark], off || !!option.off);
      this.rows[at].option = option.title ?? option.id;
    });
  }

  ruleSet(name: Name, depth: number, off = false): void {
    (this.mind.rules?.[name]?.rows ?? []).forEach((rule, i) => {
      this.rule(rule, ['minds', this.name, 'rules', name, 'rows', i], depth, name, off);
    });
  }

  private rule(
    rule: RuleDocument,
    path: RowPlace['path'],
    depth: number,
    within: Name,
    offAround: boolean,
  ): void {
    const off = offAround || !!rule.off;
    const actions = (list: readonly ActionDocument[] | undefined, field: string) =>
      list?.forEach((action, i) => {
        const place = { depth: depth + 1, path: [...path, field, i], within, off };
        this.add({ kind: 'do', node: action as unknown as NodeDocument }, place, () => {});
      });
    this.add({ kind: 'rule', rule }, { depth, path, within, off }, () => {
      actions(rule.do, 'do');
      rule.rows?.forEach((inner, i) => {
        this.rule(inner, [...path, 'rows', i], depth + 1, within, off);
      });
    });
    if (!rule.else) return;
    this.add({ kind: 'else' }, { depth, path: [...path, 'else'], within, off }, () =>
      actions(rule.else, 'else'),
    );
  }

  weighing(name: Name): void {
    const path = ['minds', this.name, 'choices', name];
    this.add({ kind: 'options', choice: name }, { depth: 0, path, within: name, off: false }, () =>
      this.choice(name, 1, []),
    );
  }

  set(name: Name): void {
    const path = ['minds', this.name, 'rules', name];
    this.add({ kind: 'set', rules: name }, { depth: 0, path, within: name, off: false }, () =>
      this.ruleSet(name, 1),
    );
  }
}

/**
 * The rows of an activity; subtrees are opened where they are called, and what is called but missing is
 * left out. Empty for a single action.
 */
export function outlineOf(
  name: Name,
  mind: MindDocument,
  activity: ActivityDocument,
): OutlineRow[] {
  const outliner = new Outliner(name, mind);
  if ('tree' in activity) outliner.tree(String(activity.tree), 0, []);
  if ('rules' in activity) outliner.set(String(activity.rules));
  if ('choice' in activity) outliner.weighing(String(activity.choice));
  return outliner.rows;
}
