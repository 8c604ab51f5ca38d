import type { Expression, Name } from './documents.ts';

/** Where a run stops by itself: kinds of what happens, with what each takes as `of`. */
export const BREAKPOINT_KINDS = {
  enter: { title: 'a state is entered', of: ['state'] },
  exit: { title: 'a state is left', of: ['state'] },
  transition: { title: 'a transition is taken', of: ['state', 'number'] },
  ended: { title: 'a row ends', of: ['state', 'row', 'success, failure or stopped'] },
  picked: { title: 'an option is picked', of: ['choice', 'option'] },
  move: { title: 'a move begins', of: ['move'] },
  hit: { title: 'a move hits or misses', of: ['move', 'result'] },
  percept: { title: 'something is perceived', of: ['sense', 'what', 'agent'] },
  memory: { title: 'memory is written', of: ['key', 'value'] },
  condition: { title: 'a condition comes true', of: [] },
} as const satisfies Record<string, { title: string; of: readonly string[] }>;

export type BreakpointKind = keyof typeof BREAKPOINT_KINDS;

/** Stops the run at the end of the tick in which what it names happens. */
export interface BreakpointDocument {
  on: BreakpointKind;
  /** What of that kind: parts with colons between them, such as `chase` or `chase:2`; a part left out or empty is any. */
  of?: string;
  /** For `condition`: a flag that an agent’s first mind can read. */
  when?: Expression;
  /** Which agents it watches: one, or all of a kind; left out: all. */
  agent?: Name;
  archetype?: Name;
  /** It stops at this time of a run and at each one after; left out: at the first. */
  after?: number;
  off?: boolean;
  note?: string;
}

/** A breakpoint in words: “Warden 2: a state is entered, chase”. */
export function breakpointWords(
  { on, of, when, agent, archetype, after = 1 }: BreakpointDocument,
  titleOf: (name: Name) => string = (name) => name,
): string {
  const whom = agent === undefined ? (archetype ?? '') : titleOf(agent);
  const what = on === 'condition' ? `${when ?? ''} comes true` : BREAKPOINT_KINDS[on].title;
  return [
    whom && `${whom}: `,
    what,
    of && on !== 'condition' && `, ${of.split(':').filter(Boolean).join(' ')}`,
    after > 1 && `, from time ${after} on`,
  ]
    .filter(Boolean)
    .join('');
}
