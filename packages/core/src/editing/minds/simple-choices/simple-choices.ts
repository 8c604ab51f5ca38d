import type { ProjectDocument } from '../../../model/documents.ts';
import { namesOf } from '../../../model/names/names.ts';
import type { DocumentCommand } from '../../commands/commands.ts';
import { pathOfChoice, type ChoicePlace } from '../options.ts';
import { set, several } from '../row-places.ts';
import { byDistance } from './by-distance.ts';
import {
  repertoireOf,
  type FormField,
  type FormValues,
  type Repertoire,
  type SimpleForm,
} from './form.ts';
import { roll } from './roll.ts';
import { sameData } from '../../../terms/same-data.ts';
import { sliders } from './sliders.ts';

/** The simple forms there are, and reading and writing choices by them. */

export const SIMPLE_FORMS: readonly SimpleForm[] = [sliders, byDistance, roll];

/** The usual values of a form’s fields. */
export function usualValues(form: SimpleForm, repertoire: Repertoire): Record<string, number> {
  return Object.fromEntries(form.fields(repertoire).map(({ name, usual }) => [name, usual]));
}

function isWithin(
  values: Record<string, number | undefined>,
  fields: readonly FormField[],
): boolean {
  return fields.every(({ name, minimum, maximum }) => {
    const value = values[name];
    return value !== undefined && value >= minimum && value <= maximum;
  });
}

/** What a choice is the same as: the form and its numbers; null where no form would write just that. */
export function simpleFormOf(
  document: ProjectDocument,
  { mind, choice: name }: ChoicePlace,
): { form: SimpleForm; values: FormValues } | null {
  const choice = document.minds[mind]?.choices?.[name];
  if (!choice || choice.options.length === 0) return null;
  const { title: _, note: _note, ...plain } = choice;
  const repertoire = repertoireOf(document, mind);
  const sets = document.bands ?? {};
  for (const form of SIMPLE_FORMS) {
    const values = form.read(choice, sets, repertoire);
    if (!isWithin(values, form.fields(repertoire))) continue;
    const written = form.write(values as FormValues, repertoire);
    const isSame =
      sameData(written.choice, plain) &&
      namesOf(written.bands).every((each) => sameData(written.bands[each], sets[each]));
    if (isSame) return { form, values: values as FormValues };
  }
  return null;
}

/** Writes a choice from the numbers of a form; its title and note stay. */
export function writeSimpleForm(
  document: ProjectDocument,
  place: ChoicePlace,
  form: SimpleForm,
  values: FormValues,
): DocumentCommand {
  const { title, note } = document.minds[place.mind].choices![place.choice];
  const { choice, bands } = form.write(values, repertoireOf(document, place.mind));
  return several(
    `${title ?? place.choice}: ${form.title.toLowerCase()}`,
    ...namesOf(bands).map((name) => set(['bands', name], bands[name])),
    set(pathOfChoice(place), {
      ...(title !== undefined && { title }),
      ...(note !== undefined && { note }),
      ...choice,
    }),
  );
}
