import { checkExpression } from '../expression/check.ts';
import type { CheckedExpression } from '../expression/ir.ts';
import type { BreakpointDocument } from '../model/documents/run.ts';
import type { Name, ProjectDocument } from '../model/documents.ts';
import { allAgents } from '../model/groups.ts';
import { namesOf } from '../model/names/names.ts';
import type { BreakpointProgram } from '../world/program/breakpoint-program.ts';
import type { Program } from '../world/program/program.ts';
import { mindScope } from './compile-mind.ts';
import { contextOf } from './context.ts';

/** The agents a breakpoint is about; null for every agent. */
export function agentsOf(
  { agent, archetype }: BreakpointDocument,
  document: ProjectDocument,
): ReadonlySet<Name> | null {
  if (agent !== undefined) return new Set([agent]);
  if (archetype === undefined) return null;
  const ofKind = allAgents(document).filter((each) => each.archetype === archetype);
  return new Set(ofKind.map(({ name }) => name));
}

/** How the first minds of a program’s agents read a condition; without those that can’t. The reason why none can comes with it. */
export function readCondition(
  source: string,
  document: ProjectDocument,
  program: Program,
  agents: ReadonlySet<Name> | null,
): { readBy: ReadonlyMap<Name, CheckedExpression>; trouble: string | null } {
  const context = contextOf(document, program);
  const stacks = new Set(
    program.agents.flatMap(({ name, archetype }) => {
      const { stack } = program.archetypes[archetype];
      return stack < 0 || (agents !== null && !agents.has(name)) ? [] : [program.stacks[stack]];
    }),
  );
  const readBy = new Map<Name, CheckedExpression>();
  let trouble: string | null = stacks.size === 0 ? 'None of the agents it names has a mind.' : null;
  for (const { minds } of stacks) {
    const names = minds.map(({ name }) => name);
    const result = checkExpression(source, mindScope(names[0], context, names), {
      types: ['flag'],
    });
    if (result.ok) readBy.set(names[0], result.expression);
    else trouble ??= result.faults[0].message;
  }
  return { readBy, trouble: readBy.size > 0 ? null : trouble };
}

/** The breakpoints of a document, ready for the program that was compiled from it. */
export function bindBreakpoints(document: ProjectDocument, program: Program): BreakpointProgram[] {
  const { breakpoints = {} } = document;
  return namesOf(breakpoints).map((name) => {
    const breakpoint = breakpoints[name];
    const agents = agentsOf(breakpoint, document);
    const { on, when = '' } = breakpoint;
    const conditions =
      on === 'condition' ? readCondition(when, document, program, agents).readBy : new Map();
    return { name, document: breakpoint, agents, conditions };
  });
}
