import type { Asking } from '@crooked-lantern/core';

/**
 * Questions as addresses and lists name them: what is asked, then what it is about, with colons between. A question of a
 * mind that is not the agent’s first begins with the mind: `aim/notState:rest`.
 */

/** What is asked of an agent; without a mind of its first. */
export interface MindQuestion {
  asking: Asking;
  mind?: string;
}

export const WHY: Asking = { ask: 'why' };

export function questionText({ asking, mind }: MindQuestion): string {
  const text = askingText(asking);
  return mind === undefined ? text : `${mind}/${text}`;
}

/** Puts a question into an address. Why the first mind does what it does is what is asked without any. */
export function putQuestion(search: URLSearchParams, question: MindQuestion): void {
  const { asking, mind } = question;
  if (asking.ask === 'why' && mind === undefined) search.delete('ask');
  else search.set('ask', questionText(question));
}

/** The question of an address; why it does what it does, for a text that is none. */
export function questionOf(text: string | null): MindQuestion {
  const [first = '', rest] = (text ?? '').split('/');
  return rest === undefined ? { asking: askingOf(first) } : { asking: askingOf(rest), mind: first };
}

function askingText(asking: Asking): string {
  switch (asking.ask) {
    case 'why':
    case 'moves':
    case 'told':
    case 'ended':
      return asking.ask;
    case 'whyNot': {
      const { target } = asking;
      if (target.kind === 'state') return `notState:${target.state}`;
      if (target.kind === 'option') return `notOption:${target.choice}:${target.option}`;
      return `notRow:${target.of}:${target.row}`;
    }
    case 'hit':
      return `hit:${asking.side}`;
    case 'notices':
      return `notices:${asking.agent}`;
    case 'ever':
      return `ever:${asking.state}`;
    case 'memory':
      return `memory:${asking.key}`;
    case 'wave':
      return `wave:${asking.wave}`;
  }
}

function askingOf(text: string): Asking {
  const [ask, first, second] = text.split(':');
  if (ask === 'moves' || ask === 'told' || ask === 'ended') return { ask };
  if (first === undefined) return WHY;
  switch (ask) {
    case 'notState':
      return { ask: 'whyNot', target: { kind: 'state', state: first } };
    case 'notOption':
      return { ask: 'whyNot', target: { kind: 'option', choice: first, option: second ?? '' } };
    case 'notRow':
      return { ask: 'whyNot', target: { kind: 'row', of: first, row: Number(second) } };
    case 'hit':
      return { ask, side: first === 'taken' ? 'taken' : 'dealt' };
    case 'notices':
      return { ask, agent: first };
    case 'ever':
      return { ask, state: first };
    case 'memory':
      return { ask, key: first };
    case 'wave':
      return { ask, wave: first };
    default:
      return WHY;
  }
}
