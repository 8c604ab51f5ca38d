import type { Findings } from '../compile/finding.ts';
import type { Ir } from '../expression/ir.ts';
import type { ActionProgram, MindProgram, StateProgram } from '../mind/program.ts';
import type { Program } from '../world/program.ts';

/** Numbers that stand apart in a document but only work together. */

/** The agent a `moveTo` goes after and how near it goes; null for other actions, and where either is not fixed. */
function approach(activity: ActionProgram | null): { to: Ir; within: number } | null {
  if (activity?.action !== 'moveTo') return null;
  const { to, within } = activity.args;
  if (typeof to !== 'object' || to.ir.type !== 'agent' || typeof within !== 'number') return null;
  return { to: to.ir, within };
}

/** Metres between the middles of the smallest two bodies that can meet: one with this mind and any other. */
function touchingDistance(mind: MindProgram, program: Program): number {
  const index = program.minds.indexOf(mind);
  const own = program.archetypes.filter((archetype) => archetype.mind === index);
  const smallest = (list: readonly { radius: number }[]) =>
    Math.min(...list.map(({ radius }) => radius));
  return own.length === 0 ? 0 : smallest(own) + smallest(program.archetypes);
}

/** Whether two expressions say the same, wherever they stand. */
function sameExpression(a: Ir, b: Ir): boolean {
  const text = (ir: Ir) =>
    JSON.stringify(ir, (key, value: unknown) => (key === 'at' ? undefined : value));
  return text(a) === text(b);
}

/** The distance to `agent` that a guard asks to be below; undefined where it asks for none. */
function wantedDistance(guard: Ir, agent: Ir): number | undefined {
  if (guard.op === 'and') return wantedDistance(guard.a, agent) ?? wantedDistance(guard.b, agent);
  if (guard.op !== 'compare' || (guard.operator !== '<' && guard.operator !== '<='))
    return undefined;
  const { a, b } = guard;
  const isDistance =
    a.op === 'call' && a.name === 'distance(agent)' && sameExpression(a.args[0], agent);
  return isDistance && b.op === 'literal' ? b.value : undefined;
}

function metres(value: number): string {
  return `${Number(value.toFixed(2))} m`;
}

function checkState(
  state: StateProgram,
  path: string,
  mind: MindProgram,
  program: Program,
  findings: Findings,
): void {
  const near = approach(state.activity);
  if (!near) return;
  const touching = touchingDistance(mind, program);
  if (near.within < touching) {
    findings.warning(
      'coupled',
      `${path}.activity`,
      `“${state.title}” goes within ${metres(near.within)} of an agent, but bodies touch at ${metres(touching)}: it never arrives. Let it stop at ${metres(touching + 0.1)} or more.`,
    );
  }
  state.leaves.forEach((leave, i) => {
    const { when } = mind.machine.transitions[leave];
    const wanted = when ? wantedDistance(when.ir, near.to) : undefined;
    if (wanted === undefined || wanted > near.within) return;
    findings.warning(
      'coupled',
      `${path}.leaves[${i}].when`,
      `This waits for a distance below ${metres(wanted)}, but “${state.title}” stops at ${metres(near.within)}. Let it go nearer, or ask for more.`,
    );
  });
}

/** Warns where an approach stops before it can arrive, or before what its state waits for. */
export function checkCoupledNumbers(
  mind: MindProgram,
  program: Program,
  paths: ReadonlyMap<string, string>,
  findings: Findings,
): void {
  for (const state of mind.machine.states) {
    const path = paths.get(state.id);
    if (path !== undefined) checkState(state, path, mind, program, findings);
  }
}
