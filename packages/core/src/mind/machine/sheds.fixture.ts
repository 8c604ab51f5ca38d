import type { MachineDocument, StateDocument } from '../../model/documents.ts';

/**
 * The machine with a shed that nothing leads to before each list of states and in each room, so that every state
 * and transition has another number than before.
 */
export function withSheds(machine: MachineDocument): MachineDocument {
  let count = 0;
  const shed = (): StateDocument => ({
    id: `shed${count++}`,
    activity: { do: 'turn', by: 10, uninterrupted: true },
    transitions: [{ to: machine.initial, after: 1 }],
  });
  const among = (states: readonly StateDocument[]): StateDocument[] => [
    shed(),
    ...states.map((state) =>
      state.states === undefined
        ? state
        : {
            ...state,
            states: state.kind === 'parallel' ? state.states.map(inRegion) : among(state.states),
          },
    ),
  ];
  const inRegion = (region: StateDocument): StateDocument =>
    region.states === undefined ? region : { ...region, states: among(region.states) };
  return { ...machine, states: among(machine.states) };
}
