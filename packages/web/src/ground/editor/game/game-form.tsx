import {
  DIRECTOR_NAME,
  nameFromWords,
  namesOf,
  pathText,
  numberOf,
  SCORE_FIELDS,
  type DocumentPath,
  type GroundDocument,
} from '@crooked-lantern/core';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { RowFindings } from '../../../findings/row-findings.tsx';
import { useProject } from '../../../state/store.ts';
import { useEdit } from '../../../state/use-edit.ts';
import { RemoveButton } from '../../../ui/button.tsx';
import { checkTitle, ChoiceField, Rows } from '../../../ui/fields/fields.tsx';
import { InlineText } from '../../../ui/fields/inline-text.tsx';
import { AddByTitle } from '../../../ui/fields/add-by-title.tsx';
import { TierValues } from '../../../project/tier-values.tsx';
import { PartName } from '../../../project/part-name.tsx';
import { NumberText } from '../../../ui/fields/number-text.tsx';
import { ScheduleForm } from './schedule-form.tsx';
import { WaveForm } from './wave-form.tsx';

const Game = styled.section`
  margin-top: 14px;
  padding-top: 10px;
  border-top: 1px solid var(--line);
  h3 {
    margin-top: 10px;
    font: 600 1.05rem var(--title);
  }
  h3:first-child {
    margin-top: 0;
  }
  p {
    color: var(--mute);
  }
  > section + section {
    margin-top: 10px;
    padding-top: 8px;
    border-top: 1px dashed var(--line);
  }
`;

const Scores = styled.ul`
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    align-items: baseline;
    gap: 0 10px;
  }
`;

/** The game around those on the ground: its director, modes, scores and waves. */
export function GameForm({ name, ground }: { name: string; ground: GroundDocument }) {
  const { id } = useParams();
  const document = useProject((project) => project.document);
  const { put, trouble } = useEdit();
  const { director, scores = {}, schedule, waves = {} } = ground;
  const at = (...path: DocumentPath): DocumentPath => ['grounds', name, ...path];
  /** Adds to a record that may not be there yet. */
  const add = (part: 'scores' | 'waves', key: string, value: object) =>
    ground[part] ? put(at(part, key), value) : put(at(part), { [key]: value });
  const minds = namesOf(document.minds);
  const archetypes = namesOf(document.archetypes);
  return (
    <Game aria-label="The game">
      <h3>Director</h3>
      <Rows>
        <ChoiceField
          label="Mind"
          of="the director"
          value={director ?? ''}
          options={[
            { id: '', title: 'no director' },
            ...minds.map((mind) => ({ id: mind, title: document.minds[mind].title })),
          ]}
          onChoose={(mind) => put(at('director'), mind || undefined)}
        />
      </Rows>
      {director === undefined ? (
        <p>
          A mind without a body that brings waves, counts points and ends the run.{' '}
          <Link to={`/projects/${id}/minds`}>Write one</Link>, and choose it here.
        </p>
      ) : (
        <Link to={`/projects/${id}/minds/${director}?agent=${DIRECTOR_NAME}`}>
          Open {document.minds[director]?.title ?? director}
        </Link>
      )}
      <RowFindings path={`grounds.${name}.director`} />
      <h3>Modes</h3>
      {!schedule && <p>What holds for every agent for a time, by the clock.</p>}
      <ScheduleForm
        schedule={schedule}
        path={pathText(at('schedule'))}
        onChange={(next) => put(at('schedule'), next)}
      />
      <h3>Scores</h3>
      <Scores aria-label="Scores">
        {namesOf(scores).map((score) => (
          <li key={score}>
            <span>
              <InlineText
                label={`Title of the score ${score}`}
                value={scores[score].title ?? score}
                check={(text) => checkTitle(text)}
                onCommit={(title) => put(at('scores', score, 'title'), title.trim())}
              />{' '}
              <PartName
                label={`Name of the score ${score} in the file`}
                part="scores"
                name={score}
              />
            </span>
            <span>
              starts at{' '}
              <NumberText
                label={`Start of the score ${score}`}
                spec={SCORE_FIELDS.start}
                value={numberOf(scores[score], 'start', SCORE_FIELDS.start)}
                onCommit={(value) =>
                  put(at('scores', score, 'start'), value === 0 ? undefined : value)
                }
              />
              <TierValues path={pathText(at('scores', score, 'start'))} />
            </span>
            <RemoveButton
              label={`Remove the score ${score}`}
              onPress={() => put(at('scores', score), undefined)}
            />
          </li>
        ))}
      </Scores>
      <AddByTitle
        what="score"
        onAdd={(title) => add('scores', nameFromWords(title, scores, 'score'), { title })}
      />
      <h3>Waves</h3>
      {namesOf(waves).length === 0 && <p>Agents of one archetype that come while a run goes on.</p>}
      {namesOf(waves).map((wave) => (
        <WaveForm
          key={wave}
          document={document}
          name={wave}
          set={(field, value) => put(at('waves', wave, field), value)}
          onRemove={() => put(at('waves', wave), undefined)}
        />
      ))}
      <AddByTitle
        what="wave"
        onAdd={(title) =>
          add('waves', nameFromWords(title, waves, 'wave'), {
            title,
            archetype: archetypes[0],
            count: 3,
          })
        }
      />
      {trouble && <p role="alert">{trouble}</p>}
    </Game>
  );
}
