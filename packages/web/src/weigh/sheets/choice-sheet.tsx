import {
  CHOICE_FIELDS,
  RANGE_FIELDS,
  namesOf,
  type ChoiceDocument,
  type NumberSpec,
} from '@crooked-lantern/core';
import { Plus } from 'lucide-react';
import { Suspense } from 'react';
import styled from 'styled-components';
import { ExpressionField } from '../../expression/expression-field.tsx';
import { CopyButton } from '../../minds/copy-button.tsx';
import { Mentions, useMentions } from '../../minds/mentions.tsx';
import { RowFindings } from '../../findings/row-findings.tsx';
import { PartTitle, Trouble } from '../../minds/sheet-layout.ts';
import { TierValues } from '../../project/tier-values.tsx';
import { SideSheet } from '../layout.ts';
import type { Editing } from '../../state/use-edit.ts';
import { QuietButton, RemoveButton } from '../../ui/button.tsx';
import {
  checkName,
  checkTitle,
  ChoiceField,
  FlagField,
  NumberField,
  Rows,
} from '../../ui/fields/fields.tsx';
import { InlineText } from '../../ui/fields/inline-text.tsx';
import { NoteText } from '../../ui/fields/note-text.tsx';
import { NumberText } from '../../ui/fields/number-text.tsx';
import { SimpleFormSection } from './simple-form.tsx';
import { useChoicePast } from '../use-past.ts';
import type { Weighing } from '../use-weighing.ts';
import { optionTitle, tintOf } from '../words.ts';
import { latePart } from '../../loading/late-part.tsx';

const ScoreChart = latePart('the chart', () =>
  import('../score-chart.tsx').then((file) => file.default),
);

const Shares = styled.ul`
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 2px 8px;
  align-items: center;
  li {
    display: contents;
  }
  i {
    height: 10px;
    border-radius: 3px;
  }
  b {
    font-family: var(--mono);
    font-weight: 400;
    text-align: right;
  }
`;

/** How the last seconds went: shares of picks, ties, and scores over time. */
function Past({ weighing, document }: { weighing: Weighing; document: ChoiceDocument }) {
  const past = useChoicePast(`${weighing.agent} ${weighing.mind} ${weighing.choice}`);
  const samples = past?.running.length ?? 0;
  if (!past || samples === 0 || past.options.length === 0) return null;
  const titles = past.options.map((id) => {
    const option = document.options.find((each) => each.id === id);
    return option ? optionTitle(option) : id;
  });
  const ran = titles.map((_, place) => past.running.filter((running) => running === place).length);
  const width = past.options.length;
  let ties = 0;
  let near = 0;
  for (let i = 0; i < samples; i++) {
    const row = [...past.scores.subarray(i * width, (i + 1) * width)]
      .filter((score) => score === score)
      .sort((a, b) => b - a);
    const behind = row[0] - row[1];
    if (behind <= 1e-6) ties++;
    else if (behind <= 0.02) near++;
  }
  const share = (count: number) => `${Math.round((100 * count) / samples)} %`;
  return (
    <section aria-label="The last seconds">
      <h3>Share of picks</h3>
      <Shares>
        {titles.map((title, place) => (
          <li key={past.options[place]}>
            <span>{title}</span>
            <i
              style={{ width: `${(100 * ran[place]) / samples}%`, background: tintOf(place) }}
              aria-hidden="true"
            />
            <b>{share(ran[place])}</b>
          </li>
        ))}
      </Shares>
      <p style={{ color: 'var(--mute)' }}>
        {ties === 0 && near === 0
          ? 'No ties.'
          : `The two best scored the same in ${share(ties)} of this time, and were within 0.02 of each other in ${share(near)}.`}
      </p>
      <h3>Scores over time</h3>
      <Suspense fallback={<div aria-busy style={{ height: 150 }} />}>
        <ScoreChart past={past} titles={titles} />
      </Suspense>
    </section>
  );
}

/** Inputs that several options look at, under a name. */
function Inputs({
  weighing: { mind, choice },
  document,
  editing: { put },
}: {
  weighing: Weighing;
  document: ChoiceDocument;
  editing: Editing;
}) {
  const inputs = document.inputs ?? {};
  const at = ['minds', mind, 'choices', choice, 'inputs'];
  const fresh = () => {
    let name = 'input';
    for (let i = 2; Object.hasOwn(inputs, name); i++) name = `input${i}`;
    return name;
  };
  return (
    <section aria-label="Named inputs">
      <h3>Named inputs</h3>
      {namesOf(inputs).map((name) => (
        <div key={name}>
          <code>{name}</code> ={' '}
          <ExpressionField
            mind={mind}
            label={`Value of ${name}`}
            value={inputs[name].value}
            path={`minds.${mind}.choices.${choice}.inputs.${name}.value`}
            place={{ number: true }}
            onCommit={(value) => put([...at, name, 'value'], value)}
          />
          {(['from', 'to'] as const).map((end) => (
            <span key={end}>
              {end}{' '}
              <NumberText
                label={`${RANGE_FIELDS[end].label} of ${name}`}
                spec={RANGE_FIELDS[end]}
                value={inputs[name][end] ?? RANGE_FIELDS[end].usual}
                onCommit={(value) => put([...at, name, end], value)}
              />{' '}
            </span>
          ))}
          <NoteText
            label={`Note on ${name}`}
            note={inputs[name].note}
            onCommit={(note) => put([...at, name, 'note'], note)}
          />
          <RemoveButton
            label={`Remove the input ${name}`}
            onPress={() => {
              const { [name]: _, ...left } = inputs;
              put(at, Object.keys(left).length > 0 ? left : undefined);
            }}
          />
        </div>
      ))}
      <QuietButton
        style={{ minHeight: 24 }}
        onPress={() => put([...at, fresh()], { value: 'self.healthShare', from: 0, to: 1 })}
      >
        <Plus size={13} /> Add a named input
      </QuietButton>
    </section>
  );
}

/** The choice as a whole: when it weighs, how it combines and picks, and how it went lately. */
export function ChoiceSheet({
  weighing,
  document,
  editing,
}: {
  weighing: Weighing;
  document: ChoiceDocument;
  editing: Editing;
}) {
  const { mind, choice, select } = weighing;
  const { put, run, trouble } = editing;
  const mentions = useMentions(mind, 'choices', choice);
  const name = document.title ?? choice;
  const set = (field: keyof ChoiceDocument) => (value: unknown) =>
    put(['minds', mind, 'choices', choice, field], value);
  const number = (field: 'margin' | 'every' | 'commitment' | 'minDuration' | 'minScore') => {
    const spec: NumberSpec & { usual: number } = CHOICE_FIELDS[field];
    return (
      <NumberField
        spec={spec}
        of={name}
        value={document[field] ?? spec.usual}
        onCommit={set(field)}
      >
        <TierValues path={`minds.${mind}.choices.${choice}.${field}`} />
      </NumberField>
    );
  };
  const choose = (field: 'combine' | 'pick') => {
    const { label, options, usual, about } = CHOICE_FIELDS[field];
    return (
      <ChoiceField
        label={label}
        of={name}
        value={document[field] ?? usual}
        options={options.map((id) => ({ id, title: id }))}
        onChoose={(id) => set(field)(id)}
      >
        <small style={{ display: 'block', color: 'var(--mute)' }}>{about}</small>
      </ChoiceField>
    );
  };
  return (
    <SideSheet aria-label={`Choice ${name}`}>
      <PartTitle>
        <InlineText
          label={`Title of ${name}`}
          value={name}
          check={(title) => checkTitle(title)}
          onCommit={(title) => set('title')(title.trim())}
        />
      </PartTitle>
      <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap', color: 'var(--mute)' }}>
        <span>
          choice{' '}
          <InlineText
            mono
            label={`Name of ${name} in the file`}
            value={choice}
            check={checkName(choice, { [choice]: true })}
            onCommit={(to) => {
              if (run({ command: 'renameInMind', mind, part: 'choices', name: choice, to }))
                select({ choice: to });
            }}
          />
          {' · '}
          <Mentions verb="called" mentions={mentions} />
        </span>
        <CopyButton what={`choice ${name}`} mind={mind} content={{ choice }} />
      </div>
      <NoteText label={`Note on ${name}`} note={document.note} onCommit={set('note')} />
      <SimpleFormSection weighing={weighing} document={document} editing={editing} />
      <Past weighing={weighing} document={document} />
      <h3 style={{ marginTop: 10 }}>How it weighs</h3>
      <Rows>
        {number('every')}
        {number('commitment')}
        {number('minDuration')}
        {number('minScore')}
        {choose('combine')}
        {choose('pick')}
        {document.pick === 'weighted' && number('margin')}
        <FlagField
          label={CHOICE_FIELDS.once.label}
          of={name}
          value={document.once === true}
          onChange={(value) => set('once')(value ? true : undefined)}
        >
          {' '}
          <small>{CHOICE_FIELDS.once.about}</small>
        </FlagField>
      </Rows>
      <Inputs weighing={weighing} document={document} editing={editing} />
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      <RowFindings path={`minds.${mind}.choices.${choice}`} own />
    </SideSheet>
  );
}
