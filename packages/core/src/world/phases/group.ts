import { assignRoles } from '../../group/roles.ts';
import { dropSearches } from '../mechanics/game/booking.ts';
import type { World } from '../world.ts';

/** Seconds from one giving out of roles to the next. */
const EVERY = 0.25;

/** Drops searches that no agent takes part in, and assigns roles. */
export function stepGroups(world: World): void {
  dropSearches(world, world.tick, world.statics.program.ticksPerSecond);
  giveRoles(world);
}

/** Assigns the roles of all squads to the members they suit best. */
function giveRoles({ agents, statics, tick, recorder }: World): void {
  const { squads, ticksPerSecond, texts } = statics.program;
  const every = Math.max(1, Math.round(EVERY * ticksPerSecond));
  squads.forEach(({ roles }, squad) => {
    if (roles.length === 0 || (tick + squad) % every !== 0) return;
    const members = statics.members[squad]
      .map((index) => agents[index])
      .filter(({ asleep, resting, minds }) => !asleep && !resting && minds.length > 0);
    const scores = members.map((member) => statics.roleScores[squad].map((score) => score(member)));
    const held = members.map(({ role }) => roles.findIndex((each) => each.role === role));
    assignRoles(scores, roles, held).forEach((role, i) => {
      const [agent, given] = [members[i], role < 0 ? -1 : roles[role].role];
      if (agent.role === given) return;
      agent.role = given;
      recorder?.({ tick, agent: agent.name, kind: 'role', role: texts[given] ?? '' });
    });
  });
}
