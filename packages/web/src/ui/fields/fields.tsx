import {
  NAME_ABOUT,
  NAME_PATTERN,
  SEED,
  TITLE_LENGTH,
  type NumberSpec,
} from '@crooked-lantern/core';
import type { ReactNode } from 'react';
import { ChevronDown } from 'lucide-react';
import {
  Autocomplete,
  Input,
  ListBox,
  ListBoxItem,
  Select,
  SelectValue,
  useFilter,
} from 'react-aria-components';
import styled from 'styled-components';
import { QuietButton, Toggle } from '../button.tsx';
import { Search } from './choose-from.tsx';
import { openedEntry, openedList, Surface } from '../overlays/menu.tsx';
import { NumberText, OptionalNumberText } from './number-text.tsx';

/** Rows of a form: what it is on the left, its value on the right. */
export const Rows = styled.dl`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 3px 10px;
  margin: 10px 0;
  align-items: start;
  dt {
    padding-top: 1px;
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
    <Row label={label}>
      <NumberText
        label={`${label} of ${of}`}
        about={spec.about}
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

/** It stands among words. */
const InLine = styled(Select)`
  display: inline-block;
`;

const Options = styled(ListBox)`
  ${openedList}
  ${Search} + & {
    margin-top: 4px;
  }
`;

const OneOption = styled(ListBoxItem)`
  ${openedEntry}
  &[data-selected] {
    font-weight: 600;
  }
`;

/** So many are seen at a glance; among more, one is found by typing. */
const MOST_AT_A_GLANCE = 15;

/** One of several; `value` is the id of the one in force. */
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
  const { contains } = useFilter({ sensitivity: 'base' });
  const shown = options.find(({ id }) => id === value)?.title ?? (value || '—');
  const list = (
    <Options renderEmptyState={() => 'None says that.'}>
      {options.map(({ id, title }) => (
        <OneOption key={id} id={id} textValue={title}>
          {title}
        </OneOption>
      ))}
    </Options>
  );
  return (
    <InLine
      aria-label={label}
      selectedKey={value}
      onSelectionChange={(key) => key !== null && onChoose(String(key))}
    >
      <QuietButton style={{ minHeight: 24 }}>
        <SelectValue>{shown}</SelectValue>
        <ChevronDown size={12} aria-hidden />
      </QuietButton>
      <Surface placement="bottom start">
        {options.length <= MOST_AT_A_GLANCE ? (
          list
        ) : (
          <Autocomplete filter={contains}>
            <Search aria-label={`Find in: ${label}`} autoFocus>
              <Input placeholder="Type part of it" />
            </Search>
            {list}
          </Autocomplete>
        )}
      </Surface>
    </InLine>
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
  return text.trim() === '' || text.length > TITLE_LENGTH
    ? `It takes 1 to ${TITLE_LENGTH} characters.`
    : null;
}

/** Why a text can't be the name of something in the file; null where it can. */
export function checkName(current: string, taken: object) {
  return (text: string): string | null => {
    if (text === current) return null;
    if (!NAME_PATTERN.test(text)) return `It takes ${NAME_ABOUT}.`;
    return Object.hasOwn(taken, text) ? 'This name is taken.' : null;
  };
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
