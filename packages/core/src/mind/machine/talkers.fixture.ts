import type { StateDocument } from '../../model/documents.ts';
import { cornerProject, story, watch } from '../../testing/orchard.fixture.ts';

/** Machines that say what they enter and leave. */

export const say = (text: string) => [{ do: 'say', text }];

/** A state that says when it is entered and left. */
export function talker(id: string, rest: Partial<StateDocument> = {}): StateDocument {
  return { id, entry: say(`+${id}`), exit: say(`-${id}`), ...rest };
}

export function machine(states: StateDocument[], initial = states[0].id) {
  return watch(cornerProject({ machine: { initial, states } }));
}

/** What was said, which shows the order of entry, exit and transition actions. */
export function said(entries: Parameters<typeof story>[0]): string {
  return story(entries)
    .filter((line) => line.startsWith('say '))
    .map((line) => line.slice(4))
    .join(' ');
}
