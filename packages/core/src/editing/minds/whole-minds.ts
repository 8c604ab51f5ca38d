import { titleOfCopy } from '../../model/names/copy-title.ts';
import type { MindDocument, Name, ProjectDocument } from '../../model/documents.ts';
import { freshIn } from '../../model/names/fresh-name.ts';
import { CommandError, type DocumentCommand } from '../commands/commands.ts';
import { partAt } from '../commands/put.ts';
import { archetypesWithMind } from './mentions.ts';
import { nameFromWords } from '../../model/names/fresh-name.ts';

/** Whole minds: new ones, copies, and the effects on their users. */

export type MindForm = 'machine' | 'tree' | 'rules' | 'choice';

/** The smallest mind of a form, to begin from. */
export function emptyMind(title: string, form: MindForm): MindDocument {
  switch (form) {
    case 'machine':
      return { title, machine: { initial: 'start', states: [{ id: 'start', title: 'Start' }] } };
    case 'tree':
      return {
        title,
        activity: { tree: 'main' },
        trees: { main: { title, root: { sequence: [] } } },
      };
    case 'rules':
      return { title, activity: { rules: 'main' }, rules: { main: { title, rows: [] } } };
    case 'choice':
      return { title, activity: { choice: 'main' }, choices: { main: { title, options: [] } } };
  }
}

export interface NewMind {
  name: Name;
  command: DocumentCommand;
}

function newMind(name: Name, mind: MindDocument, what: string): NewMind {
  const command: DocumentCommand = {
    command: 'put',
    how: 'set',
    path: ['minds', name],
    value: mind,
  };
  return { name, command: { command: 'several', what, commands: [command] } };
}

/** A mind under a free name that follows from its title. */
export function addMind(document: ProjectDocument, mind: MindDocument): NewMind {
  const name = nameFromWords(mind.title, document.minds, 'mind');
  return newMind(name, mind, `new mind ${mind.title}`);
}

export function duplicateMind(document: ProjectDocument, name: Name): NewMind {
  if (!Object.hasOwn(document.minds, name)) throw new CommandError(`There is no mind “${name}”.`);
  const mind = document.minds[name];
  const titles = Object.values(document.minds).map((each) => each.title);
  const title = titleOfCopy(mind.title, titles);
  return newMind(freshIn(document.minds, name), { ...mind, title }, `copy of ${mind.title}`);
}

/**
 * Takes a mind away, and from every archetype that has it: those whose only mind it is then have none, and
 * stand where they are put.
 */
export function removeMind(document: ProjectDocument, name: Name): DocumentCommand {
  if (Object.keys(document.minds).length === 1)
    throw new CommandError('A project has at least one mind. Add another first.');
  const holders: (string | number)[][] = archetypesWithMind(document, name).map((archetype) => [
    'archetypes',
    archetype,
  ]);
  for (const [ground, { agents }] of Object.entries(document.grounds))
    for (const [agent, { overrides }] of Object.entries(agents))
      if (overrides && (overrides.mind === name || overrides.minds?.includes(name)))
        holders.push(['grounds', ground, 'agents', agent, 'overrides']);
  return {
    command: 'several',
    what: `removal of ${document.minds[name].title}`,
    commands: [
      ...holders.flatMap((path) => withoutMind(document, path, name)),
      { command: 'put', how: 'remove', path: ['minds', name] },
    ],
  };
}

/** The next of the other minds, if any, becomes the first. */
function withoutMind(
  document: ProjectDocument,
  path: (string | number)[],
  name: Name,
): DocumentCommand[] {
  const { mind, minds = [] } = partAt(document, path) as { mind?: Name; minds?: Name[] };
  const left = minds.filter((other) => other !== name);
  const [first, ...others] = mind === name ? left : [mind, ...left];
  const put = (field: string, value: unknown, before: unknown): DocumentCommand[] => {
    if (value !== undefined) return [{ command: 'put', how: 'set', path: [...path, field], value }];
    if (before === undefined) return [];
    return [{ command: 'put', how: 'remove', path: [...path, field] }];
  };
  return [
    ...put('minds', others.length > 0 ? others : undefined, minds.length > 0 ? minds : undefined),
    ...put('mind', first, mind),
  ];
}
