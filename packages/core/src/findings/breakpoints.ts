import { agentsOf, readCondition } from '../compile/breakpoints.ts';
import type { Findings } from '../compile/finding.ts';
import type { BreakpointDocument } from '../model/documents/run.ts';
import { namesMeant } from '../model/breakpoint-names.ts';
import type { ProjectDocument } from '../model/documents.ts';
import { namesOf } from '../model/names/names.ts';
import { suggestion } from '../model/names/nearest-name.ts';
import type { Program } from '../world/program/program.ts';

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
  const missing =
    unknown('agent', 'agent', agent ?? '', agents) ??
    unknown('archetype', 'archetype', archetype ?? '', namesOf(document.archetypes));
  if (missing) return missing;
  if (on === 'condition') {
    if (when === undefined)
      return { field: 'when', message: 'A condition is missing: write what is to come true.' };
    const { trouble } = readCondition(when, document, program, agentsOf(breakpoint, document));
    return trouble === null ? null : { field: 'when', message: trouble };
  }
  const known = namesMeant(document, { on });
  return (
    known &&
    unknown(
      'of',
      known.what,
      of.split(':')[0],
      known.names.map(({ id }) => id),
    )
  );
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
