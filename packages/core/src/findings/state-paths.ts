import type { MachineDocument, StateDocument } from '../model/documents.ts';

/** Document path of each state by id: `minds.warden.machine.states[0].states[1]`. */
export function statePaths(machine: MachineDocument, path: string): Map<string, string> {
  const paths = new Map<string, string>();
  const visit = (states: readonly StateDocument[], at: string) => {
    states.forEach((state, i) => {
      paths.set(state.id, `${at}[${i}]`);
      visit(state.states ?? [], `${at}[${i}].states`);
    });
  };
  visit(machine.states, `${path}.states`);
  return paths;
}
