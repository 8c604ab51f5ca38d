import type { ActionProgram, NodeProgram, RuleProgram } from '../mind/program.ts';
import type { ActionDocument, RuleDocument, RulesCallDocument } from '../model/documents.ts';
import { suggestion } from '../model/names/nearest-name.ts';
import { nodeText } from '../model/node-text.ts';
import { compileAction, compileExpression, type MindScope } from './compile-actions.ts';
import { namesOf } from '../model/names/names.ts';

interface Rows {
  /** Rows of the outline so far. */
  rows: number;
}

function compileRuleActions(
  scope: MindScope,
  actions: readonly ActionDocument[] | undefined,
  path: string,
  outline: Rows,
): NodeProgram[] {
  return (actions ?? []).flatMap((document, i) => {
    const at = `${path}[${i}]`;
    const action = compileAction(scope, document, at);
    return action ? [actionRow(action, document, at, outline.rows++)] : [];
  });
}

/** A row that is an action without a guard. */
export function actionRow(
  action: ActionProgram,
  document: ActionDocument,
  path: string,
  row: number,
): NodeProgram {
  const body = { kind: 'do', action } as const;
  return {
    row,
    path,
    title: nodeText(document),
    guard: null,
    holds: false,
    preempts: false,
    conduct: false,
    body,
  };
}

function compileRule(
  scope: MindScope,
  document: RuleDocument,
  path: string,
  outline: Rows,
): RuleProgram {
  const { findings } = scope.context;
  const row = outline.rows++;
  const edge = document.edge === true;
  if (!document.do && !document.rows && !document.else) {
    findings.warning(
      'noChildren',
      path,
      'This rule does nothing yet. Give it an action, a rule inside or an else.',
    );
  }
  const when = compileExpression(scope, document.when, `${path}.when`, { types: ['flag'] });
  const actions = compileRuleActions(scope, document.do, `${path}.do`, outline);
  const rows = compileRows(scope, document.rows ?? [], `${path}.rows`, outline);
  const otherwise: RuleProgram | null = document.else
    ? {
        row: outline.rows++,
        path: `${path}.else`,
        title: 'else',
        when: null,
        edge,
        conduct: false,
        actions: compileRuleActions(scope, document.else, `${path}.else`, outline),
        rows: [],
        otherwise: null,
      }
    : null;
  return {
    row,
    path,
    title: document.title ?? document.when,
    when,
    edge,
    conduct: document.conduct === true,
    actions,
    rows,
    otherwise,
  };
}

function compileRows(
  scope: MindScope,
  rules: readonly RuleDocument[],
  path: string,
  outline: Rows,
): RuleProgram[] {
  return rules.flatMap((rule, i) =>
    rule.off ? [] : [compileRule(scope, rule, `${path}[${i}]`, outline)],
  );
}

/** The rules a call names; null, with a finding, where there are none such. */
export function compileRules(
  scope: MindScope,
  call: RulesCallDocument,
  path: string,
  outline: Rows,
): RuleProgram[] | null {
  const sets = scope.document.rules ?? {};
  if (!Object.hasOwn(sets, call.rules)) {
    scope.context.findings.error(
      'unknownName',
      `${path}.rules`,
      `This mind has no rules “${call.rules}”.${suggestion(call.rules, namesOf(sets))}`,
    );
    return null;
  }
  const at = `minds.${scope.mind}.rules.${call.rules}.rows`;
  return compileRows(scope, sets[call.rules].rows, at, outline);
}
