import type { ReactNode } from 'react';
import styled from 'styled-components';
import { QuietButton, Toggle } from './button.tsx';
import { checkNumber, InlineText } from './inline-text.tsx';
import { Menu } from './menu.tsx';

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

export function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <>
      <dt>{label}</dt>
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

export interface NumberFieldProps extends FieldProps {
  value: number;
  /** Shown in place of the value while it is not edited. */
  shown?: string;
  unit?: string;
  minimum: number;
  maximum: number;
  whole?: boolean;
  onCommit: (value: number) => void;
}

export function NumberField({
  label,
  of,
  value,
  shown,
  unit,
  minimum,
  maximum,
  whole,
  onCommit,
  children,
}: NumberFieldProps) {
  return (
    <Row label={label}>
      <InlineText
        mono
        label={`${label} of ${of}`}
        value={Number.isFinite(value) ? String(value) : ''}
        shown={shown}
        check={checkNumber(minimum, maximum, whole)}
        onCommit={(text) => onCommit(Number(text))}
      />
      {unit && <Unit>{unit}</Unit>}
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
      <InlineText
        mono
        label={`Seed of ${of}`}
        value={value === undefined ? '' : String(value)}
        placeholder="as the project says"
        check={(text) => (text === '' ? null : checkNumber(0, Number.MAX_SAFE_INTEGER, true)(text))}
        onCommit={(text) => onCommit(text === '' ? undefined : Number(text))}
      />
    </Row>
  );
}
