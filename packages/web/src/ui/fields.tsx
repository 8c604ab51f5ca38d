import { SEED, type NumberSpec } from '@crooked-lantern/core';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { QuietButton, Toggle } from './button.tsx';
import { Menu } from './menu.tsx';
import { NumberText, OptionalNumberText } from './number-text.tsx';

/** Rows of a form: what it is on the left, its value on the right. */
export const Rows = styled.dl`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 3px 10px;
  margin: 10px 0;
  align-items: baseline;
  dt {
    color: var(--mute);
  }
  dd {
    margin: 0;
  }
`;

const Unit = styled.span`
  margin-left: 0.2em;
  color: var(--mute);
`;

export function Row({
  label,
  about,
  children,
}: {
  label: string;
  /** What it is, in a few words. */
  about?: string;
  children: ReactNode;
}) {
  return (
    <>
      <dt title={about}>{label}</dt>
      <dd>{children}</dd>
    </>
  );
}

interface FieldProps {
  label: string;
  /** Whose field it is, for readers. */
  of: string;
  /** What follows the value. */
  children?: ReactNode;
}

export interface NumberFieldProps extends Omit<FieldProps, 'label'> {
  spec: NumberSpec;
  /** Where it is called otherwise here than in general. */
  label?: string;
  value: number | undefined;
  onCommit: (value: number) => void;
}

/** A number as its spec says: name, bounds and unit; where it is left out, what that means. */
export function NumberField({
  spec,
  label = spec.label,
  of,
  value,
  onCommit,
  children,
}: NumberFieldProps) {
  const { none, unit } = spec;
  const isNone = value === undefined && none !== undefined;
  return (
    <Row label={label} about={spec.about}>
      <NumberText
        label={`${label} of ${of}`}
        spec={spec}
        value={value}
        shown={isNone ? none : undefined}
        onCommit={onCommit}
      />
      {unit && !isNone && <Unit>{unit}</Unit>}
      {children}
    </Row>
  );
}

export interface Option {
  id: string;
  title: string;
}

export function ChoiceField({
  label,
  of,
  value,
  options,
  onChoose,
  children,
}: FieldProps & { value: string; options: readonly Option[]; onChoose: (id: string) => void }) {
  return (
    <Row label={label}>
      <Choice label={`${label} of ${of}`} value={value} options={options} onChoose={onChoose} />
      {children}
    </Row>
  );
}

/** One of several, as a button that opens them; `value` is the id of the one in force. */
export function Choice({
  label,
  value,
  options,
  onChoose,
}: {
  label: string;
  value: string;
  options: readonly Option[];
  onChoose: (id: string) => void;
}) {
  const shown = options.find(({ id }) => id === value)?.title ?? (value || '—');
  return (
    <Menu
      label={label}
      entries={options.map(({ id, title }) => ({
        id,
        text: title,
        label: title,
        onAction: () => onChoose(id),
      }))}
    >
      <QuietButton aria-label={`${label}: ${shown}. Choose`} style={{ minHeight: 22 }}>
        {shown}
      </QuietButton>
    </Menu>
  );
}

export function FlagField({
  label,
  of,
  value,
  onChange,
  children,
}: FieldProps & { value: boolean; onChange: (value: boolean) => void }) {
  return (
    <Row label={label}>
      <Toggle aria-label={`${label}: ${of}`} isSelected={value} onChange={onChange}>
        {value ? 'yes' : 'no'}
      </Toggle>
      {children}
    </Row>
  );
}

/** Why a text can't be a title; null where it can. With `optional` it may be empty. */
export function checkTitle(text: string, optional = false): string | null {
  if (optional && text === '') return null;
  return text.trim() === '' || text.length > 80 ? 'It takes 1 to 80 characters.' : null;
}

/** A seed that may be left to the project. */
export function SeedField({
  label = 'Seed',
  of,
  value,
  onCommit,
}: {
  label?: string;
  of: string;
  value: number | undefined;
  onCommit: (value: number | undefined) => void;
}) {
  return (
    <Row label={label}>
      <OptionalNumberText
        label={`Seed of ${of}`}
        spec={SEED}
        value={value}
        placeholder={SEED.none}
        onCommit={onCommit}
      />
    </Row>
  );
}
