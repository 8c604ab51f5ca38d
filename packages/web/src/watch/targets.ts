import {
  agentNamed,
  type Asking,
  allAgents,
  DIRECTOR_NAME,
  namesOf,
  titleOfKey,
  type ProjectDocument,
  type Target,
} from '@crooked-lantern/core';
import { stanceOf } from '../cast/factions.ts';
import { listStates } from '../minds/document-names.ts';
import { rowTargets } from '../minds/outline/row-target.ts';
import { rowSentence } from '../minds/outline/row-words.ts';
import type { Option } from '../ui/fields/fields.tsx';
import { questionText, WHY } from '../engine/asking-address.ts';

/** A question as lists have it. */
function entry(asking: Asking, title: string, mind?: string): Option {
  return { id: questionText({ asking, mind }), title };
}

/** The waves of the ground, which are asked of its director. */
function wavesOf(document: ProjectDocument): Option[] {
  const { waves = {} } = document.grounds[document.start.ground];
  return namesOf(waves).map((name) =>
    entry({ ask: 'wave', wave: name }, `why no agent of ${waves[name].title ?? name} comes`),
  );
}

/** So many others can be asked about at most: a list of hundreds would be of no use. */
const MOST_OTHERS = 40;

/** Every other agent, whether it can be noticed or not, which is the answer then: the played one first, friends last. */
function othersOf(document: ProjectDocument, agent: string): Option[] {
  const all = allAgents(document);
  const own = all.find(({ name }) => name === agent)?.faction ?? null;
  if (own === null) return [];
  const { play } = document.start;
  const isFriend = (faction: string) => stanceOf(document.factions, own, faction) === 'friendly';
  const rank = ({ name, faction }: { name: string; faction: string | null }) =>
    name === play ? 0 : isFriend(faction!) ? 2 : 1;
  return all
    .filter(({ name, faction }) => name !== agent && faction !== null)
    .toSorted((a, b) => rank(a) - rank(b))
    .slice(0, MOST_OTHERS)
    .map(({ name, title }) => entry({ ask: 'notices', agent: name }, `how it notices ${title}`));
}

/** What can be asked of the moves of an agent, where any agent of the project has one. */
function fightsOf(document: ProjectDocument, agent: string): Option[] {
  const archetypes = Object.values(document.archetypes);
  if (!archetypes.some(({ moves = {} }) => namesOf(moves).length > 0)) return [];
  const own = agentNamed(document, agent)?.archetype ?? null;
  const { moves = {} } = own === null ? {} : document.archetypes[own];
  return [
    ...(namesOf(moves).length > 0
      ? [entry({ ask: 'hit', side: 'dealt' }, 'why its latest move hit or missed')]
      : []),
    entry({ ask: 'hit', side: 'taken' }, 'why the latest move at it hit or missed, and how hard'),
  ];
}

/** Why a mind is not in a state, does not pick an option, or does not run a row. */
function whyNotOf(document: ProjectDocument, name: string, isFurther: boolean): Option[] {
  const mind = document.minds[name];
  // What is asked of a further mind says so.
  const ask = (target: Target, title: string) =>
    entry(
      { ask: 'whyNot', target },
      isFurther ? `${title} (${mind.title})` : title,
      isFurther ? name : undefined,
    );
  return [
    ...listStates(document, name).map(({ state: { id, title = id } }) =>
      ask({ kind: 'state', state: id }, `why it is not in ${title}`),
    ),
    ...Object.entries(mind.choices ?? {}).flatMap(([choice, { title: of = choice, options }]) =>
      options.map(({ id, title = id }) =>
        ask({ kind: 'option', choice, option: id }, `why not ${title} (${of})`),
      ),
    ),
    ...rowTargets(document, name).map(({ target, row, of }) =>
      ask(target, `why not row ${row.row! + 1} of ${of}: ${rowSentence(row)}`),
    ),
  ];
}

/** What can be asked: of states, options and rows of an agent’s minds why not, and what else there is to ask. */
export function targetsOf(document: ProjectDocument, agent: string): Option[] {
  const minds = (agentNamed(document, agent)?.minds ?? []).filter((name) =>
    Object.hasOwn(document.minds, name),
  );
  const [name] = minds;
  const why = entry(WHY, 'why it does what it does');
  if (name === undefined) return [why, entry({ ask: 'ended' }, 'why the run ended')];
  return [
    why,
    ...minds.flatMap((each) => whyNotOf(document, each, each !== name)),
    ...listStates(document, name).map(({ state: { id, title = id } }) =>
      entry({ ask: 'ever', state: id }, `what ever led to ${title}`),
    ),
    ...namesOf(document.minds[name].memory ?? {}).map((key) =>
      entry({ ask: 'memory', key }, `when and why ${titleOfKey(document, minds, key)} was written`),
    ),
    entry({ ask: 'moves' }, 'why it moves as it does'),
    ...fightsOf(document, agent),
    ...othersOf(document, agent),
    entry({ ask: 'told' }, 'who ever told it something'),
    entry({ ask: 'ended' }, 'why the run ended'),
    ...(agent === DIRECTOR_NAME ? wavesOf(document) : []),
  ];
}
