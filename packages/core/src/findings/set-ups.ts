import { badPlaces } from '../compile/compile-ground.ts';
import { startingSpace } from '../world/program/space.ts';
import type { Findings } from '../compile/finding.ts';
import type { Name, ProjectDocument } from '../model/documents.ts';
import { namesOf } from '../model/names/names.ts';
import { suggestion } from '../model/names/nearest-name.ts';
import { radians, wrapAngle } from '../numeric/trigonometry.ts';
import type { AgentProgram, Program } from '../world/program/program.ts';

/** Other ways to begin, which the run itself does not meet until one is chosen: who they name must be there, and stand where it can. */
export function checkSetups(program: Program, document: ProjectDocument, findings: Findings): void {
  const { setups, players = {} } = document;
  // Looking at every pair of agents is dear on a crowded ground.
  if (!setups) return;
  const agents = program.agents.map(({ name }) => name);
  const known = (names: readonly Name[], name: Name | undefined, path: string, what: string) => {
    if (name === undefined || names.includes(name)) return;
    findings.warning(
      'unknownName',
      path,
      `There is no ${what} “${name}”.${suggestion(name, names)}`,
    );
  };
  const space = startingSpace(program.ground);
  const before = new Set(
    badPlaces(space, program.agents, program.archetypes).map(({ message }) => message),
  );
  for (const name of namesOf(setups)) {
    const { play, player, agents: places = {} } = setups[name];
    const path = `setups.${name}`;
    known(agents, play, `${path}.play`, 'agent');
    known(namesOf(players), player, `${path}.player`, 'scripted player');
    for (const agent of namesOf(places)) known(agents, agent, `${path}.agents.${agent}`, 'agent');
    const moved = program.agents.map((agent) => placedAnew(agent, places));
    for (const { agent, message } of badPlaces(space, moved, program.archetypes))
      if (!before.has(message)) findings.warning('place', `${path}.agents.${agent}.at`, message);
  }
}

type Places = NonNullable<NonNullable<ProjectDocument['setups']>[Name]['agents']>;

function placedAnew(agent: AgentProgram, places: Places): AgentProgram {
  if (!Object.hasOwn(places, agent.name)) return agent;
  const { at, heading } = places[agent.name];
  return {
    ...agent,
    ...(at ? { x: at[0], y: at[1] } : {}),
    ...(heading === undefined ? {} : { heading: wrapAngle(radians(heading)) }),
  };
}
