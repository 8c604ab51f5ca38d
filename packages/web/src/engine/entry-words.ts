import { reasonText, type LedgerEntry, type PlayerAct } from '@crooked-lantern/core';
import { actionTitle } from './action-title.ts';
import { editWords } from './edit-words.ts';
import { counted } from '../ui/words/counted.ts';

/** What the entries of the ledger say, in words: “heard a step, loudness 0.42”. */

const ACTS: Record<PlayerAct, string> = {
  pickUp: 'pick up',
  drop: 'put down',
  throw: 'throw',
  use: 'open or close',
  strike: 'strike',
  guard: 'guard',
  lower: 'lower its guard',
  dodge: 'dodge',
  call: 'call',
};

type Of<K extends LedgerEntry['kind']> = Extract<LedgerEntry, { kind: K }>;

function inputWords({ act, trouble, place, control, x, y, gait }: Of<'input'>): string {
  if (trouble) return `can’t ${act ? ACTS[act] : 'stand there'}: ${reasonText(trouble)}`;
  if (place) return `put down at (${place[0].toFixed(1)}, ${place[1].toFixed(1)})`;
  if (control) return control === 'player' ? 'a player takes over' : 'its minds take over';
  if (act) return `player: ${ACTS[act]}`;
  return x === 0 && y === 0 ? 'player: stand still' : `player: ${gait ?? 'walk'}`;
}

function hitWords({ move, of, result, harm, missedBy }: Of<'hit'>): string {
  const whom = of === '' ? '' : ` ${of}`;
  if (result === 'missed')
    return `${move} missed${whom}${missedBy === undefined ? '' : ` by ${missedBy.toFixed(2)} m`}`;
  if (result === 'walled') return `${move} met a wall`;
  if (result === 'landed') return `${move} hit${whom}: ${Number(harm.toFixed(1))} points`;
  const through = harm > 0 ? `, ${Number(harm.toFixed(1))} points went through` : '';
  return `${move} was ${result} by${whom}${through}`;
}

function perceptWords({ sense, of, how, strength }: Of<'percept'>): string {
  if (sense === 'sight') return `sight of ${of}: ${how}, ${strength.toFixed(2)}`;
  if (sense === 'hearing') return `heard a ${how}, loudness ${strength.toFixed(2)}`;
  return `${sense}: ${how}${of ? ` (${of})` : ''}`;
}

function at({ x, y }: { x: number; y: number }): string {
  return `(${x.toFixed(1)}, ${y.toFixed(1)})`;
}

/** A row as people count them, from 1. */
function rowOf(row: number | undefined): string {
  return row === undefined ? '' : ` (row ${row + 1})`;
}

const ENDED: Record<Of<'end'>['ending'], string> = {
  success: 'succeeded',
  failure: 'failed',
  stopped: 'was stopped',
};

const WAVES: Record<Of<'wave'>['how'], string> = {
  comes: 'comes',
  held: 'is held up',
  over: 'is over',
  calledOff: 'is called off',
};

const WORDS: { [K in LedgerEntry['kind']]: (entry: Of<K>) => string } = {
  enter: ({ state }) => `enters ${state}`,
  exit: ({ state }) => `leaves ${state}`,
  transition: ({ from, order, to, on, when }) =>
    `${from}: transition ${order}${to === null ? '' : ` to ${to}`}${on ? `, on ${on}` : ''}${when ? `, ${when}` : ''}`,
  begin: ({ action, row }) => `begins “${actionTitle(action)}”${rowOf(row)}`,
  end: ({ action, row, ending, reason }) =>
    `“${actionTitle(action)}” ${ENDED[ending]}${rowOf(row)}${reason ? `: ${reasonText(reason)}` : ''}`,
  did: ({ action }) => `did “${actionTitle(action)}”`,
  picked: ({ choice, option, of, score }) =>
    `${choice}: picks ${option ?? 'nothing'}${of ? ` (${of})` : ''}, ${score.toFixed(2)}`,
  fired: ({ row }) => `rule ${row + 1} fires`,
  overruled: ({ action, by }) => `“${actionTitle(action)}” gives way to row ${by + 1}`,
  skipped: ({ action }) => `makes no decision until “${actionTitle(action)}” ends`,
  percept: perceptWords,
  awareness: ({ value }) => `awareness ${value.toFixed(2)}`,
  memory: ({ key, value }) => `${key} = ${value}`,
  forgot: ({ key, of }) => `${key} is forgotten${of ? ` by ${of}` : ''}`,
  reached: ({ key, end, value }) =>
    `${key} reaches its ${end === 'min' ? 'minimum' : 'maximum'}, ${Number(value.toFixed(3))}`,
  overwrote: ({ key, of }) => `wrote ${key} over what ${of} wrote in the same tick`,
  say: ({ text }) => `says “${text}”`,
  input: inputWords,
  noise: ({ what, reach }) => `makes a noise: ${what}, heard within ${reach.toFixed(1)} m`,
  harm: ({ by, amount, left }) =>
    `takes ${amount} damage${by ? ` from ${by}` : ''}, ${left} health left`,
  death: ({ by }) => `dies${by ? `, by ${by}` : ''}`,
  move: ({ move, of }) => `${move} begins${of ? `, at ${of}` : ''}`,
  broken: ({ move, reason }) => `${move} broken off: ${reasonText(reason)}`,
  hit: hitWords,
  knocked: ({ move, thing }) => `${move} knocks ${thing} away`,
  sleeps: () => 'sleeps: every player is beyond its sleep distance',
  wakes: () => 'wakes: a player is near',
  recycled: (entry) => `respawns at ${at(entry)}`,
  role: ({ role }) => (role ? `is now ${role}` : 'has no role'),
  stuck: ({ reason }) => `stuck: ${reasonText(reason)}`,
  cycle: ({ states }) => `went round in circles: ${states.join(' → ')}`,
  dropped: ({ events }) => `${counted(events, 'event')} dropped: too many wait for this mind`,
  noWay: (entry) => `no way to ${at(entry)}: ${reasonText(entry.reason)}`,
  came: ({ wave, at }) => `comes with ${wave}, at ${at}`,
  left: () => 'leaves the ground',
  wave: ({ wave, how, times, reason }) =>
    `${wave} ${WAVES[how]}${how === 'comes' && times > 1 ? `, ${times} times so far` : ''}${reason ? `: ${reasonText(reason)}` : ''}`,
  mode: ({ mode, seconds }) =>
    `${mode || 'no mode'}${seconds === undefined ? '' : ` for ${Number(seconds.toFixed(2))} s`}`,
  score: ({ score, by, value }) => `${score} ${by < 0 ? '−' : '+'}${Math.abs(by)}: ${value}`,
  announced: ({ event, to }) => `${event} is announced${to ? ` to ${to}` : ''}`,
  result: ({ how, words }) => `${how}: ${words}`,
  edit: ({ edit }) => editWords(edit),
  moved: ({ from, to }) => `${from} is gone by an edit; now ${to}`,
};

export function entryWords(entry: LedgerEntry): string {
  return (WORDS[entry.kind] as (entry: LedgerEntry) => string)(entry);
}
