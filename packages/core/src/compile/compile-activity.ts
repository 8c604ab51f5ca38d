import type { ActivityProgram, NodeProgram } from '../mind/program.ts';
import type { ActivityDocument } from '../model/documents.ts';
import { compileAction, type MindScope } from './compile-actions.ts';
import { actionRow, compileRules } from './compile-rules.ts';
import { compileChoice } from './compile-choice.ts';
import { compileCall, compileOnly, type Outline } from './compile-tree.ts';

/** What a state, or a whole mind, does; null, with findings, where it can't run. */
export function compileActivity(
  scope: MindScope,
  activity: ActivityDocument,
  path: string,
  again = false,
): ActivityProgram | null {
  const outline: Outline = { rows: 0, calls: [] };
  if ('tree' in activity) {
    const root = compileCall({ scope, outline, path }, activity as { tree: string });
    return root && { name: String(activity.tree), root, again };
  }
  if ('rules' in activity) {
    outline.rows = 1;
    const name = String(activity.rules);
    const rows = compileRules(scope, { rules: name }, path, outline);
    const root: NodeProgram | null = rows && {
      row: 0,
      path: `minds.${scope.mind}.rules.${name}`,
      title: scope.document.rules![name].title ?? name,
      guard: null,
      holds: false,
      preempts: false,
      conduct: false,
      body: { kind: 'rules', rows },
    };
    return root && { name, root, again };
  }
  if ('choice' in activity) {
    outline.rows = 1;
    const name = String(activity.choice);
    const choice = compileChoice({ scope, outline, path }, { choice: name }, compileOnly);
    const root: NodeProgram | null = choice && {
      row: 0,
      path: `minds.${scope.mind}.choices.${name}`,
      title: choice.title,
      guard: null,
      holds: false,
      preempts: false,
      conduct: false,
      body: { kind: 'choice', choice },
    };
    return root && { name, root, again };
  }
  const action = compileAction(scope, activity, path);
  return action && { name: activity.do, root: actionRow(action, activity, '', 0), again };
}
