import { numberParts } from '../expression/readout.ts';
import { SENSES } from '../terms/senses.ts';
import type { LedgerEntry, Reading } from '../world/state/recorder.ts';
import type { Agent } from '../world/agents/agent.ts';
import { reasonText } from '../world/readout/reason-text.ts';
import { leafState } from '../world/readout/picture.ts';
import { activityEnd, around, transitionTaken } from '../world/readout/readout.ts';
import { readList } from '../mind/machine/cells.ts';
import { counter, mindOfEntry, ticksOf, type Detector, type Moment } from './detector.ts';

/** What is noticed of decisions. */

type Skipped = Extract<LedgerEntry, { kind: 'skipped' }>;
type Transition = Extract<LedgerEntry, { kind: 'transition' }>;

/** Which mind an entry is of: the agent’s first where it does not say. */
function mindOf({ world }: Moment, entry: LedgerEntry): string {
  const found = mindOfEntry(world, entry);
  return entry.mind ?? found?.agent.minds[found.index].program.name ?? '';
}

/** The machine of the mind an entry is of; undefined where an edit has taken it away. */
function machineOf(moment: Moment, entry: LedgerEntry) {
  const found = mindOfEntry(moment.world, entry);
  return found?.agent.minds[found.index].program.machine;
}

function titleOf(moment: Moment, entry: LedgerEntry, state: string): string {
  return machineOf(moment, entry)?.states.find(({ id }) => id === state)?.title ?? state;
}

/** The parts of a transition's guard that are numbers. */
function numbersOf(moment: Moment, entry: Transition): ReadonlySet<string> {
  const machine = machineOf(moment, entry);
  const when = machine && transitionTaken(machine, entry)?.when;
  return when ? numberParts(when) : new Set();
}

/** The values of parts that are numbers, where they are known. */
function measured(
  readings: readonly Reading[],
  isNumber: (part: string) => boolean,
): Map<string, number[]> {
  const values = new Map<string, number[]>();
  for (const { part, value } of readings) {
    const number = Number(value);
    if (!isNumber(part) || Number.isNaN(number)) continue;
    const known = values.get(part);
    if (known) known.push(number);
    else values.set(part, [number]);
  }
  return values;
}

/** “attention.strength was 0.48 to 0.53: a gap of 0.05 between the two would do.” */
function gapWords(
  moment: Moment,
  there: readonly Transition[],
  back: readonly Transition[],
): string {
  const of = (taken: readonly Transition[]) => {
    const numbers = numbersOf(moment, taken[0]);
    return measured(
      taken.flatMap(({ values = [] }) => values),
      (part) => numbers.has(part),
    );
  };
  const [a, b] = [of(there), of(back)];
  const shared = [...a.keys()].find((part) => b.has(part));
  if (shared === undefined) return '';
  const all = [...a.get(shared)!, ...b.get(shared)!];
  const [least, most] = [Math.min(...all), Math.max(...all)];
  const gap = Number((most - least).toPrecision(2));
  const span = `${Number(least.toPrecision(3))} to ${Number(most.toPrecision(3))}`;
  return gap > 0
    ? ` ${shared} was ${span} there: a gap of more than ${gap} between the two would do.`
    : ` ${shared} was ${span} there.`;
}

function guardWords({ when, on }: Transition): string {
  return when ?? (on ? `on ${on}` : 'no guard');
}

/** How many of the last transitions, the latest last, lead back and forth between two states. */
function alternating(taken: readonly Transition[]): number {
  let count = 1;
  for (let i = taken.length - 1; i > 0; i--) {
    if (taken[i].from !== taken[i - 1].to || taken[i].to !== taken[i - 1].from) break;
    count++;
  }
  return count;
}

/** Back and forth between two states. */
export function flicker(): Detector {
  /** The last transitions of each mind of each agent. */
  const last = new Map<string, Transition[]>();
  return (moment) => {
    const { entries, limits } = moment;
    const within = ticksOf(moment, limits.flickerWithin);
    for (const entry of entries) {
      if (entry.kind !== 'transition' || entry.to === null || entry.to === entry.from) continue;
      const mind = mindOf(moment, entry);
      const whose = `${entry.agent} ${mind}`;
      const taken = [...(last.get(whose) ?? []), entry]
        .filter(({ tick }) => entry.tick - tick <= within)
        .slice(-limits.flickers);
      last.set(whose, taken);
      if (alternating(taken) < limits.flickers) continue;
      // Counted from nothing: what goes on is noticed again after as many.
      last.delete(whose);
      const there = taken.filter(({ from }) => from === entry.to);
      const back = taken.filter(({ from }) => from === entry.from);
      // The guard that can be made to hold longer, where one of the two has none.
      const meant = entry.when === undefined ? there[0] : entry;
      const [a, b] = [entry.from, entry.to].sort();
      const [first, second] = [a, b].map((state) => titleOf(moment, entry, state));
      moment.report({
        kind: 'flicker',
        agent: entry.agent,
        key: `${mind} ${a} ${b}`,
        message:
          `It goes back and forth between ${first} and ${second}: “${guardWords(there[0])}” leads from ` +
          `${titleOf(moment, entry, entry.to)}, “${guardWords(entry)}” from ${titleOf(moment, entry, entry.from)}.` +
          gapWords(moment, there, back),
        place: { mind, state: meant.from, order: meant.order },
      });
    }
  };
}

/** Entries that say themselves what happens again and again; most entries are none of them. */
const REPEATS: ReadonlySet<LedgerEntry['kind']> = new Set([
  'picked',
  'end',
  'overwrote',
  'cycle',
  'dropped',
  'stuck',
  'noWay',
]);

/** What happens again and again and says so itself. */
export function repeats(): Detector {
  const count = counter();
  return (moment) => {
    const { limits, report } = moment;
    for (const entry of moment.entries) {
      if (!REPEATS.has(entry.kind)) continue;
      const { agent, tick } = entry;
      const mind = mindOf(moment, entry);
      if (entry.kind === 'picked' && entry.ties !== undefined && entry.ties > 1) {
        const many = { times: limits.ties, within: ticksOf(moment, limits.tiesWithin) };
        if (count(`tie ${agent} ${entry.choice}`, tick, many))
          report({
            kind: 'tie',
            agent,
            key: `${mind} ${entry.choice}`,
            message: `${entry.ties} options of ${entry.choice} score ${entry.score.toFixed(2)} alike, again and again.`,
            place: { mind, state: entry.state },
          });
      } else if (entry.kind === 'end' && entry.reason?.code === 'channelTaken') {
        const many = { times: limits.taken, within: ticksOf(moment, limits.takenWithin) };
        if (count(`taken ${agent} ${entry.state} ${entry.action}`, tick, many))
          report({
            kind: 'overwritten',
            agent,
            key: `${mind} ${entry.state} ${entry.action}`,
            message: `${entry.action} in ${titleOf(moment, entry, entry.state)} is broken off again and again: ${reasonText(entry.reason)}.`,
            place: { mind, state: entry.state },
          });
      } else if (entry.kind === 'overwrote') {
        report({
          kind: 'overwritten',
          agent,
          key: `key ${entry.key}`,
          message: `It wrote ${entry.key} over what ${entry.of} wrote in the same tick.`,
        });
      } else if (entry.kind === 'cycle') {
        report({
          kind: 'endless',
          agent,
          key: entry.states.join(' '),
          message: `Within one decision it went in a circle: ${entry.states.join(' → ')}.`,
          place: { mind, state: entry.states[0] },
        });
      } else if (entry.kind === 'dropped') {
        report({
          kind: 'endless',
          agent,
          key: 'dropped',
          message: `${entry.events} events came that there was no room for.`,
        });
      } else if (entry.kind === 'stuck' || entry.kind === 'noWay') {
        report({
          kind: 'stuck',
          agent,
          key: reasonText(entry.reason),
          message: `At (${entry.x.toFixed(1)}, ${entry.y.toFixed(1)}): ${reasonText(entry.reason)}.`,
        });
      }
    }
  };
}

/** Idempotent actions: repeating them while something lasts is right. */
const HARMLESS = new Set(['remember', 'forget', 'setGait', 'stop']);
/** Decisions of a mind with a cadence lie apart; within this many seconds they still follow each other. */
const NEXT_DECISION = 0.25;

/** Actions that are done in one decision after another, as by rules that fire while what they test lasts. */
export function repeatedFiring(): Detector {
  /** By action: the tick it was done in last, and how often in a row. */
  const rows = new Map<string, { last: number; times: number }>();
  return (moment) => {
    const { entries, limits, report } = moment;
    for (const entry of entries) {
      if (entry.kind !== 'did' || HARMLESS.has(entry.action)) continue;
      const { agent, action, tick } = entry;
      const mind = mindOf(moment, entry);
      const key = `${agent} ${mind} ${action}`;
      const before = rows.get(key);
      const goesOn = before !== undefined && tick - before.last <= ticksOf(moment, NEXT_DECISION);
      const times = goesOn ? before.times + 1 : 1;
      rows.set(key, { last: tick, times });
      if (times !== limits.fires) continue;
      report({
        kind: 'repeated',
        agent,
        key: `${mind} ${action}`,
        message: `It did ${action} ${times} times in a row, one decision after the other.`,
      });
    }
  };
}

/** A decision that is skipped, and what says that one was made again. */
const STARVES: ReadonlySet<LedgerEntry['kind']> = new Set([
  'skipped',
  'end',
  'transition',
  'death',
]);

/** Decisions that are due and not made. */
export function starved(): Detector {
  const since = new Map<string, { skipped: Skipped; mind: string; told: boolean }>();
  return (moment) => {
    const { world, entries, limits, report } = moment;
    for (const entry of entries) {
      if (!STARVES.has(entry.kind)) continue;
      const mind = mindOf(moment, entry);
      const key = `${entry.agent} ${mind}`;
      if (entry.kind === 'skipped') {
        if (!since.has(key)) since.set(key, { skipped: entry, mind, told: false });
      } else since.delete(key);
    }
    for (const starving of since.values()) {
      const { tick, agent, action } = starving.skipped;
      if (starving.told || world.tick - tick < ticksOf(moment, limits.starvedFor)) continue;
      starving.told = true;
      report({
        kind: 'starved',
        agent,
        key: `${starving.mind} ${action}`,
        message: `It has made no decision for ${limits.starvedFor} s: ${action} can’t be interrupted.`,
      });
    }
  };
}

/** The ways out of a state and of those around it. */
function waysOut(mind: Agent['minds'][number], state: number) {
  const { states, transitions } = mind.program.machine;
  return [state, ...around(states, state)]
    .flatMap((at) => states[at].transitions.map((leave) => transitions[leave]))
    .filter(({ target }) => target >= 0);
}

/** What is tested in each decision, what the senses bring, and the end of what a state does may still come. */
function comesByItself(on: string): boolean {
  const [word] = on.split('.');
  return word === '' || word === 'done' || SENSES.some((sense) => sense === word);
}

/** States that can only be left by events that have not come. */
export function waiting(): Detector {
  return (moment) => {
    const { world, limits, report } = moment;
    const long = ticksOf(moment, limits.waitsFor);
    for (const agent of world.agents) {
      if (agent.asleep || agent.resting || agent.isPlayed) continue;
      for (let i = 0; i < agent.minds.length; i++) {
        const mind = agent.minds[i];
        const leaf = leafState(agent, i);
        if (leaf < 0) continue;
        const entered = agent.memory[mind.machine.states[leaf].enteredAt];
        if (world.tick - entered !== long) continue;
        const ways = waysOut(mind, leaf);
        if (ways.length === 0 || ways.some(({ on }) => comesByItself(on))) continue;
        const { id, title } = mind.program.machine.states[leaf];
        report({
          kind: 'waiting',
          agent: agent.name,
          key: `${mind.program.name} ${id}`,
          message: `It has been in ${title} for ${limits.waitsFor} s, which only ${ways.map(({ on }) => on).join(', ')} can end.`,
          place: { mind: mind.program.name, state: id },
        });
      }
    }
  };
}

const ENDED = { success: 'succeeded', failure: 'failed' };

/** States that stay although what they do has ended. */
export function staysAfterEnd(): Detector {
  return (moment) => {
    const { world, limits, report } = moment;
    const long = ticksOf(moment, limits.endedFor);
    for (const agent of world.agents) {
      if (agent.asleep || agent.resting || agent.isPlayed) continue;
      for (const mind of agent.minds) {
        for (const state of readList(agent.memory, mind.machine.cells.active)) {
          const end = activityEnd(agent, mind, state);
          if (!end || world.tick - end.tick !== long) continue;
          // Where nothing leads out it is meant to stay; the checks of the file tell of those that are not.
          if (waysOut(mind, state).length === 0) continue;
          const { id, title, activity } = mind.program.machine.states[state];
          // To go to a place and stay there until something comes is meant so.
          const isOneAction = activity?.root.body.kind === 'do';
          if (isOneAction && end.ending === 'success') continue;
          report({
            kind: 'ended',
            agent: agent.name,
            key: `${mind.program.name} ${id}`,
            message: `What ${title} does ${ENDED[end.ending]} ${limits.endedFor} s ago; it is still in ${title} and does nothing there.`,
            place: { mind: mind.program.name, state: id },
          });
        }
      }
    }
  };
}
