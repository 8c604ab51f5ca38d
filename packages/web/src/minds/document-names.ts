import {
  archetypeOf,
  mindsOf,
  namesOf,
  type ProjectDocument,
  type StateDocument,
} from '@crooked-lantern/core';

export interface ListedState {
  state: StateDocument;
  /** Ids of the states around it, outermost first. */
  around: string[];
}

/** All states of a mind in document order. */
export function listStates(document: ProjectDocument, mind: string): ListedState[] {
  const list: ListedState[] = [];
  const visit = (states: readonly StateDocument[], around: string[]) => {
    for (const state of states) {
      list.push({ state, around });
      visit(state.states ?? [], [...around, state.id]);
    }
  };
  visit(document.minds[mind]?.machine?.states ?? [], []);
  return list;
}

export function titleOf(state: StateDocument): string {
  return state.title ?? state.id;
}

/** Short words for a transition on the plan: its note, else what makes it fire. */
export function shortReason(leave: {
  note?: string;
  on?: string;
  when?: string;
  for?: number;
  after?: number;
}): string {
  const words = leave.note ?? [leave.on, leave.when].filter(Boolean).join(' ');
  const cut = words.length > 20 ? `${words.slice(0, 19)}…` : words;
  const time = leave.note
    ? ''
    : leave.for
      ? ` ${leave.for} s`
      : leave.after
        ? ` after ${leave.after} s`
        : '';
  return `${cut}${time}`.trim();
}

/** The mind that the most agents have; on equal terms the first by name. */
export function usualMind(document: ProjectDocument): string {
  const agents = Object.values(document.grounds[document.start.ground]?.agents ?? {});
  const had = agents.flatMap((agent) => {
    const kind = archetypeOf(document, agent);
    return kind ? mindsOf(kind) : [];
  });
  const count = (mind: string) => had.filter((name) => name === mind).length;
  const [first = '', ...rest] = namesOf(document.minds);
  return rest.reduce((best, mind) => (count(mind) > count(best) ? mind : best), first);
}
