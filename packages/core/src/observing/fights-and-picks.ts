import type { LedgerEntry } from '../world/state/recorder.ts';
import type { Agent } from '../world/agents/agent.ts';
import { ticksOf, type Detector, type Moment } from './detector.ts';

/** What is noticed of picks and of moves. */

type Picked = Extract<LedgerEntry, { kind: 'picked' }>;

/** What a pick was, its candidate with it. */
const pickOf = ({ option, of = '' }: Picked) => `${option ?? ''} ${of}`;

/** The choice an entry is of; undefined where an edit has taken it away. */
function choiceOf({ world }: Moment, { agent, mind, choice }: Picked) {
  const { minds = [] } = world.agents.find(({ name }) => name === agent) ?? {};
  const own = minds.filter(({ program }) => mind === undefined || program.name === mind);
  return own
    .flatMap(({ machine }) => machine.states)
    .flatMap(({ activity }) => [...(activity?.choices.values() ?? [])])
    .find(({ program }) => program.name === choice)?.program;
}

/** How many of the last picks, the latest last, lead back and forth between two. */
function alternating(picks: readonly Picked[]): number {
  let count = 1;
  for (let i = picks.length - 1; i > 0; i--) {
    const [latest, before, then] = [picks[i], picks[i - 1], picks[i - 2]].map(
      (each) => each && pickOf(each),
    );
    if (latest === before || (then !== undefined && then !== latest)) break;
    count++;
  }
  return count;
}

/** Rounded up, so that it is enough. */
const enough = (value: number) => Math.ceil(value * 100 + 1) / 100;

/** Back and forth between two options of a choice, or two candidates of one. */
export function optionFlicker(): Detector {
  const last = new Map<string, Picked[]>();
  return (moment) => {
    const { entries, limits, report } = moment;
    const within = ticksOf(moment, limits.flickerWithin);
    for (const entry of entries) {
      if (entry.kind !== 'picked' || entry.option === null) continue;
      const whose = `${entry.agent} ${entry.mind ?? ''} ${entry.choice}`;
      const picks = [...(last.get(whose) ?? []), entry]
        .filter(({ tick }) => entry.tick - tick <= within)
        // The first of them is left by the first turn.
        .slice(-limits.flickers - 1);
      last.set(whose, picks);
      if (alternating(picks) <= limits.flickers) continue;
      last.delete(whose);
      const choice = choiceOf(moment, entry);
      const nameOf = ({ option, of }: Picked) => {
        const title = choice?.options.find(({ id }) => id === option)?.title ?? option;
        return of === undefined ? title : `${title} for ${of}`;
      };
      const [a, b] = [picks.at(-2)!, entry];
      // What runs has its commitment already, so what is missing comes on top of that. How far the two swing
      // apart between the turns is not known, so it is the least.
      const margin = Math.max(...picks.map((each) => each.margin ?? 0));
      const commitment = enough(margin + (choice?.commitment ?? 0));
      const longest = Math.max(...picks.slice(1).map(({ tick }, i) => tick - picks[i].tick));
      const seconds = enough(longest / moment.world.statics.program.ticksPerSecond);
      const { program } = moment.world.agents.find(({ name }) => name === entry.agent)!.minds[0];
      report({
        kind: 'flicker',
        agent: entry.agent,
        key: `${whose} ${[pickOf(a), pickOf(b)].sort().join(' ')}`,
        message: `${choice?.title ?? entry.choice} goes back and forth between ${nameOf(a)} and ${nameOf(b)}, every ${seconds} s or sooner. Give it a commitment of at least ${commitment}, or a least time of more than ${seconds} s.`,
        place: { mind: entry.mind ?? program.name, state: entry.state },
      });
    }
  };
}

/** Misses that differ by no more than this, in metres, are the same. */
const SAME = 0.05;
/** A move that misses by more than this, in metres, has not nearly hit. */
const NEARLY = 0.3;

/** A move that misses by the same few centimetres again and again. */
export function nearMisses(): Detector {
  const last = new Map<string, { tick: number; by: number }[]>();
  const moveTitle = (agents: readonly Agent[], { agent, move }: { agent: string; move: string }) =>
    agents.find(({ name }) => name === agent)?.archetype.moves.find(({ name }) => name === move)
      ?.title ?? move;
  return (moment) => {
    const { entries, limits, report, world } = moment;
    const within = ticksOf(moment, limits.missesWithin);
    for (const entry of entries) {
      if (entry.kind !== 'hit') continue;
      const key = `${entry.agent} ${entry.move} ${entry.of}`;
      const { result, missedBy = Infinity, tick } = entry;
      if (result !== 'missed' || missedBy > NEARLY) {
        last.delete(key);
        continue;
      }
      const misses = [...(last.get(key) ?? []), { tick, by: missedBy }].filter(
        (each) => tick - each.tick <= within && Math.abs(each.by - missedBy) <= SAME,
      );
      last.set(key, misses);
      if (misses.length < limits.misses) continue;
      last.delete(key);
      const most = Math.max(...misses.map(({ by }) => by));
      const of = world.agents.find(({ name }) => name === entry.of)?.placed.title ?? 'its target';
      report({
        kind: 'nearMiss',
        agent: entry.agent,
        key,
        message: `${moveTitle(world.agents, entry)} misses ${of} by ${most.toFixed(2)} m again and again. Give it that much more reach, or begin it nearer.`,
      });
    }
  };
}
