import type { Program, ProjectDocument } from '@crooked-lantern/core';

type Setup = NonNullable<ProjectDocument['setups']>[string];

/**
 * The agent a set-up is about, to be watched: the first it places that decides for itself, else the one nearest to the
 * played agent that does. Null where there is none.
 */
export function subjectOfSetup(
  { play, agents = {} }: Pick<Setup, 'play' | 'agents'>,
  program: Pick<Program, 'agents' | 'archetypes' | 'play'>,
): string | null {
  const placed = program.agents.map(({ name, archetype, away, x, y }) => {
    const [atX, atY] = agents[name]?.at ?? [x, y];
    return { name, away, x: atX, y: atY, hasMind: program.archetypes[archetype].stack >= 0 };
  });
  const player = placed.find(({ name }) => name === (play ?? program.agents[program.play]?.name));
  const thinkers = placed.filter((each) => each.hasMind && !each.away && each !== player);
  const own = thinkers.find(({ name }) => Object.hasOwn(agents, name));
  if (own || !player) return own?.name ?? null;
  const far = (other: { x: number; y: number }) =>
    Math.hypot(other.x - player.x, other.y - player.y);
  const [nearest] = thinkers.sort((one, other) => far(one) - far(other));
  return nearest?.name ?? null;
}
