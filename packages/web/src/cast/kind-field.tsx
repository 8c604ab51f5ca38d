import { usualNumber, type FieldSpecs, type NumberSpec } from '@crooked-lantern/core';
import { Undo2 } from 'lucide-react';
import styled from 'styled-components';
import { TierValues } from '../project/tier-values.tsx';
import { QuietButton } from '../ui/button.tsx';
import { ChoiceField, NumberField, type Option } from '../ui/fields/fields.tsx';
import { valueAt, type FieldPath } from './kind-values.ts';
import type { KindEditor } from './use-cast.ts';

const Own = styled.span`
  margin-left: 4px;
  color: var(--found);
  white-space: nowrap;
  button {
    min-height: 24px;
    color: inherit;
  }
`;

/** That an agent differs from its archetype in a field, and the way back. */
export function OwnMark({
  editor,
  path,
  label,
  usual,
}: {
  editor: KindEditor;
  path: FieldPath;
  label: string;
  /** What the archetype has. */
  usual: string;
}) {
  if (!editor.base || !editor.isOwn(path)) return null;
  const title = `${label} of ${editor.of} is its own; ${editor.base.title} has ${usual}. Go back to that`;
  return (
    <Own>
      own
      <QuietButton aria-label={title} onPress={() => editor.put(path, undefined)}>
        <Undo2 size={12} /> {usual}
      </QuietButton>
    </Own>
  );
}

export interface KindNumberProps {
  path: FieldPath;
  spec: NumberSpec;
}

/** The fields of one part of a kind, as the model says them. */
export function kindNumbers(part: readonly string[], specs: FieldSpecs): KindNumberProps[] {
  return Object.entries(specs).flatMap(([field, spec]) =>
    spec.kind === 'number' ? [{ path: [...part, field] as unknown as FieldPath, spec }] : [],
  );
}

export function KindNumber({ editor, path, spec }: KindNumberProps & { editor: KindEditor }) {
  const part = path.length > 1 ? (valueAt(editor.kind, [path[0]]) as object) : editor.kind;
  const usual = usualNumber(spec, part);
  const { label, none, unit } = spec;
  const text = (value: unknown) =>
    value === undefined && Number.isNaN(usual)
      ? (none ?? '—')
      : `${String(value ?? usual)}${unit ? ` ${unit}` : ''}`;
  const value = valueAt(editor.kind, path) as number | undefined;
  return (
    <NumberField
      spec={spec}
      of={editor.of}
      value={value ?? (Number.isNaN(usual) ? undefined : usual)}
      onCommit={(next) => editor.put(path, next === usual && !editor.base ? undefined : next)}
    >
      {none !== undefined && value !== undefined && !editor.base && (
        <QuietButton
          aria-label={`${label} of ${editor.of}: ${none}`}
          style={{ minHeight: 24 }}
          onPress={() => editor.put(path, undefined)}
        >
          {none}
        </QuietButton>
      )}
      <TierValues path={`${editor.path}.${path.join('.')}`} />
      <OwnMark
        editor={editor}
        path={path}
        label={label}
        usual={text(valueAt(editor.base ?? {}, path))}
      />
    </NumberField>
  );
}

export function KindChoice({
  editor,
  path,
  label,
  options,
  none,
}: {
  editor: KindEditor;
  path: FieldPath;
  label: string;
  options: readonly Option[];
  /** The name of having none, where that can be chosen. */
  none?: string;
}) {
  const title = (value: unknown) =>
    options.find(({ id }) => id === value)?.title ??
    (value === undefined ? (none ?? '—') : String(value));
  const value = valueAt(editor.kind, path) as string | undefined;
  // An agent can have another, but can't be without what its archetype has.
  const withNone = none !== undefined && (!editor.base || valueAt(editor.base, path) === undefined);
  return (
    <ChoiceField
      label={label}
      of={editor.of}
      value={value ?? ''}
      options={withNone ? [{ id: '', title: none }, ...options] : options}
      onChoose={(id) => editor.put(path, id === '' ? undefined : id)}
    >
      <OwnMark
        editor={editor}
        path={path}
        label={label}
        usual={title(valueAt(editor.base ?? {}, path))}
      />
    </ChoiceField>
  );
}
