import { figure, readText } from '../../expression/readout.ts';
import type { Bar, Onlooker } from '../../mind/host.ts';
import type { Choice } from '../../mind/nodes/choice.ts';
import type { BoundOption } from '../../mind/weigh/weigher.ts';
import type { LedgerEntry } from '../../world/state/recorder.ts';
import { nameTables, candidateText } from '../../world/recording/names.ts';
import { setRecorder } from '../../world/world.ts';
import type { Agent } from '../../world/agents/agent.ts';
import { replayTick, revisit } from '../run.ts';
import { fact, QuestionError, type Asked, type Question, type Statement } from './statement.ts';
import type { Target } from './target.ts';

/** Why a choice picked what it did, and why not something else: found by weighing once more, with full attention. */

/** What an option came to when it was weighed. */
interface Weighed {
  option: BoundOption;
  /** The candidate; null where the option has none. */
  of: string | null;
  score: number;
  bar: Bar | null;
  terms: Statement[];
  /** Where it was asked for: what each term would have to look at for that score. */
  needs: string[];
}

const BARS: Record<Bar, string> = {
  guard: 'its guard did not hold',
  conduct: 'it was a rule of conduct that was not obeyed',
  cooldown: 'it was on cooldown',
  noCandidate: 'it had no candidate',
  veto: 'it was vetoed',
  minScore: 'its score was not above the minimum',
  rank: 'an option of a higher rank competed',
};

/** Steps in which an input is moved through its range to find what would have won. */
const STEPS = 200;

/** The choices of a state's activity. */
export function choicesOf({ mind }: Asked, state: number): Choice[] {
  return [...(mind.machine.states[state].activity?.choices.values() ?? [])];
}

/** The input nearest to what it was with which a term is worth enough, in words. */
function neededInput(
  option: BoundOption,
  index: number,
  parts: Float64Array,
  agent: Agent,
  wanted: number,
): string | null {
  const { scorer, program } = option;
  const { curve, from, to } = scorer.considerations[index];
  const trial = Float64Array.from(parts);
  const at = scorer.considerations[index].input(agent);
  let best: number | null = null;
  for (let step = 0; step <= STEPS; step++) {
    const x = step / STEPS;
    trial[index] = curve(x);
    if (scorer.fromParts(agent, trial) < wanted) continue;
    const value = from + x * (to - from);
    if (best === null || Math.abs(value - at) < Math.abs(best - at)) best = value;
  }
  return best === null ? null : `${program.considerations[index].title} at ${figure(best)}`;
}

function look(agent: Agent, choice: Choice, wanted: number | null, found: Weighed[]): Onlooker {
  const names = nameTables(agent.program);
  return (place, a, b, score, bar, given) => {
    const option = choice.weigher.options[place];
    const { program, scorer } = option;
    const parts = Float64Array.from(given);
    const hasNoCandidate = bar === 'cooldown' || bar === 'noCandidate';
    const terms = hasNoCandidate
      ? []
      : program.considerations.map(({ title, input }, i): Statement => ({
          ...fact(
            title,
            null,
            [],
            [
              { part: input.source, value: readText(input, agent, names) },
              { part: 'worth', value: figure(parts[i]) },
            ],
          ),
          holds: parts[i] > 0,
        }));
    const graded = hasNoCandidate
      ? []
      : program.grades.map(({ memberships }, i): Statement =>
          fact(
            memberships.map(({ source }) => source).join(' and '),
            null,
            [],
            [{ part: 'force', value: figure(parts[i]) }],
          ),
        );
    // The candidate stands in its cells only now, so what would have won is found now too.
    const needs =
      hasNoCandidate || wanted === null
        ? []
        : scorer.considerations.flatMap(
            (_, i) => neededInput(option, i, parts, agent, wanted) ?? [],
          );
    found.push({
      option,
      of:
        program.each && !hasNoCandidate
          ? candidateText(agent.program, program.each.key.type, a, b)
          : null,
      score,
      bar,
      terms: [...terms, ...graded],
      needs,
    });
  };
}

/**
 * Weighs a choice of the agent once more as it was weighed in a tick; empty where that can't be seen again.
 * `wanted` is a score to find inputs for.
 */
function weighAgain(
  question: Question,
  asked: Asked,
  name: string,
  tick: number,
  wanted: number | null = null,
): Weighed[] {
  const world = revisit(question.run, tick - 1);
  const agent = world.agents.find((each) => each.name === asked.agent.name);
  const index = asked.agent.minds.indexOf(asked.mind);
  const mind = agent?.minds[index];
  if (world.tick !== tick - 1 || !agent || !mind) return [];
  setRecorder(world, () => {});
  const recorder = agent.recorders?.[index];
  if (!recorder) return [];
  const choices = mind.machine.states.flatMap(({ activity }) => [
    ...(activity?.choices.values() ?? []),
  ]);
  const found: Weighed[] = [];
  recorder.looksOn = (program) => {
    const choice = choices.find((each) => each.program === program);
    if (!choice || program.name !== name) return () => {};
    found.length = 0;
    return look(agent, choice, wanted, found);
  };
  replayTick(question.run, world);
  return found;
}

type Picked = Extract<LedgerEntry, { kind: 'picked' }>;

function lastPick(entries: readonly LedgerEntry[], choice: string): Picked | undefined {
  return entries.findLast(
    (entry): entry is Picked => entry.kind === 'picked' && entry.choice === choice,
  );
}

/** What a choice picked last, with what spoke for it, who came next and by how much. */
export function whyPicked(
  question: Question,
  asked: Asked,
  { program }: Choice,
  entries: readonly LedgerEntry[],
): Statement[] {
  const pick = lastPick(entries, program.name);
  if (!pick) return [];
  const titleOf = (id: string) => program.options.find((each) => each.id === id)?.title ?? id;
  if (pick.option === null) return [fact(`${program.title}: nothing was worth doing`, pick.tick)];
  const weighed = weighAgain(question, asked, program.name, pick.tick).find(
    ({ option, of }) => option.program.id === pick.option && (of ?? undefined) === pick.of,
  );
  const candidate = pick.of === undefined ? '' : ` for ${pick.of}`;
  const values = [
    { part: 'score', value: figure(pick.score) },
    ...(pick.next === undefined
      ? []
      : [
          { part: 'next', value: titleOf(pick.next) },
          { part: 'margin', value: figure(pick.margin ?? 0) },
        ]),
    ...(pick.ties === undefined ? [] : [{ part: 'tied with', value: String(pick.ties - 1) }]),
  ];
  return [
    fact(
      `${program.title}: it picked ${titleOf(pick.option)}${candidate}`,
      pick.tick,
      weighed?.terms ?? [],
      values,
    ),
  ];
}

/**
 * Why an option was not picked when its choice was weighed last: what kept it out, or which terms held it
 * down and what value of each would have won.
 */
export function whyNotOption(
  question: Question,
  asked: Asked,
  target: Extract<Target, { kind: 'option' }>,
  entries: readonly LedgerEntry[],
): Statement {
  const { agent, mind } = asked;
  const choice = mind.machine.states
    .flatMap(({ activity }) => [...(activity?.choices.values() ?? [])])
    .find(({ program }) => program.name === target.choice);
  const option = choice?.weigher.options.find(({ program }) => program.id === target.option);
  if (!choice || !option)
    throw new QuestionError(
      `This mind has no option “${target.option}” of a choice “${target.choice}”.`,
    );
  const statement = `${agent.placed.title} picks ${option.program.title}`;
  const pick = lastPick(entries, choice.program.name);
  const tick = Math.max(choice.lastWeighed(agent.memory), pick?.tick ?? -1);
  if (tick < 0)
    return {
      ...fact(statement, null, [fact(`${choice.program.title} has not been weighed yet`, null)]),
      holds: false,
    };
  if (pick?.option === option.program.id)
    return fact(statement, pick.tick, whyPicked(question, asked, choice, entries));
  const all = weighAgain(question, asked, choice.program.name, tick);
  const best = all.reduce<Weighed | null>(
    (most, each) => (each.bar === null && (!most || each.score > most.score) ? each : most),
    null,
  );
  const mine = weighAgain(question, asked, choice.program.name, tick, best?.score ?? null)
    .filter((each) => each.option.program.id === option.program.id)
    .reduce<Weighed | null>((most, each) => (!most || each.score > most.score ? each : most), null);
  if (!mine)
    return {
      ...fact(statement, tick, [fact('what was weighed then can’t be seen again', tick)]),
      holds: false,
    };
  const why: Statement[] = [];
  if (mine.bar !== null) why.push({ ...fact(BARS[mine.bar], tick), holds: false });
  if (best && mine.bar === null) {
    why.push({
      ...fact(
        `its score was ${figure(mine.score)}, and ${best.option.program.title} had ${figure(best.score)}`,
        tick,
        mine.needs.map((each) => fact(`${each} would have won`, null)),
      ),
      holds: false,
    });
  }
  // What holds it down most comes first.
  const terms = [...mine.terms].sort(
    (a, b) => Number(a.values.at(-1)?.value) - Number(b.values.at(-1)?.value),
  );
  return { ...fact(statement, tick, [...why, ...terms]), holds: false };
}
