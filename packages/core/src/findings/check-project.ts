import { compileProject } from '../compile/compile-project.ts';
import { collectFindings, type Finding, type Findings } from '../compile/finding.ts';
import type { ProjectDocument } from '../model/documents.ts';
import { readProject, type Fault } from '../model/file/read-project.ts';
import { inTier } from '../model/tiers.ts';
import type { MindProgram, StackProgram } from '../mind/program.ts';
import type { Program } from '../world/program/program.ts';
import { checkBands, checkChoices } from './weighing.ts';
import { checkBreakpoints } from './breakpoints.ts';
import { checkBodies } from './bodies.ts';
import { checkChannels } from './channels.ts';
import { checkCoupledNumbers } from './coupled-numbers.ts';
import { checkFighting, checkMoves } from './fighting.ts';
import { checkMachine } from './machines.ts';
import { checkDirector } from './director.ts';
import { checkNames, hearing } from './names.ts';
import { checkSetups } from './set-ups.ts';
import { statePaths } from './state-paths.ts';
import { checkTiers, tierFaults } from './tiers.ts';
import { checkTrees } from './trees.ts';

function checkMind(
  mind: MindProgram,
  stack: StackProgram,
  program: Program,
  document: ProjectDocument,
  findings: Findings,
): void {
  const { machine } = document.minds[mind.name];
  const paths = machine
    ? statePaths(machine, `minds.${mind.name}.machine`)
    : new Map([['always', `minds.${mind.name}.activity`]]);
  const keys = stack.keys.map(({ forgetAfter, capacity, min: least, max: greatest }) => ({
    forgetAfter: forgetAfter / program.ticksPerSecond,
    capacity,
    least,
    greatest,
  }));
  const known = { keys };
  if (machine) checkMachine(mind, paths, hearing(mind.name, program), known, findings);
  checkTrees(mind, paths, known, findings);
  checkCoupledNumbers(mind, stack, program, paths, findings);
  checkFighting(mind, stack, program, paths, findings);
}

/** Everything the compiler and the static checks have to say about a document, errors first. */
export function checkProject(document: ProjectDocument): {
  program: Program | null;
  findings: Finding[];
} {
  const { program, draft, findings } = compileProject(document);
  // What a tier makes of a number must be within the bounds of that number.
  const form = (document.tiers ?? []).length > 0 ? readProject(inTier(document).document) : null;
  const extra = collectFindings();
  if (draft) {
    for (const stack of draft.stacks) {
      for (const mind of stack.minds) checkMind(mind, stack, draft, document, extra);
    }
    checkNames(draft, document, extra);
    checkChannels(draft, document, extra);
    checkBodies(draft, extra);
    checkDirector(draft, document, extra);
    checkMoves(draft, extra);
    checkSetups(draft, document, extra);
    checkBreakpoints(draft, document, extra);
    checkTiers(document, extra);
    checkBands(draft, document, extra);
    checkChoices(draft, document, extra);
  }
  const outside = form && !form.ok ? tierFaults(document, form.faults) : [];
  return {
    program: outside.length > 0 ? null : program,
    findings: [...findings, ...outside, ...extra.list],
  };
}

/** The same for what may not even be of the right form: its faults come as findings too. */
export function checkDocument(value: unknown): { program: Program | null; findings: Finding[] } {
  const read = readProject(value);
  if (read.ok) return checkProject(read.document);
  return { program: null, findings: formFindings(read.faults) };
}

export function formFindings(faults: readonly Fault[]): Finding[] {
  return faults.map(({ path, message }) => ({ code: 'form', severity: 'error', path, message }));
}
