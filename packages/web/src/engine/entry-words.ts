import { reasonText, type LedgerEntry, type PlayerAct } from '@crooked-lantern/core';
import { actionTitle } from './action-title.ts';
import { editWords } from './edit-words.ts';
import type { EntryTitles } from './entry-titles.ts';
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

function hitWords(entry: Of<'hit'>, titles: EntryTitles): string {
  const { of, result, harm, missedBy } = entry;
  const move = titles.move(entry, entry.move);
  const target = of === '' ? '' : ` ${titles.agent(of)}`;
  if (result === 'missed')
    return `${move} missed${target}${missedBy === undefined ? '' : ` by ${missedBy.toFixed(2)} m`}`;
  if (result === 'walled') return `${move} met a wall`;
  if (result === 'landed') return `${move} hit${target}: ${Number(harm.toFixed(1))} points`;
  const through = harm > 0 ? `, ${Number(harm.toFixed(1))} points went through` : '';
  return `${move} was ${result} by${target}${through}`;
}

function perceptWords({ sense, of, how, strength }: Of<'percept'>, titles: EntryTitles): string {
  const whose = titles.thing(titles.agent(of));
  if (sense === 'sight') return `sight of ${whose}: ${how}, ${strength.toFixed(2)}`;
  if (sense === 'hearing') return `heard a ${how}, loudness ${strength.toFixed(2)}`;
  return `${sense}: ${how}${of ? ` (${whose})` : ''}`;
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

/** Where people count something by a squad: whose it is. */
function byWhom(of: string | undefined, titles: EntryTitles): string {
  return of ? ` by ${of === 'world' ? 'the world' : titles.squad(of)}` : '';
}

type Words<K extends LedgerEntry['kind']> = (entry: Of<K>, titles: EntryTitles) => string;

const WORDS: { [K in LedgerEntry['kind']]: Words<K> } = {
  enter: (entry, titles) => `enters ${titles.state(entry, entry.state)}`,
  exit: (entry, titles) => `leaves ${titles.state(entry, entry.state)}`,
  transition: (entry, titles) => {
    const { from, order, to, on, when } = entry;
    const goal = to === null ? '' : ` to ${titles.state(entry, to)}`;
    return `${titles.state(entry, from)}: transition ${order}${goal}${on ? `, on ${on}` : ''}${when ? `, ${when}` : ''}`;
  },
  begin: ({ action, row }) => `begins “${actionTitle(action)}”${rowOf(row)}`,
  end: ({ action, row, ending, reason }) =>
    `“${actionTitle(action)}” ${ENDED[ending]}${rowOf(row)}${reason ? `: ${reasonText(reason)}` : ''}`,
  did: ({ action }) => `did “${actionTitle(action)}”`,
  picked: (entry, titles) => {
    const { choice, option, of, score } = entry;
    const picked = option === null ? 'nothing' : titles.option(entry, choice, option);
    return `${titles.choice(entry, choice)}: picks ${picked}${of ? ` (${titles.agent(of)})` : ''}, ${score.toFixed(2)}`;
  },
  fired: ({ row }) => `rule ${row + 1} fires`,
  overruled: ({ action, by }) => `“${actionTitle(action)}” gives way to row ${by + 1}`,
  skipped: ({ action }) => `makes no decision until “${actionTitle(action)}” ends`,
  percept: perceptWords,
  awareness: ({ value }) => `awareness ${value.toFixed(2)}`,
  memory: ({ key, value }) => `${key} = ${value}`,
  kept: ({ key }) => `${key} was to be written with nothing, and keeps what it had`,
  forgot: ({ key, of }, titles) => `${key} is forgotten${byWhom(of, titles)}`,
  reached: ({ key, end, value }) =>
    `${key} reaches its ${end === 'min' ? 'minimum' : 'maximum'}, ${Number(value.toFixed(3))}`,
  overwrote: ({ key, of }, titles) =>
    `wrote ${key} over what ${titles.agent(of)} wrote in the same tick`,
  say: ({ text }) => `says “${text}”`,
  input: inputWords,
  noise: ({ what, reach }) => `makes a noise: ${what}, heard within ${reach.toFixed(1)} m`,
  harm: ({ by, amount, left }, titles) =>
    `takes ${amount} damage${by ? ` from ${titles.agent(by)}` : ''}, ${left} health left`,
  death: ({ by }, titles) => `dies${by ? `, by ${titles.agent(by)}` : ''}`,
  move: (entry, titles) =>
    `${titles.move(entry, entry.move)} begins${entry.of ? `, at ${titles.agent(entry.of)}` : ''}`,
  broken: (entry, titles) =>
    `${titles.move(entry, entry.move)} broken off: ${reasonText(entry.reason)}`,
  hit: hitWords,
  knocked: (entry, titles) =>
    `${titles.move(entry, entry.move)} knocks ${titles.thing(entry.thing)} away`,
  sleeps: () => 'sleeps: every player is beyond its sleep distance',
  wakes: () => 'wakes: a player is near',
  recycled: (entry) => `respawns at ${at(entry)}`,
  role: ({ role }) => (role ? `is now ${role}` : 'has no role'),
  stuck: ({ reason }) => `stuck: ${reasonText(reason)}`,
  cycle: (entry, titles) =>
    `went round in circles: ${entry.states.map((state) => titles.state(entry, state)).join(' → ')}`,
  dropped: ({ events }) => `${counted(events, 'event')} dropped: too many wait for this mind`,
  noWay: (entry) => `no way to ${at(entry)}: ${reasonText(entry.reason)}`,
  came: ({ wave, at: where }, titles) => `comes with ${titles.wave(wave)}, at ${where}`,
  left: () => 'leaves the ground',
  wave: ({ wave, how, times, reason }, titles) =>
    `${titles.wave(wave)} ${WAVES[how]}${how === 'comes' && times > 1 ? `, ${times} times so far` : ''}${reason ? `: ${reasonText(reason)}` : ''}`,
  mode: ({ mode, seconds }) =>
    `${mode || 'no mode'}${seconds === undefined ? '' : ` for ${Number(seconds.toFixed(2))} s`}`,
  score: ({ score, by, value }, titles) =>
    `${titles.score(score)} ${by < 0 ? '−' : '+'}${Math.abs(by)}: ${value}`,
  announced: ({ event, to }) => `${event} is announced${to ? ` to ${to}` : ''}`,
  result: ({ how, words }) => `${how}: ${words}`,
  edit: ({ edit }) => editWords(edit),
  moved: (entry, titles) =>
    `${titles.state(entry, entry.from)} is gone by an edit; now ${titles.state(entry, entry.to)}`,
};

/** An entry in words, with titles for what it names. */
export function entryWords(entry: LedgerEntry, titles: EntryTitles): string {
  const words = WORDS[entry.kind] as (entry: LedgerEntry, titles: EntryTitles) => string;
  return words(entry, titles);
}
