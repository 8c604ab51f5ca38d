import { compileProject } from '../compile/compile-project.ts';
import { namesOf } from '../compile/context.ts';
import { collectFindings, type Finding, type Findings } from '../compile/finding.ts';
import type { ProjectDocument } from '../model/documents.ts';
import type { MachineProgram, MindProgram } from '../mind/program.ts';
import type { Program } from '../world/program.ts';
import { checkCoupledNumbers } from './coupled-numbers.ts';
import { statePaths } from './state-paths.ts';

/** States some chain of initial states and transitions leads to. */
function reachableStates(machine: MachineProgram): Set<number> {
  const reached = new Set<number>();
  const enter = (state: number) => {
    for (let s = state; s >= 0 && !reached.has(s); s = machine.states[s].parent) {
      reached.add(s);
      const { kind, children, initial, leaves, parent } = machine.states[s];
      if (kind === 'parallel') children.forEach(enter);
      if (initial >= 0) enter(initial);
      if ((kind === 'history' || kind === 'deepHistory') && initial < 0)
        enter(machine.states[parent].initial);
      for (const leave of leaves)
        if (machine.transitions[leave].target >= 0) enter(machine.transitions[leave].target);
    }
  };
  enter(machine.initial);
  return reached;
}

/** Whether the state, or one around it, has a transition to elsewhere. */
function hasWayOut(machine: MachineProgram, state: number): boolean {
  for (let s = state; s >= 0; s = machine.states[s].parent) {
    if (machine.states[s].leaves.some((leave) => machine.transitions[leave].target >= 0))
      return true;
  }
  return false;
}

function checkMind(
  mind: MindProgram,
  program: Program,
  document: ProjectDocument,
  findings: Findings,
): void {
  const { machine } = mind;
  const paths = statePaths(document.minds[mind.name].machine, `minds.${mind.name}.machine`);
  const reached = reachableStates(machine);
  machine.states.forEach((state, index) => {
    const path = paths.get(state.id) ?? `minds.${mind.name}.machine`;
    if (!reached.has(index)) {
      findings.warning(
        'unreachable',
        path,
        `“${state.title}” is never entered: no transition leads to it. Add one, or remove the state.`,
      );
    } else if (state.kind === 'atomic' && machine.states.length > 1 && !hasWayOut(machine, index)) {
      findings.warning(
        'noWayOut',
        path,
        `“${state.title}” is never left: it has no transition to another state, nor has any state around it.`,
      );
    }
    const always = state.leaves.findIndex((leave) => {
      const { on, when, afterTicks } = machine.transitions[leave];
      return on === '' && afterTicks === 0 && when?.ir.op === 'literal' && when.ir.value === 1;
    });
    if (always >= 0) {
      for (let later = always + 1; later < state.leaves.length; later++) {
        findings.warning(
          'neverFires',
          `${path}.leaves[${later}]`,
          `This transition never fires: number ${always + 1} above it always does.`,
        );
      }
    }
  });
  checkMemory(mind, findings);
  checkCoupledNumbers(mind, program, paths, findings);
}

function checkMemory(mind: MindProgram, findings: Findings): void {
  const actions = mind.machine.states
    .flatMap((state) => [...state.entry, ...state.exit])
    .concat(mind.machine.transitions.flatMap((transition) => transition.actions));
  mind.keys.forEach((key, index) => {
    const written = actions.some(
      (action) => action.action === 'remember' && action.args.key === index,
    );
    const read = readsKey(mind.machine, index);
    const path = `minds.${mind.name}.memory.${key.name}`;
    const hasDefault = key.initial - key.initial === 0 && key.initial !== -1 && key.type !== 'flag';
    if (read && !written && !hasDefault) {
      findings.warning(
        'neverWritten',
        path,
        `“${key.name}” is read but nothing ever writes it: add a remember action, or a default.`,
      );
    }
  });
}

/** Whether any checked expression below `value` reads the key. */
function readsKey(value: unknown, key: number): boolean {
  if (typeof value !== 'object' || value === null) return false;
  const node = value as { op?: unknown; key?: unknown };
  if (node.op === 'key' && node.key === key) return true;
  return Object.values(value).some((inner) => readsKey(inner, key));
}

function checkUse(program: Program, document: ProjectDocument, findings: Findings): void {
  for (const name of namesOf(document.minds)) {
    const used = namesOf(document.archetypes).some(
      (archetype) => document.archetypes[archetype].mind === name,
    );
    if (!used)
      findings.warning(
        'unreachable',
        `minds.${name}`,
        `No archetype has the mind “${program.minds.find((mind) => mind.name === name)?.title ?? name}”, so nothing runs it.`,
      );
  }
}

/** Everything the compiler and the static checks have to say about a document, errors first. */
export function checkProject(document: ProjectDocument): {
  program: Program | null;
  findings: Finding[];
} {
  const { program, findings } = compileProject(document);
  const extra = collectFindings();
  if (program) {
    for (const mind of program.minds) checkMind(mind, program, document, extra);
    checkUse(program, document, extra);
  }
  return { program, findings: [...findings, ...extra.list] };
}
