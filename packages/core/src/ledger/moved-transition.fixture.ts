import type { ProjectDocument } from '../model/documents.ts';
import { cornerProject } from '../testing/orchard.fixture.ts';

/** A keeper that is calm for half a second and roused then; with `isMoved` the way there stands first. */
export function withTransition(isMoved: boolean): ProjectDocument {
  const transitions = [
    { to: 'asleep', when: 'time > 1000' },
    { to: 'roused', when: 'time > 0.5' },
  ];
  return cornerProject({
    machine: {
      initial: 'calm',
      states: [
        { id: 'calm', transitions: isMoved ? transitions.reverse() : transitions },
        { id: 'roused', transitions: [{ to: 'calm', after: 1 }] },
        { id: 'asleep' },
      ],
    },
  });
}
