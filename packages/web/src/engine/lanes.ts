import type { LedgerEntry } from '@crooked-lantern/core';

/** From one tick to another. `to` is −1 while it lasts. */
export interface Stretch {
  from: number;
  to: number;
}

/** A stretch of sleep; `inState` where a state stays active all the while. */
export interface Sleep extends Stretch {
  inState?: true;
}

/** One stretch in one innermost state. */
export interface Band extends Stretch {
  state: string;
  /** From this tick on what the state does has ended; left out while it goes on. */
  endedAt?: number;
}

interface Dot {
  tick: number;
  entry: LedgerEntry;
}

/** What something is from a tick on. */
export interface Point {
  tick: number;
  value: number;
}

/** An action; `state` is its name, `row` the row that does it, and `within` the state it is done in. */
interface Act extends Band {
  row: number;
  within: string;
}

/** What a mind is in. */
interface States {
  bands: Band[];
  /** Active states, in the order they were entered. */
  active: string[];
}

/** What the ledger shows of one agent; its own states are those of its first mind. */
export interface Lane extends States {
  /** 0 to 1. */
  awareness: Point[];
  /** Points of health left; nothing before its first damage. */
  health: Point[];
  /** Points of health it had before its first damage: the most that is known of. */
  fullHealth: number;
  dots: Dot[];
  /** The options it picked, each until the next: `state` is its id; nothing where nothing was worth doing. */
  picks: Band[];
  /** What each pick scored; 0 where nothing was worth doing. */
  scores: Point[];
  /** The most that any did, 1 at least. */
  fullScore: number;
  /** The actions of trees and rules, as long as each went on; several may at once. */
  acts: Act[];
  /** Those that go on, and the most that ever did at once. */
  acting: Act[];
  mostActs: number;
  /** The moves it made: `state` is the move's name. */
  moves: Band[];
  /** When it slept, since every player was beyond its sleep distance. */
  sleeps: Sleep[];
  /** By other minds of the agent: what they do beside the first. */
  besides: Map<string, States>;
  /** Every state that was active, those around others too, by when it was entered. */
  stays: Band[];
  /** How often a state was entered or left, or an action began or ended. */
  changes: number;
  /** By {@link transitionKey}, the ticks at which it was taken, in order. */
  taken: Map<string, number[]>;
}

/** A transition as lanes count it: the state it leaves, and its number there from 1. */
export function transitionKey(from: string, order: number): string {
  return `${from} ${order}`;
}

export interface Lanes {
  byAgent: Map<string, Lane>;
  edits: { tick: number; edit: number }[];
  /** The most rows below the states that any of them has. */
  furtherRows: number;
  /** The agents that have come with a wave so far; another list whenever an agent comes for the first time. */
  comers: readonly string[];
}

/** Lanes of the game, by names that no agent has. */
export const GAME_LANE = '#game';
export const scoreLane = (score: string) => `#score ${score}`;
export const waveLane = (wave: string) => `#wave ${wave}`;

/** Bands of a played agent: what its player makes it do. */
const STANDS = 'stands';
const WALKS = 'walks';

export function createLanes(): Lanes {
  return { byAgent: new Map(), edits: [], furtherRows: 0, comers: [] };
}

function laneOf(lanes: Lanes, agent: string): Lane {
  let lane = lanes.byAgent.get(agent);
  if (!lane) {
    lane = {
      bands: [],
      awareness: [],
      health: [],
      fullHealth: 0,
      dots: [],
      picks: [],
      scores: [],
      fullScore: 1,
      besides: new Map(),
      acts: [],
      acting: [],
      mostActs: 0,
      moves: [],
      sleeps: [],
      active: [],
      stays: [],
      changes: 0,
      taken: new Map(),
    };
    lanes.byAgent.set(agent, lane);
  }
  return lane;
}

/** Begins a band for the innermost active state; one of the same tick gives way. */
function settleBand(lane: States, tick: number): void {
  const state = lane.active[lane.active.length - 1];
  const last = lane.bands[lane.bands.length - 1];
  if (last && last.to < 0) {
    if (last.state === state) return;
    if (last.from === tick) lane.bands.pop();
    else last.to = tick;
  }
  if (state === undefined) return;
  const before = lane.bands[lane.bands.length - 1];
  if (before && before.state === state && before.to === tick) before.to = -1;
  else lane.bands.push({ state, from: tick, to: -1 });
}

/** What stands below the states of a lane: what it picked, the moves it made, and what its other minds are in, as far as there are any. */
export function furtherBands({ picks, moves, besides }: Lane): (readonly Band[])[] {
  const others = [...besides.values()].map(({ bands }) => bands);
  return [picks, moves, ...others].filter(({ length }) => length > 0);
}

/** How many rows that takes, with those of its actions; the scores of what it picked stand in one of their own. */
export function furtherRowsOf(lane: Lane): number {
  return furtherBands(lane).length + lane.mostActs + (lane.scores.length > 0 ? 1 : 0);
}

function beginAct(lanes: Lanes, lane: Lane, act: Act): void {
  lane.acts.push(act);
  lane.acting.push(act);
  lane.changes++;
  if (lane.acting.length <= lane.mostActs) return;
  lane.mostActs = lane.acting.length;
  lanes.furtherRows = Math.max(lanes.furtherRows, furtherRowsOf(lane));
}

/** Ends what is done in a state, or what one row of it does; without either, all that goes on. */
function endActs(lane: Lane, tick: number, within?: string, row?: number): void {
  lane.changes++;
  lane.acting = lane.acting.filter((act) => {
    if (within !== undefined && act.within !== within) return true;
    if (row !== undefined && act.row !== row) return true;
    act.to = tick;
    return false;
  });
}

/** What a state does has ended, and it stays. */
function noteEnd({ bands }: Lane, state: string, tick: number): void {
  const band = bands[bands.length - 1];
  if (band?.state === state && band.to < 0) band.endedAt = tick;
}

/** It begins again, as an activity that is a whole mind does. */
function noteBegin({ bands }: Lane, state: string): void {
  const band = bands[bands.length - 1];
  if (band?.state === state) delete band.endedAt;
}

/** Adds what another mind than the first enters and leaves. */
function addBeside(lanes: Lanes, lane: Lane, mind: string, entry: LedgerEntry): void {
  let states = lane.besides.get(mind);
  if (!states) lane.besides.set(mind, (states = { bands: [], active: [] }));
  if (entry.kind === 'enter') states.active.push(entry.state);
  else if (entry.kind === 'exit')
    states.active = states.active.filter((state) => state !== entry.state);
  else return;
  settleBand(states, entry.tick);
  lanes.furtherRows = Math.max(lanes.furtherRows, furtherRowsOf(lane));
}

/** No mind is in any state any more. */
function leaveAll(lane: Lane, tick: number): void {
  endStays(lane, tick);
  endActs(lane, tick);
  for (const states of [lane, ...lane.besides.values()]) {
    states.active = [];
    settleBand(states, tick);
  }
}

function addFurther(lanes: Lanes, lane: Lane, to: 'picks' | 'moves', band: Band): void {
  lane[to].push(band);
  if (lane[to].length === 1) lanes.furtherRows = Math.max(lanes.furtherRows, furtherRowsOf(lane));
}

/** Ends the last of some bands that lasts to a tick or longer. */
function endLast(bands: Stretch[], tick: number): void {
  const last = bands[bands.length - 1];
  if (!last || (last.to >= 0 && last.to <= tick)) return;
  if (last.from === tick) bands.pop();
  else last.to = tick;
}

/** Ends the stay in a state that is left; without one, in all. */
function endStays(lane: Lane, tick: number, state?: string): void {
  lane.changes++;
  for (const active of lane.active) {
    if (state !== undefined && active !== state) continue;
    const stay = lane.stays.findLast((each) => each.state === active && each.to < 0);
    if (stay) stay.to = tick;
  }
}

/** An agent that respawns, or comes again, has full health. */
function healWhole(lane: Lane, tick: number): void {
  if (lane.health.length > 0) lane.health.push({ tick, value: lane.fullHealth });
}

/** Ticks within which the same thing heard or felt again is no news. */
const SAME_AGAIN = 90;

/** Steps come in rows: one dot for each row is enough. */
function isRepeated(lane: Lane, entry: Extract<LedgerEntry, { kind: 'percept' }>): boolean {
  if (entry.sense === 'sight') return false;
  const same = lane.dots.findLast(
    ({ entry: before }) => before.kind === 'percept' && before.sense === entry.sense,
  )?.entry as typeof entry | undefined;
  return same !== undefined && same.how === entry.how && entry.tick - same.tick < SAME_AGAIN;
}

function beginBand(lane: Lane, state: string, tick: number): void {
  endLast(lane.bands, tick);
  lane.bands.push({ state, from: tick, to: -1 });
}

/** Adds what is the game's, and gives whether it was. An agent that comes stands in its own lane, too. */
function addOfGame(lanes: Lanes, entry: LedgerEntry): boolean {
  const { tick } = entry;
  const mark = (name: string) => laneOf(lanes, name).dots.push({ tick, entry });
  switch (entry.kind) {
    case 'mode':
      beginBand(laneOf(lanes, GAME_LANE), entry.mode, tick);
      return true;
    case 'announced':
      mark(GAME_LANE);
      return true;
    case 'result':
      endLast(laneOf(lanes, GAME_LANE).bands, tick);
      mark(GAME_LANE);
      return true;
    case 'score': {
      const lane = laneOf(lanes, scoreLane(entry.score));
      beginBand(lane, String(Number(entry.value.toFixed(2))), tick);
      lane.dots.push({ tick, entry });
      return true;
    }
    case 'wave': {
      const lane = laneOf(lanes, waveLane(entry.wave));
      if (entry.how === 'held') lane.dots.push({ tick, entry });
      else if (entry.how === 'comes') beginBand(lane, `${entry.times}`, tick);
      else endLast(lane.bands, tick);
      return true;
    }
    case 'came':
      if (!lanes.comers.includes(entry.agent)) lanes.comers = [...lanes.comers, entry.agent];
      mark(waveLane(entry.wave));
      mark(entry.agent);
      healWhole(laneOf(lanes, entry.agent), tick);
      return true;
    default:
      return false;
  }
}

/** Adds entries, in the order they were recorded. */
export function addEntries(lanes: Lanes, entries: readonly LedgerEntry[]): void {
  for (const entry of entries) {
    if (entry.kind === 'edit') {
      lanes.edits.push({ tick: entry.tick, edit: entry.edit });
      continue;
    }
    if (addOfGame(lanes, entry)) continue;
    if (entry.agent === '') continue;
    const lane = laneOf(lanes, entry.agent);
    if (entry.mind !== undefined) {
      addBeside(lanes, lane, entry.mind, entry);
      continue;
    }
    switch (entry.kind) {
      case 'enter':
        lane.active.push(entry.state);
        lane.stays.push({ state: entry.state, from: entry.tick, to: -1 });
        lane.changes++;
        settleBand(lane, entry.tick);
        break;
      case 'transition': {
        const key = transitionKey(entry.from, entry.order);
        const ticks = lane.taken.get(key);
        if (ticks) ticks.push(entry.tick);
        else lane.taken.set(key, [entry.tick]);
        break;
      }
      case 'picked':
        endLast(lane.picks, entry.tick);
        lane.scores.push({ tick: entry.tick, value: entry.option === null ? 0 : entry.score });
        if (entry.option !== null) lane.fullScore = Math.max(lane.fullScore, entry.score);
        if (entry.option !== null)
          addFurther(lanes, lane, 'picks', { state: entry.option, from: entry.tick, to: -1 });
        break;
      case 'move':
        endLast(lane.moves, entry.tick);
        addFurther(lanes, lane, 'moves', {
          state: entry.move,
          from: entry.tick,
          to: entry.tick + Math.max(1, entry.lasts),
        });
        break;
      case 'exit':
        // What was picked and done there is over with the state.
        endLast(lane.picks, entry.tick);
        endActs(lane, entry.tick, entry.state);
        endStays(lane, entry.tick, entry.state);
        lane.active = lane.active.filter((state) => state !== entry.state);
        settleBand(lane, entry.tick);
        break;
      case 'death':
      case 'left':
        // Dead or absent agents have no active state.
        endLast(lane.picks, entry.tick);
        endLast(lane.moves, entry.tick);
        endLast(lane.sleeps, entry.tick);
        leaveAll(lane, entry.tick);
        lane.dots.push({ tick: entry.tick, entry });
        break;
      case 'moved':
        endStays(lane, entry.tick, entry.from);
        lane.active = lane.active.filter((state) => state !== entry.from);
        settleBand(lane, entry.tick);
        lane.dots.push({ tick: entry.tick, entry });
        break;
      case 'input':
        if (entry.trouble) lane.dots.push({ tick: entry.tick, entry });
        if (entry.place) break;
        endStays(lane, entry.tick);
        if (entry.control === 'minds') {
          lane.active = [];
          settleBand(lane, entry.tick);
          break;
        }
        lane.active = [entry.x === 0 && entry.y === 0 ? STANDS : (entry.gait ?? WALKS)];
        settleBand(lane, entry.tick);
        break;
      case 'awareness':
        lane.awareness.push({ tick: entry.tick, value: entry.value });
        break;
      case 'percept':
        if (!isRepeated(lane, entry)) lane.dots.push({ tick: entry.tick, entry });
        break;
      case 'broken':
        endLast(lane.moves, entry.tick);
        lane.dots.push({ tick: entry.tick, entry });
        break;
      case 'harm':
        lane.fullHealth = Math.max(lane.fullHealth, entry.left + entry.amount);
        lane.health.push({ tick: entry.tick, value: entry.left });
        lane.dots.push({ tick: entry.tick, entry });
        break;
      case 'sleeps':
        lane.sleeps.push({
          from: entry.tick,
          to: -1,
          ...(lane.active.length > 0 && { inState: true as const }),
        });
        break;
      case 'wakes':
        endLast(lane.sleeps, entry.tick);
        break;
      case 'recycled':
        endLast(lane.sleeps, entry.tick);
        healWhole(lane, entry.tick);
        lane.dots.push({ tick: entry.tick, entry });
        break;
      case 'reached':
      case 'hit':
      case 'stuck':
      case 'role':
      case 'say':
      case 'noWay':
      case 'cycle':
      case 'dropped':
      case 'overwrote':
      case 'skipped':
        lane.dots.push({ tick: entry.tick, entry });
        break;
      case 'begin':
        if (entry.row !== undefined)
          beginAct(lanes, lane, {
            state: entry.action,
            from: entry.tick,
            to: -1,
            row: entry.row,
            within: entry.state,
          });
        else noteBegin(lane, entry.state);
        break;
      case 'end':
        if (entry.row !== undefined) endActs(lane, entry.tick, entry.state, entry.row);
        else if (entry.ending !== 'stopped') noteEnd(lane, entry.state, entry.tick);
        // A failure with a reason is news; the legs already say where there is no way.
        if (entry.ending === 'failure' && entry.reason && entry.reason.code !== 'noPath')
          lane.dots.push({ tick: entry.tick, entry });
        break;
      default:
        break;
    }
  }
}
