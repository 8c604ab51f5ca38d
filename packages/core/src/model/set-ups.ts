import type { Name, PlayerDocument, ProjectDocument, StartDocument } from './documents.ts';

/** The project as a set-up has it begin: who starts where, who is played, with which luck and input. */
export function withSetup(document: ProjectDocument, name: Name): ProjectDocument {
  const { setups = {}, grounds, start } = document;
  if (!Object.hasOwn(setups, name)) return document;
  const { play, seed, player, agents = {} } = setups[name];
  const ground = grounds[start.ground];
  const placed = Object.fromEntries(
    Object.entries(ground.agents).map(([agent, at]) => [
      agent,
      Object.hasOwn(agents, agent) ? { ...at, ...agents[agent] } : at,
    ]),
  );
  const begin: StartDocument = {
    ...start,
    ...(play === undefined ? {} : { play }),
    ...(seed === undefined ? {} : { seed }),
    ...(player === undefined ? {} : { player }),
  };
  return {
    ...document,
    start: begin,
    grounds: { ...grounds, [start.ground]: { ...ground, agents: placed } },
  };
}

/** A player that does again what was done in a run; null where nothing was done. */
export function playerOf(
  title: string,
  seed: number,
  inputs: readonly {
    tick: number;
    input: { agent: string; x: number; y: number; gait: string | null } & Partial<
      Omit<PlayerDocument['inputs'][number], 'tick' | 'agent' | 'x' | 'y' | 'gait'>
    >;
  }[],
): PlayerDocument | null {
  if (inputs.length === 0) return null;
  return {
    title,
    seed,
    inputs: inputs.map(({ tick, input: { agent, x, y, gait, ...rest } }) => ({
      tick,
      agent,
      ...(x === 0 ? {} : { x }),
      ...(y === 0 ? {} : { y }),
      ...(gait === null ? {} : { gait }),
      ...rest,
    })),
  };
}
