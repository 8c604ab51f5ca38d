import {
  agentNamed,
  type Asking,
  allAgents,
  DIRECTOR_NAME,
  namesOf,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { stanceOf } from '../cast/factions.ts';
import { listStates } from '../minds/document-names.ts';
import { rowTargets } from '../minds/outline/row-target.ts';
import { rowSentence } from '../minds/outline/row-words.ts';
import type { Option } from '../ui/fields/fields.tsx';
import { askingText, WHY } from '../engine/asking-address.ts';

/** A question as lists have it. */
function entry(asking: Asking, title: string): Option {
  return { id: askingText(asking), title };
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

/** What can be asked: of states, options and rows of an agent’s first mind why not, and what else there is to ask. */
export function targetsOf(document: ProjectDocument, agent: string): Option[] {
  const [name] = agentNamed(document, agent)?.minds ?? [];
  const mind = name === undefined ? undefined : document.minds[name];
  const why = entry(WHY, 'why it does what it does');
  if (!mind) return [why, entry({ ask: 'ended' }, 'why the run ended')];
  const states = listStates(document, name).map(({ state }) => state);
  return [
    why,
    ...states.map(({ id, title = id }) =>
      entry({ ask: 'whyNot', target: { kind: 'state', state: id } }, `why it is not in ${title}`),
    ),
    ...Object.entries(mind.choices ?? {}).flatMap(([choice, { title: of = choice, options }]) =>
      options.map(({ id, title = id }) =>
        entry(
          { ask: 'whyNot', target: { kind: 'option', choice, option: id } },
          `why not ${title} (${of})`,
        ),
      ),
    ),
    ...rowTargets(document, name).map(({ target, row, of }) =>
      entry({ ask: 'whyNot', target }, `why not row ${row.row! + 1} of ${of}: ${rowSentence(row)}`),
    ),
    ...states.map(({ id, title = id }) =>
      entry({ ask: 'ever', state: id }, `what ever led to ${title}`),
    ),
    ...namesOf(mind.memory ?? {}).map((key) =>
      entry({ ask: 'memory', key }, `when and why ${key} was written`),
    ),
    entry({ ask: 'moves' }, 'why it moves as it does'),
    ...fightsOf(document, agent),
    ...othersOf(document, agent),
    entry({ ask: 'told' }, 'who ever told it something'),
    entry({ ask: 'ended' }, 'why the run ended'),
    ...(agent === DIRECTOR_NAME ? wavesOf(document) : []),
  ];
}
