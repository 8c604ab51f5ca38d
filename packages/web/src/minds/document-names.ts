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

interface Reason {
  note?: string;
  on?: string;
  when?: string;
  for?: number;
  after?: number;
}

/** Letters that a label on the plan has room for. */
const SHORT = 20;

/** The first words of a text, as many as there is room for; nothing is left hanging at its end. */
function firstWords(text: string): string {
  if (text.length <= SHORT) return text;
  const cut = text.slice(0, SHORT);
  const words = /[\s.(]/.test(text[SHORT]) ? cut : cut.replace(/[\s.(][^\s.(]*$/, '');
  return `${words.replace(/(?:[\s\p{S}.,(!-]|\b(?:and|or|not)$)+$/u, '')}…`;
}

/** What makes a transition fire, whole: its note, and its event, guard and time. */
export function wholeReason({ note, on, when, for: lasting, after }: Reason): string {
  const time = lasting ? `for ${lasting}\u00a0s` : after ? `after ${after}\u00a0s` : '';
  const rule = [on, when, time].filter(Boolean).join(' ');
  return [note, rule].filter(Boolean).join(': ');
}

/** Short words for a transition on the plan: its note, else what makes it fire. */
export function shortReason({ note, on, when, for: lasting, after }: Reason): string {
  const time = note ? '' : lasting ? `${lasting}\u00a0s` : after ? `after ${after}\u00a0s` : '';
  return [firstWords(note ?? [on, when].filter(Boolean).join(' ')), time].filter(Boolean).join(' ');
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
