import type { Surroundings } from '../../state/surroundings.ts';

/** Lets the director know of what has happened: it takes the event in its next decision. */
export function tellDirector({ agents, statics }: Surroundings, event: string): void {
  agents[statics.program.director.agent]?.deliver([event]);
}
