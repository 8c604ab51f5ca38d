import { DIRECTOR_NAME, poolName } from '../model/groups.ts';
import { poolSize, type GroundDocument, type WaveDocument } from '../model/documents.ts';
import { numberOf } from '../model/schema/schema.ts';
import { MODE_FIELDS, SCORE_FIELDS, WAVE_FIELDS } from '../model/documents/director.ts';
import { byName, namesOf } from '../model/names/names.ts';
import type {
  DirectorProgram,
  ScheduleProgram,
  ScoreProgram,
  WaveProgram,
} from '../world/program/director-program.ts';
import type {
  AgentProgram,
  ArchetypeProgram,
  GroundProgram,
  Program,
} from '../world/program/program.ts';
import { placeOf, usualPost } from './compile-ground.ts';
import { indexOfName, internText, ticks, type CompileContext } from './context.ts';
import type { Stacks } from './stacks.ts';

/** The director of a ground, and the agents that come while a run goes on: agents like all others, absent at first. */

function groundOf({ document }: CompileContext): { ground: GroundDocument; path: string } {
  const { start, grounds } = document;
  return { ground: grounds[start.ground], path: `grounds.${start.ground}` };
}

function indexIn(
  names: object | undefined,
  name: string | undefined,
  path: string,
  what: string,
  context: CompileContext,
): number {
  return name === undefined ? -1 : indexOfName(namesOf(names ?? {}), name, path, what, context);
}

/** Where those of a wave may come in: the places it names, else all there are. */
function spawnsOf(wave: WaveDocument, ground: GroundDocument): string[] {
  const known = namesOf(ground.spawns ?? {});
  return (wave.at ?? known).filter((spawn) => known.includes(spawn));
}

/** The agents that may come with a wave, all of one kind. */
function poolOf(name: string, compiled: GroundProgram, context: CompileContext): AgentProgram[] {
  const { ground, path } = groundOf(context);
  const wave = ground.waves![name];
  const at = `${path}.waves.${name}`;
  const archetype = indexIn(
    context.document.archetypes,
    wave.archetype,
    `${at}.archetype`,
    'archetype',
    context,
  );
  const inherited = context.document.archetypes[wave.archetype]?.squad;
  const squad = indexIn(
    context.document.squads,
    wave.squad ?? inherited,
    wave.squad === undefined ? `archetypes.${wave.archetype}.squad` : `${at}.squad`,
    'squad',
    context,
  );
  const home = indexIn(ground.zones, wave.home, `${at}.home`, 'zone', context);
  const [first] = spawnsOf(wave, ground);
  const spawn = placeOf(first === undefined ? { at: [0, 0] } : ground.spawns![first]);
  const title = wave.title ?? name;
  return Array.from({ length: archetype < 0 ? 0 : poolSize(wave) }, (_, i) => ({
    name: poolName(name, i + 1),
    title: `${title} ${i + 1}`,
    archetype,
    ...spawn,
    post: usualPost(compiled, home, spawn),
    route: indexIn(ground.routes, wave.route, `${at}.route`, 'route', context),
    squad,
    home,
    asleep: false,
    away: true,
  }));
}

/** The director as an agent that is never on the ground. */
function directorAgent(archetype: number): AgentProgram {
  return {
    name: DIRECTOR_NAME,
    title: 'Director',
    archetype,
    x: 0,
    y: 0,
    heading: 0,
    post: { x: NaN, y: NaN, heading: 0 },
    route: -1,
    squad: -1,
    home: -1,
    asleep: false,
    away: true,
  };
}

/** What its agent is: a mind and nothing else. */
function directorArchetype(stack: number, path: string): ArchetypeProgram {
  return {
    name: DIRECTOR_NAME,
    path,
    title: 'Director',
    faction: '',
    side: -1,
    stack,
    reactionTicks: 0,
    aimError: 0,
    obedience: 1,
    radius: 0.3,
    acceleration: 1,
    turnRate: 0,
    height: 0,
    crouchHeight: 0,
    speeds: [],
    stepNoises: [],
    crouched: [],
    visibility: [],
    gait: 0,
    sight: null,
    hearing: null,
    lantern: null,
    sleepDistance: 0,
    carryingSpeed: 1,
    callReach: 0,
    health: NaN,
    respawnTicks: 0,
    moves: [],
    guards: [],
  };
}

/** What a ground’s director and waves add to the agents placed there. */
export interface Comers {
  agents: AgentProgram[];
  archetypes: ArchetypeProgram[];
}

/** Agents that are away at first: those of all waves, and the director. `kinds` is how many archetypes there are before. */
export function compileComers(
  kinds: number,
  compiled: GroundProgram,
  stacks: Stacks,
  context: CompileContext,
): Comers {
  const { ground, path } = groundOf(context);
  const pools = namesOf(ground.waves ?? {}).flatMap((name) => poolOf(name, compiled, context));
  const { director } = ground;
  if (director === undefined) return { agents: pools, archetypes: [] };
  const at = `${path}.director`;
  const { minds } = context.document;
  if (indexIn(minds, director, at, 'mind', context) < 0) return { agents: pools, archetypes: [] };
  if (Object.hasOwn(ground.agents, DIRECTOR_NAME))
    context.findings.error(
      'taken',
      `${path}.agents.${DIRECTOR_NAME}`,
      `“${DIRECTOR_NAME}” is what the director of the ground is called. Give this agent another name.`,
    );
  return {
    agents: [...pools, directorAgent(kinds)],
    archetypes: [directorArchetype(stacks.of([director]), at)],
  };
}

function compileScores(context: CompileContext): ScoreProgram[] {
  const { scores = {} } = groundOf(context).ground;
  return namesOf(scores).map((name) => ({
    name,
    title: scores[name].title ?? name,
    word: internText(context, name),
    start: numberOf(scores[name], 'start', SCORE_FIELDS.start),
  }));
}

function compileSchedule(context: CompileContext): ScheduleProgram | null {
  const { schedule } = groundOf(context).ground;
  if (!schedule) return null;
  return {
    modes: schedule.modes.map((mode) => ({
      word: internText(context, mode.mode),
      ticks: Math.max(1, ticks(context, numberOf(mode, 'for', MODE_FIELDS.for))),
    })),
    afterwards: schedule.afterwards ?? 'again',
  };
}

function compileWave(
  name: string,
  agents: readonly AgentProgram[],
  context: CompileContext,
): WaveProgram {
  const { ground, path } = groundOf(context);
  const wave = ground.waves![name];
  const at = `${path}.waves.${name}`;
  const { spawns = {} } = ground;
  wave.at?.forEach((spawn, i) =>
    indexOfName(namesOf(spawns), spawn, `${at}.at[${i}]`, 'spawn place', context),
  );
  if (spawnsOf(wave, ground).length === 0)
    context.findings.error(
      'structure',
      wave.at ? `${at}.at` : at,
      `“${wave.title ?? name}” has no place to come in: the ground has no spawn place for it. Add one.`,
    );
  if (wave.starts === 'zone' && wave.zone === undefined)
    context.findings.error(
      'structure',
      `${at}.starts`,
      'It starts when a zone is entered, and names none. Say which in “zone”.',
    );
  const times = numberOf(wave, 'times', WAVE_FIELDS.times);
  if (times !== 1 && wave.delay === undefined)
    context.findings.error(
      'structure',
      `${at}.times`,
      `They come more than once, and nothing says after how long. Give it a “delay”.`,
    );
  const byLength = Array.from({ length: poolSize(wave) }, (_, i) => poolName(name, i + 1));
  const places = new Map(agents.map((agent, index) => [agent.name, index]));
  return {
    name,
    title: wave.title ?? name,
    word: internText(context, name),
    pool: byLength.flatMap((each) => places.get(each) ?? []),
    count: wave.count,
    spawns: spawnsOf(wave, ground).map((spawn) => ({
      title: spawns[spawn].title ?? spawn,
      ...placeOf(spawns[spawn]),
    })),
    order: wave.order ?? WAVE_FIELDS.order.usual,
    gapTicks: Math.max(1, ticks(context, numberOf(wave, 'gap', WAVE_FIELDS.gap))),
    times,
    delayTicks: ticks(context, wave.delay ?? 0),
    after: wave.after ?? WAVE_FIELDS.after.usual,
    starts: wave.starts ?? WAVE_FIELDS.starts.usual,
    zone: indexIn(ground.zones, wave.zone, `${at}.zone`, 'zone', context),
  };
}

/** All the ground says of its game; `agents` are all of the program, in their order. */
export function compileDirector(
  agents: readonly AgentProgram[],
  context: CompileContext,
): DirectorProgram {
  const { waves = {} } = groundOf(context).ground;
  return {
    agent: agents.findIndex(({ name, away }) => away && name === DIRECTOR_NAME),
    scores: compileScores(context),
    schedule: compileSchedule(context),
    waves: namesOf(waves).map((name) => compileWave(name, agents, context)),
  };
}

/** Agents of a program by name, as indices of texts: of archetypes, factions, squads and waves. */
export function groupsOf(
  program: Pick<Program, 'agents' | 'archetypes' | 'squads' | 'director'>,
  context: CompileContext,
): Program['groups'] {
  const groups = new Map<number, Set<number>>();
  const put = (name: string, agent: number) => {
    const word = internText(context, name);
    const members = groups.get(word) ?? new Set();
    groups.set(word, members.add(agent));
  };
  program.agents.forEach(({ archetype, squad }, agent) => {
    const kind = program.archetypes[archetype];
    if (!kind || kind.side < 0) return;
    put(kind.name, agent);
    put(kind.faction, agent);
    if (squad >= 0) put(program.squads[squad].name, agent);
  });
  for (const { name, pool } of program.director.waves) for (const agent of pool) put(name, agent);
  return [...groups]
    .map(([word, members]) => ({ word, members: [...members].sort((a, b) => a - b) }))
    .sort((a, b) => a.word - b.word);
}

/** All agents by name, ascending: an agent's index is its id. */
export function inOrder(agents: readonly AgentProgram[]): AgentProgram[] {
  return [...agents].sort((a, b) => byName(a.name, b.name));
}
