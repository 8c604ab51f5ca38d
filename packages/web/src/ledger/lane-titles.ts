import {
  ACTIONS,
  firstMind,
  namesOf,
  type MindDocument,
  type Program,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { compareNames } from '../ui/words/compare-names.ts';
import { GAME_LANE, scoreLane, waveLane } from '../engine/lanes.ts';

/** Whose lanes there are, and what stands in them is called. */

export interface LaneRow {
  name: string;
  title: string;
  /** It is of the game, and of no agent that could be watched. */
  isOfGame?: true;
  /** It is a squad that is folded: the agents whose lanes stand in this one. */
  members?: readonly LaneRow[];
}

/** What there is of the game: its modes, then each score and each wave. */
function laneOfGame({ director }: Program): LaneRow[] {
  const { scores, waves, schedule, agent } = director;
  const hasModes = schedule !== null || agent >= 0;
  const rows = [
    ...(hasModes ? [{ name: GAME_LANE, title: 'Game' }] : []),
    ...scores.map(({ name, title }) => ({ name: scoreLane(name), title })),
    ...waves.map(({ name, title }) => ({ name: waveLane(name), title })),
  ];
  return rows.map((row) => ({ ...row, isOfGame: true }));
}

/**
 * Those with something to show: the game, then agents with a mind or senses, and the one that is played. Of those who
 * come with waves only who has come so far.
 */
export function laneRows(program: Program | null, comers: readonly string[]): LaneRow[] {
  if (!program) return [];
  return [...laneOfGame(program), ...laneAgents(program, comers)];
}

function laneAgents(program: Program, comers: readonly string[]): LaneRow[] {
  const rows = program.agents.flatMap<LaneRow>(({ name, title, archetype, away }, index) => {
    if (away && index !== program.director.agent && !comers.includes(name)) return [];
    const { stack, sight } = program.archetypes[archetype];
    if (index === program.play) return [{ name, title: `${title} (you)` }];
    return stack >= 0 || sight !== null ? [{ name, title }] : [];
  });
  return rows.sort((one, other) => compareNames(one.name, other.name));
}

/** Of folded squads: the names of those in them. */
export function foldedLanes(rows: readonly LaneRow[]): Map<string, string[]> {
  return new Map(
    rows.flatMap(({ name, members }) =>
      members ? [[name, members.map((member) => member.name)]] : [],
    ),
  );
}

/** Who begins asleep, and is so until woken or hit. */
export function sleepersOf(program: Program | null): Set<string> {
  return new Set((program?.agents ?? []).filter(({ asleep }) => asleep).map(({ name }) => name));
}

const ACTION_TITLES: readonly (readonly [string, string])[] = Object.entries(ACTIONS).map(
  ([name, { title }]) => [name, title],
);

type Choices = Record<string, MindDocument['choices']>;

/** The choices of each mind, which stay the same objects whatever else of it is edited. */
export function choicesOf(minds: ProjectDocument['minds']): Choices {
  return Object.fromEntries(namesOf(minds).map((name) => [name, minds[name].choices]));
}

/** By agent, what the states of its minds, its options, moves and actions are called; the first mind’s names come first. */
export function laneTitles(
  program: Program | null,
  choicesByMind: Choices,
): Map<string, Map<string, string>> {
  return new Map(
    (program?.agents ?? []).map(({ name: agent, archetype }) => {
      const mind = firstMind(program!, archetype);
      const choices = (mind && choicesByMind[mind.name]) ?? {};
      const titles = new Map(ACTION_TITLES);
      for (const { name, title } of program!.archetypes[archetype].moves) titles.set(name, title);
      for (const choice of namesOf(choices))
        for (const { id, title = id } of choices[choice].options) titles.set(id, title);
      const { stack } = program!.archetypes[archetype];
      const minds = program!.stacks[stack]?.minds ?? [];
      for (const { machine } of minds.toReversed())
        for (const { id, title } of machine.states) titles.set(id, title);
      return [agent, titles];
    }),
  );
}
