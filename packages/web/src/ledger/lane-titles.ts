import { firstMind, namesOf, type Program, type ProjectDocument } from '@crooked-lantern/core';

/** Whose lanes there are, and what stands in them is called. */

/** Agents that have something to show: those with a mind or senses, and the one that is played. */
export function laneAgents(program: Program | null): { name: string; title: string }[] {
  return (program?.agents ?? []).flatMap(({ name, title, archetype }, index) => {
    const { stack, sight } = program!.archetypes[archetype];
    if (index === program!.play) return [{ name, title: `${title} (you)` }];
    return stack >= 0 || sight !== null ? [{ name, title }] : [];
  });
}

/** By agent, what the states of its first mind, its options and its moves are called. */
export function laneTitles(
  program: Program | null,
  minds: ProjectDocument['minds'],
): Map<string, Map<string, string>> {
  return new Map(
    (program?.agents ?? []).map(({ name: agent, archetype }) => {
      const mind = firstMind(program!, archetype);
      const { choices = {} } = (mind && minds[mind.name]) ?? {};
      const titles = new Map<string, string>();
      for (const { name, title } of program!.archetypes[archetype].moves) titles.set(name, title);
      for (const choice of namesOf(choices))
        for (const { id, title = id } of choices[choice].options) titles.set(id, title);
      for (const { id, title } of mind?.machine.states ?? []) titles.set(id, title);
      return [agent, titles];
    }),
  );
}
