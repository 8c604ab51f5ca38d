import { GRADE_FIELDS, namesOf, type GradeDocument } from '@crooked-lantern/core';
import { Plus } from 'lucide-react';
import { RowFindings } from '../../findings/row-findings.tsx';
import { TierValues } from '../../project/tier-values.tsx';
import { useProject } from '../../state/store.ts';
import { QuietButton, RemoveButton } from '../../ui/button.tsx';
import { Choice } from '../../ui/fields/fields.tsx';
import { NoteText } from '../../ui/fields/note-text.tsx';
import { NumberText } from '../../ui/fields/number-text.tsx';
import type { FieldsProps } from './option-sheet.tsx';
import { optionTitle } from '../words.ts';

/** Rows such as “when close and worn: 0.8”. */
export function GradedRows({ mind, choice, at, option, put }: FieldsProps) {
  const bands = useProject(({ document }) => document.bands) ?? {};
  const grades = option.grades ?? [];
  const name = optionTitle(option);
  const sets = namesOf(bands);
  const set = (index: number, change: Partial<GradeDocument>) =>
    put(
      'grades',
      grades.map((grade, i) => (i === index ? { ...grade, ...change } : grade)),
    );
  const [first] = sets;
  return (
    <section aria-label={`Graded rows of ${name}`}>
      <h3>What makes it strong</h3>
      {sets.length === 0 && (
        <p>Graded rows speak of bands: make a band set first, in the list on the left.</p>
      )}
      {grades.map((grade, i) => (
        <div key={i}>
          when{' '}
          {namesOf(grade.when).map((setName, k) => (
            <span key={setName}>
              {k > 0 && ' and '}
              {bands[setName]?.title ?? setName} is{' '}
              <Choice
                label={`Band of ${setName} in row ${i + 1} of ${name}`}
                value={grade.when[setName]}
                options={[
                  ...(bands[setName]?.bands ?? []).map((band) => ({
                    id: band.name,
                    title: band.name,
                  })),
                  { id: '', title: 'any' },
                ]}
                onChoose={(band) => {
                  const { [setName]: _, ...rest } = grade.when;
                  set(i, { when: band === '' ? rest : { ...rest, [setName]: band } });
                }}
              />
            </span>
          ))}
          {sets.some((setName) => !Object.hasOwn(grade.when, setName)) && (
            <Choice
              label={`Another band in row ${i + 1} of ${name}`}
              value="and …"
              options={sets.flatMap((setName) =>
                Object.hasOwn(grade.when, setName)
                  ? []
                  : bands[setName].bands.map((band) => ({
                      id: `${setName} ${band.name}`,
                      title: `${bands[setName].title ?? setName} is ${band.name}`,
                    })),
              )}
              onChoose={(chosen) => {
                const [setName, band] = chosen.split(' ');
                set(i, { when: { ...grade.when, [setName]: band } });
              }}
            />
          )}
          :{' '}
          <NumberText
            label={`Strength of row ${i + 1} of ${name}`}
            about={GRADE_FIELDS.strength.about}
            spec={GRADE_FIELDS.strength}
            value={grade.strength}
            onCommit={(strength) => set(i, { strength })}
          />
          <TierValues
            path={`minds.${mind}.choices.${choice}.options[${at}].grades[${i}].strength`}
          />
          <RemoveButton
            label={`Remove row ${i + 1} of ${name}`}
            onPress={() => {
              const left = grades.filter((_, k) => k !== i);
              put('grades', left.length > 0 ? left : undefined);
            }}
          />
          <NoteText
            label={`Note on row ${i + 1} of ${name}`}
            note={grade.note}
            onCommit={(note) => {
              const { note: _, ...rest } = grade;
              put(
                'grades',
                grades.map((each, k) =>
                  k === i ? { ...rest, ...(note !== undefined && { note }) } : each,
                ),
              );
            }}
          />
          <RowFindings path={`minds.${mind}.choices.${choice}.options[${at}].grades[${i}]`} />
        </div>
      ))}
      {first !== undefined && (
        <QuietButton
          style={{ minHeight: 24 }}
          onPress={() =>
            put('grades', [
              ...grades,
              {
                when: { [first]: bands[first].bands[0].name },
                strength: 0.5,
              } satisfies GradeDocument,
            ])
          }
        >
          <Plus size={13} /> Add a row
        </QuietButton>
      )}
    </section>
  );
}
