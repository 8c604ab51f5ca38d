import type { Findings } from '../compile/finding.ts';
import type { MindProgram, StackProgram } from '../mind/program.ts';
import { BUILTIN_BY_SIGNATURE, type Builtin } from '../expression/builtins.ts';
import { spaceOf } from '../world/program/space.ts';
import { stanceToward, type ArchetypeProgram, type Program } from '../world/program/program.ts';
import { FRIENDLY } from '../terms/stances.ts';
import { partsOf } from '../expression/ir.ts';
import { allActions, allExpressions } from './walk.ts';

/** What a mind asks of a body that the body, or the ground, can't give. */

/** The built-ins of a mind that ask for what senses bring. */
function sensesAsked(mind: MindProgram): Builtin[] {
  return allExpressions(mind)
    .flatMap(({ ir }) => partsOf(ir))
    .flatMap((part) => (part.op === 'call' ? [BUILTIN_BY_SIGNATURE.get(part.name)!] : []))
    .filter(({ sense }) => sense !== undefined);
}

function checkSight(archetype: ArchetypeProgram, stack: StackProgram, findings: Findings): void {
  if (archetype.sight) return;
  for (const mind of stack.minds) {
    const asked = sensesAsked(mind)
      .filter(({ sense }) => sense === 'sight' || sense === 'attention')
      .map(({ name }) => name);
    if (asked.length === 0) continue;
    findings.warning(
      'cannotWork',
      archetype.path,
      `“${archetype.title}” has no sight, but its mind “${mind.title}” asks for ${[...new Set(asked)].join(', ')}: that stays empty. Give it sight.`,
    );
  }
}

const CHEAT = 'cheat.';

/** What a mind knows without perceiving it. */
function checkCheats(mind: MindProgram, findings: Findings): void {
  const asked = allExpressions(mind)
    .flatMap(({ ir }) => partsOf(ir))
    .flatMap((part) => (part.op === 'call' ? [BUILTIN_BY_SIGNATURE.get(part.name)!.name] : []))
    .filter((name) => name.startsWith(CHEAT));
  if (asked.length === 0) return;
  findings.warning(
    'cheats',
    `minds.${mind.name}`,
    `“${mind.title}” goes by what is true, whether it is perceived or not: ${[...new Set(asked)].join(', ')}. Ask for what is perceived, or leave it where it is meant.`,
  );
}

function checkGaits(
  archetype: ArchetypeProgram,
  stack: StackProgram,
  program: Program,
  findings: Findings,
): void {
  const actions = stack.minds.flatMap(allActions);
  const mover = actions.find(({ channel, lasts }) => channel === 'legs' && lasts);
  if (!mover) return;
  const used = actions.flatMap(({ action, args }) =>
    action === 'setGait' ? [Number(args.gait)] : [],
  );
  const paces = [archetype.gait, ...used].map((gait) => archetype.speeds[gait]);
  if (paces.some((pace) => pace > 0)) return;
  findings.warning(
    'cannotWork',
    `${archetype.path}.gaits.${program.gaits[archetype.gait]}`,
    `“${archetype.title}” can’t ${mover.action}: every gait it uses has speed 0 m/s. Give one a speed.`,
  );
}

/** Whether the mind sends its agent along the route it was given. */
function followsOwnRoute(stack: StackProgram): boolean {
  return stack.minds
    .flatMap(allActions)
    .some(
      ({ action, args }) =>
        action === 'followRoute' &&
        typeof args.route === 'object' &&
        args.route.ir.op === 'call' &&
        args.route.ir.name === 'self.route',
    );
}

function checkRoutes(program: Program, findings: Findings): void {
  const { ground, agents, archetypes, stacks } = program;
  // Gates open; a waypoint in one can be stood on.
  const space = spaceOf(ground, () => false);
  const path = `grounds.${ground.name}`;
  for (const agent of agents) {
    const archetype = archetypes[agent.archetype];
    const stack = stacks[archetype?.stack];
    if (!stack) continue;
    if (agent.route < 0) {
      if (followsOwnRoute(stack))
        findings.warning(
          'cannotWork',
          `${path}.agents.${agent.name}`,
          `“${agent.title}” has no route, but its mind follows self.route: that fails at once. Give it a route.`,
        );
      continue;
    }
    const route = ground.routes[agent.route];
    for (let i = 0; i < route.points.length; i += 2) {
      const [x, y] = route.points.slice(i, i + 2);
      if (!space.isBlocked(x, y, archetype.radius)) continue;
      findings.warning(
        'cannotWork',
        `${path}.routes.${route.name}.points[${i / 2}]`,
        `“${agent.title}” (radius ${archetype.radius} m) can’t stand at (${x}, ${y}): there is a wall. Move the waypoint.`,
      );
    }
  }
}

function checkHealth({ title, path, health, respawnTicks }: ArchetypeProgram, findings: Findings) {
  if (respawnTicks === 0 || health > 0) return;
  findings.warning(
    'cannotWork',
    `${path}.respawnDelay`,
    `“${title}” respawns after its death, but can’t die: it has no health. Set its health.`,
  );
}

/** Whether a body can notice another: it sees, or hears the other's steps, and they are not friends. */
function canNotice(own: ArchetypeProgram, other: ArchetypeProgram, program: Program): boolean {
  if (stanceToward(program, own.side, other.side) === FRIENDLY) return false;
  return (
    own.sight !== null || (own.hearing !== null && other.stepNoises.some((reach) => reach > 0))
  );
}

/** Reports minds that wait for what senses bring where no agent can notice another. */
function checkNotice(program: Program, findings: Findings): void {
  const kinds = program.agents.flatMap(({ archetype }) => program.archetypes[archetype] ?? []);
  const sensing = kinds.filter(({ sight, hearing }) => sight !== null || hearing !== null);
  const waiting = sensing.some(
    ({ stack }) =>
      stack >= 0 && program.stacks[stack].minds.some((mind) => sensesAsked(mind).length > 0),
  );
  if (kinds.length < 2 || !waiting) return;
  const some = kinds.some((own, i) =>
    kinds.some((other, j) => j !== i && canNotice(own, other, program)),
  );
  if (some) return;
  findings.warning(
    'cannotWork',
    `grounds.${program.ground.name}`,
    'No agent on this ground can notice another: those with senses are friendly with all others, or hear no steps of theirs. Put one into a faction that is not friendly, or give a body sight or audible steps.',
  );
}

export function checkBodies(program: Program, findings: Findings): void {
  for (const archetype of program.archetypes) {
    checkHealth(archetype, findings);
    const stack = program.stacks[archetype.stack];
    if (!stack) continue;
    checkSight(archetype, stack, findings);
    checkGaits(archetype, stack, program, findings);
    for (const mind of stack.minds) checkCheats(mind, findings);
  }
  checkRoutes(program, findings);
  checkNotice(program, findings);
}
