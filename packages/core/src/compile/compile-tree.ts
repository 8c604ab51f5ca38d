import type { Bound } from '../expression/scope.ts';
import { nodeKind } from '../mind/nodes/index.ts';
import type { NodeBodyProgram, NodeProgram } from '../mind/program.ts';
import type {
  ActionDocument,
  NodeDocument,
  NodeFields,
  ParameterType,
  TreeCallDocument,
} from '../model/documents.ts';
import { suggestion } from '../model/names/nearest-name.ts';
import { kindOfNode } from '../model/documents.ts';
import { nodeText } from '../model/node-text.ts';
import {
  compileAction,
  compileExpression,
  compileNumber,
  compileTyped,
  unknownFlag,
  type MindScope,
} from './compile-actions.ts';
import { compileChoice } from './compile-choice.ts';
import { compileRules } from './compile-rules.ts';
import { checkConduct } from './context.ts';
import { namesOf } from '../model/names/names.ts';

/** Trees: every call of a tree becomes rows of its own, with the parameters' expressions in place. */

/** What is shared while one activity is compiled. */
export interface Outline {
  /** Rows so far. */
  rows: number;
  /** The trees and choices inside which this one is called, outermost first; of choices with a `?` before. */
  calls: readonly string[];
}

/** More rows than anyone reads; calls of calls of calls get there fast. */
const ROW_LIMIT = 1000;

/** Stands in for a node that is wrong, where checks look on: nothing is known of what it comes to. */
const UNKNOWN: NodeBodyProgram = { kind: 'condition', test: unknownFlag('') };

export interface Place {
  scope: MindScope;
  outline: Outline;
  path: string;
}

function at(place: Place, step: string): Place {
  return { ...place, path: `${place.path}.${step}` };
}

function bindParameters(
  place: Place,
  call: TreeCallDocument,
  parameters: Readonly<Record<string, ParameterType>>,
): Map<string, Bound> {
  const { scope, path } = place;
  const { findings } = scope.context;
  const given = call.with ?? {};
  for (const name of namesOf(given)) {
    if (Object.hasOwn(parameters, name)) continue;
    findings.error(
      'unknownName',
      `${path}.with.${name}`,
      `“${call.tree}” has no parameter “${name}”.${suggestion(name, namesOf(parameters))}`,
    );
  }
  return new Map(
    namesOf(parameters).map((name): [string, Bound] => {
      const type = parameters[name];
      if (!Object.hasOwn(given, name)) {
        findings.error(
          'parameter',
          path,
          `“${call.tree}” needs its parameter “${name}” (${type}): add it under “with”.`,
        );
        return [name, { type, unit: null, expression: null }];
      }
      const source = String(given[name]);
      const typed = compileTyped(scope, source, `${path}.with.${name}`, { types: [type] });
      return [name, { type, unit: typed?.unit ?? null, expression: typed?.expression ?? null }];
    }),
  );
}

/** The root of a called tree, its parameters bound where it is called. */
export function compileCall(place: Place, call: TreeCallDocument): NodeProgram | null {
  const { scope, outline, path } = place;
  const { findings } = scope.context;
  const trees = scope.document.trees ?? {};
  const tree = Object.hasOwn(trees, call.tree) ? trees[call.tree] : undefined;
  if (!tree) {
    findings.error(
      'unknownName',
      `${path}.tree`,
      `This mind has no tree “${call.tree}”.${suggestion(call.tree, namesOf(trees))}`,
    );
    return null;
  }
  if (outline.calls.includes(call.tree)) {
    findings.error(
      'structure',
      `${path}.tree`,
      `“${call.tree}” calls itself (${[...outline.calls, call.tree].join(' → ')}), which would never end. Use repeat.`,
    );
    return null;
  }
  const parameters = bindParameters(place, call, tree.parameters ?? {});
  const inner: Outline = { rows: outline.rows, calls: [...outline.calls, call.tree] };
  const root = compileOnly(
    {
      scope: { ...scope, parameters },
      outline: inner,
      path: `minds.${scope.mind}.trees.${call.tree}.root`,
    },
    tree.root,
    '',
  );
  outline.rows = inner.rows;
  scope.called.add(call.tree);
  return root;
}

/** Names with their types, bound to nothing that is known. */
export function unbound(names: Readonly<Record<string, ParameterType>>): Map<string, Bound> {
  return new Map(
    Object.entries(names).map(([name, type]) => [name, { type, unit: null, expression: null }]),
  );
}

/** Checks a tree nothing calls, as if it were called with anything that fits. */
export function checkUncalledTree(scope: MindScope, name: string): void {
  const tree = scope.document.trees![name];
  compileNode(
    {
      scope: { ...scope, parameters: unbound(tree.parameters ?? {}) },
      outline: { rows: 0, calls: [name] },
      path: `minds.${scope.mind}.trees.${name}.root`,
    },
    tree.root,
    '',
  );
}

/** Checks a choice nothing calls, as if it were called. */
export function checkUncalledChoice(scope: MindScope, choice: string): void {
  const outline: Outline = { rows: 1, calls: [] };
  compileChoice({ scope, outline, path: `minds.${scope.mind}` }, { choice }, compileOnly);
}

const NODE_FIELDS: ReadonlySet<string> = new Set([
  'title',
  'note',
  'when',
  'holds',
  'preempts',
  'weight',
  'conduct',
  'off',
] satisfies (keyof NodeFields)[]);

/** The action a node is, without what any node may carry. */
function actionOf(node: ActionDocument): ActionDocument {
  const fields = Object.entries(node).filter(([field]) => !NODE_FIELDS.has(field));
  return Object.fromEntries(fields) as ActionDocument;
}

function compileBody(place: Place, node: NodeDocument): NodeBodyProgram {
  const { scope, path } = place;
  const kind = kindOfNode(node);
  const under = at(place, kind);
  // The document is of the kind that it names.
  return (
    nodeKind(kind).compile(node as never, {
      child: (child) => compileOnly(under, child, kind),
      children: (children) =>
        children.flatMap((child, i) =>
          child.off ? [] : [compileNode({ ...under, path: `${under.path}[${i}]` }, child, kind)],
        ),
      number: (value, field, unit) =>
        compileNumber(scope, value, `${path}.${field}`, unit ?? undefined),
      flag: (source, field) =>
        compileExpression(scope, source, `${path}.${field}`, { types: ['flag'] }),
      action: (document) => compileAction(scope, actionOf(document), path),
      called: (call) => compileCall(place, call),
      rules: (call) => compileRules(scope, call, path, place.outline),
      choice: (call) => compileChoice(place, call, compileOnly),
    }) ?? UNKNOWN
  );
}

function checkGuard({ scope, path }: Place, node: NodeDocument, parent: string): void {
  const { findings } = scope.context;
  for (const mode of ['holds', 'preempts'] as const) {
    if (node[mode] && node.when === undefined) {
      findings.error(
        'parameter',
        `${path}.${mode}`,
        `“${mode}” says when the guard is looked at; there is no guard. Add “when”.`,
      );
    }
  }
  checkConduct(scope.context, node, path);
  if (node.preempts && parent !== 'selector') {
    findings.error(
      'parameter',
      `${path}.preempts`,
      '“preempts” takes over from a later sibling, so it works only on a child of a selector.',
    );
  }
  if (node.weight !== undefined && parent !== 'random') {
    findings.error(
      'parameter',
      `${path}.weight`,
      '“weight” counts only on a child of random. Remove it.',
    );
  }
}

/** The one child of a node, or the root of a tree: it can't be done without. */
export function compileOnly(place: Place, node: NodeDocument, parent: string): NodeProgram {
  if (node.off)
    place.scope.context.findings.error(
      'structure',
      `${place.path}.off`,
      parent === ''
        ? 'The whole tree is switched off, so there is nothing to do. Switch it on, or take away what calls it.'
        : `This is switched off, and “${parent}” can’t do without it. Switch off “${parent}” instead.`,
    );
  return compileNode(place, node, parent);
}

function compileNode(place: Place, node: NodeDocument, parent: string): NodeProgram {
  const { scope, outline, path } = place;
  const row = outline.rows++;
  checkGuard(place, node, parent);
  if (row === ROW_LIMIT) {
    scope.context.findings.error(
      'structure',
      path,
      `With everything it calls, this comes to more than ${ROW_LIMIT} rows. Call fewer trees, or split it into states.`,
    );
  }
  const guard =
    node.when === undefined
      ? null
      : compileExpression(scope, node.when, `${path}.when`, { types: ['flag'] });
  return {
    row,
    path,
    title: node.title ?? nodeText(node),
    guard,
    holds: guard !== null && node.holds === true,
    preempts: guard !== null && node.preempts === true,
    conduct: guard !== null && node.conduct === true,
    body: row > ROW_LIMIT ? UNKNOWN : compileBody(place, node),
  };
}
