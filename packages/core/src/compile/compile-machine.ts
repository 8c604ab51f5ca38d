import type {
  MachineProgram,
  StateKindProgram,
  StateProgram,
  TransitionProgram,
} from '../mind/program.ts';
import type { MachineDocument, StateDocument, TransitionDocument } from '../model/documents.ts';
import { truthOf } from '../expression/truth.ts';
import { suggestion } from '../model/names/nearest-name.ts';
import {
  compileExpression,
  compileInstantActions,
  unknownFlag,
  type MindScope,
} from './compile-actions.ts';
import { compileActivity } from './compile-activity.ts';
import { ticks } from './context.ts';

interface Entry {
  document: StateDocument;
  path: string;
  parent: number;
}

/** All states in document order with their paths; duplicates are told. */
function flatten(machine: MachineDocument, path: string, scope: MindScope): Entry[] {
  const entries: Entry[] = [];
  const seen = new Map<string, string>();
  const visit = (states: StateDocument[], at: string, parent: number) => {
    states.forEach((document, i) => {
      const here = `${at}[${i}]`;
      const earlier = seen.get(document.id);
      if (earlier !== undefined) {
        scope.context.findings.error(
          'taken',
          `${here}.id`,
          `Two states of this mind are called “${document.id}”; the other is ${earlier}. Give one another id.`,
        );
      }
      seen.set(document.id, here);
      const index = entries.push({ document, path: here, parent }) - 1;
      visit(document.states ?? [], `${here}.states`, index);
    });
  };
  visit(machine.states, `${path}.states`, -1);
  return entries;
}

function kindOf(document: StateDocument): StateKindProgram {
  if (document.kind) return document.kind;
  return document.states && document.states.length > 0 ? 'compound' : 'atomic';
}

function checkStructure({ document, path, parent }: Entry, scope: MindScope): void {
  const { findings } = scope.context;
  const kind = kindOf(document);
  const inner = document.states?.length ?? 0;
  if ((kind === 'final' || kind === 'history' || kind === 'deepHistory') && inner > 0) {
    findings.error(
      'structure',
      `${path}.states`,
      `A ${kind} state holds no states. Remove them, or its kind.`,
    );
  }
  if (kind === 'parallel' && inner < 2) {
    findings.error(
      'structure',
      `${path}.states`,
      'A parallel state needs at least two states to run side by side.',
    );
  }
  if ((kind === 'history' || kind === 'deepHistory') && parent < 0) {
    findings.error('structure', path, 'A history state belongs inside another state.');
  }
  if (kind !== 'atomic' && kind !== 'compound' && kind !== 'parallel') {
    for (const field of ['activity', 'transitions'] as const) {
      if (document[field])
        findings.error(
          'structure',
          `${path}.${field}`,
          `A ${kind} state has no “${field}”. Remove it.`,
        );
    }
  }
}

function resolve(ids: Map<string, number>, id: string, path: string, scope: MindScope): number {
  const index = ids.get(id);
  if (index !== undefined) return index;
  scope.context.findings.error(
    'unknownName',
    path,
    `This mind has no state “${id}”.${suggestion(id, ids.keys())}`,
  );
  return -1;
}

function initialOf(
  entry: Entry,
  index: number,
  entries: Entry[],
  ids: Map<string, number>,
  scope: MindScope,
): number {
  const { document, path } = entry;
  const kind = kindOf(document);
  const { findings } = scope.context;
  if (document.initial === undefined) {
    if (kind === 'compound') {
      findings.error(
        'structure',
        path,
        `“${document.id}” holds states, so it needs “initial”: the one entered first.`,
      );
    }
    return -1;
  }
  const initial = resolve(ids, document.initial, `${path}.initial`, scope);
  if (initial < 0) return -1;
  const within =
    kind === 'compound' ? index : kind === 'history' || kind === 'deepHistory' ? entry.parent : -2;
  if (within === -2) {
    findings.error(
      'structure',
      `${path}.initial`,
      `Only a state that holds states, or a history, has “initial”. Remove it.`,
    );
    return -1;
  }
  if (entries[initial].parent !== within) {
    findings.error(
      'structure',
      `${path}.initial`,
      `“${document.initial}” is not directly inside “${within < 0 ? 'the machine' : entries[within].document.id}”.`,
    );
    return -1;
  }
  return initial;
}

/**
 * Follows where each state begins, and reports those that come to no state: histories that name themselves
 * or each other, and what begins with one of them.
 */
function checkBeginnings(
  entries: readonly Entry[],
  initials: readonly number[],
  scope: MindScope,
): void {
  const next = (index: number): number => {
    const kind = kindOf(entries[index].document);
    if (kind === 'compound') return initials[index];
    if (kind !== 'history' && kind !== 'deepHistory') return -1;
    if (initials[index] >= 0) return initials[index];
    const { parent } = entries[index];
    return parent >= 0 && kindOf(entries[parent].document) === 'compound' ? initials[parent] : -1;
  };
  entries.forEach(({ document, path }, index) => {
    const way: number[] = [];
    let at = index;
    while (at >= 0 && !way.includes(at)) {
      way.push(at);
      at = next(at);
    }
    if (at !== index) return;
    const names = [...way, index].map((each) => `“${entries[each].document.id}”`).join(' → ');
    scope.context.findings.error(
      'structure',
      `${path}.initial`,
      `“${document.id}” begins with itself (${names}), so nothing would ever be entered. Let “initial” name a state that is no history.`,
    );
  });
}

function compileTransition(
  document: TransitionDocument,
  path: string,
  source: number,
  order: number,
  ids: Map<string, number>,
  scope: MindScope,
): TransitionProgram {
  const { context } = scope;
  const { findings } = context;
  if (document.for !== undefined && document.when === undefined) {
    findings.error(
      'parameter',
      `${path}.for`,
      '“for” says how long “when” must hold; there is no “when”. Use “after” for time in the state.',
    );
  }
  if (document.to === undefined && !document.do) {
    findings.error('parameter', path, 'A transition needs a state to go to, or something to do.');
  }
  if (document.to === undefined && document.on === undefined) {
    findings.error(
      'parameter',
      path,
      'A transition that goes nowhere needs “on”: without an event it would fire over and over.',
    );
  }
  if (document.on === undefined && document.when === undefined && document.after === undefined) {
    findings.error(
      'parameter',
      path,
      'A transition needs “when”, “on” or “after”; with none it would fire at once.',
    );
  }
  const when =
    document.when === undefined
      ? null
      : (compileExpression(scope, document.when, `${path}.when`, { types: ['flag'] }) ??
        unknownFlag(document.when));
  return {
    source,
    order,
    target: document.to === undefined ? -1 : resolve(ids, document.to, `${path}.to`, scope),
    on: document.on ?? '',
    when,
    needsNotice: when !== null && truthOf(when.ir, { keys: [], unaware: true }) === 'never',
    forTicks: ticks(context, document.for ?? 0),
    afterTicks: ticks(context, document.after ?? 0),
    urgent: document.urgent ?? false,
    internal: document.internal ?? false,
    actions: compileInstantActions(scope, document.do, `${path}.do`),
  };
}

export function compileMachine(
  machine: MachineDocument,
  path: string,
  scope: MindScope,
): MachineProgram {
  const entries = flatten(machine, path, scope);
  const ids = new Map(entries.map(({ document }, index) => [document.id, index]));
  const transitions: TransitionProgram[] = [];
  const children = entries.map((): number[] => []);
  entries.forEach(({ parent }, index) => children[parent]?.push(index));
  const states = entries.map((entry, index): StateProgram => {
    const { document, path: at, parent } = entry;
    checkStructure(entry, scope);
    const own = (document.transitions ?? []).map((leave, i) => {
      return (
        transitions.push(
          compileTransition(leave, `${at}.transitions[${i}]`, index, i + 1, ids, scope),
        ) - 1
      );
    });
    return {
      id: document.id,
      title: document.title ?? document.id,
      kind: kindOf(document),
      parent,
      children: children[index],
      initial: initialOf(entry, index, entries, ids, scope),
      entry: compileInstantActions(scope, document.entry, `${at}.entry`),
      exit: compileInstantActions(scope, document.exit, `${at}.exit`),
      activity: document.activity
        ? compileActivity(scope, document.activity, `${at}.activity`)
        : null,
      transitions: own,
      attention: document.attention ?? null,
    };
  });
  const initials = states.map((state) => state.initial);
  checkBeginnings(entries, initials, scope);
  const initial = resolve(ids, machine.initial, `${path}.initial`, scope);
  if (initial >= 0 && entries[initial].parent >= 0) {
    scope.context.findings.error(
      'structure',
      `${path}.initial`,
      `“${machine.initial}” is inside another state; a machine begins in one of its outermost states.`,
    );
  }
  return { states, transitions, initial };
}
