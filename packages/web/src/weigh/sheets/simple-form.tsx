import {
  repertoireOf,
  SIMPLE_FORMS,
  simpleFormOf,
  usualValues,
  writeSimpleForm,
  type ChoiceDocument,
  type FormField,
  type FormValues,
  type SimpleForm,
} from '@crooked-lantern/core';
import { useMemo } from 'react';
import styled from 'styled-components';
import { useProject } from '../../state/store.ts';
import type { Editing } from '../../state/use-edit.ts';
import { Button } from '../../ui/button.tsx';
import { NumberText } from '../../ui/fields/number-text.tsx';
import { SliderField } from '../../ui/fields/slider-field.tsx';
import type { Weighing } from '../use-weighing.ts';
import { optionTitle, writtenWords } from '../words.ts';

/** Simple forms: a few numbers from which a choice is written, and what they write. */

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th {
    color: var(--mute);
    font-weight: 400;
    text-align: left;
  }
  th,
  td {
    padding: 2px 8px 2px 0;
    border-bottom: 1px solid var(--line);
  }
`;

const Ways = styled.ul`
  display: grid;
  gap: 10px;
  margin: 12px 0;
  padding: 0;
  list-style: none;
  p {
    margin: 3px 0 0;
  }
`;

interface FieldsProps {
  fields: readonly FormField[];
  values: FormValues;
  of: string;
  onSet: (name: string, value: number) => void;
}

/** Fields that belong to a table: rows down, columns across. */
function FieldTable({ fields, values, of, onSet }: FieldsProps) {
  const rows = [...new Set(fields.map(({ cell }) => cell!.row))];
  const columns = [...new Set(fields.map(({ cell }) => cell!.column))];
  return (
    <Table aria-label={`Weights of ${of}`}>
      <thead>
        <tr>
          <th scope="col">Option</th>
          {columns.map((column) => (
            <th key={column} scope="col">
              {column}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row}>
            <th scope="row">{row}</th>
            {columns.map((column) => {
              const field = fields.find(({ cell }) => cell!.row === row && cell!.column === column);
              if (!field) return <td key={column} />;
              return (
                <td key={column}>
                  <NumberText
                    label={field.label}
                    about={field.about}
                    spec={field}
                    value={values[field.name]}
                    onCommit={(value) => onSet(field.name, value)}
                  />
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

/** The form a choice is the same as, with its numbers to change; nothing where it is no such thing. */
export function SimpleFormSection({
  weighing: { mind, choice },
  document,
  editing,
}: {
  weighing: Weighing;
  document: ChoiceDocument;
  editing: Editing;
}) {
  const project = useProject((slot) => slot.document);
  const found = useMemo(() => simpleFormOf(project, { mind, choice }), [project, mind, choice]);
  if (!found) return null;
  const { form, values } = found;
  const name = document.title ?? choice;
  const fields = form.fields(repertoireOf(project, mind));
  const set = (field: string, value: number) =>
    editing.run((latest) =>
      writeSimpleForm(latest, { mind, choice }, form, { ...values, [field]: value }),
    );
  const alone = fields.filter(({ cell }) => !cell);
  const inTable = fields.filter(({ cell }) => cell);
  const titleOf = (bands: string) => project.bands?.[bands]?.title ?? bands;
  return (
    <section aria-label={form.title}>
      <h3>{form.title}</h3>
      <p style={{ color: 'var(--mute)' }}>{form.about}</p>
      {alone.map((field) => (
        <SliderField
          key={field.name}
          label={field.label}
          about={field.about}
          unit={field.unit}
          bounds={field}
          value={values[field.name]}
          onCommit={(value) => set(field.name, value)}
        />
      ))}
      {inTable.length > 0 && <FieldTable fields={inTable} values={values} of={name} onSet={set} />}
      <details>
        <summary>What is written</summary>
        <ul>
          {document.options.map((option) => (
            <li key={option.id}>
              {optionTitle(option)}
              {option.when ? (
                <>
                  , if <code>{option.when}</code>
                </>
              ) : null}
              : {writtenWords(option, titleOf)}
            </li>
          ))}
        </ul>
        <p style={{ color: 'var(--mute)' }}>
          It is an ordinary choice: change any of it by hand, and it is yours; the form goes then.
        </p>
      </details>
    </section>
  );
}

/** Ways to begin an empty choice other than option by option. */
export function BeginWith({
  weighing: { mind, choice },
  editing,
}: {
  weighing: Weighing;
  editing: Editing;
}) {
  const begin = (form: SimpleForm) =>
    editing.run((latest) =>
      writeSimpleForm(
        latest,
        { mind, choice },
        form,
        usualValues(form, repertoireOf(latest, mind)),
      ),
    );
  return (
    <Ways aria-label="Begin with">
      {SIMPLE_FORMS.map((form) => (
        <li key={form.id}>
          <Button onPress={() => begin(form)}>Begin with: {form.title.toLowerCase()}</Button>
          <p>{form.about}</p>
        </li>
      ))}
    </Ways>
  );
}
