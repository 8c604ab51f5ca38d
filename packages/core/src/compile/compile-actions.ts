import { checkExpression, type Wanted } from '../expression/check.ts';
import type { CheckedExpression } from '../expression/ir.ts';
import type { Scope, ScopeKey } from '../expression/scope.ts';
import { unitNamed } from '../expression/units.ts';
import type { ActionProgram, ArgumentProgram } from '../mind/program.ts';
import { actionSpec, type ActionName, type ParameterSpec } from '../model/actions.ts';
import type { ActionDocument, ActionParameter } from '../model/documents.ts';
import { suggestion } from '../model/nearest-name.ts';
import type { CompileContext } from './context.ts';

/** What an action is checked against: the mind's names, and the gaits of every body with this mind. */
export interface MindScope extends Scope {
  context: CompileContext;
  keys: ReadonlyMap<string, ScopeKey>;
  bodies: { archetype: string; gaits: readonly string[] }[];
}

export function compileExpression(
  scope: MindScope,
  source: string,
  path: string,
  wanted: Wanted,
): CheckedExpression | null {
  const result = checkExpression(source, scope, wanted);
  if (result.ok) return result.expression;
  for (const fault of result.faults)
    scope.context.findings.error('expression', path, fault.message, fault.at);
  return null;
}

function compileKey(scope: MindScope, value: string, path: string): number | null {
  const key = scope.keys.get(value);
  if (key) return key.index;
  scope.context.findings.error(
    'unknownName',
    path,
    `This mind has no memory key “${value}”.${suggestion(value, scope.keys.keys())}`,
  );
  return null;
}

function compileGait(scope: MindScope, value: string, path: string): number | null {
  const { findings, gaits } = scope.context;
  for (const { archetype, gaits: has } of scope.bodies) {
    if (has.includes(value)) continue;
    findings.error(
      'unknownName',
      path,
      `“${archetype}” has no gait “${value}”.${suggestion(value, has)}`,
    );
    return null;
  }
  const index = gaits.indexOf(value);
  if (index < 0)
    findings.error(
      'unknownName',
      path,
      `No archetype has a gait “${value}”.${suggestion(value, gaits)}`,
    );
  return index < 0 ? null : index;
}

function compileParameter(
  scope: MindScope,
  spec: ParameterSpec,
  value: ActionParameter,
  path: string,
  action: ActionDocument,
): ArgumentProgram | null {
  const source = String(value);
  switch (spec.kind) {
    case 'number':
      if (typeof value === 'number') return value;
      return compileExpression(scope, source, path, {
        types: ['number'],
        unit: unitNamed(spec.unit),
      });
    case 'place':
      return compileExpression(scope, source, path, { types: ['point', 'agent'] });
    case 'route':
      return compileExpression(scope, source, path, { types: ['route'] });
    case 'gait':
      return compileGait(scope, source, path);
    case 'key':
      return compileKey(scope, source, path);
    case 'value': {
      const key = scope.keys.get(String(action.key));
      if (!key) return null;
      return compileExpression(scope, source, path, {
        types: [key.type],
        unit: key.type === 'number' ? unitNamed(key.unit) : undefined,
      });
    }
    case 'event':
      if (source === 'done' || source.startsWith('done.')) {
        scope.context.findings.error(
          'parameter',
          path,
          '“done” is raised by states that come to their end; choose another name.',
        );
        return null;
      }
      return source;
    default:
      return source;
  }
}

/** Checks one action and resolves its parameters; null, with findings, where it can't run. */
export function compileAction(
  scope: MindScope,
  action: ActionDocument,
  path: string,
): ActionProgram | null {
  const spec = actionSpec(action.do);
  if (!spec) {
    scope.context.findings.error('unknownName', `${path}.do`, `“${action.do}” is not an action.`);
    return null;
  }
  const args: Record<string, ArgumentProgram> = {};
  let complete = true;
  for (const [name, parameter] of Object.entries(spec.parameters)) {
    const value = action[name] ?? parameter.default;
    if (value === undefined) continue;
    const compiled = compileParameter(scope, parameter, value, `${path}.${name}`, action);
    if (compiled === null) complete = false;
    else args[name] = compiled;
  }
  return complete ? { action: action.do as ActionName, channel: spec.channel, args } : null;
}

/** The actions of an entry, exit or transition: those that take no time. */
export function compileInstantActions(
  scope: MindScope,
  actions: readonly ActionDocument[] | undefined,
  path: string,
): ActionProgram[] {
  return (actions ?? []).flatMap((action, i) => {
    const at = `${path}[${i}]`;
    const spec = actionSpec(action.do);
    if (spec?.lasts) {
      scope.context.findings.error(
        'structure',
        at,
        `“${action.do}” takes time, so it can’t stand on entry, on exit or on a transition. Put it under “while here”.`,
      );
      return [];
    }
    const compiled = compileAction(scope, action, at);
    return compiled ? [compiled] : [];
  });
}
