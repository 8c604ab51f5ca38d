import type { Findings } from '../compile/finding.ts';
import { conjuncts } from '../expression/conjuncts.ts';
import type { CheckedExpression, ComparisonOperator } from '../expression/ir.ts';
import type { ActionProgram, MindProgram, NodeProgram, StackProgram } from '../mind/program.ts';
import { childrenOf } from '../mind/nodes/index.ts';
import { exp } from '../numeric/exponential.ts';
import { atan2 } from '../numeric/trigonometry.ts';
import { HOSTILE } from '../terms/stances.ts';
import {
  stanceToward,
  type ArchetypeProgram,
  type GuardProgram,
  type MoveProgram,
  type Program,
} from '../world/program/program.ts';
import { allNodes, archetypesWith, ruleRows } from './walk.ts';

/** Checks of what bodies and minds make of a fight: numbers of moves and guards that only work together. */

type Conditions = readonly CheckedExpression[];

/** An action of a node, and what must have held for it to begin. */
interface Step {
  action: ActionProgram;
  path: string;
  conditions: Conditions;
}

/** The actions below a node, each with the guards and conditions on the way to it. */
function stepsBelow(node: NodeProgram, above: Conditions): Step[] {
  const { body, guard, path } = node;
  const conditions = guard ? [...above, guard] : above;
  if (body.kind === 'do') return [{ action: body.action, path, conditions }];
  if (body.kind === 'choice')
    return body.choice.options.flatMap((option) =>
      stepsBelow(option.node, option.guard ? [...conditions, option.guard] : conditions),
    );
  if (body.kind === 'rules')
    return ruleRows(node).flatMap(({ when, actions }) =>
      actions.flatMap((action) => stepsBelow(action, when ? [...conditions, when] : conditions)),
    );
  let held = conditions;
  return childrenOf(node).flatMap((child) => {
    const steps = stepsBelow(child, held);
    if (body.kind === 'sequence' && child.body.kind === 'condition')
      held = [...held, child.body.test];
    return steps;
  });
}

/** Every action that states and their activities begin, with what leads to it. */
function stepsOf({ machine }: MindProgram, statePath: (index: number) => string): Step[] {
  return machine.states.flatMap(({ activity }, index) => {
    if (!activity) return [];
    const into = machine.transitions.filter(({ target }) => target === index);
    const [only] = into;
    const conditions = into.length === 1 && only.when ? [only.when] : [];
    return stepsBelow(activity.root, conditions).map((step) => ({
      ...step,
      path: step.path || `${statePath(index)}.activity`,
    }));
  });
}

/** The constant that conditions compare a call with by one of these operators. */
function comparedWith(
  conditions: Conditions,
  call: string,
  operators: readonly ComparisonOperator[],
): number | undefined {
  for (const part of conditions.flatMap(({ ir }) => conjuncts(ir))) {
    if (part.op !== 'compare' || !operators.includes(part.operator)) continue;
    const { a, b } = part;
    if (a.op === 'call' && a.name === call && b.op === 'literal') return b.value;
  }
  return undefined;
}

const rounded = (value: number, unit: string) => `${Number(value.toFixed(2))} ${unit}`;

function enemiesOf(archetype: ArchetypeProgram, program: Program): ArchetypeProgram[] {
  const placed = new Set(
    program.agents.flatMap((agent) => program.archetypes[agent.archetype] ?? []),
  );
  return [...placed].filter(
    (other) => stanceToward(program, archetype.side, other.side) === HOSTILE,
  );
}

/** A guard that is over before what it answers can land. */
function checkAnswer(
  step: Step,
  guard: GuardProgram,
  archetype: ArchetypeProgram,
  program: Program,
  findings: Findings,
): void {
  const { seconds } = step.action.args;
  const tps = program.ticksPerSecond;
  const holds = typeof seconds === 'number' ? seconds : Infinity;
  const until = Math.min(holds, (guard.raise + guard.maxDuration) / tps);
  const before = comparedWith(step.conditions, 'impactIn(agent)', ['<', '<=']);
  if (before !== undefined) {
    if (until < before)
      findings.warning(
        'guardTooShort',
        step.path,
        `“${guard.title}” is over ${rounded(until, 's')} after it is begun, but it is begun when the impact is still ${rounded(before, 's')} away. Hold it longer, or wait for impactIn below ${rounded(until, 's')}.`,
      );
    else if (guard.raise / tps > before)
      findings.warning(
        'guardTooShort',
        step.path,
        `“${guard.title}” takes ${rounded(guard.raise / tps, 's')} until it covers, but it is begun when the impact is ${rounded(before, 's')} away. Begin it earlier, or raise it faster.`,
      );
    return;
  }
  const word = comparedWith(step.conditions, 'moveOf(agent)', ['==']);
  if (word === undefined) return;
  const answered = enemiesOf(archetype, program)
    .flatMap(({ moves }) => moves)
    .find((move) => move.word === word);
  const late = archetype.reactionTicks / tps;
  if (!answered || answered.windUp / tps <= late + until) return;
  findings.warning(
    'guardTooShort',
    step.path,
    `“${guard.title}” is over ${rounded(until, 's')} after it is begun, and “${answered.title}” can’t land sooner than ${rounded(answered.windUp / tps - late, 's')} after it is seen. Hold it longer, or begin it later, by impactIn.`,
  );
}

/** Metres from the middle of a body at which a move can still meet another’s middle. */
function farthest(move: MoveProgram, archetype: ArchetypeProgram, other: number): number {
  const carried = move.kind === 'strike' ? move.advance : 0;
  return archetype.radius + move.reach + carried + other;
}

/** How near to an agent an action brings or keeps its body; undefined where it does nothing of the kind. */
function distanceKept({ action, args }: ActionProgram): number | undefined {
  const isToward = (to: unknown) =>
    typeof to === 'object' && to !== null && (to as CheckedExpression).ir.type === 'agent';
  const number = (value: unknown) => (typeof value === 'number' ? value : 0);
  if (action === 'moveTo' && isToward(args.to)) return number(args.within);
  if (action === 'circle' && isToward(args.around)) return number(args.distance);
  if (action === 'keepDistance' && isToward(args.from)) return number(args.min);
  if (action === 'surround') return number(args.distance);
  return undefined;
}

/** A reach shorter than any distance the mind goes to or keeps: it would strike the air for ever. */
function checkReach(
  steps: readonly Step[],
  archetype: ArchetypeProgram,
  program: Program,
  findings: Findings,
): void {
  const used = new Set(
    steps.flatMap(({ action: { action, args } }) => (action === 'strike' ? [args.move] : [])),
  );
  const moves = archetype.moves.filter(({ word }) => used.has(word));
  const kept = steps.flatMap(({ action, path }) => {
    const metres = distanceKept(action);
    return metres === undefined ? [] : [{ metres, path }];
  });
  const enemies = enemiesOf(archetype, program);
  if (moves.length === 0 || kept.length === 0 || enemies.length === 0) return;
  const widest = Math.max(...enemies.map(({ radius }) => radius));
  const reach = Math.max(...moves.map((move) => farthest(move, archetype, widest)));
  const nearest = kept.reduce((best, each) => (each.metres < best.metres ? each : best));
  if (nearest.metres <= reach) return;
  findings.warning(
    'outOfReach',
    nearest.path,
    `“${archetype.title}” comes no nearer than ${rounded(nearest.metres, 'm')}, but its moves reach ${rounded(reach, 'm')} at most, from middle to middle. Go nearer, or give a move more reach.`,
  );
}

/** Ticks an action takes at least and at most together; undefined where that is not known. */
function ticksOf(
  { body, guard }: NodeProgram,
  { moves }: ArchetypeProgram,
  { ticksPerSecond }: Program,
): number | undefined {
  if (body.kind === 'condition') return 0;
  if (body.kind !== 'do' || guard) return undefined;
  const { action, args, lasts } = body.action;
  if (!lasts) return 0;
  if (action === 'wait' && typeof args.seconds === 'number') return args.seconds * ticksPerSecond;
  if (action !== 'strike') return undefined;
  const move = moves.find(({ word }) => word === args.move);
  return move && move.windUp + move.active + move.recovery;
}

/** A move wanted once more in a sequence before its cooldown can be over. */
function checkReady(
  node: NodeProgram,
  archetype: ArchetypeProgram,
  program: Program,
  findings: Findings,
): void {
  if (node.body.kind !== 'sequence') return;
  const endedAt = new Map<unknown, number>();
  let at = 0;
  for (const child of node.body.children) {
    const lasts = ticksOf(child, archetype, program);
    if (lasts === undefined) {
      endedAt.clear();
      continue;
    }
    const action = child.body.kind === 'do' ? child.body.action : undefined;
    const move =
      action?.action === 'strike'
        ? archetype.moves.find(({ word }) => word === action.args.move)
        : undefined;
    if (move) {
      const since = at - (endedAt.get(move.word) ?? -Infinity);
      if (since < move.cooldown)
        findings.warning(
          'neverReady',
          child.path,
          `“${move.title}” comes ${rounded(since / program.ticksPerSecond, 's')} after it was made, but it can be made again only after ${rounded(move.cooldown / program.ticksPerSecond, 's')}: the row fails each time. Wait longer between the two, or shorten the cooldown.`,
        );
      endedAt.set(move.word, at + lasts);
    }
    at += lasts;
  }
}

/** A burst of which some shots are still to leave when the move is over; those never do. */
function checkBurst(
  archetype: ArchetypeProgram,
  move: MoveProgram,
  program: Program,
  findings: Findings,
): void {
  if (move.kind !== 'thrown' && move.kind !== 'instant') return;
  const gap = Math.max(1, move.gap);
  const leave = Math.min(move.shots, Math.ceil(move.active / gap));
  if (leave === move.shots) return;
  const needed = ((move.shots - 1) * gap + 1) / program.ticksPerSecond;
  findings.warning(
    'shortBurst',
    `${archetype.path}.moves.${move.name}.active`,
    `“${move.title}” is active for ${rounded(move.active / program.ticksPerSecond, 's')}, in which ${leave} of its ${move.shots} shots leave. Make it active for more than ${rounded(needed, 's')}, or shorten the gap.`,
  );
}

/** The share of a normal distribution within ±`angle`, for a standard deviation; by Abramowitz and Stegun 7.1.26. */
function shareWithin(angle: number, deviation: number): number {
  const x = angle / (deviation * Math.SQRT2);
  const t = 1 / (1 + 0.3275911 * x);
  const terms = [0.254829592, -0.284496736, 1.421413741, -1.453152027, 1.061405429];
  const sum = terms.reduceRight((below, term) => (below + term) * t, 0);
  return 1 - sum * exp(-x * x);
}

const LEAST_SHARE = 0.1;

/** A spread with which hardly a shot meets any agent, even at half of its reach. */
function checkSpread(
  archetype: ArchetypeProgram,
  move: MoveProgram,
  program: Program,
  findings: Findings,
): void {
  if (move.spread === 0 || move.kind === 'strike' || move.kind === 'dodge') return;
  const widest = Math.max(0, ...enemiesOf(archetype, program).map(({ radius }) => radius));
  if (widest === 0) return;
  const away = move.reach / 2;
  const share = shareWithin(atan2(widest + move.radius, away), move.spread);
  if (share >= LEAST_SHARE) return;
  findings.warning(
    'wideSpread',
    `${archetype.path}.moves.${move.name}.spread`,
    `At ${rounded(away, 'm')}, half of its reach, ${Math.round(share * 100)} of 100 shots of “${move.title}” hit an agent. Narrow the spread, or shorten the reach.`,
  );
}

function canHurt(attacker: ArchetypeProgram, target: ArchetypeProgram): boolean {
  return attacker.moves.some(
    ({ kind, damage, from }) => kind !== 'dodge' && damage > 0 && from < target.height,
  );
}

/** A move that passes over the heads of all it could hit. */
function checkHeights(
  archetype: ArchetypeProgram,
  move: MoveProgram,
  program: Program,
  findings: Findings,
): void {
  if (move.kind === 'dodge') return;
  const highest = Math.max(...enemiesOf(archetype, program).map(({ height }) => height));
  // What drops comes down on its way.
  if (highest < 0 || move.drop > 0 || move.from - move.radius < highest) return;
  findings.warning(
    'outOfReach',
    `${archetype.path}.moves.${move.name}.from`,
    `“${move.title}” goes from ${rounded(move.from, 'm')} up, and none of its enemies is higher than ${rounded(highest, 'm')}: it passes over all of them. Begin it lower.`,
  );
}

/** Enemies with moves of which neither can take any health of the other. */
function checkHarm(archetype: ArchetypeProgram, program: Program, findings: Findings): void {
  if (archetype.moves.length === 0) return;
  for (const other of enemiesOf(archetype, program)) {
    // An agent without moves is no fighter, and need not be hurt; of two, one tells it.
    if (other.moves.length === 0 || other.name < archetype.name) continue;
    const hurts = (a: ArchetypeProgram, b: ArchetypeProgram) => b.health > 0 && canHurt(a, b);
    if (hurts(archetype, other) || hurts(other, archetype)) continue;
    findings.warning(
      'noHarm',
      archetype.path,
      `“${archetype.title}” and “${other.title}” are enemies and neither can hurt the other. Give one a move that damages at the height of the other, or give the other health.`,
    );
  }
}

/** What the checks of one mind’s bodies find. */
export function checkFighting(
  mind: MindProgram,
  stack: StackProgram,
  program: Program,
  paths: ReadonlyMap<string, string>,
  findings: Findings,
): void {
  const { states } = mind.machine;
  const steps = stepsOf(mind, (index) => paths.get(states[index].id) ?? `minds.${mind.name}`);
  for (const archetype of archetypesWith(stack, program)) {
    checkReach(steps, archetype, program, findings);
    for (const node of allNodes(mind)) checkReady(node, archetype, program, findings);
    for (const step of steps) {
      if (step.action.action !== 'guard') continue;
      const guard = archetype.guards.find(({ word }) => word === step.action.args.guard);
      if (guard) checkAnswer(step, guard, archetype, program, findings);
    }
  }
}

/** What the checks of bodies alone find. */
export function checkMoves(program: Program, findings: Findings): void {
  for (const archetype of program.archetypes) {
    for (const move of archetype.moves) {
      checkSpread(archetype, move, program, findings);
      checkBurst(archetype, move, program, findings);
      checkHeights(archetype, move, program, findings);
    }
    checkHarm(archetype, program, findings);
  }
}
