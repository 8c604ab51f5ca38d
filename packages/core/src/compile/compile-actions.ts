import { checkExpression, type Wanted } from '../expression/check.ts';
import type { CheckedExpression, ValueType } from '../expression/ir.ts';
import type { NamesInTexts, Scope, ScopeKey } from '../expression/scope.ts';
import { unitNamed, type Unit } from '../expression/units.ts';
import type { ActionProgram, ArgumentProgram, KeyProgram, NumberProgram } from '../mind/program.ts';
import {
  actionSpec,
  type ActionName,
  type ActionSpec,
  type ParameterSpec,
} from '../model/actions/actions.ts';
import { isDirectors, needsBody } from '../model/actions/director-actions.ts';
import type {
  ActionDocument,
  ActionParameter,
  MindDocument,
  NumberOrExpression,
  UnitName,
} from '../model/documents.ts';
import { fitsView, GROUND_VIEWS } from '../terms/views.ts';
import { wordsOfCalled } from '../model/names/named-parts.ts';
import { suggestion } from '../model/names/nearest-name.ts';
import type { Remedy } from './finding.ts';
import { internText, type CompileContext } from './context.ts';

/** What an action is checked against: the mind's names, and the gaits of every body with this mind. */
export interface MindScope extends Scope {
  context: CompileContext;
  mind: string;
  document: MindDocument;
  keys: ReadonlyMap<string, ScopeKey>;
  bodies: {
    archetype: string;
    gaits: readonly string[];
    moves: readonly string[];
    guards: readonly string[];
  }[];
  /** Trees and (with a `?` before) choices that were compiled where they are called, and so have been checked. */
  called: Set<string>;
  /** By choice and option: the key its candidate stands in. */
  candidates: ReadonlyMap<string, KeyProgram>;
}

export function compileExpression(
  scope: MindScope,
  source: string,
  path: string,
  wanted: Wanted,
): CheckedExpression | null {
  return compileTyped(scope, source, path, wanted)?.expression ?? null;
}

/** Stands in for a guard that is wrong, where checks look on: it says nothing of when it holds. */
export function unknownFlag(source: string): CheckedExpression {
  return { source, ir: { op: 'literal', at: [0, source.length], type: 'flag', value: NaN } };
}

/** An expression with the unit it gives; null, with findings, where it is wrong. */
export function compileTyped(
  scope: MindScope,
  source: string,
  path: string,
  wanted: Wanted,
): { expression: CheckedExpression; unit: Unit } | null {
  const result = checkExpression(source, scope, wanted);
  if (result.ok) return result;
  for (const fault of result.faults) scope.context.findings.fault(path, fault);
  return null;
}

function compileKey(
  scope: MindScope,
  value: string,
  path: string,
  action: ActionDocument,
): number | null {
  const key = scope.keys.get(value);
  const list = key?.type.startsWith('list') ?? false;
  if (key && action.do === 'remember' && list) {
    scope.context.findings.error(
      'parameter',
      path,
      `“${value}” is a list: “remember” writes one value. Use “add”.`,
    );
    return null;
  }
  if (key && action.do === 'add' && !list) {
    scope.context.findings.error(
      'parameter',
      path,
      `“${value}” is no list but of type ${key.type}: use “remember”.`,
    );
    return null;
  }
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

/** A move or a guard, which every body with this mind must have; known by the word for its name. */
function compileFighting(
  scope: MindScope,
  part: 'moves' | 'guards',
  value: string,
  path: string,
): number | null {
  const { findings } = scope.context;
  const word = part === 'moves' ? 'move' : 'guard';
  for (const body of scope.bodies) {
    const has = body[part];
    if (has.includes(value)) continue;
    findings.error(
      'unknownName',
      path,
      `“${body.archetype}” has no ${word} “${value}”.${suggestion(value, has)}`,
    );
    return null;
  }
  return internText(scope.context, value);
}

/** The name of a wave or score of the ground, or of a group of its agents; known by the word for it. */
function compileNamed(
  { context }: MindScope,
  kind: keyof NamesInTexts,
  value: string,
  path: string,
): number | null {
  if (context.inTexts[kind].has(value)) return internText(context, value);
  context.findings.error(
    'unknownName',
    path,
    `There is no ${wordsOfCalled(kind)} “${value}”.${suggestion(value, context.inTexts[kind])}`,
  );
  return null;
}

/** What may be written to a key: a value of its type, or for a list one of its entries; null for no such key. */
function wantedValue(scope: MindScope, name: string): Wanted | null {
  const key = scope.keys.get(name);
  if (!key) return null;
  const type = key.type.replace('list of ', '') as ValueType;
  return { types: [type], ...(type === 'number' ? { unit: unitNamed(key.unit) } : {}) };
}

function compileParameter(
  scope: MindScope,
  spec: ParameterSpec,
  value: ActionParameter | boolean,
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
    case 'agent':
    case 'thing':
    case 'gate':
      return compileExpression(scope, source, path, { types: [spec.kind] });
    case 'word':
    case 'mode':
      return internText(scope.context, source);
    case 'gait':
      return compileGait(scope, source, path);
    case 'move':
      return compileFighting(scope, 'moves', source, path);
    case 'guard':
      return compileFighting(scope, 'guards', source, path);
    case 'wave':
    case 'score':
    case 'group':
      return compileNamed(scope, spec.kind, source, path);
    case 'key':
    case 'list':
      return compileKey(scope, source, path, action);
    case 'value': {
      const wanted = wantedValue(scope, String(action.key));
      return wanted && compileExpression(scope, source, path, wanted);
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

/** Makes a mind that no body has the director of a ground without one. */
function directing({ mind, bodies, document: { title }, context }: MindScope): Remedy | undefined {
  const { grounds, start } = context.document;
  if (bodies.length > 0 || grounds[start.ground]?.director !== undefined) return undefined;
  const path = ['grounds', start.ground, 'director'];
  return {
    title: `Make “${title}” the director`,
    command: { command: 'put', how: 'set', path, value: mind },
  };
}

/** An action must fit the ground; what needs a body is not for a director, and what a director does is for no other mind. */
function checkDoer(scope: MindScope, action: string, spec: ActionSpec, path: string): void {
  const { findings } = scope.context;
  const { view } = scope;
  if (!fitsView(spec, view))
    findings.error(
      'conflict',
      path,
      `“${spec.title}” makes no sense on a ground ${GROUND_VIEWS[view].title.toLowerCase()}. Remove it, or change the view of the ground.`,
    );
  if (scope.isDirector && needsBody(action, spec))
    findings.error(
      'conflict',
      path,
      `A director has no body: it can’t do “${action}”. Let it announce an event, and an agent do it.`,
    );
  if (!scope.isDirector && isDirectors(action))
    findings.error(
      'conflict',
      path,
      `Only the mind of a ground’s director can do “${action}”. Move it there, or make this mind the director.`,
      undefined,
      directing(scope),
    );
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
  checkDoer(scope, action.do, spec, path);
  const args: Record<string, ArgumentProgram> = {};
  let complete = true;
  for (const [name, parameter] of Object.entries(spec.parameters)) {
    const value = action[name] ?? parameter.default;
    if (value === undefined) continue;
    const compiled = compileParameter(scope, parameter, value, `${path}.${name}`, action);
    if (compiled === null) complete = false;
    else args[name] = compiled;
  }
  const { channels } = scope.document;
  if (channels && spec.channel !== null && !channels.includes(spec.channel)) {
    scope.context.findings.error(
      'conflict',
      path,
      `“${action.do}” uses the ${spec.channel}, which this mind does not declare (channels: ${channels.join(', ') || 'none'}). Add it there, or take the action out.`,
    );
  }
  if (!complete) return null;
  return {
    action: action.do as ActionName,
    channel: spec.channel,
    lasts: spec.lasts,
    uninterrupted: action.uninterrupted === true,
    args,
  };
}

/** A number as it is, or an expression for one with this unit. */
export function compileNumber(
  scope: MindScope,
  value: NumberOrExpression,
  path: string,
  unit?: UnitName,
): NumberProgram {
  if (typeof value === 'number') return value;
  const wanted: Wanted = { types: ['number'], unit: unitNamed(unit) };
  return compileExpression(scope, value, path, wanted) ?? NaN;
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
        `“${action.do}” takes time, so it does not fit on entry, on exit or on a transition. Put it under “while here”.`,
      );
      return [];
    }
    const compiled = compileAction(scope, action, at);
    return compiled ? [compiled] : [];
  });
}
