import { createWalls, circleBlocked } from '../space/walls.ts';
import { suggestion } from '../model/nearest-name.ts';
import type { ArchetypeDocument, ProjectDocument } from '../model/documents.ts';
import { radians, wrapAngle } from '../numeric/trigonometry.ts';
import type { StackProgram } from '../mind/program.ts';
import type {
  AgentProgram,
  ArchetypeProgram,
  GroundProgram,
  Program,
  SightProgram,
} from '../world/program.ts';
import { compileSharedKeys, compileStack, mindsOf, type SharedKeys } from './compile-mind.ts';
import { createContext, namesOf, ticks, type CompileContext } from './context.ts';
import { collectFindings, hasErrors, type Finding } from './finding.ts';

export interface CompileResult {
  /** Null where an error keeps it from running. */
  program: Program | null;
  /** What could be made of it all the same, for checks that look further; null where there is no ground. */
  draft: Program | null;
  findings: Finding[];
}

const DEFAULT_SEED = 1;

function indexOfName(
  names: readonly string[],
  name: string,
  path: string,
  what: string,
  context: CompileContext,
): number {
  const index = names.indexOf(name);
  if (index < 0)
    context.findings.error(
      'unknownName',
      path,
      `There is no ${what} “${name}”.${suggestion(name, names)}`,
    );
  return index;
}

function compileSight(
  archetype: ArchetypeDocument,
  path: string,
  context: CompileContext,
): SightProgram | null {
  const { sight } = archetype;
  if (!sight) return null;
  if (sight.curious > sight.certain) {
    context.findings.error(
      'parameter',
      `${path}.sight.curious`,
      `Curious (${sight.curious}) must not lie above certain (${sight.certain}).`,
    );
  }
  return {
    cones: sight.cones.map(({ range, halfAngle, gain }) => ({
      range,
      halfAngle: radians(halfAngle),
      gain,
    })),
    fade: sight.fade,
    graceTicks: ticks(context, sight.grace),
    curious: sight.curious,
    certain: sight.certain,
    forgetTicks: ticks(context, sight.forgetAfter),
  };
}

/** The stacks of minds that agents may have, and those no archetype has, so that they are checked too. */
interface Stacks {
  list: StackProgram[];
  of(minds: readonly string[]): number;
}

function createStacks(shared: SharedKeys, context: CompileContext): Stacks {
  const list: StackProgram[] = [];
  const known = new Map<string, number>();
  return {
    list,
    of(minds) {
      const key = minds.join(' ');
      let index = known.get(key);
      if (index === undefined) {
        index = list.push(compileStack(minds, shared, context)) - 1;
        known.set(key, index);
      }
      return index;
    },
  };
}

function stackOf(
  archetype: ArchetypeDocument,
  path: string,
  stacks: Stacks,
  context: CompileContext,
) {
  const known = namesOf(context.document.minds);
  const minds = mindsOf(archetype).filter((mind) => {
    const at = mind === archetype.mind ? 'mind' : `minds[${archetype.minds!.indexOf(mind)}]`;
    return indexOfName(known, mind, `${path}.${at}`, 'mind', context) >= 0;
  });
  return minds.length === 0 ? -1 : stacks.of(minds);
}

function compileArchetype(name: string, stacks: Stacks, context: CompileContext): ArchetypeProgram {
  const archetype = context.document.archetypes[name];
  const path = `archetypes.${name}`;
  const { radius, acceleration, turnRate } = archetype.body;
  const has = (gait: string) => Object.hasOwn(archetype.gaits, gait);
  if (!has(archetype.gait)) {
    context.findings.error(
      'unknownName',
      `${path}.gait`,
      `“${name}” has no gait “${archetype.gait}”.${suggestion(archetype.gait, namesOf(archetype.gaits))}`,
    );
  }
  return {
    name,
    title: archetype.title,
    faction: archetype.faction,
    stack: stackOf(archetype, path, stacks, context),
    reactionTicks: ticks(context, archetype.reaction ?? 0),
    radius,
    acceleration,
    turnRate: radians(turnRate),
    paces: context.gaits.map((gait) => (has(gait) ? archetype.gaits[gait] : NaN)),
    gait: context.gaits.indexOf(archetype.gait),
    sight: compileSight(archetype, path, context),
  };
}

function compileGround(context: CompileContext): GroundProgram {
  const { document } = context;
  const name = document.start.ground;
  const ground = document.grounds[name];
  return {
    name,
    title: ground.title,
    width: ground.width,
    height: ground.height,
    walls: ground.walls.map(({ kind, at, size }) => ({
      kind: kind ?? 'wall',
      x: at[0],
      y: at[1],
      width: size[0],
      height: size[1],
    })),
    routes: namesOf(ground.routes).map((route) => {
      const { title, points, end, wait } = ground.routes[route];
      return {
        name: route,
        title: title ?? route,
        points: points.flat(),
        end: end ?? 'loop',
        waitTicks: ticks(context, wait ?? 0),
      };
    }),
  };
}

/** The agent's own squad, else its archetype's; −1 for none. */
function squadOf(
  own: string | undefined,
  archetype: string,
  path: string,
  context: CompileContext,
): number {
  const { archetypes, squads } = context.document;
  const inherited = Object.hasOwn(archetypes, archetype) ? archetypes[archetype].squad : undefined;
  const name = own ?? inherited;
  if (name === undefined) return -1;
  const at = own === undefined ? `archetypes.${archetype}.squad` : `${path}.squad`;
  return indexOfName(namesOf(squads ?? {}), name, at, 'squad', context);
}

function compileAgents(context: CompileContext, archetypes: readonly string[]): AgentProgram[] {
  const { document } = context;
  const ground = document.grounds[document.start.ground];
  const routes = namesOf(ground.routes);
  const path = `grounds.${document.start.ground}.agents`;
  return namesOf(ground.agents).map((name) => {
    const { title, archetype, at, heading, route, squad } = ground.agents[name];
    return {
      squad: squadOf(squad, archetype, `${path}.${name}`, context),
      name,
      title: title ?? name,
      archetype: indexOfName(
        archetypes,
        archetype,
        `${path}.${name}.archetype`,
        'archetype',
        context,
      ),
      x: at[0],
      y: at[1],
      heading: wrapAngle(radians(heading ?? 0)),
      route:
        route === undefined
          ? -1
          : indexOfName(routes, route, `${path}.${name}.route`, 'route', context),
    };
  });
}

/** Bodies must start where they can be: on the ground, in no wall, in no other body. */
function checkPlaces(
  context: CompileContext,
  ground: GroundProgram,
  agents: readonly AgentProgram[],
  archetypes: readonly ArchetypeProgram[],
): void {
  const walls = createWalls(ground.width, ground.height, ground.walls);
  const radius = (agent: AgentProgram) => archetypes[agent.archetype]?.radius ?? 0;
  agents.forEach((agent, i) => {
    const path = `grounds.${ground.name}.agents.${agent.name}.at`;
    if (circleBlocked(walls, agent.x, agent.y, radius(agent))) {
      context.findings.error(
        'place',
        path,
        `“${agent.title}” (radius ${radius(agent)} m) stands in a wall or off the ground at (${agent.x}, ${agent.y}). Move it.`,
      );
    }
    for (const other of agents.slice(0, i)) {
      const dx = agent.x - other.x;
      const dy = agent.y - other.y;
      if (Math.sqrt(dx * dx + dy * dy) < radius(agent) + radius(other)) {
        context.findings.error(
          'place',
          path,
          `“${agent.title}” and “${other.title}” stand in the same place. Move one.`,
        );
      }
    }
  });
}

/** Turns a document of the right form into a program, or says all that keeps it from running. */
export function compileProject(document: ProjectDocument): CompileResult {
  const findings = collectFindings();
  const context = createContext(document, findings);
  const { start } = document;
  const shared = compileSharedKeys(context);
  const stacks = createStacks(shared, context);
  const archetypeNames = namesOf(document.archetypes);
  const archetypes = archetypeNames.map((name) => compileArchetype(name, stacks, context));
  // A mind nobody has yet is checked like any other.
  const used = new Set(stacks.list.flatMap(({ minds }) => minds.map((mind) => mind.name)));
  for (const name of namesOf(document.minds)) if (!used.has(name)) stacks.of([name]);
  if (indexOfName(namesOf(document.grounds), start.ground, 'start.ground', 'ground', context) < 0) {
    return { program: null, draft: null, findings: findings.list };
  }
  const ground = compileGround(context);
  const agents = compileAgents(context, archetypeNames);
  checkPlaces(context, ground, agents, archetypes);
  const play =
    start.play === undefined
      ? -1
      : indexOfName(
          agents.map((agent) => agent.name),
          start.play,
          'start.play',
          'agent',
          context,
        );
  const draft: Program = {
    title: document.title,
    ticksPerSecond: context.ticksPerSecond,
    seed: start.seed ?? DEFAULT_SEED,
    texts: context.texts,
    gaits: context.gaits,
    stacks: stacks.list,
    squadKeys: shared.squad,
    worldKeys: shared.world,
    squads: namesOf(document.squads ?? {}),
    archetypes,
    ground,
    agents,
    play,
  };
  const program = hasErrors(findings.list) ? null : draft;
  return { program, draft, findings: findings.list };
}
