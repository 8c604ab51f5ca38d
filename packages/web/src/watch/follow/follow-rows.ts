import { actionTitle } from '../../engine/action-title.ts';
import type { Asking } from '@crooked-lantern/core';
import { SENSE_KINDS, type FollowedReadout } from '@crooked-lantern/core';
import { memoryText } from '../../minds/memory/memory-text.ts';

/** What is shown of the followed agents: the same rows for all of them, so that they stand side by side. */

export interface FollowRow {
  id: string;
  title: string;
  /** The heading it stands under. */
  group: string;
  /** What can be asked about it, as an answer is asked for. */
  asks?: Asking;
  /** Where the sense or the place of what it says is off by more than this many metres, it is marked. */
  of: (readout: FollowedReadout) => FollowCell | null;
}

interface FollowCell {
  text: string;
  /** What it believes is not so. */
  isWrong?: boolean;
}

/** A belief this far from the truth is marked, in metres. */
const WRONG_FROM = 1;

function plain(text: string): FollowCell | null {
  return text === '' ? null : { text };
}

const STANDING: readonly FollowRow[] = [
  {
    id: 'doing',
    title: 'does',
    group: '',
    asks: { ask: 'moves' },
    of: ({ acts }) =>
      plain(acts.map(({ channel, action }) => `${actionTitle(action)} (${channel})`).join(', ')),
  },
  {
    id: 'attention',
    title: 'attends to',
    group: '',
    of: ({ attention }) => plain(attention),
  },
  {
    id: 'awareness',
    title: 'awareness',
    group: '',
    of: ({ awareness }) => plain(awareness.toFixed(2)),
  },
  {
    id: 'health',
    title: 'health',
    group: '',
    of: ({ health }) => plain(health === null ? '' : String(Math.round(health))),
  },
  { id: 'role', title: 'role', group: '', of: ({ role }) => plain(role) },
];

/** What the first mind of each is in, whatever mind that is; and what their others are in. */
const FIRST_MIND: FollowRow = {
  id: 'state',
  title: 'state',
  group: '',
  of: ({ minds: [first] }) => plain(first?.states.join(' › ') ?? ''),
};

function otherMindRow(mind: string, title: string): FollowRow {
  return {
    id: `mind ${mind}`,
    title,
    group: '',
    of: ({ minds: [, ...others] }) =>
      plain(others.find((each) => each.mind === mind)?.states.join(' › ') ?? ''),
  };
}

function knownRow(of: string, title: string): FollowRow {
  return {
    id: `known ${of}`,
    title,
    group: 'Knows where',
    asks: { ask: 'notices', agent: of },
    of: ({ known }) => {
      const other = known.find((each) => each.of === of);
      if (!other) return null;
      const { x, y, off, seconds } = other;
      const at = `(${x.toFixed(1)}, ${y.toFixed(1)})`;
      if (seconds === 0) return { text: `${at}, in sight` };
      return {
        text: `${at}, ${seconds.toFixed(1)} s ago; in truth ${off.toFixed(1)} m from there`,
        isWrong: off > WRONG_FROM,
      };
    },
  };
}

function memoryRow(key: string): FollowRow {
  return {
    id: `memory ${key}`,
    title: key,
    group: 'Remembers',
    asks: { ask: 'memory', key },
    of: ({ memory }) => plain(memoryText(memory.find((each) => each.key === key))),
  };
}

function perceptRow(sense: keyof typeof SENSE_KINDS): FollowRow {
  return {
    id: `percept ${sense}`,
    title: SENSE_KINDS[sense].title.toLowerCase(),
    group: 'Perceived last',
    of: ({ percepts }) => {
      const percept = percepts.find((each) => each.sense === sense);
      if (!percept) return null;
      const { what, of, seconds } = percept;
      return { text: `${what}${of && ` of ${of}`}, ${seconds.toFixed(1)} s ago` };
    },
  };
}

/** The rows that any of them has something to say in. They change when a key, a sense or a known agent comes or goes. */
export function followRows(readouts: readonly FollowedReadout[]): FollowRow[] {
  const once = <T>(values: readonly T[]) => [...new Set(values)];
  const minds = new Map(
    readouts.flatMap(({ minds: [, ...own] }) =>
      own.map(({ mind, title }) => [mind, title] as const),
    ),
  );
  const others = new Map(
    readouts.flatMap(({ known }) => known.map(({ of, title }) => [of, title] as const)),
  );
  const rows = [
    FIRST_MIND,
    ...[...minds].map(([mind, title]) => otherMindRow(mind, title)),
    ...STANDING,
    ...[...others].map(([of, title]) => knownRow(of, title)),
    ...once(readouts.flatMap(({ memory }) => memory.map(({ key }) => key))).map(memoryRow),
    ...once(readouts.flatMap(({ percepts }) => percepts.map(({ sense }) => sense))).map(perceptRow),
  ];
  return rows.filter(({ of }) => readouts.some((readout) => of(readout) !== null));
}
