import type { Facts } from '../../expression/facts.ts';
import type { Choice } from '../../mind/nodes/choice.ts';
import { rowCode } from '../../mind/nodes/node.ts';
import type { RunnableMind } from '../../mind/machine/mind.ts';
import { readList } from '../../mind/machine/cells.ts';
import type { Bar } from '../../mind/host.ts';
import { shareOfRange } from '../../mind/weigh/curves.ts';
import type { Agent } from '../agents/agent.ts';
import { candidateText } from '../recording/names.ts';
import type { World } from '../world.ts';
import { findMind } from './readout.ts';

/** What the options of a choice are worth to an agent at this tick; made on demand, and changes nothing. */

export interface ChoiceAsked {
  agent: string;
  mind?: string;
  choice: string;
}

export interface ChoiceReadout {
  choice: string;
  /** Whether the mind is weighing it now: the state that does it is active. */
  active: boolean;
  /** Id of the option that runs; null for none. */
  running: string | null;
  /** Id of an option that ended in this tick; null for none. */
  ended: string | null;
  options: OptionReadout[];
}

interface OptionReadout {
  id: string;
  /** Once, or once for each candidate. */
  rows: WeighedRow[];
}

export interface WeighedRow {
  /** The candidate; null where the option has none. */
  of: string | null;
  runs: boolean;
  score: number;
  /** Why it does not compete; null where it does. */
  bar: Bar | null;
  /** By consideration, or by graded row. */
  cells: CellReadout[];
}

interface CellReadout {
  /** The input as it is; null for nothing, and for graded rows. */
  value: number | null;
  /** The input as a share of its range. */
  x: number;
  /** What it is worth. */
  y: number;
}

interface Found {
  agent: Agent;
  mind: RunnableMind;
  choice: Choice;
  active: boolean;
  /** By row: the cell of its last result. */
  rows: readonly number[];
}

/** Where the mind weighs a choice: in the active state that does, else in the first that would. */
function findChoice(
  world: World,
  { agent: name, mind: mindName, choice }: ChoiceAsked,
): Found | null {
  const asked = findMind(world, name, mindName);
  if (!asked) return null;
  const { agent, mind } = asked;
  const active = readList(agent.memory, mind.machine.cells.active);
  const found = mind.machine.states.flatMap(({ activity, index }) =>
    [...(activity?.choices.values() ?? [])]
      .filter(({ program }) => program.name === choice)
      .map((each) => ({
        agent,
        mind,
        choice: each,
        active: active.includes(index),
        rows: activity!.rows,
      })),
  );
  return found.find((each) => each.active) ?? found[0] ?? null;
}

function readOptions({ agent, choice }: Found, facts: Facts): OptionReadout[] {
  const { options } = choice.program;
  const running = choice.running(agent.memory);
  const rows: WeighedRow[][] = options.map(() => []);
  const candidate = options[running]?.each?.key;
  // The cells hold the candidate that is looked at, so who runs is read before.
  const runs = candidate ? agent.memory.slice(candidate.slot, candidate.slot + 2) : null;
  choice.look(agent, facts, (place, a, b, score, bar, parts) => {
    const { scorer } = choice.weigher.options[place];
    const { each } = options[place];
    const hasNoCandidate = bar === 'cooldown' || bar === 'noCandidate';
    const cells = hasNoCandidate
      ? []
      : scorer.grades.length > 0
        ? scorer.grades.map((_, i) => ({ value: null, x: parts[i], y: parts[i] }))
        : scorer.considerations.map(({ input, from, to }, i) => {
            const value = input(facts);
            const isKnown = value - value === 0;
            return {
              value: isKnown ? value : null,
              x: isKnown ? shareOfRange(value, from, to) : 0,
              y: parts[i],
            };
          });
    rows[place].push({
      of: each && !hasNoCandidate ? candidateText(agent.program, each.key.type, a, b) : null,
      runs:
        place === running &&
        (runs === null || (a === runs[0] && (candidate!.type !== 'point' || b === runs[1]))),
      score,
      bar,
      cells,
    });
  });
  return options.map(({ id }, place) => ({ id, rows: rows[place] }));
}

/** Id of the option that a choice does in this tick: the one that runs, else the one that ended; null for neither. */
export function doneNow(readout: Pick<ChoiceReadout, 'running' | 'ended'> | null): string | null {
  return readout && (readout.running ?? readout.ended);
}

function readDoings({
  agent,
  choice,
  rows,
  active,
}: Found): Pick<ChoiceReadout, 'active' | 'running' | 'ended'> {
  if (!active) return { active, running: null, ended: null };
  const { options } = choice.program;
  const running = options[choice.running(agent.memory)];
  const ended = options.find(
    (option) =>
      option !== running && rowCode(agent.memory[rows[option.node.row]], agent.tick) !== 0,
  );
  return { active, running: running?.id ?? null, ended: ended?.id ?? null };
}

/** Id of the option that the mind does in this tick, or did to its end; null for none, and where nothing it is in weighs that choice. */
export function runningOption(world: World, asked: ChoiceAsked): string | null {
  const found = findChoice(world, asked);
  return found && doneNow(readDoings(found));
}

/** Null where there is no such agent or mind, or nothing it does weighs that choice. */
export function readChoice(world: World, asked: ChoiceAsked): ChoiceReadout | null {
  const found = findChoice(world, asked);
  if (!found) return null;
  return {
    choice: asked.choice,
    ...readDoings(found),
    options: readOptions(found, found.agent),
  };
}

/** The same as if the agent stood elsewhere. */
export function readChoiceAt(
  world: World,
  asked: ChoiceAsked,
  x: number,
  y: number,
): ChoiceReadout | null {
  const found = findChoice(world, asked);
  if (!found) return null;
  const readout = readChoice(world, asked)!;
  return { ...readout, options: readOptions(found, found.agent.at(x, y)) };
}

/** Scores of one option over the ground. */
export interface HeatPicture {
  columns: number;
  rows: number;
  /** Metres from one place to the next. */
  step: number;
  /** Row by row; NaN where the body can’t stand. */
  scores: Float32Array;
}

/** What an option would be worth wherever the agent can stand; its best candidate counts. */
export function readHeat(
  world: World,
  asked: ChoiceAsked,
  option: string,
  step: number,
): HeatPicture | null {
  const found = findChoice(world, asked);
  const place = found?.choice.program.options.findIndex(({ id }) => id === option) ?? -1;
  if (!found || place < 0) return null;
  const { agent, choice } = found;
  const { width, height } = world.ground;
  const [columns, rows] = [Math.floor(width / step), Math.floor(height / step)];
  const scores = new Float32Array(columns * rows).fill(NaN);
  for (let i = 0; i < scores.length; i++) {
    const x = ((i % columns) + 0.5) * step;
    const y = (Math.floor(i / columns) + 0.5) * step;
    if (!agent.canStandAt(x, y)) continue;
    let best = -Infinity;
    choice.look(agent, agent.at(x, y), (at, _a, _b, score, bar) => {
      if (at === place && (bar === null || bar === 'rank') && score > best) best = score;
    });
    scores[i] = best === -Infinity ? 0 : best;
  }
  return { columns, rows, step, scores };
}
