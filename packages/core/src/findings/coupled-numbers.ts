import type { Findings, Remedy } from '../compile/finding.ts';
import { conjuncts } from '../expression/conjuncts.ts';
import { partsOf, type Ir } from '../expression/ir.ts';
import type { MindProgram, NodeProgram, StackProgram, StateProgram } from '../mind/program.ts';
import { isAncestor } from '../mind/machine/runnable.ts';
import type { Program } from '../world/program/program.ts';
import { sameExpression } from '../expression/truth.ts';
import { allExpressions, archetypesWith, nodesBelow } from './walk.ts';

/** Numbers that stand apart in a document but only work together. */

/** An action that goes after an agent: its target, how near, and where it is written. */
interface Approach {
  to: Ir;
  within: number;
  path: string;
}

function approachOf({ body, path }: NodeProgram): Approach[] {
  if (body.kind !== 'do' || body.action.action !== 'moveTo') return [];
  const { to, within } = body.action.args;
  if (typeof to !== 'object' || to.ir.type !== 'agent' || typeof within !== 'number') return [];
  return [{ to: to.ir, within, path }];
}

/** What a state goes after while it is active; `path` stands in for that of a single action. */
function approachesOf({ activity }: StateProgram, path: string): Approach[] {
  if (!activity) return [];
  return nodesBelow(activity.root)
    .flatMap(approachOf)
    .map((approach) => ({ ...approach, path: approach.path || path }));
}

/** Metres between the middles of the smallest two bodies that can meet: one with these minds and any other. */
function touchingDistance(stack: StackProgram, program: Program): number {
  const own = archetypesWith(stack, program);
  const smallest = (list: readonly { radius: number }[]) =>
    Math.min(...list.map(({ radius }) => radius));
  return own.length === 0 ? 0 : smallest(own) + smallest(program.archetypes);
}

/** The distance to `agent` that a guard asks to be below, or above; undefined where it asks for none. */
function wantedDistance(guard: Ir, agent: Ir, side: 'below' | 'above'): number | undefined {
  const operators = side === 'below' ? ['<', '<='] : ['>', '>='];
  for (const part of conjuncts(guard)) {
    if (part.op !== 'compare' || !operators.includes(part.operator)) continue;
    const { a, b } = part;
    const isDistance =
      a.op === 'call' && a.name === 'distance(agent)' && sameExpression(a.args[0], agent);
    if (isDistance && b.op === 'literal') return b.value;
  }
  return undefined;
}

function metres(value: number): string {
  return `${Number(value.toFixed(2))} m`;
}

function remedyFor(mind: MindProgram, state: StateProgram, touching: number): Remedy | undefined {
  const { activity } = state;
  if (!activity || activity.root.path !== '' || activity.root.body.kind !== 'do') return undefined;
  const { args } = activity.root.body.action;
  if (typeof args.to !== 'object') return undefined;
  const within = Number((touching + 0.1).toFixed(2));
  return {
    title: `Stop at ${metres(within)}`,
    command: {
      command: 'changeState',
      mind: mind.name,
      state: state.id,
      change: { activity: { do: 'moveTo', to: args.to.source, within } },
    },
  };
}

/** Whether anything the state does, or waits for, speaks of the agent: then going there is not losing it. */
function isAbout(state: StateProgram, mind: MindProgram, agent: Ir): boolean {
  const { states, transitions } = mind.machine;
  const part = {
    ...mind,
    machine: {
      states: [
        state,
        ...states.filter((_, inner) => isAncestor(states, states.indexOf(state), inner)),
      ],
      transitions: state.transitions.map((leave) => transitions[leave]),
      initial: 0,
    },
  };
  return allExpressions(part).some(({ ir }) =>
    partsOf(ir).some((inner) => sameExpression(inner, agent)),
  );
}

/** Metres the farthest cone of any body with these minds reaches. */
function sightReach(stack: StackProgram, program: Program): number {
  const cones = archetypesWith(stack, program).flatMap(({ sight }) => sight?.cones ?? []);
  return Math.max(0, ...cones.map(({ range }) => range));
}

function checkState(
  state: StateProgram,
  path: string,
  mind: MindProgram,
  stack: StackProgram,
  program: Program,
  findings: Findings,
): void {
  const touching = touchingDistance(stack, program);
  const reach = sightReach(stack, program);
  for (const near of approachesOf(state, `${path}.activity`)) {
    if (near.within < touching) {
      findings.warning(
        'coupled',
        near.path,
        `“${state.title}” goes within ${metres(near.within)} of an agent, but bodies touch at ${metres(touching)}: it never arrives. Let it stop at ${metres(touching + 0.1)} or more.`,
        remedyFor(mind, state, touching),
      );
    }
    state.transitions.forEach((leave, i) => {
      const { when, target } = mind.machine.transitions[leave];
      if (!when) return;
      const at = `${path}.transitions[${i}].when`;
      const below = wantedDistance(when.ir, near.to, 'below');
      if (below !== undefined && below <= near.within) {
        findings.warning(
          'coupled',
          at,
          `This waits for a distance below ${metres(below)}, but “${state.title}” stops at ${metres(near.within)}. Let it go nearer, or ask for more.`,
        );
      }
      const above = wantedDistance(when.ir, near.to, 'above');
      const goal = mind.machine.states[target];
      if (above !== undefined && above < reach && goal && !isAbout(goal, mind, near.to)) {
        findings.warning(
          'coupled',
          at,
          `This gives up beyond ${metres(above)}, but sight reaches ${metres(reach)}: it can be seen again at once, and the two states flicker. Ask for ${metres(reach)} or more.`,
        );
      }
    });
  }
}

/** Warns where an approach stops before it can arrive, or before what its state waits for, or gives up within sight. */
export function checkCoupledNumbers(
  mind: MindProgram,
  stack: StackProgram,
  program: Program,
  paths: ReadonlyMap<string, string>,
  findings: Findings,
): void {
  for (const state of mind.machine.states) {
    const path = paths.get(state.id);
    if (path !== undefined) checkState(state, path, mind, stack, program, findings);
  }
}
