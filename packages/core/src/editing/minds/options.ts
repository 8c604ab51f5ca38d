import type {
  ChoiceDocument,
  ConsiderationDocument,
  Name,
  OptionDocument,
  ProjectDocument,
} from '../../model/documents.ts';
import { titleOfCopy } from '../../model/names/copy-title.ts';
import { CommandError, type DocumentCommand, type DocumentPath } from '../commands/commands.ts';
import { insert, remove, set, several } from './row-places.ts';
import { nameFromWords } from '../../model/names/fresh-name.ts';

/** Options of a choice put in, copied, moved and taken away, and considerations shared between them. */

/** Which choice of which mind. */
export interface ChoicePlace {
  mind: Name;
  choice: Name;
}

export function pathOfChoice({ mind, choice }: ChoicePlace): DocumentPath {
  return ['minds', mind, 'choices', choice];
}

function choiceAt(document: ProjectDocument, { mind, choice }: ChoicePlace): ChoiceDocument {
  const found = document.minds[mind]?.choices?.[choice];
  if (!found) throw new CommandError(`This mind has no choice “${choice}”.`);
  return found;
}

function optionAt(document: ProjectDocument, place: ChoicePlace, index: number): OptionDocument {
  const option = choiceAt(document, place).options[index];
  if (!option) throw new CommandError('This option is gone.');
  return option;
}

const titleOf = ({ title, id }: OptionDocument) => title ?? id;

function taken(options: readonly OptionDocument[]): Record<Name, OptionDocument> {
  return Object.fromEntries(options.map((option) => [option.id, option]));
}

/** A new option at the end, which has something to do so that it can run. */
export function addOption(
  document: ProjectDocument,
  place: ChoicePlace,
  title: string,
): { command: DocumentCommand; id: Name } {
  const { options } = choiceAt(document, place);
  const id = nameFromWords(title, taken(options), 'option');
  const option: OptionDocument = { id, title, does: { do: 'wait', seconds: 1 } };
  const path = [...pathOfChoice(place), 'options', options.length];
  return { command: several(`new option ${title}`, insert(path, option)), id };
}

/** A copy right beneath the option. */
export function duplicateOption(
  document: ProjectDocument,
  place: ChoicePlace,
  index: number,
): { command: DocumentCommand; id: Name } {
  const option = optionAt(document, place, index);
  const { options } = choiceAt(document, place);
  const title = titleOfCopy(titleOf(option), options.map(titleOf));
  const id = nameFromWords(title, taken(options), 'option');
  const path = [...pathOfChoice(place), 'options', index + 1];
  return {
    command: several(`copy of ${titleOf(option)}`, insert(path, { ...option, id, title })),
    id,
  };
}

export function moveOption(
  document: ProjectDocument,
  place: ChoicePlace,
  from: number,
  to: number,
): DocumentCommand {
  const option = optionAt(document, place, from);
  optionAt(document, place, to);
  const path = (index: number) => [...pathOfChoice(place), 'options', index];
  return several(`place of ${titleOf(option)}`, remove(path(from)), insert(path(to), option));
}

/** Another id for an option, there and in breakpoints that name it. */
export function renameOption(
  document: ProjectDocument,
  place: ChoicePlace,
  index: number,
  to: Name,
): DocumentCommand {
  const { id } = optionAt(document, place, index);
  const named = `${place.choice}:${id}`;
  const breakpoints = Object.entries(document.breakpoints ?? {}).flatMap(([name, { on, of }]) =>
    on === 'picked' && of === named
      ? set(['breakpoints', name, 'of'], `${place.choice}:${to}`)
      : [],
  );
  const path = [...pathOfChoice(place), 'options', index, 'id'];
  return several(`name of ${to}`, set(path, to), ...breakpoints);
}

export function removeOption(
  document: ProjectDocument,
  place: ChoicePlace,
  index: number,
): DocumentCommand {
  const option = optionAt(document, place, index);
  return several(
    `removal of ${titleOf(option)}`,
    remove([...pathOfChoice(place), 'options', index]),
  );
}

/** What a column of the board is known by: considerations called alike are one column. */
export function columnName({ title, input }: ConsiderationDocument): string {
  return title ?? input;
}

/** Adds a consideration to some options, by their places. */
export function addConsideration(
  document: ProjectDocument,
  place: ChoicePlace,
  to: readonly number[],
  consideration: ConsiderationDocument,
): DocumentCommand {
  const puts = to.map((index) => {
    const { considerations } = optionAt(document, place, index);
    const path = [...pathOfChoice(place), 'options', index, 'considerations'];
    return considerations
      ? insert([...path, considerations.length], consideration)
      : set(path, [consideration]);
  });
  return several(`new consideration ${columnName(consideration)}`, ...puts);
}

/** Adds a consideration to all other options that have none of its name. */
export function copyColumn(
  document: ProjectDocument,
  place: ChoicePlace,
  index: number,
  at: number,
): DocumentCommand {
  const { options } = choiceAt(document, place);
  const consideration = optionAt(document, place, index).considerations?.[at];
  if (!consideration) throw new CommandError('This consideration is gone.');
  const name = columnName(consideration);
  const to = options.flatMap(({ considerations = [] }, i) =>
    considerations.some((other) => columnName(other) === name) ? [] : [i],
  );
  if (to.length === 0) throw new CommandError(`Every option has “${name}” already.`);
  return addConsideration(document, place, to, consideration);
}

/** Takes considerations of one name out of all options. */
export function removeColumn(
  document: ProjectDocument,
  place: ChoicePlace,
  name: string,
): DocumentCommand {
  const { options } = choiceAt(document, place);
  const puts = options.flatMap(({ considerations = [] }, i) => {
    const left = considerations.filter((each) => columnName(each) !== name);
    if (left.length === considerations.length) return [];
    const path = [...pathOfChoice(place), 'options', i, 'considerations'];
    return [left.length === 0 ? remove(path) : set(path, left)];
  });
  return several(`removal of ${name}`, ...puts);
}
