import type { InputDocument, ProjectDocument } from '../model/documents.ts';
import type { Input, InputProgram, Program } from '../world/program/program.ts';
import { compileArchetype, compileSquads, compileStances, factionsOf } from './compile-cast.ts';
import { compileComers, compileDirector, groupsOf, inOrder } from './compile-director.ts';
import { checkPlaces, compileAgents, compileGround } from './compile-ground.ts';
import { compileSharedKeys } from './compile-mind.ts';
import { createContext, indexOfName, internText, type CompileContext } from './context.ts';
import { inTier, tierInForce } from '../model/tiers.ts';
import { namesOf } from '../model/names/names.ts';
import { collectFindings, hasErrors, type Finding } from './finding.ts';
import { createStacks } from './stacks.ts';

export interface CompileResult {
  /** Null where an error keeps it from running. */
  program: Program | null;
  /** What could be made of it all the same, for checks that look further; null where there is no ground. */
  draft: Program | null;
  findings: Finding[];
}

const DEFAULT_SEED = 1;

/** One step of a recorded player, as the world takes it. */
export function inputOf({
  agent,
  x,
  y,
  gait,
  act,
  at,
  move,
  place,
  control,
}: InputDocument): Input {
  return {
    agent,
    x: x ?? 0,
    y: y ?? 0,
    gait: gait ?? null,
    ...(act ? { act } : {}),
    ...(at ? { at } : {}),
    ...(move ? { move } : {}),
    ...(place ? { place } : {}),
    ...(control ? { control } : {}),
  };
}

/** What the scripted player of the start does, in the order of its ticks. */
function compileInputs(agents: readonly string[], context: CompileContext): InputProgram[] {
  const { start, players = {} } = context.document;
  if (start.player === undefined) return [];
  const known = namesOf(players);
  if (indexOfName(known, start.player, 'start.player', 'scripted player', context) < 0) return [];
  const { inputs } = players[start.player];
  inputs.forEach(({ agent, tick }, i) => {
    const path = `players.${start.player}.inputs[${i}]`;
    indexOfName(agents, agent, `${path}.agent`, 'agent', context);
    if (i > 0 && inputs[i - 1].tick > tick)
      context.findings.error(
        'structure',
        `${path}.tick`,
        `Tick ${tick} comes after tick ${inputs[i - 1].tick}. Put the inputs in the order of their ticks.`,
      );
  });
  return inputs.map((input) => ({ tick: input.tick, input: inputOf(input) }));
}

function tierWord(document: ProjectDocument, context: CompileContext): number {
  const tier = tierInForce(document);
  return tier ? internText(context, tier.name) : -1;
}

/** Turns a document of the right form into a program, or says all that keeps it from running. */
export function compileProject(written: ProjectDocument): CompileResult {
  const findings = collectFindings();
  const { document, faults } = inTier(written);
  for (const { path, message } of faults) findings.error('parameter', path, message);
  const context = createContext(document, findings);
  const { start } = document;
  const shared = compileSharedKeys(context);
  const stacks = createStacks(shared, context);
  const factions = factionsOf(context);
  const stances = compileStances(context, factions);
  const archetypes = context.kinds.map((kind) => compileArchetype(kind, stacks, factions, context));
  const squads = compileSquads(shared, context);
  // A mind that no archetype has yet is checked like any other.
  const used = new Set(stacks.list.flatMap(({ minds }) => minds.map((mind) => mind.name)));
  for (const name of namesOf(document.minds)) if (!used.has(name)) stacks.of([name]);
  if (indexOfName(namesOf(document.grounds), start.ground, 'start.ground', 'ground', context) < 0) {
    return { program: null, draft: null, findings: findings.list };
  }
  const ground = compileGround(context);
  const comers = compileComers(archetypes.length, ground, stacks, context);
  archetypes.push(...comers.archetypes);
  const agents = inOrder([...compileAgents(ground, context), ...comers.agents]);
  const director = compileDirector(agents, context);
  checkPlaces(context, ground, agents, archetypes);
  const agentNames = agents.map((agent) => agent.name);
  const play =
    start.play === undefined
      ? -1
      : indexOfName(agentNames, start.play, 'start.play', 'agent', context);
  const draft: Program = {
    title: document.title,
    ticksPerSecond: context.ticksPerSecond,
    seed: start.seed ?? DEFAULT_SEED,
    tier: tierWord(document, context),
    texts: context.texts,
    gaits: context.gaits,
    stacks: stacks.list,
    squadKeys: shared.squad,
    worldKeys: shared.world,
    squads,
    factions,
    stances,
    archetypes,
    ground,
    agents,
    director,
    groups: groupsOf({ agents, archetypes, squads, director }, context),
    play,
    inputs: compileInputs(agentNames, context),
  };
  const program = hasErrors(findings.list) ? null : draft;
  return { program, draft, findings: findings.list };
}
