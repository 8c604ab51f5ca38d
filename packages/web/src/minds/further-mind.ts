import { agentNamed, type ProjectDocument } from '@crooked-lantern/core';

/** A mind as questions name it: undefined where it is the agent’s first, which is asked unless another is named. */
export function furtherMind(
  document: ProjectDocument,
  agent: string | null,
  mind: string,
): string | undefined {
  const minds = agent === null ? [] : (agentNamed(document, agent)?.minds ?? []);
  return minds.indexOf(mind) > 0 ? mind : undefined;
}
