import {
  CONSIDERATION_FIELDS,
  CURVES,
  CURVE_SHAPES,
  freshCurve,
  RANGE_FIELDS,
  specsOf,
  STRAIGHT,
  type ChoiceDocument,
  type ConsiderationDocument,
  type CurveDocument,
  type CurveShape,
  type NumberSpec,
} from '@crooked-lantern/core';
import styled from 'styled-components';
import { ArrowLeft, Trash2 } from 'lucide-react';
import { ExpressionField } from '../../expression/expression-field.tsx';
import { RowFindings } from '../../findings/row-findings.tsx';
import { Buttons, PartTitle, Trouble } from '../../minds/sheet-layout.ts';
import { TierValues } from '../../project/tier-values.tsx';
import { SideSheet } from '../layout.ts';
import type { Editing } from '../../state/use-edit.ts';
import { Button } from '../../ui/button.tsx';
import {
  checkTitle,
  ChoiceField,
  FlagField,
  NumberField,
  Row,
  Rows,
} from '../../ui/fields/fields.tsx';
import { InlineText } from '../../ui/fields/inline-text.tsx';
import { NoteText } from '../../ui/fields/note-text.tsx';
import { CurvePlot } from './curve-plot.tsx';
import { flatShare } from './curve-path.ts';
import { useChoicePast } from '../use-past.ts';
import type { Weighing } from '../use-weighing.ts';
import { inputOf, optionTitle, rangeOf } from '../words.ts';

/** Points as text: `0 0, 0.5 0.8, 1 1`. */
function pointsText(points: readonly [number, number][]): string {
  return points.map(([x, y]) => `${x} ${y}`).join(', ');
}

function readPoints(text: string): [number, number][] {
  return text.split(',').map((pair) => {
    const [x = NaN, y = NaN] = pair.trim().split(/\s+/).map(Number);
    return [x, y];
  });
}

function checkPoints(text: string): string | null {
  const points = readPoints(text);
  const fits = points.every(([x, y]) => x >= 0 && x <= 1 && y >= 0 && y <= 1);
  if (!fits || points.length < 2)
    return 'It takes pairs of numbers from 0 to 1: 0 0, 0.5 0.8, 1 1.';
  return points.every(([x], i) => i === 0 || x > points[i - 1][0])
    ? null
    : 'The points go from left to right.';
}

const Formula = styled.code`
  color: var(--mute);
  font-family: var(--mono);
`;

/** The numbers of a curve. */
function CurveFields({
  curve,
  of,
  path,
  onChange,
}: {
  curve: CurveDocument;
  of: string;
  path: string;
  onChange: (curve: CurveDocument) => void;
}) {
  const specs = Object.entries(specsOf(CURVES[curve.shape])) as [string, NumberSpec][];
  const values = curve as unknown as Record<string, number | undefined>;
  return (
    <>
      <ChoiceField
        label="Curve"
        of={of}
        value={curve.shape}
        options={CURVE_SHAPES.map((id) => ({ id, title: CURVES[id].title }))}
        onChoose={(shape) => onChange(freshCurve(shape as CurveShape))}
      />
      <Row label="Formula">
        <Formula>y = {CURVES[curve.shape].formula}</Formula>
      </Row>
      {specs.map(([field, spec]) => (
        <NumberField
          key={field}
          spec={spec}
          of={`the curve of ${of}`}
          value={values[field] ?? (typeof spec.usual === 'number' ? spec.usual : undefined)}
          onCommit={(value) => onChange({ ...curve, [field]: value } as CurveDocument)}
        >
          <TierValues path={`${path}.${field}`} />
        </NumberField>
      ))}
      {curve.shape === 'points' && (
        <Row label="Points">
          <InlineText
            mono
            label={`Points of the curve of ${of}`}
            about="pairs of x and y, both 0 to 1, from left to right"
            value={pointsText(curve.points)}
            check={checkPoints}
            onCommit={(text) => onChange({ shape: 'points', points: readPoints(text) })}
          />
        </Row>
      )}
    </>
  );
}

/** One consideration of one option: what it looks at, and what its curve makes of that. */
export function CurveSheet({
  weighing,
  document,
  consideration,
  editing,
}: {
  weighing: Weighing;
  document: ChoiceDocument;
  consideration: ConsiderationDocument;
  editing: Editing;
}) {
  const { mind, choice, option: at, cell, agent, select } = weighing;
  const option = document.options[at];
  const { put, trouble } = editing;
  const path = ['minds', mind, 'choices', choice, 'options', at, 'considerations', cell];
  const text = `minds.${mind}.choices.${choice}.options[${at}].considerations[${cell}]`;
  const past = useChoicePast(`${agent} ${mind} ${choice} ${option.id} ${cell}`);
  const bins = past?.bins[past.options.indexOf(option.id)]?.[cell] ?? null;
  const { from, to } = rangeOf(document, consideration);
  const curve = consideration.curve ?? STRAIGHT;
  const name = consideration.title ?? consideration.input;
  const flat = bins && flatShare(curve, bins);
  const set = (field: keyof ConsiderationDocument) => (value: unknown) =>
    put([...path, field], value);
  const setCurve = set('curve');
  const inputs = document.inputs ?? {};
  const isNamed = Object.hasOwn(inputs, consideration.input);
  return (
    <SideSheet aria-label={`${name} of ${optionTitle(option)}`}>
      <PartTitle>
        <InlineText
          label={`Title of ${name}`}
          value={consideration.title ?? ''}
          placeholder={consideration.input}
          check={(title) => checkTitle(title, true)}
          onCommit={(title) => set('title')(title.trim() || undefined)}
        />
      </PartTitle>
      <p style={{ color: 'var(--mute)' }}>for {optionTitle(option)}</p>
      <CurvePlot
        curve={curve}
        from={from}
        to={to}
        bins={bins}
        label={`Curve of ${name} for ${optionTitle(option)}`}
        read={({ choice: readout }) => {
          const rows = readout?.options.find(({ id }) => id === option.id)?.rows ?? [];
          const row =
            rows.find(({ runs }) => runs) ??
            rows.reduce<(typeof rows)[number] | undefined>(
              (most, each) => (most && most.score >= each.score ? most : each),
              undefined,
            );
          const now = row?.cells[cell];
          return now && now.value !== null ? { value: now.value, x: now.x, y: now.y } : null;
        }}
        onChange={setCurve}
      />
      <p style={{ color: 'var(--mute)', minHeight: '1.5em' }}>
        {flat === null
          ? 'Nothing has been asked yet.'
          : `Bars: what was asked in the last seconds. ${Math.round(flat * 100)} % fell where the curve is flat.`}
      </p>
      <Rows>
        <Row label="Input">
          {isNamed && <>{consideration.input} = </>}
          <ExpressionField
            mind={mind}
            label={`Input of ${name}`}
            value={inputOf(document, consideration)}
            path={`${text}.input`}
            place={{ number: true, tree: `${choice}.${at}` }}
            onCommit={(source) =>
              isNamed
                ? put(
                    ['minds', mind, 'choices', choice, 'inputs', consideration.input, 'value'],
                    source,
                  )
                : set('input')(source)
            }
          />
        </Row>
        <NumberField
          spec={RANGE_FIELDS.from}
          label="Range from"
          of={name}
          value={from}
          onCommit={(value) => set('from')(value)}
        >
          <TierValues path={`${text}.from`} />
        </NumberField>
        <NumberField
          spec={RANGE_FIELDS.to}
          label="Range to"
          of={name}
          value={to}
          onCommit={(value) => set('to')(value)}
        >
          <TierValues path={`${text}.to`} />
        </NumberField>
        <CurveFields curve={curve} of={name} path={`${text}.curve`} onChange={setCurve} />
        <NumberField
          spec={CONSIDERATION_FIELDS.importance}
          of={name}
          value={consideration.importance ?? CONSIDERATION_FIELDS.importance.usual}
          onCommit={(value) => set('importance')(value)}
        >
          <TierValues path={`${text}.importance`} />
        </NumberField>
        <FlagField
          label={CONSIDERATION_FIELDS.veto.label}
          of={name}
          value={consideration.veto === true}
          onChange={(value) => set('veto')(value ? true : undefined)}
        >
          {' '}
          <small>{CONSIDERATION_FIELDS.veto.about}</small>
        </FlagField>
      </Rows>
      <NoteText
        label={`Note on ${name}`}
        note={consideration.note}
        onCommit={(note) => set('note')(note)}
      />
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      <RowFindings path={text} />
      <Buttons>
        <Button onPress={() => select({ cell: null })}>
          <ArrowLeft size={14} /> {optionTitle(option)}
        </Button>
        <Button
          onPress={() => {
            const left = option.considerations!.filter((_, i) => i !== cell);
            if (put(path.slice(0, -1), left.length > 0 ? left : undefined)) select({ cell: null });
          }}
        >
          <Trash2 size={14} /> Remove it from this option
        </Button>
      </Buttons>
    </SideSheet>
  );
}
