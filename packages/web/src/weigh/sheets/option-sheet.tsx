import {
  namesOf,
  OPTION_COST,
  OPTION_FIELDS,
  OPTION_WEIGHT,
  PLACES_FIELDS,
  STANCES,
  THING_KINDS,
  type ChoiceDocument,
  type EachDocument,
  type NumberSpec,
  type OptionDocument,
  renameOption,
  type ProjectDocument,
  freshGuard,
} from '@crooked-lantern/core';
import { ArrowLeft, Plus } from 'lucide-react';
import { Suspense } from 'react';
import { ExpressionField } from '../../expression/expression-field.tsx';
import { RowFindings } from '../../findings/row-findings.tsx';
import { Buttons, PartTitle, Trouble } from '../../minds/sheet-layout.ts';
import { TierValues } from '../../project/tier-values.tsx';
import { SideSheet } from '../layout.ts';
import { runInBackground } from '../../state/failures.ts';
import { useDocumentNow, useProject } from '../../state/store.ts';
import type { Editing } from '../../state/use-edit.ts';
import { Button, QuietButton } from '../../ui/button.tsx';
import {
  checkName,
  checkTitle,
  Choice,
  FlagField,
  NumberField,
  Row,
  Rows,
} from '../../ui/fields/fields.tsx';
import { InlineText } from '../../ui/fields/inline-text.tsx';
import { NoteText } from '../../ui/fields/note-text.tsx';
import { NumberText, readNumber } from '../../ui/fields/number-text.tsx';
import { GradedRows } from './graded-rows.tsx';
import { HeatMap } from '../heat-map.tsx';
import type { Weighing } from '../use-weighing.ts';
import { optionTitle } from '../words.ts';
import { Outline } from '../../minds/outline/late-outline.ts';

// Loaded beside this place and not with the first option: what stands below it would move under the pointer.
runInBackground(Outline.prepare());

type Put = (field: keyof OptionDocument, value: unknown) => boolean;

export interface FieldsProps {
  mind: string;
  choice: string;
  at: number;
  option: OptionDocument;
  put: Put;
}

/** A number, or an expression for one. */
function NumberOrExpressionRow({
  mind,
  choice,
  at,
  option,
  put,
  field,
  spec,
}: FieldsProps & { field: 'weight' | 'cost'; spec: NumberSpec }) {
  const value = option[field];
  const name = optionTitle(option);
  return (
    <Row label={spec.label}>
      {typeof value === 'string' ? (
        <ExpressionField
          mind={mind}
          label={`${spec.label} of ${name}`}
          value={value}
          path={`minds.${mind}.choices.${choice}.options[${at}].${field}`}
          place={{ number: true, tree: `${choice}.${at}` }}
          onCommit={(source) => {
            const number = readNumber(source);
            put(field, Number.isNaN(number) ? source : number);
          }}
          onClear={() => {
            put(field, undefined);
            return null;
          }}
        />
      ) : (
        <InlineText
          mono
          label={`${spec.label} of ${name}`}
          about={`${spec.about}; a number or an expression`}
          value={String(value ?? spec.usual)}
          onCommit={(text) => {
            const number = readNumber(text);
            put(
              field,
              text.trim() === '' ? undefined : Number.isNaN(number) ? text.trim() : number,
            );
          }}
        />
      )}
      <TierValues path={`minds.${mind}.choices.${choice}.options[${at}].${field}`} />
    </Row>
  );
}

const EACH_KINDS = [
  { id: 'none', title: 'nothing: once' },
  { id: 'agents', title: 'each agent it knows of' },
  { id: 'things', title: 'each thing of one kind' },
  { id: 'list', title: 'each entry of a list' },
  { id: 'places', title: 'each place around' },
] as const;
type EachKind = (typeof EACH_KINDS)[number]['id'];

function kindOfEach(each: EachDocument | undefined): EachKind {
  if (!each) return 'none';
  return EACH_KINDS.find(({ id }) => id in each)?.id ?? 'none';
}

/** What an option is weighed for. */
function EachRow({ mind, choice, at, option, put }: FieldsProps) {
  const memory = useProject(({ document }) => document.minds[mind].memory) ?? {};
  const { each } = option;
  const name = optionTitle(option);
  const lists = namesOf(memory).filter((key) => memory[key].type.startsWith('list'));
  const set = (change: object) => put('each', { ...each, ...change });
  const fresh: Record<EachKind, EachDocument | undefined> = {
    none: undefined,
    agents: { as: 'foe', agents: 'hostile' },
    things: { as: 'it', things: 'basket' },
    list: { as: 'one', list: lists[0] ?? '' },
    places: { as: 'there', places: 16, within: 5 },
  };
  const kinds = EACH_KINDS.filter(({ id }) => id !== 'list' || lists.length > 0);
  return (
    <Row label="Weighed for">
      <Choice
        label={`What ${name} is weighed for`}
        value={kindOfEach(each)}
        options={kinds}
        onChoose={(kind) => put('each', fresh[kind as EachKind])}
      />
      {each && 'agents' in each && (
        <Choice
          label={`Stance of the agents ${name} is weighed for`}
          value={each.agents}
          options={STANCES.map((id) => ({ id, title: id }))}
          onChoose={(agents) => set({ agents })}
        />
      )}
      {each && 'things' in each && (
        <Choice
          label={`Kind of the things ${name} is weighed for`}
          value={each.things}
          options={THING_KINDS.map((id) => ({ id, title: id }))}
          onChoose={(things) => set({ things })}
        />
      )}
      {each && 'list' in each && (
        <Choice
          label={`List ${name} is weighed for`}
          value={each.list}
          options={lists.map((id) => ({ id, title: id }))}
          onChoose={(list) => set({ list })}
        />
      )}
      {each && 'places' in each && (
        <div>
          {(['places', 'within'] as const).map((field) => (
            <span key={field}>
              {PLACES_FIELDS[field].label.toLowerCase()}{' '}
              <NumberText
                label={`${PLACES_FIELDS[field].label} of ${name}`}
                spec={PLACES_FIELDS[field]}
                value={each[field]}
                onCommit={(value) => set({ [field]: value })}
              />{' '}
            </span>
          ))}
          around
          <ExpressionField
            mind={mind}
            label={`Middle of the places of ${name}`}
            value={each.around ?? 'self.place'}
            path={`minds.${mind}.choices.${choice}.options[${at}].each.around`}
            place={{ argument: 'point' }}
            onCommit={(around) => set({ around })}
          />
        </div>
      )}
      {each && (
        <div>
          each is called{' '}
          <InlineText
            mono
            label={`Name of what ${name} is weighed for`}
            value={each.as}
            check={checkName(each.as, memory)}
            onCommit={(as) => set({ as })}
          />
        </div>
      )}
      <RowFindings path={`minds.${mind}.choices.${choice}.options[${at}].each`} />
    </Row>
  );
}

/** One option: when it competes, how much it counts, what it does, and what it would be worth elsewhere. */
export function OptionSheet({
  weighing,
  document,
  option,
  editing,
}: {
  weighing: Weighing;
  document: ChoiceDocument;
  option: OptionDocument;
  editing: Editing;
}) {
  const { mind, choice, option: at, select } = weighing;
  const { put: putAt, trouble } = editing;
  const documentNow = useDocumentNow();
  const name = optionTitle(option);
  const path = ['minds', mind, 'choices', choice, 'options', at];
  const text = `minds.${mind}.choices.${choice}.options[${at}]`;
  const put: Put = (field, value) => putAt([...path, field], value);
  const fields: FieldsProps = { mind, choice, at, option, put };
  const ids = Object.fromEntries(document.options.map(({ id }) => [id, true]));
  return (
    <SideSheet aria-label={`Option ${name}`}>
      <PartTitle>
        <InlineText
          label={`Title of ${name}`}
          value={name}
          check={(title) => checkTitle(title)}
          onCommit={(title) => put('title', title.trim())}
        />
      </PartTitle>
      <span style={{ color: 'var(--mute)' }}>
        option{' '}
        <InlineText
          mono
          label={`Id of ${name}`}
          value={option.id}
          check={checkName(option.id, ids)}
          onCommit={(id) => {
            const rename = (now: ProjectDocument) => renameOption(now, { mind, choice }, at, id);
            if (editing.run(rename)) select({ option: id });
          }}
        />
      </span>
      <div>
        <NoteText
          label={`Note on ${name}`}
          note={option.note}
          onCommit={(note) => put('note', note)}
        />
      </div>
      <Rows>
        <Row label="When">
          {option.when === undefined ? (
            <QuietButton
              style={{ minHeight: 24 }}
              onPress={() => put('when', freshGuard(documentNow(), mind))}
            >
              <Plus size={13} /> Add a guard
            </QuietButton>
          ) : (
            <ExpressionField
              mind={mind}
              label={`Guard of ${name}`}
              value={option.when}
              path={`${text}.when`}
              place={{ guard: true, tree: `${choice}.${at}` }}
              onCommit={(when) => put('when', when)}
              onClear={() => {
                put('when', undefined);
                return null;
              }}
            />
          )}
        </Row>
        {option.when !== undefined && (
          <FlagField
            label={OPTION_FIELDS.conduct.label}
            of={name}
            value={option.conduct === true}
            onChange={(on) => put('conduct', on ? true : undefined)}
          />
        )}
        <EachRow {...fields} />
        <NumberField
          spec={OPTION_FIELDS.rank}
          of={name}
          value={option.rank ?? OPTION_FIELDS.rank.usual}
          onCommit={(rank) => put('rank', rank)}
        >
          <TierValues path={`${text}.rank`} />
        </NumberField>
        <NumberOrExpressionRow {...fields} field="weight" spec={OPTION_WEIGHT} />
        <NumberOrExpressionRow {...fields} field="cost" spec={OPTION_COST} />
        <NumberField
          spec={OPTION_FIELDS.cooldown}
          of={name}
          value={option.cooldown ?? OPTION_FIELDS.cooldown.usual}
          onCommit={(cooldown) => put('cooldown', cooldown)}
        >
          <TierValues path={`${text}.cooldown`} />
        </NumberField>
      </Rows>
      {document.combine === 'graded' && <GradedRows {...fields} />}
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      <h3>What it does</h3>
      {option.does ? (
        <Suspense fallback={<div aria-busy />}>
          <Outline
            mind={mind}
            activity={{ choice }}
            only={[...path, 'does']}
            label={`What ${name} does`}
            place={name}
          />
        </Suspense>
      ) : (
        <Button onPress={() => put('does', { do: 'wait', seconds: 1 })}>
          <Plus size={14} /> Say what it does
        </Button>
      )}
      <HeatMap weighing={weighing} option={option} />
      <Buttons>
        <Button onPress={() => select({ option: null })}>
          <ArrowLeft size={14} /> The choice as a whole
        </Button>
      </Buttons>
    </SideSheet>
  );
}
