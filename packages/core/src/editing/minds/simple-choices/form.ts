import type {
  ActionDocument,
  BandSetDocument,
  ChoiceDocument,
  Name,
  OptionDocument,
  ProjectDocument,
} from '../../../model/documents.ts';
import type { NumberSpec } from '../../../model/schema/schema.ts';
import { kindsOf, mindsOf } from '../../../model/kinds.ts';
import { namesOf } from '../../../model/names/names.ts';

/**
 * Simple forms of choices: a few numbers from which a whole choice is written, as graded rows or weights that
 * people can read and go on editing. The numbers are read back from the choice itself, as long as it is what
 * they would write.
 */

export interface FormField extends Pick<NumberSpec, 'label' | 'unit' | 'minimum' | 'maximum'> {
  name: string;
  about: string;
  usual: number;
  step: number;
  /** Where the fields are a table: whose row it stands in, and under which heading. */
  cell?: { row: string; column: string };
}

export type FormValues = Readonly<Record<string, number>>;

/** What all bodies that have a mind can do in a fight. */
export interface Repertoire {
  mind: Name;
  strikes: { name: Name; title: string }[];
  guards: { name: Name; title: string }[];
}

interface Written {
  choice: Omit<ChoiceDocument, 'title' | 'note'>;
  bands: Record<Name, BandSetDocument>;
}

export interface SimpleForm {
  id: string;
  title: string;
  about: string;
  fields: (repertoire: Repertoire) => FormField[];
  write: (values: FormValues, repertoire: Repertoire) => Written;
  /** The numbers, from a choice and bands that have the ids of what it writes; invalid if edited by hand. */
  read: (
    choice: ChoiceDocument,
    bands: Record<Name, BandSetDocument>,
    repertoire: Repertoire,
  ) => Record<string, number | undefined>;
}

export function repertoireOf(document: ProjectDocument, mind: Name): Repertoire {
  const bodies = kindsOf(document)
    .map(({ archetype }) => archetype)
    .filter((archetype) => mindsOf(archetype).includes(mind));
  const [first] = bodies;
  const common = <T extends { title?: string }>(
    part: 'moves' | 'guards',
    fits: (one: T) => boolean,
  ) =>
    namesOf(first?.[part] ?? {})
      .filter((name) => bodies.every((body) => Object.hasOwn(body[part] ?? {}, name)))
      .map((name) => ({ name, one: first[part]![name] as T }))
      .filter(({ one }) => fits(one))
      .map(({ name, one }) => ({ name, title: one.title ?? name }));
  return {
    mind,
    strikes: common<{ title?: string; kind?: string }>('moves', ({ kind }) => kind !== 'dodge'),
    guards: common('guards', () => true),
  };
}

export const THEM = 'attention.of';
export const strikeThem = (move: Name) =>
  ({ do: 'strike', move, at: THEM, uninterrupted: true }) as const;
export const CIRCLE_ID = 'circle';

/** What an option does, as plain as the file has it. */
export const doing = (action: ActionDocument): ActionDocument => action;

/** The id of an option that does something with what is named, which can’t be that of another option. */
export const idFor = (verb: string, name: Name) =>
  `${verb}${name[0].toUpperCase()}${name.slice(1)}`;
export const strikeId = (move: Name) => idFor('strike', move);

export function optionOf({ options }: ChoiceDocument, id: Name): OptionDocument | undefined {
  return options.find((option) => option.id === id);
}

/** To two decimals, so that files hold no 0.30000000000000004. */
export const round = (value: number) => Math.round(value * 100) / 100;

/** The action an option of a form does; undefined where the option is gone. */
export function actionOf(choice: ChoiceDocument, id: Name): Partial<ActionDocument> | undefined {
  return optionOf(choice, id)?.does as Partial<ActionDocument> | undefined;
}

export const share = (name: string, label: string, about: string, usual: number): FormField => ({
  name,
  label,
  about,
  unit: '',
  minimum: 0,
  maximum: 1,
  step: 0.05,
  usual,
});
