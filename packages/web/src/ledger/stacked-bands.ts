import { firstMind, type MachineProgram, type Program } from '@crooked-lantern/core';
import { furtherBands, furtherRowsOf, type Band, type Lane } from '../engine/lanes.ts';

/** Rows of a lane below the innermost state: what is active beside it, what was picked, the moves, the states around it, and actions. */

/** How the states of a machine lie in each other. */
export interface Nesting {
  /** Of states that hold others: in how many they lie. */
  depthOfRoom: ReadonlyMap<string, number>;
  /** The most rows that take: for states around, and for those active beside. */
  rows: number;
  /** More than one state: what the agent is in says something. */
  hasStates: boolean;
}

/** How many innermost states inside one (at −1: of the machine) can be active at once. */
function width(states: MachineProgram['states'], around: number): number {
  const widths = states.flatMap(({ parent }, i) => (parent === around ? [width(states, i)] : []));
  if (widths.length === 0) return 1;
  return states[around]?.kind === 'parallel'
    ? widths.reduce((sum, each) => sum + each, 0)
    : Math.max(...widths);
}

function nestingOf(machine: MachineProgram): Nesting {
  const { states } = machine;
  const depth = (i: number): number => (states[i].parent < 0 ? 0 : 1 + depth(states[i].parent));
  const rooms = [...new Set(states.map(({ parent }) => parent))].filter((parent) => parent >= 0);
  const depthOfRoom = new Map(rooms.map((i) => [states[i].id, depth(i)]));
  const deepest = Math.max(-1, ...depthOfRoom.values());
  return { depthOfRoom, rows: deepest + width(states, -1), hasStates: states.length > 1 };
}

/** By agent: how the states of its first mind lie in each other. */
export function nestingsOf(program: Program | null): Map<string, Nesting> {
  return new Map(
    (program?.agents ?? []).flatMap(({ name, archetype }) => {
      const machine = firstMind(program!, archetype)?.machine;
      return machine ? [[name, nestingOf(machine)]] : [];
    }),
  );
}

/** Bands of states that may be active at once, in as few rows as keep them apart. */
function apart(bands: readonly Band[]): Band[][] {
  const rows: Band[][] = [];
  for (const band of bands) {
    const free = rows.find((row) => {
      const last = row[row.length - 1];
      return last.to >= 0 && last.to <= band.from;
    });
    if (free) free.push(band);
    else rows.push([band]);
  }
  return rows;
}

interface Stacked {
  changes: number;
  nesting: Nesting;
  /** Innermost states: more than one row where several are active at once. */
  innermost: Band[][];
  /** States around them, the nearest first. */
  around: Band[][];
  /** Actions, those at once apart. */
  acts: Band[][];
}

const known = new WeakMap<Lane, Stacked>();

/** Worked out again only when a state was entered or left. */
function stacked(lane: Lane, nesting: Nesting): Stacked {
  const before = known.get(lane);
  if (before?.changes === lane.changes && before.nesting === nesting) return before;
  // What was left in the tick it was entered was never shown.
  const stays = lane.stays.filter(({ from, to }) => to !== from);
  const depthOf = ({ state }: Band) => nesting.depthOfRoom.get(state);
  const depths = [...new Set(nesting.depthOfRoom.values())].sort((a, b) => b - a);
  const made: Stacked = {
    changes: lane.changes,
    nesting,
    innermost: apart(stays.filter((stay) => depthOf(stay) === undefined)),
    around: depths
      .flatMap((depth) => apart(stays.filter((stay) => depthOf(stay) === depth)))
      .filter(({ length }) => length > 0),
    // What ended in the tick it began would cover nothing.
    acts: apart(lane.acts.filter(({ from, to }) => to !== from)),
  };
  known.set(lane, made);
  return made;
}

/** The row in which the scores of what was picked stand as a line. */
export const SCORE_ROW: readonly Band[] = [];

/** What stands in a lane. */
export interface LaneBands {
  /** In the first row, over each other where there are several: the last says most about what the agent does. */
  main: (readonly Band[])[];
  further: (readonly Band[])[];
}

/**
 * The bands of a lane with room for so many rows below the first. The first row tells what the agent does: the
 * innermost state, with no room for them below also what was picked there; in a mind of one state what was picked, or
 * the rows that ran.
 */
export function rowsOfLane(lane: Lane, nesting: Nesting | undefined, room: number): LaneBands {
  const own = furtherBands(lane);
  const last = lane.scores.length > 0 ? [SCORE_ROW] : [];
  const fitted = (main: (readonly Band[])[], rows: (readonly Band[])[]): LaneBands => ({
    main,
    further: rows.slice(0, room),
  });
  if (!nesting || lane.stays.length === 0) return fitted([lane.bands], [...own, ...last]);
  const { innermost, around, acts } = stacked(lane, nesting);
  if (!nesting.hasStates) {
    const beside = own.filter((bands) => bands !== lane.picks);
    if (lane.picks.length > 0) return fitted([lane.picks], [...beside, ...acts, ...last]);
    if (acts.length > 0) return fitted([acts[0]], [...beside, ...acts.slice(1), ...last]);
  }
  if (room === 0) return fitted([lane.bands, lane.picks], []);
  const beside = innermost.slice(1);
  // With no room for all that is active at once, the first row shows what was entered last.
  if (beside.length === 0 || beside.length > room)
    return fitted([lane.bands], [...own, ...around, ...acts, ...last]);
  return fitted([innermost[0]], [...beside, ...own, ...around, ...acts, ...last]);
}

/** How many rows a lane would fill below the first. */
export function rowsWanted(lane: Lane, nesting: Nesting | undefined): number {
  const wanted = furtherRowsOf(lane) + (nesting?.rows ?? 0);
  // What was picked, or the first of the rows, stands in the first row then.
  const isPlain = nesting !== undefined && !nesting.hasStates;
  return isPlain && (lane.picks.length > 0 || lane.acts.length > 0) ? wanted - 1 : wanted;
}
