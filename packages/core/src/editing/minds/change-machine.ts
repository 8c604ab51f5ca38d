import type { MachineDocument, Name, StateDocument } from '../../model/documents.ts';
import { freshName } from '../../model/names/fresh-name.ts';
import { withoutUndefined } from '../../terms/without-undefined.ts';
import { CommandError } from '../commands/commands.ts';
import { mapState } from '../../model/minds/walk-mind.ts';

/** Changes of which states a machine has, and where. */

/** The states with the one called `id` changed; the same array where it is not among them. */
export function changeIn(
  states: readonly StateDocument[],
  id: string,
  change: (state: StateDocument) => StateDocument,
): StateDocument[] {
  return states.map((state) => {
    if (state.id === id) return change(state);
    return state.states ? { ...state, states: changeIn(state.states, id, change) } : state;
  });
}

export function findState(states: readonly StateDocument[], id: string): StateDocument | undefined {
  for (const state of states) {
    const found = state.id === id ? state : findState(state.states ?? [], id);
    if (found) return found;
  }
  return undefined;
}

export function expectState(machine: MachineDocument, id: string): StateDocument {
  const state = findState(machine.states, id);
  if (!state) throw new CommandError(`This mind has no state “${id}”.`);
  return state;
}

/** Puts a state among those of `parent`, or among the outermost; at the end where no place is given. */
export function insertState(
  machine: MachineDocument,
  parent: Name | null,
  state: StateDocument,
  at?: number,
): MachineDocument {
  const taken = idsOf(state).find((id) => findState(machine.states, id));
  if (taken !== undefined)
    throw new CommandError(`This mind has a state “${taken}” already. Choose another id.`);
  const among = (states: readonly StateDocument[]) => [
    ...states.slice(0, at ?? states.length),
    state,
    ...states.slice(at ?? states.length),
  ];
  if (parent === null) return { ...machine, states: among(machine.states) };
  expectState(machine, parent);
  return {
    ...machine,
    states: changeIn(machine.states, parent, (around) => ({
      ...around,
      initial: around.initial ?? (around.kind === 'parallel' ? undefined : state.id),
      states: among(around.states ?? []),
    })).map(withoutUndefined),
  };
}

/** A state's id and those of all inside it. */
export function idsOf(state: StateDocument): Name[] {
  return [state.id, ...(state.states ?? []).flatMap(idsOf)];
}

/** The states without some of them; what would be entered first is then the first that is left. */
function without(
  states: readonly StateDocument[],
  gone: ReadonlySet<Name>,
  leads: (to: Name) => boolean,
): StateDocument[] {
  return states.flatMap((state) => {
    if (gone.has(state.id)) return [];
    const transitions = state.transitions?.filter(({ to }) => to === undefined || leads(to));
    const inner = state.states && without(state.states, gone, leads);
    const empty = inner !== undefined && inner.length === 0;
    const lost = state.initial !== undefined && gone.has(state.initial);
    return [
      withoutUndefined({
        ...state,
        initial: empty ? undefined : lost ? inner?.[0]?.id : state.initial,
        states: empty ? undefined : inner,
        transitions: transitions && transitions.length > 0 ? transitions : undefined,
      }),
    ];
  });
}

function machineWithout(
  machine: MachineDocument,
  gone: ReadonlySet<Name>,
  leads: (to: Name) => boolean,
): MachineDocument {
  const states = without(machine.states, gone, leads);
  if (states.length === 0) throw new CommandError('A machine needs at least one state.');
  return {
    ...machine,
    initial: gone.has(machine.initial) ? states[0].id : machine.initial,
    states,
  };
}

/** Takes a state out, with what is inside it and every transition that leads there. */
export function removeState(machine: MachineDocument, id: Name): MachineDocument {
  const gone = new Set(idsOf(expectState(machine, id)));
  return machineWithout(machine, gone, (to) => !gone.has(to));
}

/** Puts a state elsewhere, with all that leads to it; `at` counts the states there without it. */
export function moveState(
  machine: MachineDocument,
  id: Name,
  parent: Name | null,
  at: number,
): MachineDocument {
  const state = expectState(machine, id);
  if (parent !== null && idsOf(state).includes(parent))
    throw new CommandError('A state can’t be moved into itself.');
  if (machine.states.length === 1 && machine.states[0].id === id) return machine;
  // Within one room what is entered first stays so.
  const initialOf = (among: MachineDocument) =>
    parent === null ? among.initial : findState(among.states, parent)?.initial;
  const first = initialOf(machine);
  const moved = insertState(
    machineWithout(machine, new Set([id]), () => true),
    parent,
    state,
    at,
  );
  return first === id ? setInitial(moved, parent, id) : moved;
}

/** The state around one; undefined for the outermost. */
export function parentOf(states: readonly StateDocument[], id: Name): StateDocument | undefined {
  for (const state of states) {
    if (state.states?.some((inner) => inner.id === id)) return state;
    const found = parentOf(state.states ?? [], id);
    if (found) return found;
  }
  return undefined;
}

/** Puts a new state around one; whatever led to it still does. */
export function wrapState(
  machine: MachineDocument,
  id: Name,
  outer: { id: Name; title: string },
): MachineDocument {
  expectState(machine, id);
  if (findState(machine.states, outer.id))
    throw new CommandError(`This mind has a state “${outer.id}” already. Choose another id.`);
  const around = parentOf(machine.states, id);
  const isFirst = (around ?? machine).initial === id;
  const wrapped: MachineDocument = {
    ...machine,
    states: changeIn(machine.states, id, (state) => ({ ...outer, initial: id, states: [state] })),
  };
  return isFirst ? setInitial(wrapped, around?.id ?? null, outer.id) : wrapped;
}

/** The state with ids that are free in a machine, for it and all inside; what leads from one to another inside still does. */
export function withFreeIds(machine: MachineDocument, state: StateDocument): StateDocument {
  const taken = new Set(machine.states.flatMap(idsOf));
  const ids = new Map<Name, Name>();
  for (const id of idsOf(state)) {
    const free = freshName(id, (name) => taken.has(name));
    taken.add(free);
    ids.set(id, free);
  }
  const renamed = mapState(
    state,
    { path: [], tree: null },
    {
      name: (kind, name) => (kind === 'state' ? (ids.get(name) ?? name) : name),
      expression: (source) => source,
    },
  );
  const declared = (each: StateDocument): StateDocument => ({
    ...each,
    id: ids.get(each.id)!,
    ...(each.states && { states: each.states.map(declared) }),
  });
  return declared(renamed);
}

export function setInitial(
  machine: MachineDocument,
  parent: Name | null,
  initial: Name,
): MachineDocument {
  if (parent === null) return { ...machine, initial };
  expectState(machine, parent);
  return {
    ...machine,
    states: changeIn(machine.states, parent, (state) => ({ ...state, initial })),
  };
}
