import { agentsOf, readCondition } from '../compile/breakpoints.ts';
import type { Findings } from '../compile/finding.ts';
import type { MindProgram } from '../mind/program.ts';
import type { BreakpointDocument, BreakpointKind } from '../model/breakpoint-documents.ts';
import type { ProjectDocument } from '../model/documents.ts';
import { namesOf } from '../model/names.ts';
import { suggestion } from '../model/nearest-name.ts';
import { SENSES } from '../terms/senses.ts';
import type { Program } from '../world/program/program.ts';

/** What the first part of a breakpoint’s `of` names, and the names there are. */
function namesFor(
  on: BreakpointKind,
  { archetypes, stacks }: Program,
  { minds: written }: ProjectDocument,
): { what: string; names: readonly string[] } | null {
  const minds: readonly MindProgram[] = stacks.flatMap(({ minds: of }) => of);
  switch (on) {
    case 'enter':
    case 'exit':
    case 'transition':
    case 'ended':
      return {
        what: 'state',
        names: minds.flatMap(({ machine }) => machine.states.map(({ id }) => id)),
      };
    case 'picked':
      return {
        what: 'choice',
        names: Object.values(written).flatMap(({ choices = {} }) => namesOf(choices)),
      };
    case 'move':
    case 'hit':
      return {
        what: 'move',
        names: archetypes.flatMap(({ moves }) => moves.map(({ name }) => name)),
      };
    case 'percept':
      return { what: 'sense', names: SENSES };
    case 'memory':
      return { what: 'key', names: stacks.flatMap(({ keys }) => keys.map(({ name }) => name)) };
    case 'condition':
      return null;
  }
}

/** Why a breakpoint can never stop anything; null where it may. */
function troubleOf(
  breakpoint: BreakpointDocument,
  program: Program,
  document: ProjectDocument,
): { field: string; message: string } | null {
  const { on, of = '', when, agent, archetype } = breakpoint;
  const agents = program.agents.map(({ name }) => name);
  const unknown = (field: string, what: string, name: string, names: readonly string[]) =>
    name === '' || names.includes(name)
      ? null
      : { field, message: `There is no ${what} “${name}”.${suggestion(name, names)}` };
  const whom =
    unknown('agent', 'agent', agent ?? '', agents) ??
    unknown('archetype', 'archetype', archetype ?? '', namesOf(document.archetypes));
  if (whom) return whom;
  if (on === 'condition') {
    if (when === undefined)
      return { field: 'when', message: 'A condition is missing: write what is to come true.' };
    const { trouble } = readCondition(when, document, program, agentsOf(breakpoint, document));
    return trouble === null ? null : { field: 'when', message: trouble };
  }
  const known = namesFor(on, program, document);
  return known && unknown('of', known.what, of.split(':')[0], known.names);
}

/** Breakpoints that can never stop a run: they keep nothing from running. */
export function checkBreakpoints(
  program: Program,
  document: ProjectDocument,
  findings: Findings,
): void {
  const { breakpoints = {} } = document;
  for (const name of namesOf(breakpoints)) {
    const trouble = troubleOf(breakpoints[name], program, document);
    if (!trouble) continue;
    const { field, message } = trouble;
    findings.warning(
      field === 'when' ? 'expression' : 'unknownName',
      `breakpoints.${name}.${field}`,
      `The breakpoint never stops a run: ${message}`,
    );
  }
}
